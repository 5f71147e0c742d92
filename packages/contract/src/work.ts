import { z } from './zod'

/** How far it has come, what somebody waits for. */
export const workState = z.object({
  /** Others' work that goes before. */
  ahead: z.number(),
  /** Of what is being worked out, from 0 to 1; 0 where that is not known. */
  done: z.number(),
})
