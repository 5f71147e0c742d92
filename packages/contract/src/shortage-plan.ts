import { countings } from '@tessellum/core/sizing/counting'
import { recordId } from './fields'
import { itemIdentity } from './stock'
import { z } from './zod'

const choices = z
  .array(z.object({ role: z.string().min(1).max(40), itemId: recordId(), counting: z.enum(countings) }))
  .min(1)
  .max(40)

/** How the drafts that take a bead which is short are best made with what is there. */
export const shortagePlan = z.object({
  itemId: z.number(),
  item: itemIdentity,
  name: z.string(),
  proven: z.boolean(),
  lines: z.array(
    z.object({
      lineId: z.number(),
      batchId: z.number(),
      batchName: z.string(),
      of: z.string(),
      wanted: z.number(),
      /** Kits that are made when nothing stands in. */
      without: z.number(),
      /** Kits that are made as planned when something stands in where it must. */
      asPlanned: z.number(),
      ways: z.array(
        z.object({
          kits: z.number(),
          itemId: z.number(),
          name: z.string(),
          item: itemIdentity,
          /** How much of a change it is; CIEDE2000 in tenths and what another kind, size or finish adds. */
          distance: z.number(),
          choices,
        }),
      ),
    }),
  ),
})
export type ShortagePlan = z.infer<typeof shortagePlan>

/** Substitutions accepted for one batch. */
export const acceptSubstitutes = z.object({
  substitutes: z
    .array(z.object({ lineId: recordId(), kits: z.number().int().min(1), choices }))
    .min(1, 'Choose what stands in.')
    .max(200),
})
export type AcceptSubstitutes = z.infer<typeof acceptSubstitutes>
