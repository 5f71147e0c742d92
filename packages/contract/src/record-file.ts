import { z } from './zod'

/** What a file of records would do, or has done. */
export const recordFileOutcome = z.object({
  rows: z.number(),
  added: z.number(),
  changed: z.number(),
  same: z.number(),
  faults: z.array(z.object({ row: z.number(), column: z.string(), message: z.string() })),
  done: z.boolean(),
})
export type RecordFileOutcome = z.infer<typeof recordFileOutcome>
