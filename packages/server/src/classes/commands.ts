/** What is done to a class. */
import type { bookSeat as bookSeatBody, MarkSeat, saveClass, waitFor as waitForBody } from '@tessellum/contract/classes'
import { mayDo } from '@tessellum/contract/rights'
import { counted } from '@tessellum/core/measure/counted'
import { todayIn } from '@tessellum/core/measure/today'
import { and, eq } from 'drizzle-orm'
import type { z } from 'zod'
import { logActivity } from '../audit/log'
import { lockBatch } from '../batches/lock'
import { callOffBatch } from '../batches/release'
import { planBatch, reviseBatch, turnBatch } from '../batches/revise'
import type { Actor, Caller } from '../context'
import { demandCustomer } from '../customers/store'
import type { Database, Session } from '../database/connect'
import { brokenConstraint } from '../database/errors'
import { previousResult, runOnce } from '../idempotency/run-once'
import { handOverKits, sayMissing, takeBack } from '../packing/kits'
import { linesOf } from '../planning/lines'
import { HttpProblem, notFound } from '../problem'
import { batch } from '../schema/batches'
import { booking, classOffer, classTable, waiting } from '../schema/classes'
import { timeZoneOf } from '../settings/days'
import type { Shop } from '../shop'
import { keepClass, linesForClass, lockClass, lockOver } from './store'

type SaveClass = z.output<typeof saveClass>

const pageOf = (id: number) => `/diary/classes/${id}`

/** @returns its id */
export async function offerClass({ db }: Shop, wanted: SaveClass, caller: Caller): Promise<number> {
  const { id } = await runOnce(db, caller, 'new class', async (tx) => {
    await refusePast(tx, wanted.heldOn)
    const made = await keepClass(tx, undefined, wanted, caller.id)
    await logActivity(tx, caller.id, `offered the class ${wanted.title}`, pageOf(made))
    return { id: made }
  })
  return id
}

/** Something done to a class, once. */
const once = (
  { db }: Shop,
  id: number,
  kind: string,
  caller: Caller,
  act: (tx: Session, actor: Actor) => Promise<void>,
): Promise<{ id: number }> =>
  runOnce(db, caller, `${kind} ${id}`, async (tx, actor) => {
    await act(tx, actor)
    return { id }
  })

export const changeClass = (shop: Shop, id: number, wanted: SaveClass, caller: Caller) =>
  once(shop, id, 'change class', caller, async (tx) => {
    const before = await lockClass(tx, id)
    // Another day must not be past; the day that it has may have come.
    if (before.heldOn !== wanted.heldOn) await refusePast(tx, wanted.heldOn)
    await keepClass(tx, id, wanted, caller.id)
    await moveBatch(tx, before, wanted, caller.id)
    await logActivity(tx, caller.id, `changed the class ${wanted.title}`, pageOf(id))
  })

/** Its kits are due on the day of the class, and called by its title unless somebody has named them otherwise. */
async function moveBatch(
  tx: Session,
  before: { readonly batchId: number | null; readonly title: string; readonly heldOn: string },
  { title, heldOn }: SaveClass,
  by: number,
): Promise<void> {
  if (before.batchId === null) return
  const { name, dueOn, state } = await lockBatch(tx, before.batchId)
  if (state === 'closed' || state === 'cancelled') return
  const renamed = name === before.title && title !== name
  if (!renamed && dueOn === heldOn) return
  await turnBatch(tx, before.batchId, { dueOn: heldOn, ...(renamed ? { name: title } : {}) }, by)
}

