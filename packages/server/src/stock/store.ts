import type { Item, ItemStory } from '@tessellum/contract/stock'
import { asc, desc, eq, gt, inArray, sql } from 'drizzle-orm'
import { batch } from '../batches/schema'
import type { Session } from '../database/connect'
import { notFound } from '../http/refusal'
import { person } from '../people/schema'
import { balance, item, lot, maker, move, pack } from './schema'

const items = (db: Session) =>
  db
    .select({
      item,
      maker: maker.name,
      packs: sql<
        Item['packs']
      >`(select coalesce(json_agg(json_build_object('amount', ${pack.amount}, 'price', ${pack.price}, 'leadDays', ${pack.leadDays}) order by ${pack.amount}), '[]') from ${pack} where ${pack.itemId} = ${item.id})`,
      onHand: sql<string>`coalesce(sum(${balance.onHand}), 0)`,
      reserved: sql<string>`coalesce(sum(${balance.reserved}), 0)`,
    })
    .from(item)
    .innerJoin(maker, eq(maker.id, item.makerId))
    .leftJoin(lot, eq(lot.itemId, item.id))
    .leftJoin(balance, eq(balance.lotId, lot.id))
    .groupBy(item.id, maker.name)
    .$dynamic()

type Row = Awaited<ReturnType<typeof items>>[number]

function asItem({ item: row, maker: makerName, packs, onHand, reserved }: Row): Item {
  return {
    id: row.id,
    code: row.code,
    category: row.category,
    kind: row.kind,
    size: row.size,
    colourCode: row.colourCode,
    colourName: row.colourName,
    finish: row.finish,
    colour: row.colour,
    unit: row.unit,
    place: row.place,
    reorderBelow: row.reorderBelow,
    maker: makerName,
    packs,
    onHand: Number(onHand),
    reserved: Number(reserved),
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

export async function listItems(db: Session, ids?: readonly number[]): Promise<Item[]> {
  if (ids?.length === 0) return []
  const query = items(db)
  const rows = await (ids ? query.where(inArray(item.id, [...ids])) : query).orderBy(
    item.category,
    item.kind,
    item.size,
    maker.name,
    item.colourName,
  )
  return rows.map(asItem)
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

/** The newest moves are enough for a page; the rest are counted in the balances all the same. */
const movesShown = 200

export async function itemStory(db: Session, id: number): Promise<ItemStory> {
  const [found] = await listItems(db, [id])
  if (!found) throw notFound('item')
  const lots = await db
    .select({
      id: lot.id,
      code: lot.code,
      receivedOn: lot.receivedOn,
      onHand: balance.onHand,
      reserved: balance.reserved,
    })
    .from(lot)
    .innerJoin(balance, eq(balance.lotId, lot.id))
    .where(eq(lot.itemId, id))
    .orderBy(asc(lot.receivedOn), asc(lot.id))
  const moves = await db
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
    .where(eq(lot.itemId, id))
    .orderBy(desc(move.at), desc(move.id))
    .limit(movesShown)
  const day = sql<string>`(${move.at} at time zone 'UTC')::date::text`
  const moved = await db
    .select({ day, onHand: sql<string>`sum(${move.onHand})`, reserved: sql<string>`sum(${move.reserved})` })
    .from(move)
    .innerJoin(lot, eq(lot.id, move.lotId))
    .where(eq(lot.itemId, id))
    .groupBy(day)
    .orderBy(day)
  const days: ItemStory['days'] = []
  for (const { day: on, ...change } of moved) {
    const { onHand, reserved } = days[days.length - 1] ?? { onHand: 0, reserved: 0 }
    days.push({ day: on, onHand: onHand + Number(change.onHand), reserved: reserved + Number(change.reserved) })
  }
  const quantity = sql<string>`sum(${move.reserved})`
  const promises = await db
    .select({ batchId: batch.id, name: batch.name, dueOn: batch.dueOn, quantity })
    .from(move)
    .innerJoin(lot, eq(lot.id, move.lotId))
    .innerJoin(batch, eq(batch.id, move.batchId))
    .where(eq(lot.itemId, id))
    .groupBy(batch.id)
    .having(gt(quantity, sql`0`))
    .orderBy(batch.dueOn, batch.id)
  return {
    ...found,
    lots,
    days,
    promises: promises.map((each) => ({ ...each, quantity: Number(each.quantity) })),
    moves: moves.map(({ move: row, lotCode, by, batchName, reversed }) => ({
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
