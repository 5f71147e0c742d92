import { z } from './zod'

/** What a page is told of the scale: a reading, or why there is none. */
export const scaleNews = z.union([
  z.object({ mg: z.number(), steady: z.boolean() }),
  z.object({ gone: z.enum(['none', 'unreachable', 'silent', 'unclear', 'over']) }),
])
export type ScaleNews = z.infer<typeof scaleNews>