/** Takes a seat, or changes who has it and where they sit. */
export const bookSeat = (
  shop: Shop,
  id: number,
  seat: number,
  { id: bookingId, waitingId, ...taken }: z.output<typeof bookSeatBody>,
  caller: Caller,
) =>
  once(shop, id, 'book', caller, async (tx) => {
    const row = await lockClass(tx, id)
    if (seat > row.seats)
      throw new HttpProblem(422, 'no-such-seat', `This class has ${counted(row.seats, 'seat')}.`, {
        path: 'seat',
        hint: 'Choose one of them, or add seats.',
      })
    const [offered] = await tx
      .select()
      .from(classOffer)
      .where(and(eq(classOffer.classId, id), eq(classOffer.position, taken.offer)))
    if (!offered)
      throw new HttpProblem(422, 'not-offered', 'That is not offered in this class.', {
        path: 'offer',
        hint: 'Choose one of the offers.',
      })
    await demandCustomer(tx, taken.customerId)
    try {
      if (bookingId === undefined) await tx.insert(booking).values({ classId: id, seat, ...taken })
      else {
        const changed = await tx
          .update(booking)
          .set({ seat, ...taken })
          .where(and(eq(booking.id, bookingId), eq(booking.classId, id)))
          .returning({ id: booking.id })
        if (changed.length === 0) throw notFound('booking')
      }
    } catch (error) {
      if (brokenConstraint(error) !== 'booking_seat') throw error
      throw new HttpProblem(409, 'seat-taken', `Seat ${seat} is taken already.`, {
        path: 'seat',
        hint: 'Choose another seat, or change who has it.',
      })
    }
    if (waitingId !== undefined) await tx.delete(waiting).where(and(eq(waiting.id, waitingId), eq(waiting.classId, id)))
    await logActivity(tx, caller.id, `booked seat ${seat} of ${row.title}`, pageOf(id))
  })

export const freeSeat = (shop: Shop, id: number, seat: number, caller: Caller) =>
  once(shop, id, `free ${seat}`, caller, async (tx) => {
    const { title } = await lockClass(tx, id)
    await tx.delete(booking).where(and(eq(booking.classId, id), eq(booking.seat, seat)))
    await logActivity(tx, caller.id, `freed seat ${seat} of ${title}`, pageOf(id))
  })

/** Of a class that was taught, too: who paid at the door is written down afterwards. */
export const markSeat = (shop: Shop, id: number, seat: number, marked: MarkSeat, caller: Caller) =>
  once(shop, id, `mark ${seat}`, caller, async (tx) => {
    const [row] = await tx.select().from(classTable).where(eq(classTable.id, id)).for('update')
    if (!row) throw notFound('class')
    const changed = await tx
      .update(booking)
      .set(marked)
      .where(and(eq(booking.classId, id), eq(booking.seat, seat)))
      .returning({ id: booking.id })
    if (changed.length === 0)
      throw new HttpProblem(409, 'seat-free', `Nobody has seat ${seat}.`, { path: 'seat', hint: 'Reload the page.' })
    await logActivity(tx, caller.id, `marked seat ${seat} of ${row.title}`, pageOf(id))
  })

/** A list longer than this is no list to wait on. */
const maxWaiting = 100

export const waitFor = (shop: Shop, id: number, wanted: z.output<typeof waitForBody>, caller: Caller) =>
  once(shop, id, 'wait', caller, async (tx) => {
    const { title } = await lockClass(tx, id)
    await demandCustomer(tx, wanted.customerId)
    const there = await tx.select({ id: waiting.id }).from(waiting).where(eq(waiting.classId, id))
    if (there.length >= maxWaiting)
      throw new HttpProblem(409, 'list-full', `${maxWaiting} are waiting for a seat already.`, {
        hint: 'Offer the class again on another day.',
      })
    await tx.insert(waiting).values({ classId: id, ...wanted })
    await logActivity(tx, caller.id, `put somebody on the waiting list of ${title}`, pageOf(id))
  })

export const leaveWaiting = (shop: Shop, id: number, waitingId: number, caller: Caller) =>
  once(shop, id, `leave ${waitingId}`, caller, async (tx) => {
    const { title } = await lockClass(tx, id)
    await tx.delete(waiting).where(and(eq(waiting.id, waitingId), eq(waiting.classId, id)))
    await logActivity(tx, caller.id, `took somebody off the waiting list of ${title}`, pageOf(id))
  })

/**
 * Plans the kits of its seats as a batch, or brings the batch up to what is booked now.
 *
 * @returns names of bags to be emptied
 */
