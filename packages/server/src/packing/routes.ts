import { emptyBag, fillBag, loseBeads, returnKit as returnKitInput, swapLot } from '@tessellum/contract/packing'
import { type Request, Router } from 'express'
import { layOutAgain } from '../batches/revise'
import { mount } from '../http/mount'
import { readId, readInput } from '../http/read-input'
import { idempotencyKeyOf, idempotencyKeyOrNew } from '../idempotency/request-key'
import { runOnce } from '../idempotency/run-once'
import type { Shop } from '../shop'
import { returnKit } from './kits'
import { lose, swap } from './losses'
import { close, empty, fill, packingOf } from './store'

export function packingRoutes(shop: Shop): Router {
  const { db } = shop
  const router = Router()
  const batchId = (request: Request) => readId(request.params.id, 'batch')

  mount(router, 'GET /api/batches/:id/packing', (request) => packingOf(db, batchId(request)))

  // A bag is filled with what it holds: sent twice, it holds the same.
  mount(router, 'PUT /api/batches/:id/bags', async (request, _, caller) => {
    const id = batchId(request)
    const filling = readInput(fillBag, request.body)
    const key = idempotencyKeyOrNew(request)
    await runOnce(db, key, `fill ${id}`, caller, async (tx) => {
      await fill(tx, filling, { batchId: id, personId: caller.id, idempotencyKey: key })
      return { ok: true }
    })
    return packingOf(db, id)
  })

  mount(router, 'POST /api/batches/:id/bags/empty', async (request, _, caller) => {
    const id = batchId(request)
    const emptied = readInput(emptyBag, request.body)
    const key = idempotencyKeyOrNew(request)
    await runOnce(db, key, `empty ${id}`, caller, async (tx) => {
      await empty(tx, emptied, { batchId: id, personId: caller.id, idempotencyKey: key })
      return { ok: true }
    })
    return packingOf(db, id)
  })

  mount(router, 'POST /api/batches/:id/losses', async (request, _, caller) => {
    const id = batchId(request)
    const key = idempotencyKeyOf(request)
    const lost = readInput(loseBeads, request.body)
    await runOnce(db, key, `lose ${id}`, caller, async (tx) => {
      await lose(tx, lost, { batchId: id, personId: caller.id, idempotencyKey: key })
      return { id }
    })
    // What has lost its promise is looked for in other lots; where there is none, it stays open.
    await layOutAgain(shop, id, caller, `${key}-again`)
    return packingOf(db, id)
  })

  mount(router, 'POST /api/batches/:id/swaps', async (request, _, caller) => {
    const id = batchId(request)
    const key = idempotencyKeyOf(request)
    const swapped = readInput(swapLot, request.body)
    await runOnce(db, key, `swap ${id}`, caller, async (tx) => {
      await swap(tx, swapped, { batchId: id, personId: caller.id, idempotencyKey: key })
      return { id }
    })
    return packingOf(db, id)
  })

  mount(router, 'POST /api/batches/:id/returns', async (request, _, caller) => {
    const id = batchId(request)
    const key = idempotencyKeyOf(request)
    const returned = readInput(returnKitInput, request.body)
    await runOnce(db, key, `return ${id}`, caller, async (tx) => {
      await returnKit(tx, returned, { batchId: id, personId: caller.id, idempotencyKey: key })
      return { id }
    })
    return packingOf(db, id)
  })

  mount(router, 'POST /api/batches/:id/close', async (request, _, caller) => {
    const id = batchId(request)
    const key = idempotencyKeyOf(request)
    await runOnce(db, key, `close ${id}`, caller, async (tx) => {
      await close(tx, { batchId: id, personId: caller.id, idempotencyKey: key })
      return { id }
    })
    return packingOf(db, id)
  })

  return router
}
