import type { ClassAnswer, ClassSummary, saveClass } from '@tessellum/contract/classes'
import { priceOfKit, priceOfSeat } from '@tessellum/core/kit/price'
import { minutesOf } from '@tessellum/core/report/minutes'
import { paces, timePlan } from '@tessellum/core/teach/time-plan'
import { and, asc, desc, eq, getTableColumns, gte, inArray, lte, sql } from 'drizzle-orm'
import type { z } from 'zod'
import { refuseOld, stillUndoable } from '../audit/undoable'
import { resolveLines, type WantedLine } from '../batches/lines'
import { readinessOf } from '../batches/readiness'
import type { Session } from '../database/connect'
import { shortBatches } from '../planning/buy-list'
import { materialsOf } from '../planning/price'
import { HttpProblem, notFound } from '../problem'
import { batch, batchLine } from '../schema/batches'
import { booking, classDay, classOffer, classTable, waiting } from '../schema/classes'
import { colourway, colourwayVersion } from '../schema/colourways'
import { customer } from '../schema/customers'
import { pattern, patternVersion } from '../schema/patterns'
import { person } from '../schema/people'
import { costSettings, settingsNow } from '../settings/store'
import type { Shop } from '../shop'

const summaries = (db: Session) =>
  db
    .select({
      id: classTable.id,
      title: classTable.title,
      heldOn: classTable.heldOn,
      beginsAt: classTable.beginsAt,
      minutes: classTable.minutes,
      place: classTable.place,
      seats: classTable.seats,
      spareKits: classTable.spareKits,
      booked: sql<number>`(select count(*)::int from ${booking} where ${booking.classId} = ${classTable.id})`,
      teacher: person.fullName,
      pattern: pattern.title,
      state: classTable.state,
      undoable: stillUndoable(classTable.overAt),
      batchId: classTable.batchId,
      batchState: batch.state,
      batchDueOn: batch.dueOn,
    })
    .from(classTable)
    .innerJoin(person, eq(person.id, classTable.teacherId))
    .innerJoin(patternVersion, eq(patternVersion.id, classTable.patternVersionId))
    .innerJoin(pattern, eq(pattern.id, patternVersion.patternId))
    .leftJoin(batch, eq(batch.id, classTable.batchId))
    .$dynamic()

type Row = Awaited<ReturnType<typeof summaries>>[number]

/** Classes whose batch has other kits than their seats want now, or is due only after the class. */
async function outOfStep(db: Session, rows: readonly Row[]): Promise<ReadonlySet<number>> {
  const planned = rows.filter(
    ({ state, batchId, batchState }) => state === 'offered' && batchId && batchState !== 'cancelled',
  )
  if (planned.length === 0) return new Set()
  const ids = planned.map(({ id }) => id)
  const [offers, lines] = await Promise.all([
    db
      .select({
        classId: classOffer.classId,
        size: classOffer.size,
        colourwayId: colourwayVersion.colourwayId,
        patternVersionId: classTable.patternVersionId,
        booked: sql<number>`(select count(*)::int from booking where booking.class_id = ${classOffer.classId} and booking.offer = ${classOffer.position})`,
      })
      .from(classOffer)
      .innerJoin(classTable, eq(classTable.id, classOffer.classId))
      .innerJoin(colourwayVersion, eq(colourwayVersion.id, classOffer.colourwayVersionId))
      .where(inArray(classOffer.classId, ids))
      .orderBy(asc(classOffer.position)),
    // A bead that stands in is for its batch only, in a version of the same colourway.
    db
      .select({
        batchId: batchLine.batchId,
        size: batchLine.size,
        colourwayId: colourwayVersion.colourwayId,
        patternVersionId: batchLine.patternVersionId,
        kits: batchLine.kits,
      })
      .from(batchLine)
      .innerJoin(colourwayVersion, eq(colourwayVersion.id, batchLine.colourwayVersionId))
      .where(
        inArray(
          batchLine.batchId,
          planned.flatMap(({ batchId }) => batchId ?? []),
        ),
      ),
  ])
  const told = (kits: ReadonlyMap<string, number>) => JSON.stringify([...kits].filter(([, n]) => n > 0).sort())
  const kindOf = (of: { patternVersionId: number; size: string; colourwayId: number }) =>
    `${of.patternVersionId} ${of.colourwayId} ${of.size}`
  const counted = <Each extends Parameters<typeof kindOf>[0]>(
    all: readonly Each[],
    kits: (each: Each, i: number) => number,
  ) => {
    const sums = new Map<string, number>()
    for (const [i, each] of all.entries()) sums.set(kindOf(each), (sums.get(kindOf(each)) ?? 0) + kits(each, i))
    return told(sums)
  }
  return new Set(
    planned.flatMap(({ id, batchId, seats, spareKits, heldOn, batchDueOn }) => {
      if (batchDueOn && batchDueOn > heldOn) return [id]
      const own = offers.filter(({ classId }) => classId === id)
      const wanted = kitsByOffer(
        own.map(({ booked }) => booked),
        seats,
        spareKits,
      )
      const there = lines.filter((line) => line.batchId === batchId)
      return counted(own, (_, i) => wanted[i] ?? 0) === counted(there, ({ kits }) => kits) ? [] : [id]
    }),
  )
}

