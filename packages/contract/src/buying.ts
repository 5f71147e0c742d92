import { z } from 'zod'
import { stockUnit } from './stock'

export const buyWanted = z.object({
  /** Batches due up to this day; all when absent. */
  until: z.iso.date('Give a day.').optional(),
})

/** What is to be bought of one item so that every open batch can be filled. */
export const buyLine = z.object({
  itemId: z.number(),
  name: z.string(),
  colour: z.string(),
  unit: stockUnit,
  supplier: z.string(),
  short: z.number(),
  packs: z.array(z.object({ amount: z.number(), price: z.number(), count: z.number() })),
  /** What the packs hold; 0 where the item is sold in no pack that is known. */
  amount: z.number(),
  cost: z.number(),
  /** When the first batch that goes short is due. */
  neededOn: z.string(),
  /** The last day to order, with the longest lead time of the packs and days to pack. */
  orderBy: z.string(),
  batches: z.array(z.object({ id: z.number(), name: z.string() })),
})
export type BuyLine = z.infer<typeof buyLine>

/** A delivery: a lot of its own, so that its dye lot is kept apart. */
export const newLot = z.object({
  code: z
    .string('Give the lot a code.')
    .trim()
    .min(1, 'Give the lot a code.')
    .max(60, 'A code has at most 60 letters.'),
  receivedOn: z.iso.date('Give the day it came.'),
  quantity: z
    .number('Give a quantity.')
    .int('A quantity is a whole number of mg, mm or pieces.')
    .min(1, 'A delivery has something in it.')
    .max(1_000_000_000, 'That is more than a shop holds.'),
  reason: z.string().trim().max(200, 'A reason has at most 200 letters.').default('delivery'),
})
export type NewLot = z.input<typeof newLot>
