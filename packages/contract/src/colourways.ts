import { countings } from '@tessellum/core/sizing/counting'
import { recordId } from './fields'
import { z } from './zod'

/** One role's item; `size` "" for every size, or the one size it is for (a stone is another item in each size). */
export const choice = z.object({
  role: z.string().min(1).max(40),
  size: z.string().max(60).default(''),
  itemId: recordId(),
  /** Which counts follow its bead, where it is not the one the pattern was written for. */
  counting: z.enum(countings).default('all'),
  /** 0 for what is chosen; from 1 what may stand in for it where the shelf is short, nearest first. */
  rank: z.number().int().min(0).max(9).default(0),
})
export type Choice = z.infer<typeof choice>

export const colourway = z.object({
  id: z.number(),
  patternId: z.number(),
  name: z.string(),
  /** Rises with each change; batches keep the one they were planned with. */
  version: z.number(),
  /** The batch it is for and nobody else; null for a version of everybody's. */
  batchId: z.number().nullable(),
  choices: z.array(choice),
})
export type Colourway = z.infer<typeof colourway>

export const saveColourway = z.object({
  name: z
    .string('Name the colourway.')
    .trim()
    .min(1, 'Name the colourway.')
    .max(80, 'A colourway has a name of at most 80 letters.'),
  choices: z.array(choice).max(500, 'A colourway has at most 500 choices.'),
})
export type SaveColourway = z.input<typeof saveColourway>

/** A pattern's drawing as the shop keeps it, in the colours that were chosen, by role. */
export const drawnIn = z.object({
  patternId: z.number(),
  digest: z.string(),
  colours: z.record(z.string(), z.string()),
})
export type DrawnIn = z.infer<typeof drawnIn>