async function summariesOf(
  db: Session,
  rows: readonly Row[],
  short: ReadonlyMap<number, string>,
): Promise<ClassSummary[]> {
  const changed = await outOfStep(db, rows)
  return rows.map(({ batchState, batchDueOn: _, spareKits: __, ...row }) => ({
    ...row,
    readiness:
      row.state !== 'offered'
        ? 'over'
        : changed.has(row.id)
          ? 'to change'
          : readinessOf(batchState, short.has(row.batchId ?? 0)),
  }))
}

/** Some classes, in no order. @param short what batches are short, with the last day to order */
export async function classesOf(
  db: Session,
  short: ReadonlyMap<number, string>,
  ids: readonly number[],
): Promise<ClassSummary[]> {
  if (ids.length === 0) return []
  return summariesOf(db, await summaries(db).where(inArray(classTable.id, [...ids])), short)
}

/** Of a span of days, or the newest two hundred. @param short what batches are short, with the last day to order */
export async function listClasses(
  db: Session,
  short: ReadonlyMap<number, string>,
  span?: { readonly from: string; readonly to: string },
): Promise<ClassSummary[]> {
  const rows = span
    ? await summaries(db)
        .where(and(gte(classTable.heldOn, span.from), lte(classTable.heldOn, span.to)))
        .orderBy(asc(classTable.heldOn), asc(classTable.beginsAt))
    : await summaries(db).orderBy(desc(classTable.heldOn), desc(classTable.id)).limit(200)
  return summariesOf(db, rows, short)
}

