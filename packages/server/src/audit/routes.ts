import { type Trail, trailWanted } from '@tessellum/contract/trail'
import { and, desc, eq, ilike, lt, or } from 'drizzle-orm'
import { Router } from 'express'
import type { Database } from '../database/connect'
import { mount } from '../http/mount'
import { readInput } from '../http/read-input'
import { deed } from '../schema/audit'
import { person } from '../schema/people'

const shown = 100

export function trailRoutes({ db }: { readonly db: Database }): Router {
  const router = Router()
  mount(router, 'GET /api/trail', async (request): Promise<Trail> => {
    const { before, find } = readInput(trailWanted, request.query)
    const like = `%${find.replace(/[\\%_]/g, '\\$&')}%`
    const rows = await db
      .select({ id: deed.id, at: deed.at, by: person.fullName, what: deed.what, page: deed.page })
      .from(deed)
      .innerJoin(person, eq(person.id, deed.personId))
      .where(
        and(
          before === undefined ? undefined : lt(deed.id, before),
          find ? or(ilike(deed.what, like), ilike(person.fullName, like)) : undefined,
        ),
      )
      .orderBy(desc(deed.id))
      .limit(shown + 1)
    const deeds = rows.slice(0, shown).map(({ at, ...row }) => ({ ...row, at: at.toISOString() }))
    return { deeds, more: rows.length > shown }
  })
  return router
}
