import { Router } from 'express'
import { layOutAgain } from '../batches/revise'
import { mount } from '../http/mount'
import { runOnce } from '../idempotency/run-once'
import type { Shop } from '../shop'
import { returnKit } from './kits'
import { lose, swap } from './losses'
import { close, empty, fill, packingOf } from './store'

export function packingRoutes(shop: Shop): Router {
  const { db } = shop
  const router = Router()

  mount(router, 'GET /api/batches/:id/packing', ({ params }) => packingOf(db, params.id))

  // A bag is filled with what it holds: sent twice, it holds the same.
  mount(router, 'PUT /api/batches/:id/bags', async ({ params: { id }, body, caller }) => {
    await runOnce(db, caller, `fill ${id}`, async (tx, actor) => {
      await fill(tx, body, { batchId: id, ...actor })
      return { id }
    })
    return packingOf(db, id)
  })
  mount(router, 'POST /api/batches/:id/bags/empty', async ({ params: { id }, body, caller }) => {
    await runOnce(db, caller, `empty ${id}`, async (tx, actor) => {
      await empty(tx, body, { batchId: id, ...actor })
      return { id }
    })
    return packingOf(db, id)
  })

  mount(router, 'POST /api/batches/:id/losses', async ({ params: { id }, body, caller }) => {
    await runOnce(db, caller, `lose ${id}`, async (tx, actor) => {
      await lose(tx, body, { batchId: id, ...actor })
      return { id }
    })
    // What has lost its promise is looked for in other lots; where there is none, it stays open.
    await layOutAgain(shop, id, caller, `${caller.idempotency.key}-again`)
    return packingOf(db, id)
  })
  mount(router, 'POST /api/batches/:id/swaps', async ({ params: { id }, body, caller }) => {
    await runOnce(db, caller, `swap ${id}`, async (tx, actor) => {
      await swap(tx, body, { batchId: id, ...actor })
      return { id }
    })
    return packingOf(db, id)
  })
  mount(router, 'POST /api/batches/:id/returns', async ({ params: { id }, body, caller }) => {
    await runOnce(db, caller, `return ${id}`, async (tx, actor) => {
      await returnKit(tx, body, { batchId: id, ...actor })
      return { id }
    })
    return packingOf(db, id)
  })
  mount(router, 'POST /api/batches/:id/close', async ({ params: { id }, caller }) => {
    await runOnce(db, caller, `close ${id}`, async (tx, actor) => {
      await close(tx, { batchId: id, ...actor })
      return { id }
    })
    return packingOf(db, id)
  })

  return router
}