export async function findClass(shop: Shop, id: number): Promise<ClassAnswer> {
  const { db } = shop
  const short = await shortBatches(shop)
  const [row] = await summaries(db).where(eq(classTable.id, id))
  const [own] = await db
    .select({
      own: classTable,
      patternId: patternVersion.patternId,
      version: patternVersion.number,
      source: patternVersion.source,
    })
    .from(classTable)
    .innerJoin(patternVersion, eq(patternVersion.id, classTable.patternVersionId))
    .where(eq(classTable.id, id))
  if (!row || !own) throw notFound('class')
  const [summary] = await summariesOf(db, [row], short)
  if (!summary) throw notFound('class')
  const { teacherId, spareKits, price, note, walkStep, seats, minutes } = own.own
  const bookings = await db
    .select({
      ...getTableColumns(booking),
      leftHanded: customer.leftHanded,
      allergies: customer.allergies,
      known: customer.contact,
    })
    .from(booking)
    .leftJoin(customer, eq(customer.id, booking.customerId))
    .where(eq(booking.classId, id))
    .orderBy(asc(booking.seat))
  const moreDays = await daysOf(db, id)
  const wait = await db.select().from(waiting).where(eq(waiting.classId, id)).orderBy(asc(waiting.id))
  const offers = await offersOf(db, id)
  const kits = kitsByOffer(bookedBy(offers.length, bookings), seats, spareKits)
  const { report } = await shop.workers.run('form', {
    source: own.source,
    choices: offers[0]?.size ? { size: offers[0].size } : {},
  })
  const timed = minutesOf(report)
  const allMinutes = minutes * (1 + moreDays.length)
  const settings = await costSettings(db)
  const { teaching } = await settingsNow(shop)
  const materials = await materialsOf(
    shop,
    offers.map(({ size, colourwayVersionId }) => ({
      patternVersionId: own.own.patternVersionId,
      size,
      colourwayVersionId,
      kits: 1,
    })),
  )
  // Every seat pays the same, whichever of the offers it has.
  const dearest = Math.max(0, ...materials.map(({ cost }) => cost))
  const kit = priceOfKit(dearest, settings)
  const seat = priceOfSeat(kit.cost, seats, spareKits, allMinutes, settings)
  return {
    ...summary,
    teacherId,
    patternId: own.patternId,
    version: own.version,
    spareKits,
    price,
    note,
    walkStep,
    offers: offers.map(({ size, colourwayId, colourwayVersion, colourway }, i) => ({
      size,
      colourwayId,
      colourwayVersion,
      colourway,
      kits: kits[i] ?? 0,
    })),
    bookings: bookings.map(({ classId: _, leftHanded, allergies, known, ...each }) => ({
      ...each,
      contact: each.contact || (known ?? ''),
      leftHanded: leftHanded ?? false,
      allergies: allergies ?? '',
    })),
    waiting: wait.map(({ classId: _, askedAt: __, ...each }) => each),
    moreDays,
    plans: paces.map((pace) => ({ pace, ...plain(timePlan(timed.parts, allMinutes, pace, teaching)) })),
    cost: { kit: kit.cost, unpriced: materials[0]?.unpriced.length ?? 0, seat: seat.cost, suggested: seat.price },
  }
}

const plain = ({ parts, ...rest }: ReturnType<typeof timePlan>) => ({
  ...rest,
  parts: parts.map(({ from, ...part }) => (from === undefined ? part : { ...part, from })),
})

const daysOf = (db: Session, classId: number) =>
  db
    .select({ heldOn: classDay.heldOn, beginsAt: classDay.beginsAt })
    .from(classDay)
    .where(eq(classDay.classId, classId))
    .orderBy(asc(classDay.heldOn), asc(classDay.beginsAt))

async function keepDays(tx: Session, classId: number, days: readonly { heldOn: string; beginsAt: string }[]) {
  await tx.delete(classDay).where(eq(classDay.classId, classId))
  const each = [...new Map(days.map((day) => [`${day.heldOn} ${day.beginsAt}`, day])).values()]
  if (each.length > 0) await tx.insert(classDay).values(each.map((day) => ({ classId, ...day })))
}

const offersOf = (db: Session, classId: number) =>
  db
    .select({
      size: classOffer.size,
      colourwayVersionId: classOffer.colourwayVersionId,
      colourwayVersion: colourwayVersion.number,
      colourwayId: colourway.id,
      colourway: colourway.name,
    })
    .from(classOffer)
    .innerJoin(colourwayVersion, eq(colourwayVersion.id, classOffer.colourwayVersionId))
    .innerJoin(colourway, eq(colourway.id, colourwayVersion.colourwayId))
    .where(eq(classOffer.classId, classId))
    .orderBy(asc(classOffer.position))

/** Kits of each offer: as it is chosen; seats that have chosen nothing yet, and spare ones, take the first. */
function kitsByOffer(booked: readonly number[], seats: number, spare: number): number[] {
  const taken = booked.reduce((sum, each) => sum + each, 0)
  return booked.map((each, i) => (i === 0 ? each + Math.max(0, seats - taken) + spare : each))
}

/** How many seats have chosen each of so many offers. */
const bookedBy = (offers: number, bookings: readonly { readonly offer: number }[]): number[] =>
  Array.from({ length: offers }, (_, i) => bookings.filter(({ offer }) => offer === i).length)

