/** The diary and the bench: promises beside what they still need, and what is to be done next. */
import type { Bench, Diary } from '@tessellum/contract/diary'
import { counted } from '@tessellum/core/measure/counted'
import { sayQuantity } from '@tessellum/core/stock/quantity'
import { and, asc, eq, gte, inArray, lte, ne, sql } from 'drizzle-orm'
import { readinessOf } from '../batches/readiness'
import { classesOf, listClasses } from '../classes/store'
import type { Session } from '../database/connect'
import { listOrders } from '../orders/store'
import { buyList, shortIn } from '../planning/buy-list'
import { batch } from '../schema/batches'
import { classDay, classTable } from '../schema/classes'
import { stocktake } from '../schema/ledger'
import { customerOrder } from '../schema/orders'
import { dayBefore, workingDaysBefore } from '../settings/days'
import { settingsNow } from '../settings/store'
import type { Shop } from '../shop'
import { listPurchases } from '../stock/purchases'

interface Span {
  readonly from: string
  readonly to: string
}

/** Batches of a span with how far they are packed, in one question. */
const batchesIn = (db: Session, span: Span | undefined) =>
  db
    .select({
      id: batch.id,
      name: batch.name,
      dueOn: batch.dueOn,
      state: batch.state,
      // Named in full: where one table is asked, a column alone would be taken for the inner one's.
      kits: sql<number>`(select coalesce(sum(batch_line.kits), 0)::int from batch_line where batch_line.batch_id = batch.id)`,
      bags: sql<number>`(select count(*)::int from bag where bag.batch_id = batch.id)`,
      filled: sql<number>`(select count(bag.filled)::int from bag where bag.batch_id = batch.id)`,
    })
    .from(batch)
    .where(
      span
        ? and(gte(batch.dueOn, span.from), lte(batch.dueOn, span.to))
        : inArray(batch.state, ['draft', 'reserved', 'packing', 'packed']),
    )
    .orderBy(asc(batch.dueOn), asc(batch.id))

/** Of classes that go over several days, those after the first. */
const furtherDays = (db: Session, { from, to }: Span) =>
  db
    .select({
      id: classTable.id,
      title: classTable.title,
      place: classTable.place,
      minutes: classTable.minutes,
      on: classDay.heldOn,
      beginsAt: classDay.beginsAt,
    })
    .from(classDay)
    .innerJoin(classTable, eq(classTable.id, classDay.classId))
    .where(and(ne(classTable.state, 'cancelled'), gte(classDay.heldOn, from), lte(classDay.heldOn, to)))

/** Of what is no class. */
const wholeDay = { beginsAt: null, minutes: null, place: null }

