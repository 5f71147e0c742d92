import { bookSeat, saveClass, walkPlace } from '@tessellum/contract/classes'
import { mayDo } from '@tessellum/contract/rights'
import { and, eq } from 'drizzle-orm'
import { type Request, Router } from 'express'
import { logActivity } from '../audit/log'
import { releaseKits } from '../batches/promise-kits'
import { release } from '../batches/release'
import { planBatch, reviseBatch } from '../batches/revise'
import type { Caller } from '../context'
import type { Session } from '../database/connect'
import { brokenConstraint } from '../database/errors'
import { mount } from '../http/mount'
import { readId, readInput } from '../http/read-input'
import { idempotencyKeyOf, idempotencyKeyOrNew } from '../idempotency/request-key'
import { previousResult, runOnce } from '../idempotency/run-once'
import { sellKits, takeBack } from '../packing/kits'
import { shortBatches } from '../planning/buy-list'
import { linesOf } from '../planning/lines'
import { HttpProblem, notFound } from '../problem'
import { batch } from '../schema/batches'
import { booking, classOffer, classTable } from '../schema/classes'
import { person } from '../schema/people'
import type { Shop } from '../shop'
import { findClass, keepClass, linesForClass, listClasses, lockClass, lockOver } from './store'

export function classRoutes(shop: Shop): Router {
  const { db } = shop
  const router = Router()
  const idOf = (request: Request) => readId(request.params.id, 'class')

  /** Something done to a class, once. */
  const act = async (
    request: Request,
    caller: Caller,
    kind: string,
    doing: (tx: Session, id: number, key: string) => Promise<void>,
  ) => {
    const id = idOf(request)
    const key = idempotencyKeyOf(request)
    await runOnce(db, key, `${kind} ${id}`, caller, async (tx) => {
      await doing(tx, id, key)
      return { id }
    })
    return findClass(shop, id)
  }

  mount(router, 'GET /api/classes', async () => listClasses(db, await shortBatches(shop)))
  mount(router, 'GET /api/teachers', () =>
    db.select({ id: person.id, name: person.fullName }).from(person).orderBy(person.fullName),
  )
  mount(router, 'GET /api/classes/:id', (request) => findClass(shop, idOf(request)))

  mount(router, 'POST /api/classes', async (request, _, caller) => {
    const wanted = readInput(saveClass, request.body)
    refusePast(wanted.heldOn)
    const { id } = await runOnce(db, idempotencyKeyOf(request), 'new class', caller, async (tx) => {
      const made = await keepClass(tx, undefined, wanted, caller.id)
      await logActivity(tx, caller.id, `offered the class ${wanted.title}`, `/diary/classes/${made}`)
      return { id: made }
    })
    return findClass(shop, id)
  })

  mount(router, 'PUT /api/classes/:id', (request, _, caller) => {
    const wanted = readInput(saveClass, request.body)
    return act(request, caller, 'change class', async (tx, id) => {
      const before = await lockClass(tx, id)
      // Another day must not be past; the day that it has may have come.
      if (before.heldOn !== wanted.heldOn) refusePast(wanted.heldOn)
      await keepClass(tx, id, wanted, caller.id)
      await logActivity(tx, caller.id, `changed the class ${wanted.title}`, `/diary/classes/${id}`)
    })
  })

  mount(router, 'PUT /api/classes/:id/seats/:seat', async (request, _, caller) => {
    const seat = readId(request.params.seat, 'seat')
    const { id: bookingId, ...taken } = readInput(bookSeat, request.body)
    return act(request, caller, 'book', async (tx, id) => {
      const row = await lockClass(tx, id)
      if (seat > row.seats)
        throw new HttpProblem(422, 'no-such-seat', `This class has ${row.seats} seats.`, {
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
      await logActivity(tx, caller.id, `booked seat ${seat} of ${row.title} for ${taken.name}`, `/diary/classes/${id}`)
    })
  })

  mount(router, 'POST /api/classes/:id/seats/:seat/free', (request, _, caller) => {
    const seat = readId(request.params.seat, 'seat')
    return act(request, caller, `free ${seat}`, async (tx, id) => {
      const { title } = await lockClass(tx, id)
      await tx.delete(booking).where(and(eq(booking.classId, id), eq(booking.seat, seat)))
      await logActivity(tx, caller.id, `freed seat ${seat} of ${title}`, `/diary/classes/${id}`)
    })
  })

  // The kits of its seats, planned as a batch, or the batch changed to what is booked now.
  mount(router, 'POST /api/classes/:id/kits', async (request, _, caller) => {
    const id = idOf(request)
    const key = idempotencyKeyOf(request)
    const [row] = await db.select().from(classTable).where(eq(classTable.id, id))
    if (!row) throw notFound('class')
    const [there] = row.batchId ? await db.select().from(batch).where(eq(batch.id, row.batchId)) : []
    // Sent again, it is what it was: a batch planned a moment ago is not changed instead.
    const kinds = [`kits ${id}`, ...(there ? [`change ${there.id}`] : [])]
    const before = await previousResult<{ toEmpty?: string[] }>(db, key, kinds, caller)
    if (before) return { ...(await findClass(shop, id)), toEmpty: before.toEmpty ?? [] }
    if (there && there.state !== 'cancelled') {
      const toEmpty = await reviseBatch(
        shop,
        there.id,
        await linesForClass(db, id, await linesOf(db, there.id)),
        caller,
        key,
      )
      return { ...(await findClass(shop, id)), toEmpty }
    }
    const answer = await act(request, caller, 'kits', async (tx) => {
      const { title, heldOn } = await lockClass(tx, id)
      const batchId = await planBatch(
        tx,
        { name: title, dueOn: heldOn, priority: 2, kept: true },
        await linesForClass(tx, id, []),
        caller.id,
      )
      await tx.update(classTable).set({ batchId }).where(eq(classTable.id, id))
    })
    return { ...answer, toEmpty: [] }
  })

  // Each seat that was booked has taken its kit home; what was spare stays on the kits' shelf.
  mount(router, 'POST /api/classes/:id/taught', (request, _, caller) =>
    act(request, caller, 'taught', async (tx, id, key) => {
      const { title, batchId, patternVersionId } = await lockClass(tx, id)
      const bookings = await tx.select().from(booking).where(eq(booking.classId, id))
      let missing = 0
      if (batchId !== null) {
        const [packed] = await tx.select({ state: batch.state }).from(batch).where(eq(batch.id, batchId))
        if (packed?.state !== 'closed')
          throw new HttpProblem(409, 'kits-not-closed', 'Its kits have not left the shelf yet.', {
            hint: 'Close its batch first, or call it off.',
          })
        const offers = await tx.select().from(classOffer).where(eq(classOffer.classId, id))
        for (const { position, size, colourwayVersionId } of offers) {
          const kits = bookings.filter(({ offer }) => offer === position).length
          if (kits > 0)
            missing += await sellKits(tx, {
              batchId,
              patternVersionId,
              size,
              colourwayVersionId,
              kits,
              reason: `taught: ${title}`,
              personId: caller.id,
              idempotencyKey: key,
            })
        }
        await releaseKits(tx, { batchId, personId: caller.id, idempotencyKey: key })
      }
      await tx.update(classTable).set({ state: 'taught', overAt: new Date() }).where(eq(classTable.id, id))
      const without = missing > 0 ? `; ${missing} of its kits had left the shelf some other way` : ''
      await logActivity(tx, caller.id, `taught ${title}${without}`, `/diary/classes/${id}`)
    }),
  )

  mount(router, 'POST /api/classes/:id/cancel', (request, _, caller) =>
    act(request, caller, 'cancel class', async (tx, id, key) => {
      const { title, batchId } = await lockClass(tx, id)
      const [open] =
        batchId === null ? [] : await tx.select({ state: batch.state }).from(batch).where(eq(batch.id, batchId))
      // What is reserved is given back by those who may do that; for others the class is off, and its kits wait.
      const mayGiveBack = open?.state === 'draft' || mayDo(caller.role, 'batches.reserve')
      const isOpen = open && open.state !== 'closed' && open.state !== 'cancelled'
      if (batchId !== null && isOpen && mayGiveBack)
        await release(tx, { batchId, personId: caller.id, idempotencyKey: key }, 'cancelled')
      else if (batchId !== null && !isOpen) await releaseKits(tx, { batchId, personId: caller.id, idempotencyKey: key })
      await tx.update(classTable).set({ state: 'cancelled', overAt: new Date() }).where(eq(classTable.id, id))
      const waiting = isOpen && !mayGiveBack ? '; its kits are still reserved' : ''
      await logActivity(tx, caller.id, `called off the class ${title}${waiting}`, `/diary/classes/${id}`)
    }),
  )

  mount(router, 'POST /api/classes/:id/reopen', (request, _, caller) =>
    act(request, caller, 'reopen class', async (tx, id, key) => {
      const { title, batchId } = await lockOver(tx, id)
      await tx.update(classTable).set({ state: 'offered', overAt: null }).where(eq(classTable.id, id))
      if (batchId !== null) await takeBack(tx, { batchId, personId: caller.id, idempotencyKey: key })
      await logActivity(tx, caller.id, `opened ${title} again`, `/diary/classes/${id}`)
    }),
  )

  // Where the class stands in the walk: the projector and the teacher's tablet may be two machines.
  mount(router, 'PUT /api/classes/:id/walk', async (request) => {
    const id = idOf(request)
    const { step } = readInput(walkPlace, request.body)
    // Sent twice it stands at the same step: the key is taken, and nothing is kept of it.
    idempotencyKeyOrNew(request)
    const moved = await db.update(classTable).set({ walkStep: step }).where(eq(classTable.id, id)).returning()
    if (moved.length === 0) throw notFound('class')
    return { step }
  })

  return router
}

function refusePast(day: string): void {
  // A day is over when it is over everywhere: a shop's clock may be set to another part of the world.
  if (Date.parse(`${day}T00:00:00Z`) < Date.now() - 36 * 3600_000)
    throw new HttpProblem(422, 'past', 'That day is over.', { path: 'heldOn', hint: 'Offer it for today or later.' })
}
