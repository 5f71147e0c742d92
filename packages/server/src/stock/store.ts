import type { Item, ItemStory, Move } from '@tessellum/contract/stock'
import { and, asc, desc, eq, inArray, isNotNull, lt, sql } from 'drizzle-orm'
import type { Session } from '../database/connect'
import { preparedQuery } from '../database/prepared'
import { notFound } from '../problem'
import { bag } from '../schema/bags'
import { batch } from '../schema/batches'
import { balance, itemTotal, move, purchase } from '../schema/ledger'
import { person } from '../schema/people'
import { item, lot, maker, pack } from '../schema/stock'
import { dateIn, timeZoneOf } from '../settings/days'
import { identityOf } from './identity'

const items = (db: Session) =>
  db
    .select({
      item,
      maker: maker.name,
      packs: sql<
        Item['packs']
      >`(select coalesce(json_agg(json_build_object('amount', ${pack.amount}, 'price', ${pack.price}, 'leadDays', ${pack.leadDays}) order by ${pack.amount}), '[]') from ${pack} where ${pack.itemId} = ${item.id})`,
      coming: sql<string>`(select coalesce(sum(${purchase.amount}), 0) from ${purchase} where ${purchase.itemId} = ${item.id} and ${purchase.state} = 'ordered')`,
      onHand: itemTotal.onHand,
      reserved: itemTotal.reserved,
    })
    .from(item)
    .innerJoin(maker, eq(maker.id, item.makerId))
    .innerJoin(itemTotal, eq(itemTotal.itemId, item.id))
    .$dynamic()

type Row = Awaited<ReturnType<typeof items>>[number]

function asItem({ item: row, maker: makerName, packs, coming, onHand, reserved }: Row): Item {
  return {
    ...identityOf(row),
    code: row.code,
    unit: row.unit,
    barcode: row.barcode,
    cautions: row.cautions,
    reorderBelow: row.reorderBelow,
    maker: makerName,
    packs,
    coming: Number(coming),
    onHand,
    reserved,
    bead: beadOf(row, makerName),
  }
}

type Figures = Pick<Row['item'], 'kind' | 'size' | 'lengthMm' | 'acrossMm' | 'boreMm' | 'massMg' | 'contact' | 'bores'>

function beadOf(
  { kind, size, lengthMm, acrossMm, boreMm, massMg, contact, bores }: Figures,
  makerName: string,
): Item['bead'] {
  if (!(lengthMm && acrossMm && boreMm && massMg && contact)) return null
  return { kind, size, lengthMm, acrossMm, boreMm, massMg, contact, bores: bores === 2 ? 2 : 1, maker: makerName }
}

const inOrder = [item.category, item.kind, item.size, maker.name, item.colourName, item.id]

const itemsById = preparedQuery((db) =>
  items(db)
    .where(sql`${item.id} = any(${sql.placeholder('ids')})`)
    .orderBy(...inOrder)
    .prepare('items_by_id'),
)

export async function listItems(db: Session, ids: readonly number[]): Promise<Item[]> {
  if (ids.length === 0) return []
  const rows = await itemsById(db).execute({ ids })
  return rows.map(asItem)
}

/** So many at once: a shelf may be long. */
const part = 250

/** Every item in the same order, part after part. */
export async function* allItems(db: Session): AsyncGenerator<Item[]> {
  const rows = await db
    .select({ id: item.id })
    .from(item)
    .innerJoin(maker, eq(maker.id, item.makerId))
    .orderBy(...inOrder)
  for (let at = 0; at < rows.length; at += part)
    yield listItems(
      db,
      rows.slice(at, at + part).map(({ id }) => id),
    )
}