export async function diaryOf(shop: Shop, span: Span): Promise<Diary> {
  const { db } = shop
  const short = shortIn(await buyList(shop, undefined))
  const {
    kits: { packingDays },
    days,
  } = await settingsNow(shop)
  const packBy = (day: string) => workingDaysBefore(day, packingDays, days)
  const [classes, orders, batches, purchases, moreDays] = await Promise.all([
    listClasses(db, short, span),
    listOrders(db, short, packBy, span),
    batchesIn(db, span),
    listPurchases(db),
    furtherDays(db, span),
  ])
  // The first day of some lies outside.
  const outside = moreDays.flatMap(({ id }) => (classes.some((each) => each.id === id) ? [] : [id]))
  const all = [...classes, ...(await classesOf(db, short, outside))]
  const ofClasses = new Set([...classes, ...orders].flatMap(({ batchId }) => batchId ?? []))
  const needs = (batchId: number | null, on: string, ready: string) => ({
    buyBy: batchId === null ? null : (short.get(batchId) ?? null),
    packBy: ready === 'ready' || ready === 'over' ? null : packBy(on),
  })
  const entries: Diary = [
    ...classes
      .filter(({ state }) => state !== 'cancelled')
      .map((each) => ({
        kind: 'class' as const,
        id: each.id,
        title: each.title,
        on: each.heldOn,
        beginsAt: each.beginsAt,
        minutes: each.minutes,
        place: each.place,
        detail: `${each.beginsAt}, ${each.place}, ${each.booked} of ${counted(each.seats, 'seat')}, ${each.teacher}`,
        readiness: each.readiness,
        page: `/diary/classes/${each.id}`,
        ...needs(each.batchId, each.heldOn, each.readiness),
      })),
    ...moreDays.map((each) => ({
      ...each,
      kind: 'class' as const,
      detail: `${each.beginsAt}, ${each.place}, a further day`,
      readiness: all.find(({ id }) => id === each.id)?.readiness ?? 'over',
      // Its kits are bought and packed for the first day.
      page: `/diary/classes/${each.id}`,
      buyBy: null,
      packBy: null,
    })),
    ...orders
      .filter(({ state }) => state !== 'cancelled')
      .map((each) => ({
        kind: 'order' as const,
        id: each.id,
        title: `${each.pattern} for ${each.customer}`,
        on: each.wantedOn,
        ...wholeDay,
        detail: [each.size, each.colourway].filter(Boolean).join(', in '),
        readiness: each.readiness,
        page: '/diary/orders',
        ...needs(each.batchId, each.wantedOn, each.readiness),
      })),
    ...batches
      .filter(({ id, state }) => state !== 'cancelled' && !ofClasses.has(id))
      .map((each) => {
        const ready = each.state === 'closed' ? ('over' as const) : readinessOf(each.state, short.has(each.id))
        return {
          kind: 'batch' as const,
          id: each.id,
          title: each.name,
          on: each.dueOn,
          ...wholeDay,
          detail: counted(each.kits, 'kit'),
          readiness: ready,
          page: `/kits/${each.id}`,
          ...needs(each.id, each.dueOn, ready),
        }
      }),
    ...purchases
      .filter(({ expectedOn }) => expectedOn >= span.from && expectedOn <= span.to)
      .map((each) => ({
        kind: 'delivery' as const,
        id: each.id,
        title: each.name,
        on: each.expectedOn,
        ...wholeDay,
        detail: `${sayQuantity(each.amount, each.unit)} from ${each.supplier}`,
        readiness: 'ready' as const,
        page: '/kits/buy',
        buyBy: null,
        packBy: null,
      })),
  ]
  return entries.sort((a, b) => a.on.localeCompare(b.on) || a.title.localeCompare(b.title))
}

