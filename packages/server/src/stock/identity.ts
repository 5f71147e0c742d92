import type { ItemIdentity } from '@tessellum/contract/stock'

/** Of an item, or of the table's columns, what it is told from others by, and nothing else. */
export const identityOf = <T extends Record<keyof ItemIdentity, unknown>>({
  id,
  category,
  kind,
  size,
  colourCode,
  colourName,
  finish,
  colour,
  place,
}: T): Pick<T, keyof ItemIdentity> => ({ id, category, kind, size, colourCode, colourName, finish, colour, place })
