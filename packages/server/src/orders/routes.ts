import { saveOrder, sizeOrder } from '@tessellum/contract/orders'
import { eq } from 'drizzle-orm'
import { type Request, Router } from 'express'
import { logActivity } from '../audit/log'
import { resolveLines, type WantedLine, writeLines } from '../batches/lines'
import { lockBatch } from '../batches/lock'
import { releaseKits } from '../batches/promise-kits'
import { release } from '../batches/release'
import { planBatch } from '../batches/revise'
import type { Caller } from '../context'
import type { Session } from '../database/connect'
import { mount } from '../http/mount'
import { readId, readInput } from '../http/read-input'
import { idempotencyKeyOf } from '../idempotency/request-key'
import { runOnce } from '../idempotency/run-once'
import { sellKits, takeBack } from '../packing/kits'
import { shortBatches } from '../planning/buy-list'
import { HttpProblem } from '../problem'
import { batch } from '../schema/batches'
import { colourwayVersion } from '../schema/colourways'
import { customerOrder } from '../schema/orders'
import type { Shop } from '../shop'
import { listOrders, lockOrder, lockOver, sizeFor } from './store'

export function orderRoutes(shop: Shop): Router {
  const { db } = shop
  const router = Router()
  const all = async () => listOrders(db, await shortBatches(shop))

  mount(router, 'GET /api/orders', all)
  mount(router, 'POST /api/orders/size', (request) => sizeFor(shop, readInput(sizeOrder, request.body)))

  /** Takes an order, or changes one. */
  async function keep(request: Request, caller: Caller, id: number | undefined) {
    const { patternId, version, colourwayId, size, kits, ...rest } = readInput(saveOrder, request.body)
    await runOnce(db, idempotencyKeyOf(request), `order ${id ?? 'new'}`, caller, async (tx) => {
      const [line] = await resolveLines(tx, [{ patternId, version, size, colourwayId, kits }]).catch(
        (error: unknown) => {
          throw error instanceof HttpProblem
            ? new HttpProblem(error.status, error.code, error.message, {
                path: error.path?.replace('lines.0.', '') ?? '',
                hint: error.hint ?? '',
              })
            : error
        },
      )
      if (!line) throw new Error('An order has one line.')
      const { patternVersionId } = line
      const values = { ...rest, patternVersionId, size, kits }
      if (id === undefined)
        await tx
          .insert(customerOrder)
          .values({ ...values, colourwayVersionId: line.colourwayVersionId, madeBy: caller.id })
      else {
        const before = await lockOrder(tx, id)
        const [was] = await tx
          .select({ colourwayId: colourwayVersion.colourwayId })
          .from(colourwayVersion)
          .where(eq(colourwayVersion.id, before.colourwayVersionId))
        // The same colourway stays at the version in which it was ordered.
        const colourwayVersionId =
          was?.colourwayId === colourwayId ? before.colourwayVersionId : line.colourwayVersionId
        const same =
          before.patternVersionId === patternVersionId &&
          before.colourwayVersionId === colourwayVersionId &&
          before.size === size &&
          before.kits === kits
        if (!same) await followOrder(tx, before.batchId, { ...line, colourwayVersionId })
        await tx
          .update(customerOrder)
          .set({ ...values, colourwayVersionId })
          .where(eq(customerOrder.id, id))
      }
      await logActivity(
        tx,
        caller.id,
        `${id === undefined ? 'took' : 'changed'} an order for ${rest.customer}`,
        '/diary/orders',
      )
      return { ok: true }
    })
    return all()
  }
  /** Its batch is to have what is ordered now: as long as nothing is promised to it. */
  async function followOrder(tx: Session, batchId: number | null, line: WantedLine) {
    if (batchId === null) return
    const { state } = await lockBatch(tx, batchId)
    if (state === 'cancelled') return
    if (state !== 'draft')
      throw new HttpProblem(409, 'planned', `Its batch is ${state} with the kit as it was ordered.`, {
        hint: 'Give back what the batch holds, or call the batch off, then change the order.',
      })
    await writeLines(tx, batchId, [line])
  }

  mount(router, 'POST /api/orders', (request, _, caller) => keep(request, caller, undefined))
  mount(router, 'PUT /api/orders/:id', (request, _, caller) =>
    keep(request, caller, readId(request.params.id, 'order')),
  )

  const act =
    (
      kind: string,
      doing: (tx: Session, row: Awaited<ReturnType<typeof lockOrder>>, caller: Caller, key: string) => Promise<void>,
    ) =>
    async (request: Request, _: unknown, caller: Caller) => {
      const id = readId(request.params.id, 'order')
      const key = idempotencyKeyOf(request)
      await runOnce(db, key, `${kind} order ${id}`, caller, async (tx) => {
        await doing(tx, await lockOrder(tx, id), caller, key)
        return { id }
      })
      return all()
    }

  mount(
    router,
    'POST /api/orders/:id/kits',
    act('plan', async (tx, row, caller) => {
      const { customer, wantedOn, patternVersionId, colourwayVersionId, size, kits } = row
      const [open] =
        row.batchId === null ? [] : await tx.select({ state: batch.state }).from(batch).where(eq(batch.id, row.batchId))
      if (open && open.state !== 'cancelled')
        throw new HttpProblem(409, 'planned', 'Its kit is planned already.', { hint: 'Open its batch.' })
      const line = { patternVersionId, colourwayVersionId, size, kits }
      const batchId = await planBatch(
        tx,
        { name: `For ${customer}`, dueOn: wantedOn, priority: 1, kept: true },
        [line],
        caller.id,
      )
      await tx.update(customerOrder).set({ batchId }).where(eq(customerOrder.id, row.id))
    }),
  )
  mount(
    router,
    'POST /api/orders/:id/done',
    act(
      'hand over',
      async (tx, { id, customer, batchId, patternVersionId, size, colourwayVersionId, kits }, caller, key) => {
        let missing = 0
        if (batchId !== null) {
          const [packed] = await tx.select({ state: batch.state }).from(batch).where(eq(batch.id, batchId))
          if (packed?.state !== 'closed')
            throw new HttpProblem(409, 'kits-not-closed', 'Its kit has not left the shelf yet.', {
              hint: 'Close its batch first.',
            })
          missing = await sellKits(tx, {
            batchId,
            patternVersionId,
            size,
            colourwayVersionId,
            kits,
            reason: `for ${customer}`,
            personId: caller.id,
            idempotencyKey: key,
          })
          await releaseKits(tx, { batchId, personId: caller.id, idempotencyKey: key })
        }
        await tx.update(customerOrder).set({ state: 'done', overAt: new Date() }).where(eq(customerOrder.id, id))
        const without = missing > 0 ? `; ${missing} of its kits had left the shelf some other way` : ''
        await logActivity(tx, caller.id, `handed over to ${customer}${without}`, '/diary/orders')
      },
    ),
  )
  // What is packed already goes back into its tubes with the batch.
  mount(
    router,
    'POST /api/orders/:id/cancel',
    act('call off', async (tx, { id, customer, batchId }, caller, key) => {
      const [open] =
        batchId === null ? [] : await tx.select({ state: batch.state }).from(batch).where(eq(batch.id, batchId))
      if (batchId !== null && open && open.state !== 'closed' && open.state !== 'cancelled')
        await release(tx, { batchId, personId: caller.id, idempotencyKey: key }, 'cancelled')
      else if (batchId !== null) await releaseKits(tx, { batchId, personId: caller.id, idempotencyKey: key })
      await tx.update(customerOrder).set({ state: 'cancelled', overAt: new Date() }).where(eq(customerOrder.id, id))
      await logActivity(tx, caller.id, `called off the order for ${customer}`, '/diary/orders')
    }),
  )

  mount(router, 'POST /api/orders/:id/reopen', async (request, _, caller) => {
    const id = readId(request.params.id, 'order')
    const key = idempotencyKeyOf(request)
    await runOnce(db, key, `reopen order ${id}`, caller, async (tx) => {
      const { customer, batchId } = await lockOver(tx, id)
      await tx.update(customerOrder).set({ state: 'taken', overAt: null }).where(eq(customerOrder.id, id))
      if (batchId !== null) await takeBack(tx, { batchId, personId: caller.id, idempotencyKey: key })
      await logActivity(tx, caller.id, `opened the order for ${customer} again`, '/diary/orders')
      return { id }
    })
    return all()
  })

  return router
}
