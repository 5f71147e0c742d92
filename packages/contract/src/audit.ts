import { z } from './zod'

export const auditWanted = z.object({
  /** Entries before this one. */
  before: z.coerce.number().int().min(1).optional(),
  find: z.string().trim().max(100).default(''),
})

/** What people did, newest first. */
export const auditPage = z.object({
  entries: z.array(z.object({ id: z.number(), at: z.string(), by: z.string(), what: z.string(), page: z.string() })),
  more: z.boolean(),
})
export type AuditPage = z.infer<typeof auditPage>
