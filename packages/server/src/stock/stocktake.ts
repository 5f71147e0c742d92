/** Counting a place: frozen as the ledger has it, counted tube by tube, and posted as corrections, whatever moved meanwhile. */
import type { FoundTube, PlaceSummary, Stocktake, StocktakeSummary } from '@tessellum/contract/stocktake'
import { counted } from '@tessellum/core/measure/counted'
import { todayIn } from '@tessellum/core/measure/today'
import { itemName } from '@tessellum/core/stock/item-name'
import { effectOf } from '@tessellum/core/stock/moves'
import { and, asc, desc, eq, inArray, sql } from 'drizzle-orm'
import { logActivity } from '../audit/log'
import type { Actor } from '../context'
import type { Session } from '../database/connect'
import { brokenConstraint } from '../database/errors'
import { HttpProblem, notFound } from '../problem'
import { bag } from '../schema/bags'
import { batch } from '../schema/batches'
import { balance, move, stocktake, stocktakeRow } from '../schema/ledger'
import { person } from '../schema/people'
import { item, lot, pack } from '../schema/stock'
import { timeZoneOf } from '../settings/days'
import { identityOf } from './identity'
import { inBagsOf, listItems } from './store'

export async function listPlaces(db: Session): Promise<PlaceSummary[]> {
  return db
    .select({
      place: lot.place,
      lots: sql<number>`count(*)::int`,
      counting: sql<
        number | null
      >`(select ${stocktake.id} from ${stocktake} where ${stocktake.place} = ${lot.place} and ${stocktake.state} = 'counting')`,
    })
    .from(lot)
    .innerJoin(balance, eq(balance.lotId, lot.id))
    .where(sql`${lot.place} <> '' and ${balance.onHand} > 0`)
    .groupBy(lot.place)
    .orderBy(asc(lot.place))
}

const summaries = (db: Session) =>
  db
    .select({
      id: stocktake.id,
      place: stocktake.place,
      state: stocktake.state,
      begunAt: stocktake.begunAt,
      begunBy: person.fullName,
      lots: sql<number>`(select count(*)::int from ${stocktakeRow} where ${stocktakeRow.stocktakeId} = ${stocktake.id})`,
      counted: sql<number>`(select count(${stocktakeRow.counted})::int from ${stocktakeRow} where ${stocktakeRow.stocktakeId} = ${stocktake.id})`,
    })
    .from(stocktake)
    .innerJoin(person, eq(person.id, stocktake.begunBy))
    .orderBy(desc(stocktake.id))
    .limit(100)
    .$dynamic()

type Row = Awaited<ReturnType<typeof summaries>>[number]
const summaryOf = ({ begunAt, ...row }: Row): StocktakeSummary => ({ ...row, begunAt: begunAt.toISOString() })

export const listStocktakes = async (db: Session): Promise<StocktakeSummary[]> => (await summaries(db)).map(summaryOf)

/** Freezes a place: every lot there, with what its tube should hold. */
export async function beginStocktake(tx: Session, place: string, { personId }: Actor): Promise<number> {
  const lots = await tx
    .select({ lotId: lot.id, onHand: balance.onHand })
    .from(lot)
    .innerJoin(balance, eq(balance.lotId, lot.id))
    .where(and(eq(lot.place, place), sql`${balance.onHand} > 0`))
    .orderBy(asc(lot.id))
    .for('update', { of: balance })
  if (lots.length === 0)
    throw new HttpProblem(422, 'nothing-there', `Nothing lies in "${place}".`, {
      path: 'place',
      hint: 'Choose a place with lots in it.',
    })
  const inBags = await inBagsOf(
    tx,
    lots.map(({ lotId }) => lotId),
  )
  try {
    const [made] = await tx.insert(stocktake).values({ place, begunBy: personId }).returning({ id: stocktake.id })
    const { id } = made as { id: number }
    await tx
      .insert(stocktakeRow)
      .values(lots.map(({ lotId, onHand }) => ({ stocktakeId: id, lotId, frozen: onHand - (inBags.get(lotId) ?? 0) })))
    await logActivity(tx, personId, `began to count ${place}`, `/stock/count/${id}`)
    return id
  } catch (error) {
    if (brokenConstraint(error) === 'stocktake_one_at_a_time')
      throw new HttpProblem(409, 'counting-already', `"${place}" is being counted already.`, {
        path: 'place',
        hint: 'Go on with that count.',
      })
    throw error
  }
}

