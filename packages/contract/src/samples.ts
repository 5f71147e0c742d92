import { recordId } from './fields'
import { z } from './zod'

/** A sample that was stitched: what it really took, against what was computed for it. */
export const newSample = z.object({
  /** Of the version that was stitched; null for the draft. */
  version: recordId().nullable(),
  size: z.string().trim().max(60, 'A size has at most 60 letters.'),
  minutes: z
    .number('Say how many minutes it took.')
    .int('Give whole minutes.')
    .min(1, 'A sample takes a minute at least.')
    .max(60_000, 'That is more than a thousand hours; check the minutes.'),
  threadMm: z
    .number('Say how much thread was used.')
    .min(1, 'Say how much thread was used.')
    .max(1_000_000, 'That is more than a kilometre; check the thread.'),
  note: z.string().trim().max(500, 'A note has at most 500 letters.').default(''),
})
export type NewSample = z.input<typeof newSample>

export const sample = z.object({
  id: z.number(),
  version: z.number().nullable(),
  size: z.string(),
  minutes: z.number(),
  threadMm: z.number(),
  /** What was computed with ends and take-up, when it was logged. */
  computedMm: z.number(),
  computedMinutes: z.number(),
  /** That most of the piece is worked in. */
  technique: z.string(),
  note: z.string(),
  madeAt: z.string(),
  madeBy: z.string(),
})
export type Sample = z.infer<typeof sample>

const spread = z.object({ count: z.number(), median: z.number(), least: z.number(), most: z.number() })

/** The samples of a pattern, and what all samples show of the technique it is worked in. */
export const samples = z.object({
  samples: z.array(sample),
  technique: z.string(),
  /** Actual / computed, over all patterns of the technique; null without samples. */
  thread: spread.nullable(),
  minutes: spread.nullable(),
  /** What the thread plan is corrected by; a count of 0 means it is not. */
  correction: z.object({ ratio: z.number(), count: z.number() }),
})
export type Samples = z.infer<typeof samples>
