import { plainCells } from '@tessellum/core/stock/stock-spreadsheet'
import { fileName } from '@tessellum/core/writing/file-name'
import { Router } from 'express'
import { mount, sent } from '../http/mount'
import { competingDrafts } from '../planning/competing'
import { couldMakeOf } from '../planning/could-make'
import { outlookFor } from '../planning/outlook'
import { shortagePlanFor } from '../planning/shortage-plan'
import type { Shop } from '../shop'
import { billRows } from './bill-rows'
import {
  beginBatch,
  changeTurn,
  giveBack,
  planBatchAgain,
  reserveBatch,
  substitute,
  substituteInLine,
} from './commands'
import { resolveLines } from './lines'
import { layOutAgain, reviseBatch } from './revise'
import { findBatch, listBatches } from './store'

export function batchRoutes(shop: Shop): Router {
  const { db } = shop
  const router = Router()

  mount(router, 'GET /api/batches', () => listBatches(db))
  mount(router, 'GET /api/batches/competing', () => competingDrafts(shop))
  mount(router, 'GET /api/items/:id/shortage-plan', ({ params }) => shortagePlanFor(shop, params.id))

  mount(router, 'POST /api/batches', async ({ body, caller }) => findBatch(shop, await beginBatch(shop, body, caller)))
  mount(router, 'POST /api/batches/outlook', async ({ body: { lines, batchId } }) =>
    outlookFor(shop, await resolveLines(db, lines, batchId), batchId),
  )
  mount(router, 'POST /api/batches/could-make', async ({ body }) =>
    couldMakeOf(shop, await resolveLines(db, body.lines)),
  )

  mount(router, 'GET /api/batches/:id', ({ params }) => findBatch(shop, params.id))
  mount(router, 'GET /api/batches/:id/file', async ({ params, query: { format }, response }) => {
    const batch = await findBatch(shop, params.id)
    const rows = plainCells(billRows(batch))
    const bytes = await shop.workers.run('writeTable', { rows, format, name: 'Bill' })
    response.attachment(fileName(`${batch.name} bill`, format)).send(Buffer.from(bytes))
    return sent
  })

  mount(router, 'PUT /api/batches/:id', async ({ params: { id }, body, caller }) => {
    await changeTurn(shop, id, body, caller)
    return findBatch(shop, id)
  })

  const answered = async (id: number, toEmpty: string[]) => ({ ...(await findBatch(shop, id)), toEmpty })
  mount(router, 'PUT /api/batches/:id/lines', async ({ params: { id }, body: { lines, ...turn }, caller }) =>
    answered(id, await reviseBatch(shop, id, await resolveLines(db, lines, id), caller, turn)),
  )
  mount(router, 'POST /api/batches/:id/lines/:line/substitute', async ({ params, body: { kits, ...choice }, caller }) =>
    answered(params.id, await substituteInLine(shop, params.id, params.line, { kits, choices: [choice] }, caller)),
  )
  mount(router, 'POST /api/batches/:id/substitutes', async ({ params: { id }, body, caller }) =>
    answered(id, await substitute(shop, id, body.substitutes, caller)),
  )

  mount(router, 'POST /api/batches/:id/reserve', async ({ params: { id }, caller }) => {
    await reserveBatch(shop, id, caller)
    return findBatch(shop, id)
  })
  mount(router, 'POST /api/batches/:id/lay-out', async ({ params: { id }, caller }) => {
    await layOutAgain(shop, id, caller)
    return findBatch(shop, id)
  })
  mount(router, 'POST /api/batches/:id/plan-again', async ({ params: { id }, caller }) => {
    await planBatchAgain(shop, id, caller)
    return findBatch(shop, id)
  })
  mount(router, 'POST /api/batches/:id/release', async ({ params: { id }, caller }) => {
    await giveBack(shop, id, 'draft', caller)
    return findBatch(shop, id)
  })
  mount(router, 'POST /api/batches/:id/cancel', async ({ params: { id }, caller }) => {
    await giveBack(shop, id, 'cancelled', caller)
    return findBatch(shop, id)
  })

  return router
}
