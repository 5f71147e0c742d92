import { and, desc, eq, ilike, lt, or } from 'drizzle-orm'
import { Router } from 'express'
import type { Database } from '../database/connect'
import { likeAnywhere } from '../database/paging'
import { mount } from '../http/mount'
import { auditEntry } from '../schema/audit'
import { person } from '../schema/people'

const shown = 100

export function auditRoutes({ db }: { readonly db: Database }): Router {
  const router = Router()
  mount(router, 'GET /api/audit', async ({ query: { before, find } }) => {
    const like = likeAnywhere(find)
    const rows = await db
      .select({
        id: auditEntry.id,
        at: auditEntry.at,
        by: person.fullName,
        what: auditEntry.what,
        page: auditEntry.page,
      })
      .from(auditEntry)
      .innerJoin(person, eq(person.id, auditEntry.personId))
      .where(
        and(
          before === undefined ? undefined : lt(auditEntry.id, before),
          find ? or(ilike(auditEntry.what, like), ilike(person.fullName, like)) : undefined,
        ),
      )
      .orderBy(desc(auditEntry.id))
      .limit(shown + 1)
    const entries = rows.slice(0, shown).map(({ at, ...row }) => ({ ...row, at: at.toISOString() }))
    return { entries, more: rows.length > shown }
  })
  return router
}
