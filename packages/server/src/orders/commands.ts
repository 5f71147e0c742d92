/** What is done to a customer's order. */
import type { HandOver, saveOrder } from '@tessellum/contract/orders'
import { mayDo } from '@tessellum/contract/rights'
import { counted } from '@tessellum/core/measure/counted'
import { desc, eq } from 'drizzle-orm'
import type { z } from 'zod'
import { logActivity } from '../audit/log'
import { resolveLines, type WantedLine, writeLines } from '../batches/lines'
import { lockBatch } from '../batches/lock'
import { callOffBatch } from '../batches/release'
import { planBatch, turnBatch } from '../batches/revise'
import type { Actor, Caller } from '../context'
import { demandCustomer } from '../customers/store'
import type { Session } from '../database/connect'
import { runOnce } from '../idempotency/run-once'
import { handOverKits, sayMissing, sellKits, takeBack } from '../packing/kits'
import { HttpProblem } from '../problem'
import { batch } from '../schema/batches'
import { colourwayVersion } from '../schema/colourways'
import { customerOrder, handover } from '../schema/orders'
import type { Shop } from '../shop'
import { handedOf, lockOrder, lockOver } from './store'

type SaveOrder = z.output<typeof saveOrder>
type OrderRow = Awaited<ReturnType<typeof lockOrder>>

const page = '/diary/orders'

export const takeOrder = ({ db }: Shop, { patternId, version, colourwayId, ...wanted }: SaveOrder, caller: Caller) =>
  runOnce(db, caller, 'order new', async (tx) => {
    const { size, kits } = wanted
    await demandCustomer(tx, wanted.customerId)
    const { patternVersionId, colourwayVersionId } = await lineOf(tx, { patternId, version, colourwayId, size, kits })
    const [made] = await tx
      .insert(customerOrder)
      .values({ ...wanted, patternVersionId, colourwayVersionId, madeBy: caller.id })
      .returning({ id: customerOrder.id })
    const { id } = made as { id: number }
    await logActivity(tx, caller.id, `took order ${id}`, page)
    return { id }
  })

/** The same colourway stays at the version in which it was ordered. */
export const changeOrder = (
  { db }: Shop,
  id: number,
  { patternId, version, colourwayId, ...wanted }: SaveOrder,
  caller: Caller,
) =>
  runOnce(db, caller, `order ${id}`, async (tx, actor) => {
    const { size, kits } = wanted
    await demandCustomer(tx, wanted.customerId)
    const line = await lineOf(tx, { patternId, version, colourwayId, size, kits })
    const before = await lockOrder(tx, id)
    const [was] = await tx
      .select({ colourwayId: colourwayVersion.colourwayId })
      .from(colourwayVersion)
      .where(eq(colourwayVersion.id, before.colourwayVersionId))
    const { patternVersionId } = line
    const colourwayVersionId = was?.colourwayId === colourwayId ? before.colourwayVersionId : line.colourwayVersionId
    const same =
      before.patternVersionId === patternVersionId &&
      before.colourwayVersionId === colourwayVersionId &&
      before.size === size &&
      before.kits === kits
    const handed = await handedOf(tx, id)
    if (!same && handed > 0) refuseHanded(handed, kits)
    if (!same && before.batchId !== null)
      await followOrder(tx, { batchId: before.batchId, ...actor }, { ...line, colourwayVersionId })
    if (before.wantedOn !== wanted.wantedOn && before.batchId !== null)
      await moveBatch(tx, before.batchId, wanted.wantedOn, caller.id)
    await tx
      .update(customerOrder)
      .set({ ...wanted, patternVersionId, colourwayVersionId })
      .where(eq(customerOrder.id, id))
    await logActivity(tx, caller.id, `changed order ${id}`, page)
    return { id }
  })

/** Its kit is due when it is wanted. */
async function moveBatch(tx: Session, id: number, dueOn: string, by: number): Promise<void> {
  const { state } = await lockBatch(tx, id)
  if (state !== 'closed' && state !== 'cancelled') await turnBatch(tx, id, { dueOn }, by)
}

function refuseHanded(handed: number, kits: number): never {
  throw new HttpProblem(409, 'handed-over', `${handed} of its kits have been handed over as they were ordered.`, {
    path: kits > handed ? 'patternId' : 'kits',
    hint: 'Call off the rest, and take another order for what is wanted instead.',
  })
}

async function lineOf(
  tx: Session,
  ordered: Pick<SaveOrder, 'patternId' | 'version' | 'colourwayId' | 'size' | 'kits'>,
): Promise<WantedLine> {
  const [line] = await resolveLines(tx, [ordered]).catch((error: unknown) => {
    throw error instanceof HttpProblem
      ? new HttpProblem(error.status, error.code, error.message, {
          path: error.path?.replace('lines.0.', '') ?? '',
          hint: error.hint ?? '',
        })
      : error
  })
  if (!line) throw new Error('An order has one line.')
  return line
}

