/** All that is told of one item: its lots and moves, who it is promised to, and what was there day by day. */
import type { ItemStory, Move } from '@tessellum/contract/stock'
import { and, asc, desc, eq, inArray, lt, sql } from 'drizzle-orm'
import type { Database, Session } from '../database/connect'
import { preparedQuery } from '../database/prepared'
import { notFound } from '../problem'
import { batch } from '../schema/batches'
import { balance, move, purchase } from '../schema/ledger'
import { person } from '../schema/people'
import { lot } from '../schema/stock'
import { inBagsOf, listItems } from './store'
import { storyDays } from './story-days'

/** A page of moves; the rest are counted in the balances all the same. */
const movesShown = 100

const latestMoves = preparedQuery((db) => {
  // The latest of each lot, from its index: those before them are not read at all.
  const ofLot = db
    .select({ id: move.id })
    .from(move)
    .where(and(eq(move.lotId, lot.id), lt(move.id, sql.placeholder('before'))))
    .orderBy(desc(move.id))
    .limit(movesShown + 1)
    .as('of_lot')
  const latest = db
    .select({ id: ofLot.id })
    .from(lot)
    .crossJoinLateral(ofLot)
    .where(eq(lot.itemId, sql.placeholder('itemId')))
  return (
    db
      .select({
        id: move.id,
        lotId: move.lotId,
        lotCode: lot.code,
        kind: move.kind,
        onHand: move.onHand,
        reserved: move.reserved,
        reason: move.reason,
        batchId: move.batchId,
        batchName: batch.name,
        by: person.fullName,
        at: move.at,
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
      .prepare('latest_moves')
  )
})

/** An item's moves, newest first. @param before only those before this one */
export async function movesOf(
  db: Session,
  itemId: number,
  before: number = Number.MAX_SAFE_INTEGER,
): Promise<{ moves: Move[]; more: boolean }> {
  const rows = await latestMoves(db).execute({ itemId, before })
  return {
    more: rows.length > movesShown,
    moves: rows.slice(0, movesShown).map((row) => ({ ...row, at: row.at.toISOString() })),
  }
}

export async function itemStory(db: Database, id: number): Promise<ItemStory> {
  const [[found], lots, { moves, more }, days, promises, purchases] = await Promise.all([
    listItems(db, [id]),
    lotsOf(db, id),
    movesOf(db, id),
    storyDays(db, id),
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
