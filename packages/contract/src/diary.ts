import { readiness } from './classes'
import { day } from './fields'
import { itemIdentity, stockUnit } from './stock'
import { z } from './zod'

export const diaryWanted = z.object({ from: day('Give a day.'), to: day('Give a day.') })

/** What is promised and what comes, day by day. */
export const diary = z.array(
  z.object({
    kind: z.enum(['class', 'order', 'batch', 'delivery']),
    id: z.number(),
    title: z.string(),
    on: z.string(),
    /** By the clock on the wall; null for what is of a whole day. */
    beginsAt: z.string().nullable(),
    /** How long and where a class is held; null for all else. */
    minutes: z.number().nullable(),
    place: z.string().nullable(),
    detail: z.string(),
    readiness,
    page: z.string(),
    /** The last day to order what is short, and to begin packing. */
    buyBy: z.string().nullable(),
    packBy: z.string().nullable(),
  }),
)
export type Diary = z.infer<typeof diary>

/** What is to be done next, each a line that opens where it is done. */
export const bench = z.array(
  z.object({
    kind: z.enum(['buy', 'receive', 'reserve', 'pack', 'close', 'plan', 'teach', 'hand over', 'count', 'low']),
    text: z.string(),
    detail: z.string(),
    /** When it must be done; null where it only should be. */
    by: z.string().nullable(),
    page: z.string(),
  }),
)
export type Bench = z.infer<typeof bench>

/** What is to be fetched from the shelf for the packing of the next days, place by place: one walk. */
export const fetchList = z.object({
  /** Packing that has to begin by then is counted. */
  until: z.string(),
  batches: z.array(z.object({ id: z.number(), name: z.string() })),
  places: z.array(
    z.object({
      /** Empty where the shop has not said where it lies. */
      place: z.string(),
      tubes: z.array(
        z.object({
          lotId: z.number(),
          lot: z.string(),
          item: itemIdentity,
          unit: stockUnit,
          quantity: z.number(),
          bags: z.number(),
        }),
      ),
    }),
  ),
})
export type FetchList = z.infer<typeof fetchList>

export const costSettings = z.object({
  packaging: z.number().int().min(0).max(100_000),
  printing: z.number().int().min(0).max(100_000),
  packingMinutes: z.number().min(0).max(600),
  wage: z.number().int().min(0).max(100_000),
  waste: z.number('A share, such as 0.05.').min(0, 'It cannot be below 0.').max(1, 'At most 100 %.'),
  margin: z.number('A share, such as 0.45.').min(0, 'It cannot be below 0.').max(0.95, 'A margin is at most 95 %.'),
  teaching: z.number().int().min(0).max(1_000_000),
  /** Prices that are suggested are whole multiples of this, in minor units of money. */
  roundTo: z.number().int().min(1, 'At least 1.').max(10_000).default(10),
})

/** What each line's kits cost and ask, by the lots they are filled from or else by the packs that are bought. */
export const batchPrice = z.object({
  byLots: z.boolean(),
  lines: z.array(
    z.object({
      materials: z.number(),
      waste: z.number(),
      packaging: z.number(),
      printing: z.number(),
      packing: z.number(),
      cost: z.number(),
      price: z.number(),
      unpriced: z.array(z.string()),
    }),
  ),
  cost: z.number(),
  price: z.number(),
  /** Were all of it bought anew in whole packs: beads and thread of a kit, for the batch as it is and for larger ones. */
  boughtAnew: z.array(z.object({ times: z.number(), kits: z.number(), materials: z.number() })),
})
export type BatchPrice = z.infer<typeof batchPrice>