/** Its batch is to have what is ordered now: as long as nothing is promised to it. */
async function followOrder(tx: Session, actor: Actor & { readonly batchId: number }, line: WantedLine) {
  const { state } = await lockBatch(tx, actor.batchId)
  if (state === 'cancelled') return
  if (state !== 'draft')
    throw new HttpProblem(409, 'planned', `Its batch is ${state} with the kit as it was ordered.`, {
      hint: 'Give back what the batch holds, or call the batch off, then change the order.',
    })
  await writeLines(tx, [line], actor)
}

/** Something done to an order that is open, once. */
const once = (
  { db }: Shop,
  id: number,
  kind: string,
  caller: Caller,
  act: (tx: Session, row: OrderRow, actor: Actor) => Promise<void>,
): Promise<{ id: number }> =>
  runOnce(db, caller, `${kind} order ${id}`, async (tx, actor) => {
    await act(tx, await lockOrder(tx, id), actor)
    return { id }
  })

/** Its kit, planned as a batch of its own. */
export const planKit = (shop: Shop, id: number, caller: Caller) =>
  once(shop, id, 'plan', caller, async (tx, row) => {
    const { wantedOn, patternVersionId, colourwayVersionId, size, kits } = row
    const [open] =
      row.batchId === null ? [] : await tx.select({ state: batch.state }).from(batch).where(eq(batch.id, row.batchId))
    if (open && open.state !== 'cancelled')
      throw new HttpProblem(409, 'planned', 'Its kit is planned already.', { hint: 'Open its batch.' })
    const batchId = await planBatch(
      tx,
      { name: `Order ${id}`, dueOn: wantedOn, priority: 1, kept: true },
      [{ patternVersionId, colourwayVersionId, size, kits }],
      caller.id,
    )
    await tx.update(customerOrder).set({ batchId }).where(eq(customerOrder.id, id))
  })

/** The order is done with the last of its kits; until then the others stay promised to it. */
export const handOverOrder = (shop: Shop, id: number, { kits }: HandOver, caller: Caller) =>
  once(shop, id, 'hand over', caller, async (tx, row, actor) => {
    const { batchId, patternVersionId, size, colourwayVersionId } = row
    const left = row.kits - (await handedOf(tx, id))
    if (kits > left)
      throw new HttpProblem(422, 'more-than-ordered', `Only ${left} of its kits are still to be handed over.`, {
        path: 'kits',
        hint: 'Hand over no more than these. What is wanted beyond them is another order.',
      })
    const [sell, some] = kits === left ? [handOverKits, ''] : [sellKits, `${kits} of ${counted(row.kits, 'kit')} of `]
    const going = { patternVersionId, size, colourwayVersionId, kits }
    const missing = batchId === null ? 0 : await sell(tx, [going], `order ${id}`, { batchId, ...actor })
    await tx.insert(handover).values({ orderId: id, kits, madeBy: caller.id })
    if (kits === left)
      await tx.update(customerOrder).set({ state: 'done', overAt: new Date() }).where(eq(customerOrder.id, id))
    await logActivity(tx, caller.id, `handed over ${some}order ${id}${sayMissing(missing)}`, page)
  })

/** What is packed already goes back into its tubes with the batch. */
export const callOffOrder = (shop: Shop, id: number, caller: Caller) =>
  once(shop, id, 'call off', caller, async (tx, { batchId }, actor) => {
    const mayGiveBack = mayDo(caller.roles, 'batches.reserve')
    if (batchId !== null) await callOffBatch(tx, { batchId, ...actor }, mayGiveBack)
    await tx.update(customerOrder).set({ state: 'cancelled', overAt: new Date() }).where(eq(customerOrder.id, id))
    await logActivity(tx, caller.id, `called off order ${id}`, page)
  })

export const reopenOrder = ({ db }: Shop, id: number, caller: Caller) =>
  runOnce(db, caller, `reopen order ${id}`, async (tx, actor) => {
    const { batchId, state } = await lockOver(tx, id)
    const last = state === 'cancelled' ? undefined : await lastHandover(tx, id)
    if (last) await tx.delete(handover).where(eq(handover.id, last.id))
    await tx.update(customerOrder).set({ state: 'taken', overAt: null }).where(eq(customerOrder.id, id))
    const since = state === 'cancelled' ? new Date() : (last?.at ?? new Date(0))
    const kept = { since, handed: await handedOf(tx, id) }
    if (batchId !== null) await takeBack(tx, { batchId, ...actor }, kept)
    await logActivity(
      tx,
      caller.id,
      state === 'taken' ? `took back what was last handed over of order ${id}` : `opened order ${id} again`,
      page,
    )
    return { id }
  })

async function lastHandover(tx: Session, orderId: number) {
  const [last] = await tx
    .select({ id: handover.id, at: handover.at })
    .from(handover)
    .where(eq(handover.orderId, orderId))
    .orderBy(desc(handover.id))
    .limit(1)
  return last
}
