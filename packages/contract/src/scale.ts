import { z } from 'zod'

/** What a page is told of the scale: a reading, or why there is none. */
export const scaleNews = z.union([
  z.object({ mg: z.number(), steady: z.boolean() }),
  z.object({ gone: z.enum(['none', 'unreachable', 'silent', 'unclear', 'over']) }),
])
export type ScaleNews = z.infer<typeof scaleNews>

/** Plays the stand-in of the demo: what lies on its pan, and what is wrong with it. */
export const playScale = z.object({
  grams: z.number().min(0).max(9999).optional(),
  fault: z.enum(['rubbish', 'silent', 'drift', 'shaking', 'overload']).optional(),
  on: z.boolean().optional(),
  drop: z.boolean().optional(),
})
export type PlayScale = z.infer<typeof playScale>
