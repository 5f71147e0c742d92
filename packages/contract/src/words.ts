import { languageCodes } from '@tessellum/core/writing/language'
import { z } from './zod'

export const stepKey = z.object({
  part: z.string().max(120),
  text: z.string().min(1).max(400),
  nth: z.number().int().min(1).max(100_000),
})

/** A designer's own words for a step: in place of the sentence, or after it. */
export const stepWords = stepKey.extend({
  language: z.enum(languageCodes),
  instead: z.string().trim().max(4000, 'At most 4,000 letters for a step.').default(''),
  also: z.string().trim().max(4000, 'At most 4,000 letters for a step.').default(''),
})
export type StepWords = z.infer<typeof stepWords>

/** Both empty takes the words away. `from`: the step they were for before, when they are given to another. */
export const saveWords = stepWords.extend({ from: stepKey.optional() })
export type SaveWords = z.input<typeof saveWords>