export async function benchOf(shop: Shop, today: string): Promise<Bench> {
  const { db } = shop
  const lines = await buyList(shop, undefined)
  const short = shortIn(lines)
  const {
    kits: { packingDays },
    days,
    ahead: { unplannedDays, classDays, orderDays },
  } = await settingsNow(shop)
  // Classes without kits, and orders without a batch, are things to do from then on.
  const ahead = dayBefore(today, -unplannedDays)
  const [batches, purchases, classes, orders, counts, [low]] = await Promise.all([
    batchesIn(db, undefined),
    listPurchases(db),
    db
      .select({
        id: classTable.id,
        title: classTable.title,
        heldOn: classTable.heldOn,
        beginsAt: classTable.beginsAt,
        batchId: classTable.batchId,
        lastDay: sql<string>`greatest(${classTable.heldOn}, (select max(class_day.held_on) from class_day where class_day.class_id = ${classTable.id}))::text`,
        // Of a further day, where that is today.
        againAt: sql<
          string | null
        >`(select min(class_day.begins_at) from class_day where class_day.class_id = ${classTable.id} and class_day.held_on = ${today}::date)`,
      })
      .from(classTable)
      .where(and(eq(classTable.state, 'offered'), lte(classTable.heldOn, ahead)))
      .orderBy(asc(classTable.heldOn)),
    db
      .select({ order: customerOrder, batchState: batch.state })
      .from(customerOrder)
      .leftJoin(batch, eq(batch.id, customerOrder.batchId))
      .where(and(eq(customerOrder.state, 'taken'), lte(customerOrder.wantedOn, ahead))),
    db.select().from(stocktake).where(eq(stocktake.state, 'counting')),
    (async () =>
      (await db.execute<{ low: number }>(sql`select count(*)::int as low from item_total where low`)).rows)(),
  ])
  // What only runs low is one thing to do, at the end.
  const bench: Bench = lines
    .filter(({ short }) => short > 0)
    .map((line) => ({
      kind: 'buy' as const,
      text: `Order ${line.packs.map(({ count, amount }) => `${count} x ${sayQuantity(amount, line.unit)}`).join(', ') || sayQuantity(line.short, line.unit)} of ${line.name}`,
      detail: `for ${line.batches.map(({ name }) => name).join(', ')}`,
      by: line.orderBy,
      page: '/kits/buy',
    }))
  for (const { id, name, dueOn, state, kits, bags, filled } of batches) {
    const page = `/kits/${id}`
    const packBy = workingDaysBefore(dueOn, packingDays, days)
    if (state === 'draft' && !short.has(id))
      bench.push({
        kind: 'reserve',
        text: `Reserve ${counted(kits, 'kit')} of ${name}`,
        detail: 'the shelf has it all',
        by: packBy,
        page,
      })
    if (state === 'reserved')
      bench.push({
        kind: 'pack',
        text: `Pack ${counted(kits, 'kit')} of ${name}`,
        detail: counted(bags, 'bag'),
        by: packBy,
        page: `${page}/pack`,
      })
    if (state === 'packing')
      bench.push({
        kind: 'pack',
        text: `Go on packing ${name}`,
        detail: `${filled} of ${counted(bags, 'bag')} filled`,
        by: packBy,
        page: `${page}/pack`,
      })
    if (state === 'packed')
      bench.push({
        kind: 'close',
        text: `Close ${name}`,
        detail: 'every bag is filled',
        by: dueOn,
        page: `${page}/pack`,
      })
  }
  for (const { name, expectedOn, supplier } of purchases)
    if (expectedOn <= today)
      bench.push({
        kind: 'receive',
        text: `Receive ${name}`,
        detail: `from ${supplier}`,
        by: expectedOn,
        page: '/kits/buy',
      })
  for (const { id, title, heldOn, beginsAt, batchId, lastDay, againAt } of classes) {
    const page = `/diary/classes/${id}`
    const hour = heldOn === today ? beginsAt : againAt
    if (lastDay < today)
      bench.push({ kind: 'teach', text: `Put ${title} down as taught`, detail: 'its day is over', by: lastDay, page })
    else if (hour !== null) bench.push({ kind: 'teach', text: `Teach ${title}`, detail: hour, by: today, page })
    if (batchId === null && heldOn >= today)
      bench.push({
        kind: 'plan',
        text: `Plan the kits of ${title}`,
        detail: 'no batch yet',
        by: dayBefore(heldOn, classDays),
        page,
      })
  }
  for (const { order, batchState } of orders) {
    if (order.batchId === null)
      bench.push({
        kind: 'plan',
        text: `Plan the kit for ${order.customer}`,
        detail: 'no batch yet',
        by: dayBefore(order.wantedOn, orderDays),
        page: '/diary/orders',
      })
    else if (batchState === 'closed')
      bench.push({
        kind: 'hand over',
        text: `Hand over to ${order.customer}`,
        detail: order.promised,
        by: order.wantedOn,
        page: '/diary/orders',
      })
  }
  for (const { id, place } of counts)
    bench.push({
      kind: 'count',
      text: `Go on counting ${place}`,
      detail: 'frozen',
      by: null,
      page: `/stock/count/${id}`,
    })
  if (low && low.low > 0)
    bench.push({
      kind: 'low',
      text: `${counted(low.low, 'item runs', 'items run')} low`,
      detail: 'below where they are reordered',
      by: null,
      page: '/stock?show=low',
    })
  const late = ({ by }: Bench[number]) => by ?? '9999'
  return bench.sort((a, b) => late(a).localeCompare(late(b)) || a.text.localeCompare(b.text))
}