/** Every bead that is kept, once for each maker, kind and size. */
export async function beadRecords(db: Session): Promise<NonNullable<Item['bead']>[]> {
  const rows = await db
    .selectDistinctOn([maker.name, item.kind, item.size], {
      maker: maker.name,
      kind: item.kind,
      size: item.size,
      lengthMm: item.lengthMm,
      acrossMm: item.acrossMm,
      boreMm: item.boreMm,
      massMg: item.massMg,
      contact: item.contact,
      bores: item.bores,
    })
    .from(item)
    .innerJoin(maker, eq(maker.id, item.makerId))
    .where(eq(item.category, 'bead'))
    .orderBy(maker.name, item.kind, item.size, item.id)
  return rows.flatMap(({ maker: makerName, ...row }) => {
    const bead = beadOf(row, makerName)
    return bead ? [bead] : []
  })
}

/** Of some lots, what lies in bags that have not been issued yet: on hand by the ledger, and not in the tube. */
export async function inBagsOf(db: Session, lotIds: readonly number[]): Promise<Map<number, number>> {
  if (lotIds.length === 0) return new Map()
  const rows = await db
    .select({ lotId: bag.lotId, quantity: sql<string>`sum(${bag.filled})` })
    .from(bag)
    .innerJoin(batch, eq(batch.id, bag.batchId))
    .where(and(inArray(bag.lotId, [...lotIds]), isNotNull(bag.filled), inArray(batch.state, ['packing', 'packed'])))
    .groupBy(bag.lotId)
  return new Map(rows.map(({ lotId, quantity }) => [lotId ?? 0, Number(quantity)]))
}

/** A page of moves; the rest are counted in the balances all the same. */
const movesShown = 100

/** An item's moves, newest first. @param before only those before this one */
export async function movesOf(db: Session, itemId: number, before?: number): Promise<{ moves: Move[]; more: boolean }> {
  // The latest of each lot, from its index: those before them are not read at all.
  const ofLot = db
    .select({ id: move.id })
    .from(move)
    .where(and(eq(move.lotId, lot.id), before === undefined ? undefined : lt(move.id, before)))
    .orderBy(desc(move.id))
    .limit(movesShown + 1)
    .as('of_lot')
  const latest = db.select({ id: ofLot.id }).from(lot).crossJoinLateral(ofLot).where(eq(lot.itemId, itemId))
  const rows = await db
    .select({
      move,
      lotCode: lot.code,
      by: person.fullName,
      batchName: batch.name,
      reversed: sql<boolean>`exists (select from ${move} as back where back.reverses = ${move.id})`,
    })
    .from(move)
    .innerJoin(lot, eq(lot.id, move.lotId))
    .innerJoin(person, eq(person.id, move.personId))
    .leftJoin(batch, eq(batch.id, move.batchId))
    .where(inArray(move.id, latest))
    // In the order in which they were written down: clocks may be set back.
    .orderBy(desc(move.id))
    .limit(movesShown + 1)
  return {
    more: rows.length > movesShown,
    moves: rows.slice(0, movesShown).map(({ move: row, lotCode, by, batchName, reversed }) => ({
      id: row.id,
      lotId: row.lotId,
      lotCode,
      kind: row.kind,
      onHand: row.onHand,
      reserved: row.reserved,
      reason: row.reason,
      batchId: row.batchId,
      batchName,
      by,
      at: row.at.toISOString(),
      reversed,
    })),
  }
}

export async function itemStory(db: Session, id: number): Promise<ItemStory> {
  const [[found], lots, { moves, more }, days, promises, purchases] = await Promise.all([
    listItems(db, [id]),
    lotsOf(db, id),
    movesOf(db, id),
    daysOf(db, id),
    promisesOf(db, id),
    ordersOf(db, id),
  ])
  if (!found) throw notFound('item')
  return { ...found, lots, days, promises, purchases, moves, moreMoves: more }
}

