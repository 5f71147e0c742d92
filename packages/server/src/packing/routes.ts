import { emptyBag, fillBag } from '@tessellum/contract/packing'
import { type Request, Router } from 'express'
import { actionKey, once } from '../actions/once'
import { brokenConstraint } from '../database/trouble'
import { Refusal, readId, readInput } from '../http/refusal'
import { mount, type Shop } from '../http/route'
import { close, empty, fill, packingOf } from './store'

export function packingRoutes({ db }: Shop): Router {
  const router = Router()
  const batchId = (request: Request) => readId(request.params.id, 'batch')

  mount(router, 'GET /api/batches/:id/packing', (request) => packingOf(db, batchId(request)))

  // A bag is filled with what it holds: sent twice, it holds the same.
  mount(router, 'PUT /api/batches/:id/bags', async (request, _, caller) => {
    const id = batchId(request)
    const filling = readInput(fillBag, request.body)
    await db.transaction((tx) => fill(tx, id, filling, caller.id))
    return packingOf(db, id)
  })

  mount(router, 'POST /api/batches/:id/bags/empty', async (request) => {
    const id = batchId(request)
    const emptied = readInput(emptyBag, request.body)
    await db.transaction((tx) => empty(tx, id, emptied))
    return packingOf(db, id)
  })

  mount(router, 'POST /api/batches/:id/close', async (request, _, caller) => {
    const id = batchId(request)
    const key = actionKey(request)
    try {
      await once(db, key, `close ${id}`, caller, async (tx) => {
        await close(tx, { batchId: id, personId: caller.id, actionKey: key })
        return { id }
      })
    } catch (error) {
      if (brokenConstraint(error)?.startsWith('balance_'))
        throw new Refusal(
          409,
          'short-of-stock',
          'More is in the bags than a lot has left, beside what others are promised.',
          {
            hint: 'Weigh the tubes and correct their counts, then close it.',
          },
        )
      throw error
    }
    return packingOf(db, id)
  })

  return router
}
