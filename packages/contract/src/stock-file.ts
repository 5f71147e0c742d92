import { z } from './zod'

/** What a file of stock would do, or has done: nothing at all while it has faults. */
export const stockFileOutcome = z.object({
  rows: z.number(),
  faults: z.array(z.object({ row: z.number(), column: z.string(), message: z.string() })),
  /** Faults there are beyond those told. */
  moreFaults: z.number(),
  newItems: z.array(z.string()),
  changedItems: z.array(z.object({ code: z.string(), changes: z.array(z.string()) })),
  sameItems: z.number(),
  newLots: z.array(z.string()),
  /** Lots that are there already with another quantity than the file's: left to a stocktake. */
  otherQuantities: z.array(z.string()),
  done: z.boolean(),
})
export type StockFileOutcome = z.infer<typeof stockFileOutcome>

export const fileFormat = z.enum(['csv', 'xlsx'])
export const stockFileWanted = z.object({ format: fileFormat.default('csv') })