export async function stocktakeOf(db: Session, id: number): Promise<Stocktake> {
  const [found] = await summaries(db).where(eq(stocktake.id, id))
  if (!found) throw notFound('stocktake')
  const rows = await db
    .select({ row: stocktakeRow, lot, onHand: balance.onHand, countedBy: person.fullName })
    .from(stocktakeRow)
    .innerJoin(lot, eq(lot.id, stocktakeRow.lotId))
    .innerJoin(balance, eq(balance.lotId, lot.id))
    .leftJoin(person, eq(person.id, stocktakeRow.countedBy))
    .where(eq(stocktakeRow.stocktakeId, id))
  const items = new Map(
    (await listItems(db, [...new Set(rows.map((each) => each.lot.itemId))])).map((each) => [each.id, each]),
  )
  const inBags = await inBagsOf(
    db,
    rows.map((each) => each.lot.id),
  )
  const costs = await unitCosts(db, [...items.keys()])
  return {
    ...summaryOf(found),
    rows: rows
      .map(({ row, lot: tube, onHand, countedBy }) => {
        const of = items.get(tube.itemId)
        if (!of) throw new Error(`Lot ${tube.id} is of no item.`)
        const now = onHand - (inBags.get(tube.id) ?? 0)
        const expected = row.expected ?? now
        const each = tube.unitCost ?? costs.get(tube.itemId)
        return {
          lotId: tube.id,
          lotCode: tube.code,
          itemId: of.id,
          name: itemName(of),
          item: identityOf(of),
          unit: of.unit,
          frozen: row.frozen,
          moved: expected - row.frozen,
          expected,
          counted: row.counted,
          countedBy,
          cost: row.counted === null || each === undefined ? null : Math.round((row.counted - expected) * each),
        }
      })
      .sort((a, b) => a.name.localeCompare(b.name) || a.lotCode.localeCompare(b.lotCode)),
  }
}

/** What a unit of each item costs where a lot does not say: by its cheapest pack. */
async function unitCosts(db: Session, ids: readonly number[]): Promise<Map<number, number>> {
  if (ids.length === 0) return new Map()
  const rows = await db
    .select({ itemId: pack.itemId, each: sql<number>`min(${pack.price}::float8 / ${pack.amount})` })
    .from(pack)
    .where(inArray(pack.itemId, [...ids]))
    .groupBy(pack.itemId)
  return new Map(rows.map(({ itemId, each }) => [itemId, each]))
}

async function lockCounting(tx: Session, id: number) {
  const [row] = await tx.select().from(stocktake).where(eq(stocktake.id, id)).for('update')
  if (!row) throw notFound('stocktake')
  if (row.state !== 'counting')
    throw new HttpProblem(409, 'wrong-state', `This count is ${row.state} already.`, { hint: 'Begin another.' })
  return row
}

/** Writes down what was found in a tube, beside what the ledger has for it at this moment. */
export async function countLot(
  tx: Session,
  id: number,
  lotId: number,
  counted: number | null,
  personId: number,
): Promise<void> {
  await lockCounting(tx, id)
  const [held] = await tx.select({ onHand: balance.onHand }).from(balance).where(eq(balance.lotId, lotId)).for('update')
  if (!held) throw notFound('lot')
  const inBags = (await inBagsOf(tx, [lotId])).get(lotId) ?? 0
  const values =
    counted === null
      ? { counted: null, expected: null, countedBy: null, countedAt: null }
      : { counted, expected: held.onHand - inBags, countedBy: personId, countedAt: new Date() }
  const changed = await tx
    .update(stocktakeRow)
    .set(values)
    .where(and(eq(stocktakeRow.stocktakeId, id), eq(stocktakeRow.lotId, lotId)))
    .returning({ lotId: stocktakeRow.lotId })
  if (changed.length === 0) throw notFound('lot')
}

