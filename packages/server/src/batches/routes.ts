import { changeLines, newBatch, substituteInLine } from '@tessellum/contract/batches'
import { eq } from 'drizzle-orm'
import { type Request, Router } from 'express'
import { actionKey, once } from '../actions/once'
import { Refusal, readId, readInput } from '../http/refusal'
import { type Caller, mount, type Shop } from '../http/route'
import { freeLots } from '../stock/store'
import { allocationFor, billsFor, itemsIn, outlookFor } from './plan'
import { release, reserve, TakenMeanwhile } from './reserve'
import { batch, batchLine } from './schema'
import { findBatch, insertLines, linesOf, listBatches, lockBatch, resolveLines } from './store'
import { substituteIn } from './substitute'

/** How often an allocation is worked out anew because somebody else was faster. */
const mostTries = 5

export function batchRoutes(shop: Shop): Router {
  const { db } = shop
  const router = Router()
  const batchId = (request: Request) => readId(request.params.id, 'batch')

  mount(router, 'GET /api/batches', () => listBatches(db))

  mount(router, 'POST /api/batches', async (request, _, caller) => {
    const { name, dueOn, lines } = readInput(newBatch, request.body)
    const planned = await resolveLines(db, lines)
    const { id } = await once(db, actionKey(request), 'new batch', caller, async (tx) => {
      const [made] = await tx.insert(batch).values({ name, dueOn, madeBy: caller.id }).returning({ id: batch.id })
      await insertLines(tx, (made as { id: number }).id, planned)
      return made as { id: number }
    })
    return findBatch(shop, id)
  })

  mount(router, 'POST /api/batches/outlook', async (request) => {
    const { lines } = readInput(changeLines, request.body)
    return outlookFor(shop, await resolveLines(db, lines), undefined)
  })

  mount(router, 'GET /api/batches/:id', (request) => findBatch(shop, batchId(request)))

  mount(router, 'PUT /api/batches/:id/lines', async (request) => {
    const id = batchId(request)
    const { lines } = readInput(changeLines, request.body)
    const planned = await resolveLines(db, lines, id)
    await db.transaction(async (tx) => {
      const row = await lockBatch(tx, id)
      if (row.state !== 'draft') {
        throw new Refusal(409, 'wrong-state', `This batch is ${row.state}; its lines are fixed.`, {
          hint: 'Release it first, then change it.',
        })
      }
      await tx.delete(batchLine).where(eq(batchLine.batchId, id))
      await insertLines(tx, id, planned)
    })
    return findBatch(shop, id)
  })

  mount(router, 'POST /api/batches/:id/lines/:line/substitute', async (request, _, caller) => {
    const id = batchId(request)
    const line = readId(request.params.line, 'line')
    const substitute = readInput(substituteInLine, request.body)
    await once(db, actionKey(request), `substitute ${id}`, caller, async (tx) => {
      await substituteIn(tx, id, line, substitute, caller.id)
      return { id }
    })
    return findBatch(shop, id)
  })

  mount(router, 'POST /api/batches/:id/reserve', async (request, _, caller) => {
    const id = batchId(request)
    const key = actionKey(request)
    const lines = await linesOf(db, id)
    const bills = await billsFor(shop, lines)
    const attempt = async () => {
      const free = await freeLots(db, itemsIn(bills), false)
      const allocation = await allocationFor(shop.workers, lines, bills, free)
      await once(db, key, `reserve ${id}`, caller, async (tx) => {
        // The bills were reckoned before the batch was locked: they must still be of its lines.
        await lockBatch(tx, id)
        if (JSON.stringify(await linesOf(tx, id)) !== JSON.stringify(lines)) {
          throw new Refusal(409, 'crossed', 'Somebody changed this batch at the same moment.', {
            hint: 'Nothing has been reserved. Look at it and try again.',
          })
        }
        await reserve(tx, lines, bills, allocation, { batchId: id, personId: caller.id, actionKey: key })
        return { id }
      })
    }
    for (let tries = 1; ; tries++) {
      try {
        await attempt()
        break
      } catch (error) {
        if (!(error instanceof TakenMeanwhile)) throw error
        if (tries === mostTries)
          throw new Refusal(409, 'busy-shelf', 'Others are taking from the same lots at this moment.', {
            hint: 'Nothing has been reserved. Try again in a moment.',
          })
      }
    }
    return findBatch(shop, id)
  })

  const give = (to: 'draft' | 'cancelled') => async (request: Request, _: unknown, caller: Caller) => {
    const id = batchId(request)
    const key = actionKey(request)
    await once(db, key, `${to === 'draft' ? 'release' : 'cancel'} ${id}`, caller, async (tx) => {
      await release(tx, { batchId: id, personId: caller.id, actionKey: key }, to)
      return { id }
    })
    return findBatch(shop, id)
  }
  mount(router, 'POST /api/batches/:id/release', give('draft'))
  mount(router, 'POST /api/batches/:id/cancel', give('cancelled'))

  return router
}
