import type { ItemIdentity } from '@tessellum/contract/stock'

/** What tells an item from others, beside its colour and its swatch: "cylinder 11/0, opaque, BC-101, Drawer 2". */
export const itemWords = ({ category, kind, size, finish, colourCode, place }: ItemIdentity): readonly string[] =>
  [category === 'kit' ? `kit${size && `, ${size}`}` : `${kind} ${size}`.trim(), finish, colourCode, place].filter(
    Boolean,
  )