export async function planKits(shop: Shop, id: number, caller: Caller): Promise<string[]> {
  const { db } = shop
  const [row] = await db.select().from(classTable).where(eq(classTable.id, id))
  if (!row) throw notFound('class')
  const [there] = row.batchId ? await db.select().from(batch).where(eq(batch.id, row.batchId)) : []
  // Sent again, it is what it was: a batch planned a moment ago is not changed instead.
  const kinds = [`kits ${id}`, ...(there ? [`change ${there.id}`] : [])]
  const before = await previousResult<{ toEmpty?: string[] }>(db, caller, kinds)
  if (before) return before.toEmpty ?? []
  if (there && there.state !== 'cancelled')
    return reviseBatch(shop, there.id, await linesForClass(db, id, await linesOf(db, there.id)), caller, {
      dueOn: row.heldOn,
    })
  await once(shop, id, 'kits', caller, async (tx) => {
    const { title, heldOn } = await lockClass(tx, id)
    const wanted = { name: title, dueOn: heldOn, priority: 2, kept: true }
    const batchId = await planBatch(tx, wanted, await linesForClass(tx, id, []), caller.id)
    await tx.update(classTable).set({ batchId }).where(eq(classTable.id, id))
  })
  return []
}

/** Each seat that was booked has taken its kit home; what was spare stays on the kits' shelf. */
export const closeTaught = (shop: Shop, id: number, caller: Caller) =>
  once(shop, id, 'taught', caller, async (tx, actor) => {
    const { title, batchId, patternVersionId } = await lockClass(tx, id)
    const bookings = await tx.select().from(booking).where(eq(booking.classId, id))
    const offers = await tx.select().from(classOffer).where(eq(classOffer.classId, id))
    const taken = offers.map(({ position, size, colourwayVersionId }) => ({
      patternVersionId,
      size,
      colourwayVersionId,
      kits: bookings.filter(({ offer }) => offer === position).length,
    }))
    const missing = batchId === null ? 0 : await handOverKits(tx, taken, `taught: ${title}`, { batchId, ...actor })
    await tx.update(classTable).set({ state: 'taught', overAt: new Date() }).where(eq(classTable.id, id))
    await logActivity(tx, caller.id, `taught ${title}${sayMissing(missing)}`, pageOf(id))
  })

/** What is reserved is given back by those who may do that; for others the class is off, and its kits wait. */
export const callOffClass = (shop: Shop, id: number, caller: Caller) =>
  once(shop, id, 'cancel class', caller, async (tx, actor) => {
    const { title, batchId } = await lockClass(tx, id)
    const mayGiveBack = mayDo(caller.roles, 'batches.reserve')
    const waits = batchId !== null && (await callOffBatch(tx, { batchId, ...actor }, mayGiveBack))
    await tx.update(classTable).set({ state: 'cancelled', overAt: new Date() }).where(eq(classTable.id, id))
    const waiting = waits ? '; its kits are still reserved' : ''
    await logActivity(tx, caller.id, `called off the class ${title}${waiting}`, pageOf(id))
  })

export const reopenClass = (shop: Shop, id: number, caller: Caller) =>
  once(shop, id, 'reopen class', caller, async (tx, actor) => {
    const { title, batchId } = await lockOver(tx, id)
    await tx.update(classTable).set({ state: 'offered', overAt: null }).where(eq(classTable.id, id))
    if (batchId !== null) await takeBack(tx, { batchId, ...actor })
    await logActivity(tx, caller.id, `opened ${title} again`, pageOf(id))
  })

/** Where the class stands in the walk: the projector and the teacher's tablet may be two machines. */
export async function moveWalk(db: Database, id: number, step: number): Promise<{ step: number }> {
  const moved = await db.update(classTable).set({ walkStep: step }).where(eq(classTable.id, id)).returning()
  if (moved.length === 0) throw notFound('class')
  return { step }
}

async function refusePast(tx: Session, day: string): Promise<void> {
  if (day < todayIn(await timeZoneOf(tx)))
    throw new HttpProblem(422, 'past', 'That day is over.', { path: 'heldOn', hint: 'Offer it for today or later.' })
}
