/** What a whole-shop archive holds, in the order in which it can be put back: who is named comes before who names. */
export const archived = [
  'person',
  'maker',
  'supplier',
  'item',
  'pack',
  'lot',
  'pattern',
  'pattern_version',
  'step_words',
  'picture',
  'picture_file',
  'sample',
  'colourway',
  'batch',
  'colourway_version',
  'batch_colourway',
  'colourway_choice',
  'batch_line',
  'kit_item',
  'customer',
  'sale',
  'sale_line',
  'sale_return',
  'move',
  'bag',
  'bag_return',
  'purchase',
  'stocktake',
  'stocktake_row',
  'class',
  'class_offer',
  'class_day',
  'booking',
  'waiting',
  'customer_order',
  'handover',
  'cost_setting',
  'shop_setting',
  'shop_logo',
  'idempotent_request',
  'audit_entry',
] as const

/** Where a picture's file lies in an archive; the table has its SHA-256. */
export const pictureAt = (pictureId: number, size: string) => `pictures/${pictureId}-${size}.jpg`

/** The format from which on a table is in archives. What is older has nothing for it. */
export const archivedSince: Readonly<Partial<Record<(typeof archived)[number], number>>> = {
  handover: 4,
  shop_setting: 4,
  sale: 4,
  sale_line: 4,
  sale_return: 4,
  shop_logo: 5,
  supplier: 5,
  customer: 5,
  class_day: 5,
  waiting: 5,
  picture: 5,
  picture_file: 5,
}

/** No password leaves the shop, not even as a hash; and what triggers count begins anew. */
export const leftOut: Readonly<Partial<Record<(typeof archived)[number], readonly string[]>>> = {
  person: ['password_hash', 'seal'],
  batch: ['revision'],
  // In files of their own.
  picture_file: ['bytes'],
}

export const archiveFormat = 'tessellum shop'
export const archiveVersion = 5

export interface Manifest {
  readonly format: typeof archiveFormat
  readonly formatVersion: number
  readonly madeAt: string
  /** By table: its rows, and a SHA-256 of its file. */
  readonly tables: Readonly<Record<string, { readonly rows: number; readonly digest: string }>>
  /** What the ledger adds up to, to be found again. */
  readonly checks: { readonly onHand: number; readonly reserved: number; readonly low: number }
}
