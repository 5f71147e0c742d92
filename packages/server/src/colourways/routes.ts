import { saveColourway } from '@tessellum/contract/colourways'
import { eq } from 'drizzle-orm'
import { Router } from 'express'
import { logActivity } from '../audit/log'
import { mount } from '../http/mount'
import { readId, readInput } from '../http/read-input'
import { idempotencyKeyOrNew } from '../idempotency/request-key'
import { runOnce } from '../idempotency/run-once'
import { notFound } from '../problem'
import { colourway } from '../schema/colourways'
import type { Shop } from '../shop'
import { addVersion, explain, findColourway, listColourways, makeColourway, renameColourway } from './store'

export function colourwayRoutes({ db }: Shop): Router {
  const router = Router()

  mount(router, 'GET /api/patterns/:id/colourways', (request) =>
    listColourways(db, readId(request.params.id, 'pattern')),
  )

  mount(router, 'POST /api/patterns/:id/colourways', async (request, _, caller) => {
    const patternId = readId(request.params.id, 'pattern')
    const { name, choices } = readInput(saveColourway, request.body)
    try {
      return await runOnce(db, idempotencyKeyOrNew(request), `colourway of ${patternId}`, caller, async (tx) => {
        const id = await makeColourway(tx, patternId, name, choices, caller.id)
        await logActivity(tx, caller.id, `began the colourway ${name}`, `/patterns/${patternId}/colours`)
        return withoutVersionId(await findColourway(tx, id))
      })
    } catch (error) {
      throw explain(error, name)
    }
  })

  mount(router, 'PUT /api/colourways/:id', async (request, _, caller) => {
    const id = readId(request.params.id, 'colourway')
    const { name, choices } = readInput(saveColourway, request.body)
    try {
      return await runOnce(db, idempotencyKeyOrNew(request), `colourway ${id}`, caller, async (tx) => {
        const [row] = await tx.select().from(colourway).where(eq(colourway.id, id)).for('update')
        if (!row) throw notFound('colourway')
        if (row.name !== name) await renameColourway(tx, id, name)
        await addVersion(tx, id, choices, caller.id)
        await logActivity(tx, caller.id, `changed the colourway ${name}`, `/patterns/${row.patternId}/colours`)
        return withoutVersionId(await findColourway(tx, id))
      })
    } catch (error) {
      throw explain(error, name)
    }
  })

  mount(router, 'GET /api/colourways/:id/versions/:number', async (request) => {
    const id = readId(request.params.id, 'colourway')
    return withoutVersionId(await findColourway(db, id, readId(request.params.number, 'version')))
  })

  return router
}

const withoutVersionId = ({ versionId: _, ...rest }: Awaited<ReturnType<typeof findColourway>>) => rest
