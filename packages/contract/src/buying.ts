import { day, recordId } from './fields'
import { itemIdentity, packs, stockUnit } from './stock'
import { z } from './zod'

export const buyWanted = z.object({
  /** Batches due up to this day; all when absent. */
  until: day('Give a day.').optional(),
})

/** What is to be bought of one item so that every open batch can be filled, and it does not run low. */
export const buyLine = z.object({
  itemId: z.number(),
  name: z.string(),
  item: itemIdentity,
  unit: stockUnit,
  supplier: z.string(),
  /** On the shelf, and promised to nobody. */
  free: z.number(),
  /** What all drafts take of it. */
  planned: z.number(),
  reorderBelow: z.number(),
  /** What open batches go without. */
  short: z.number(),
  /** What is wanting to its reorder level when they are filled and all that is ordered has come. */
  low: z.number(),
  packs: z.array(z.object({ amount: z.number(), price: z.number(), leadDays: z.number(), count: z.number() })),
  /** What the packs hold; 0 where the item is sold in no pack that is known. */
  amount: z.number(),
  cost: z.number(),
  /** When the first batch that goes short is due; null where none does. */
  neededOn: z.string().nullable(),
  /** The last day to order, with the longest lead time of the packs and days to pack; null where nothing waits for it. */
  orderBy: z.string().nullable(),
  /** Ordered already, and expected in time; taken off what is to be bought. */
  coming: z.number(),
  batches: z.array(z.object({ id: z.number(), name: z.string(), dueOn: z.string() })),
})
export type BuyLine = z.infer<typeof buyLine>

/** A delivery: a lot of its own, so that its dye lot is kept apart. */
export const newLot = z.object({
  code: z
    .string('Give the lot a code.')
    .trim()
    .min(1, 'Give the lot a code.')
    .max(60, 'A code has at most 60 letters.'),
  receivedOn: day('Give the day it came.'),
  quantity: z
    .number('Give a quantity.')
    .int('A quantity is a whole number of mg, mm or pieces.')
    .min(1, 'A delivery has something in it.')
    .max(1_000_000_000, 'That is more than a shop holds.'),
  reason: z.string().trim().max(200, 'A reason has at most 200 letters.').default('delivery'),
  place: z.string().trim().max(60, 'A place has at most 60 letters.').optional(),
  supplier: z.string().trim().max(80, 'A supplier has at most 80 letters.').default(''),
  /** Of all of it, in minor units of money. */
  cost: z.number().int().min(0, 'A cost cannot be below 0.').optional(),
})
export type NewLot = z.input<typeof newLot>

/** Packs that are ordered of one item: coming, until they are here. */
export const newPurchase = z.object({
  itemId: recordId('Choose an item.'),
  supplier: z
    .string('Name the supplier.')
    .trim()
    .min(1, 'Name the supplier.')
    .max(80, 'A supplier has at most 80 letters.'),
  amount: z
    .number('Give how much.')
    .int('A quantity is a whole number of mg, mm or pieces.')
    .min(1, 'Enter a quantity above 0.')
    .max(1_000_000_000, 'That is more than a shop holds.'),
  cost: z.number('Give what it costs.').int('In pence or cents.').min(0, 'A cost cannot be below 0.').max(100_000_000),
  expectedOn: day('Give the day it should come.'),
})
export type NewPurchase = z.infer<typeof newPurchase>

/** What has come of a purchase. */
export const receivePurchase = z.object({
  code: newLot.shape.code,
  receivedOn: newLot.shape.receivedOn,
  quantity: newLot.shape.quantity,
  place: z.string().trim().max(60, 'A place has at most 60 letters.').optional(),
  /** Of an order that came in part: whether the rest is still on its way. */
  restComing: z.boolean().optional(),
})
export type ReceivePurchase = z.infer<typeof receivePurchase>

export const purchase = z.object({
  id: z.number(),
  itemId: z.number(),
  name: z.string(),
  item: itemIdentity,
  unit: stockUnit,
  supplier: z.string(),
  amount: z.number(),
  cost: z.number(),
  orderedOn: z.string(),
  expectedOn: z.string(),
  orderedBy: z.string(),
})
export type Purchase = z.infer<typeof purchase>

/** What a supplier asks for an item today, beside what is kept; or why it cannot be had. */
export const quote = z.object({
  itemId: z.number(),
  packs: z.array(z.object({ amount: z.number(), price: z.number(), leadDays: z.number() })),
  changed: z.boolean(),
  trouble: z.string().nullable(),
})
export type Quote = z.infer<typeof quote>

export const askQuotes = z.object({ itemIds: z.array(recordId()).min(1).max(100) })

/** The packs an item is bought in from now on. */
export const takePrices = z.object({ packs })