/** A lot that was not known, and holds nothing until the count is posted. */
export async function addFound(
  tx: Session,
  id: number,
  { itemId, code, quantity }: FoundTube,
  { personId }: Actor,
): Promise<void> {
  const { place } = await lockCounting(tx, id)
  const [of] = await tx.select({ name: item.colourName, category: item.category }).from(item).where(eq(item.id, itemId))
  if (!of) throw notFound('item')
  const [known] = await tx
    .select({ id: lot.id, place: lot.place })
    .from(lot)
    .where(and(eq(lot.itemId, itemId), eq(lot.code, code)))
  if (known)
    throw new HttpProblem(
      409,
      'code-taken',
      `Lot ${code} of this item is known: it is kept in ${known.place || 'no place'}.`,
      {
        path: 'code',
        hint: known.place === place ? 'Count it in the list.' : 'Move it here first, or give this tube another code.',
      },
    )
  const [made] = await tx
    .insert(lot)
    .values({ itemId, code, place, receivedOn: todayIn(await timeZoneOf(tx)) })
    .returning({ id: lot.id })
  const { id: lotId } = made as { id: number }
  await tx.insert(stocktakeRow).values({
    stocktakeId: id,
    lotId,
    frozen: 0,
    counted: quantity,
    expected: 0,
    countedBy: personId,
    countedAt: new Date(),
  })
  await logActivity(tx, personId, `found a tube of ${of.name} in ${place}`, `/stock/count/${id}`)
}

/** Posts what differs, all of it or nothing; what was not counted is left as it is. */
export async function postStocktake(tx: Session, id: number, { personId, idempotencyKey }: Actor): Promise<void> {
  const { place } = await lockCounting(tx, id)
  const rows = await tx
    .select({
      lotId: stocktakeRow.lotId,
      counted: stocktakeRow.counted,
      expected: stocktakeRow.expected,
      code: lot.code,
    })
    .from(stocktakeRow)
    .innerJoin(lot, eq(lot.id, stocktakeRow.lotId))
    .where(and(eq(stocktakeRow.stocktakeId, id), sql`${stocktakeRow.counted} <> ${stocktakeRow.expected}`))
    .orderBy(asc(stocktakeRow.lotId))
  const lotIds = rows.map(({ lotId }) => lotId)
  const held =
    lotIds.length === 0
      ? []
      : await tx.select().from(balance).where(inArray(balance.lotId, lotIds)).orderBy(asc(balance.lotId)).for('update')
  for (const { lotId, counted, expected, code } of rows) {
    const now = held.find((each) => each.lotId === lotId)
    const left = (now?.onHand ?? 0) - (now?.reserved ?? 0) + (counted ?? 0) - (expected ?? 0)
    if (left < 0) {
      const holders = await tx
        .selectDistinctOn([batch.id], { name: batch.name })
        .from(bag)
        .innerJoin(batch, eq(batch.id, bag.batchId))
        .where(and(eq(bag.lotId, lotId), inArray(batch.state, ['reserved', 'packing', 'packed'])))
      throw new HttpProblem(
        409,
        'promised',
        `Lot ${code} holds less than is promised to ${holders.map(({ name }) => name).join(', ')}. Nothing has been posted.`,
        {
          path: String(lotId),
          hint: 'Change or give back that batch first, or leave this lot out and post the rest.',
        },
      )
    }
  }
  if (rows.length > 0)
    await tx.insert(move).values(
      rows.map(({ lotId, counted, expected }) => ({
        lotId,
        kind: 'correction' as const,
        ...effectOf('correction', (counted ?? 0) - (expected ?? 0)),
        reason: `counted, ${place}`,
        personId,
        idempotencyKey,
      })),
    )
  await tx.update(stocktake).set({ state: 'posted', endedAt: new Date() }).where(eq(stocktake.id, id))
  await logActivity(
    tx,
    personId,
    `posted the count of ${place}: ${counted(rows.length, 'lot')} differed`,
    `/stock/count/${id}`,
  )
}

export async function abandonStocktake(tx: Session, id: number, { personId }: Actor): Promise<void> {
  const { place } = await lockCounting(tx, id)
  await tx.update(stocktake).set({ state: 'abandoned', endedAt: new Date() }).where(eq(stocktake.id, id))
  await logActivity(tx, personId, `abandoned the count of ${place}`, `/stock/count/${id}`)
}
