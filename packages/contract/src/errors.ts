import { z } from './zod'

/** The one shape of everything the server refuses. */
export const apiError = z.object({
  /** For programs: "short-of-stock", "not-signed-in"... */
  code: z.string(),
  /** For people: what is wrong. */
  message: z.string(),
  /** Which part of the request is to blame, as "lines.0.kits". */
  path: z.string().optional(),
  /** How to mend it. */
  hint: z.string().optional(),
})
export type ApiError = z.infer<typeof apiError>