async function lotsOf(db: Session, itemId: number): Promise<ItemStory['lots']> {
  const lots = await db
    .select({
      id: lot.id,
      code: lot.code,
      receivedOn: lot.receivedOn,
      place: lot.place,
      supplier: lot.supplier,
      unitCost: lot.unitCost,
      mgPerBead: lot.mgPerBead,
      onHand: balance.onHand,
      reserved: balance.reserved,
    })
    .from(lot)
    .innerJoin(balance, eq(balance.lotId, lot.id))
    .where(eq(lot.itemId, itemId))
    .orderBy(asc(lot.receivedOn), asc(lot.id))
  const inBags = await inBagsOf(
    db,
    lots.map((each) => each.id),
  )
  return lots.map((each) => ({ ...each, inBags: inBags.get(each.id) ?? 0 }))
}

/** What was there and promised at the end of each day on which something moved. */
async function daysOf(db: Session, itemId: number): Promise<ItemStory['days']> {
  // A day is written out once, not for each move.
  const byDay = db
    .select({
      day: dateIn(move.at, await timeZoneOf(db)).as('day'),
      onHand: sql`sum(${move.onHand})`.as('change'),
      reserved: sql`sum(${move.reserved})`.as('reserved_change'),
    })
    .from(move)
    .innerJoin(lot, eq(lot.id, move.lotId))
    .where(eq(lot.itemId, itemId))
    .groupBy(sql`1`)
    .as('by_day')
  const moved = await db
    .select({
      day: sql<string>`${byDay.day}::text`,
      onHand: sql<string>`${byDay.onHand}`,
      reserved: sql<string>`${byDay.reserved}`,
    })
    .from(byDay)
    .orderBy(byDay.day)
  let [onHand, reserved] = [0, 0]
  return moved.map(({ day, ...change }) => {
    onHand += Number(change.onHand)
    reserved += Number(change.reserved)
    return { day, onHand, reserved }
  })
}

async function promisesOf(db: Session, itemId: number): Promise<ItemStory['promises']> {
  const promised = sql<string>`sum(${move.reserved})`
  const promises = await db
    .select({ batchId: batch.id, name: batch.name, dueOn: batch.dueOn, quantity: promised })
    .from(move)
    .innerJoin(lot, eq(lot.id, move.lotId))
    .innerJoin(batch, eq(batch.id, move.batchId))
    .where(eq(lot.itemId, itemId))
    .groupBy(batch.id)
    .having(sql`${promised} > 0`)
    .orderBy(batch.dueOn, batch.id)
  return promises.map((each) => ({ ...each, quantity: Number(each.quantity) }))
}

const ordersOf = (db: Session, itemId: number): Promise<ItemStory['purchases']> =>
  db
    .select({
      id: purchase.id,
      supplier: purchase.supplier,
      amount: purchase.amount,
      cost: purchase.cost,
      expectedOn: purchase.expectedOn,
    })
    .from(purchase)
    .where(and(eq(purchase.itemId, itemId), eq(purchase.state, 'ordered')))
    .orderBy(asc(purchase.expectedOn), asc(purchase.id))

/** Lots of some items with what is free in each, oldest first; locked against other takers where `lock` is set. */
export async function freeLots(db: Session, itemIds: readonly number[], lock: boolean) {
  if (itemIds.length === 0) return []
  const query = db
    .select({
      lotId: lot.id,
      itemId: lot.itemId,
      onHand: balance.onHand,
      reserved: balance.reserved,
      receivedOn: lot.receivedOn,
      mgPerBead: lot.mgPerBead,
    })
    .from(balance)
    .innerJoin(lot, eq(lot.id, balance.lotId))
    .where(inArray(lot.itemId, [...itemIds]))
    // One order for everybody, so that two batches wait for one another and never for each other.
    .orderBy(asc(balance.lotId))
  const rows = await (lock ? query.for('update', { of: balance }) : query)
  return rows
    .map((row) => ({ ...row, free: row.onHand - row.reserved }))
    .sort((a, b) => a.receivedOn.localeCompare(b.receivedOn) || a.lotId - b.lotId)
}
