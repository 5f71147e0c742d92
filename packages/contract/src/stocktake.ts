import { recordId } from './fields'
import { itemIdentity, stockUnit } from './stock'
import { z } from './zod'

export const beginStocktake = z.object({
  place: z.string('Say which place.').trim().min(1, 'Say which place.').max(60, 'A place has at most 60 letters.'),
})

export const countLot = z.object({
  /** In the item's unit; null to leave the lot out. */
  counted: z
    .number('Give what is there.')
    .int('A quantity is a whole number of mg, mm or pieces.')
    .min(0, 'There cannot be less than nothing.')
    .max(1_000_000_000, 'That is more than a shop holds.')
    .nullable(),
})
export type CountLot = z.infer<typeof countLot>

/** A tube that the ledger does not know, found where a place is counted. */
export const foundTube = z.object({
  itemId: recordId('Choose what is in it.'),
  code: z.string('Give it a code.').trim().min(1, 'Give it a code.').max(60, 'A code has at most 60 letters.'),
  quantity: z
    .number('Give what is there.')
    .int('A quantity is a whole number of mg, mm or pieces.')
    .min(1, 'There is something in it.')
    .max(1_000_000_000, 'That is more than a shop holds.'),
})
export type FoundTube = z.infer<typeof foundTube>

export const stocktakeState = z.enum(['counting', 'posted', 'abandoned'])

export const stocktakeSummary = z.object({
  id: z.number(),
  place: z.string(),
  state: stocktakeState,
  begunAt: z.string(),
  begunBy: z.string(),
  lots: z.number(),
  counted: z.number(),
})
export type StocktakeSummary = z.infer<typeof stocktakeSummary>

/** A place's stocktake: what the ledger had, what was found, and what the difference costs. */
export const stocktake = stocktakeSummary.extend({
  rows: z.array(
    z.object({
      lotId: z.number(),
      lotCode: z.string(),
      itemId: z.number(),
      name: z.string(),
      item: itemIdentity,
      unit: stockUnit,
      /** In the tube when the place was frozen, by the ledger. */
      frozen: z.number(),
      /** What has moved since then, up to when it was counted, or up to now. */
      moved: z.number(),
      /** In the tube by the ledger when it was counted; now, as long as it is not. */
      expected: z.number(),
      counted: z.number().nullable(),
      countedBy: z.string().nullable(),
      /** Of the difference, in minor units of money; null where the cost is not known. */
      cost: z.number().nullable(),
    }),
  ),
})
export type Stocktake = z.infer<typeof stocktake>

/** Places, with what lies there. */
export const placeSummary = z.object({ place: z.string(), lots: z.number(), counting: z.number().nullable() })
export type PlaceSummary = z.infer<typeof placeSummary>