/** The lines of a class's batch; what is the same as before keeps its bags. */
export async function linesForClass(
  tx: Session,
  id: number,
  before: readonly (WantedLine & { readonly id: number })[],
): Promise<WantedLine[]> {
  const [row] = await tx.select().from(classTable).where(eq(classTable.id, id))
  if (!row) throw notFound('class')
  const offers = await offersOf(tx, id)
  const bookings = await tx.select().from(booking).where(eq(booking.classId, id))
  const kits = kitsByOffer(bookedBy(offers.length, bookings), row.seats, row.spareKits)
  return offers.flatMap(({ size, colourwayVersionId }, i): WantedLine[] => {
    const wanted = { patternVersionId: row.patternVersionId, size, colourwayVersionId, kits: kits[i] ?? 0 }
    const same = before.find((line) => line.size === size && line.colourwayVersionId === colourwayVersionId)
    return wanted.kits === 0 ? [] : [{ ...(same ? { id: same.id } : {}), ...wanted }]
  })
}

/** Keeps a class with what it offers. @returns its id */
export async function keepClass(
  tx: Session,
  id: number | undefined,
  { patternId, version, offers, moreDays, ...rest }: z.output<typeof saveClass>,
  by: number,
): Promise<number> {
  const lines = await resolveLines(
    tx,
    offers.map(({ size, colourwayId }) => ({ patternId, version, size, colourwayId, kits: 1 })),
  ).catch((error: unknown) => {
    throw error instanceof HttpProblem
      ? new HttpProblem(error.status, error.code, error.message, {
          path: error.path?.replace('lines.', 'offers.') ?? 'offers',
          hint: error.hint ?? '',
        })
      : error
  })
  const [teacher] = await tx.select({ id: person.id }).from(person).where(eq(person.id, rest.teacherId))
  if (!teacher)
    throw new HttpProblem(422, 'no-teacher', 'There is no such teacher.', {
      path: 'teacherId',
      hint: 'Choose another.',
    })
  const values = { ...rest, patternVersionId: lines[0]?.patternVersionId ?? 0 }
  if (id === undefined) {
    const [made] = await tx
      .insert(classTable)
      .values({ ...values, madeBy: by })
      .returning({ id: classTable.id })
    const { id: classId } = made as { id: number }
    await tx.insert(classOffer).values(offersAt(classId, lines))
    await keepDays(tx, classId, moreDays)
    return classId
  }
  const bookings = await tx.select().from(booking).where(eq(booking.classId, id))
  const beyond = bookings.find(({ seat, offer }) => seat > rest.seats || offer >= lines.length)
  if (beyond)
    throw new HttpProblem(
      409,
      'booked',
      `${beyond.name} has seat ${beyond.seat}${beyond.seat > rest.seats ? '' : ', and has chosen what is not offered any more'}.`,
      {
        path: beyond.seat > rest.seats ? 'seats' : 'offers',
        hint: 'Free or change that seat first.',
      },
    )
  await tx.update(classTable).set(values).where(eq(classTable.id, id))
  await keepDays(tx, id, moreDays)
  for (const offer of offersAt(id, lines))
    await tx
      .insert(classOffer)
      .values(offer)
      .onConflictDoUpdate({
        target: [classOffer.classId, classOffer.position],
        set: { size: offer.size, colourwayVersionId: offer.colourwayVersionId },
      })
  await tx.delete(classOffer).where(and(eq(classOffer.classId, id), gte(classOffer.position, lines.length)))
  return id
}

const offersAt = (classId: number, lines: readonly WantedLine[]) =>
  lines.map(({ size, colourwayVersionId }, position) => ({ classId, position, size, colourwayVersionId }))

/** A class that is over, locked to be opened again. */
export async function lockOver(tx: Session, id: number) {
  const [row] = await tx
    .select({ title: classTable.title, batchId: classTable.batchId, undoable: stillUndoable(classTable.overAt) })
    .from(classTable)
    .where(eq(classTable.id, id))
    .for('update')
  if (!row) throw notFound('class')
  refuseOld(row)
  return row
}

/** A class's row, locked until the transaction ends. @throws HttpProblem where it is over */
export async function lockClass(tx: Session, id: number) {
  const [row] = await tx.select().from(classTable).where(eq(classTable.id, id)).for('update')
  if (!row) throw notFound('class')
  if (row.state !== 'offered')
    throw new HttpProblem(
      409,
      'wrong-state',
      `This class is ${row.state === 'taught' ? 'taught' : 'called off'} already.`,
      { hint: 'Reload the page.' },
    )
  return row
}
