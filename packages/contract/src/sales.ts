import { customerId } from './customers'
import { day, recordId } from './fields'
import { itemIdentity } from './stock'
import { z } from './zod'

const price = z
  .number('Give a price.')
  .int('In pence or cents.')
  .min(0, 'A price cannot be below 0.')
  .max(100_000_000, 'That is more than a till takes.')
const quantity = z
  .number('Say how much.')
  .int('A quantity is a whole number of mg, mm or pieces.')
  .min(1, 'More than nothing.')
  .max(1_000_000_000, 'That is more than a shop holds.')

/** Something off the shelf, a kit too, in the item's unit; or a pattern, so many copies of a version. The price is of the whole line. */
const saleLine = z.discriminatedUnion('what', [
  z.object({ what: z.literal('item'), itemId: recordId('Choose an item.'), quantity, price }),
  z.object({
    what: z.literal('pattern'),
    patternId: recordId('Choose a pattern.'),
    version: recordId('Choose a version.'),
    quantity,
    price,
  }),
])

export const newSale = z.object({
  customer: z.string().trim().max(80, 'A name has at most 80 letters.').default(''),
  customerId,
  lines: z.array(saleLine).min(1, 'Nothing is being sold yet.').max(60, 'At most 60 lines in one sale.'),
})
export type NewSale = z.input<typeof newSale>

export const returnSold = z.object({
  lines: z
    .array(z.object({ lineId: recordId('Choose a line.'), quantity, refund: price }))
    .min(1, 'Say what comes back.')
    .max(60, 'At most 60 lines at once.')
    .refine((lines) => new Set(lines.map(({ lineId }) => lineId)).size === lines.length, 'Each line once.'),
})
export type ReturnSold = z.input<typeof returnSold>

export const sale = z.object({
  id: z.number(),
  customer: z.string(),
  customerId: z.number().nullable(),
  at: z.string(),
  by: z.string(),
  lines: z.array(
    z.object({
      id: z.number(),
      itemId: z.number().nullable(),
      patternId: z.number().nullable(),
      version: z.number().nullable(),
      /** As it was called when it was sold. */
      name: z.string(),
      unit: z.enum(['mg', 'piece', 'mm']),
      quantity: z.number(),
      price: z.number(),
      /** In the price. */
      tax: z.number(),
      /** What has come back of it, and what was given back for that. */
      returned: z.number(),
      refunded: z.number(),
    }),
  ),
})
export type Sale = z.infer<typeof sale>

/** Of the days from one to another, both with them. */
export const salesWanted = z
  .object({ from: day('Give the first day.'), to: day('Give the last day.') })
  .refine(({ from, to }) => from <= to, { path: ['to'], message: 'The last day is before the first.' })

export const salesOfDays = z.object({
  /** The newest first. */
  sales: z.array(sale),
  /** Taken and given back in those days. */
  taken: z.number(),
  refunded: z.number(),
})
export type SalesOfDays = z.infer<typeof salesOfDays>

/** What to ask for one unit of an item: as the price list says, what it was sold for last, or else what it costs and the margin. */
export const sellingPrice = z.object({
  perUnit: z.number().nullable(),
  from: z.enum(['price list', 'last sale', 'cost and margin']).nullable(),
})

export const saveSellingPrice = z.object({
  /** For a gram, a metre or a piece, in minor units of money; null to ask what it cost and the margin. */
  price: price.nullable(),
})

export const pricesPage = z.object({
  items: z.array(
    z.object({
      id: z.number(),
      name: z.string(),
      code: z.string(),
      item: itemIdentity,
      unit: z.enum(['mg', 'piece', 'mm']),
      /** For a gram, a metre or a piece, in minor units of money. */
      price: z.number().nullable(),
      /** What its cost and the margin would ask; null where the cost is not known. */
      suggested: z.number().nullable(),
    }),
  ),
  next: z.string().nullable(),
})
export type PricesPage = z.infer<typeof pricesPage>
