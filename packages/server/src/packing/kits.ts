/** Packed kits are stock of their own: an item for each pattern version, size and colourway, and a lot for each batch. */
import type { ReturnKit } from '@tessellum/contract/packing'
import { todayIn } from '@tessellum/core/measure/today'
import { effectOf, freeOf } from '@tessellum/core/stock/moves'
import { and, asc, eq, gte, inArray, sql } from 'drizzle-orm'
import { logActivity } from '../audit/log'
import type { BatchActor } from '../batches/batch-actor'
import { lockBatch } from '../batches/lock'
import { promiseKits, releaseKits } from '../batches/promise-kits'
import { planAgain } from '../batches/release'
import type { Session } from '../database/connect'
import { linesOf } from '../planning/lines'
import { type KitChoice, kitLots, shareKits } from '../planning/ready-kits'
import { HttpProblem } from '../problem'
import { bag, bagReturn } from '../schema/bags'
import { batch } from '../schema/batches'
import { colourwayVersion } from '../schema/colourways'
import { kitItem } from '../schema/kits'
import { balance, move } from '../schema/ledger'
import { item, lot, maker } from '../schema/stock'
import { timeZoneOf } from '../settings/days'
import { freeLots } from '../stock/store'

/** Who makes kits. */
const house = 'made here'
const kitPlace = 'kit shelf'

/** What was packed comes on the kits' shelf. @param kept it stays promised to the batch, for whom it was packed */
export async function shelveKits(tx: Session, kept: boolean, actor: BatchActor): Promise<void> {
  const { batchId } = actor
  const [found] = await tx.select({ name: batch.name }).from(batch).where(eq(batch.id, batchId))
  const today = todayIn(await timeZoneOf(tx))
  // In one statement, so that every batch takes its items in one order.
  const received: (typeof move.$inferInsert)[] = []
  for (const [i, line] of (await linesOf(tx, batchId)).entries()) {
    // The rest of its kits stood on the shelf already.
    const kits = await packedKits(tx, line.id)
    if (kits === 0) continue
    const itemId = await kitItemOf(tx, line)
    const [made] = await tx
      .insert(lot)
      .values({
        itemId,
        code: `${found?.name} ${batchId}.${i + 1}`,
        receivedOn: today,
        place: kitPlace,
        unitCost: await costOfKits(tx, line.id, kits),
      })
      .returning({ id: lot.id })
    const { id: lotId } = made as { id: number }
    received.push({ lotId, kind: 'receive', onHand: kits, reserved: 0, reason: 'packed', ...actor })
    if (kept) received.push({ lotId, kind: 'reserve', onHand: 0, reserved: kits, ...actor })
  }
  if (received.length > 0) await tx.insert(move).values(received)
}

async function packedKits(tx: Session, lineId: number): Promise<number> {
  const [found] = await tx
    .select({ kits: sql<number>`count(distinct ${bag.kit})::int` })
    .from(bag)
    .where(eq(bag.lineId, lineId))
  return found?.kits ?? 0
}

/** What went into a line's bags by the lots it came from, per kit; null where some lot's cost is not known. */
async function costOfKits(tx: Session, lineId: number, kits: number): Promise<number | null> {
  const [sum] = await tx
    .select({
      cost: sql<number>`sum(${bag.filled} * ${lot.unitCost})`,
      unknown: sql<number>`count(*) filter (where ${lot.unitCost} is null)::int`,
    })
    .from(bag)
    .innerJoin(lot, eq(lot.id, bag.lotId))
    .where(eq(bag.lineId, lineId))
  return sum && sum.unknown === 0 ? sum.cost / kits : null
}

async function kitItemOf(tx: Session, line: Awaited<ReturnType<typeof linesOf>>[number]): Promise<number> {
  const { patternVersionId, colourwayVersionId, size } = line
  const same = and(
    eq(kitItem.patternVersionId, patternVersionId),
    eq(kitItem.colourwayVersionId, colourwayVersionId),
    eq(kitItem.size, size),
  )
  const [known] = await tx.select({ itemId: kitItem.itemId }).from(kitItem).where(same)
  if (known) return known.itemId
  const [who] = await tx
    .insert(maker)
    .values({ name: house })
    .onConflictDoUpdate({ target: maker.name, set: { name: house } })
    .returning({ id: maker.id })
  const [first] = await tx
    .select({ colour: item.colour })
    .from(bag)
    .innerJoin(item, eq(item.id, bag.itemId))
    .where(eq(bag.lineId, line.id))
    .orderBy(sql`${item.category} <> 'bead'`, asc(bag.roles))
    .limit(1)
  const [made] = await tx
    .insert(item)
    .values({
      code: `KIT-${patternVersionId}-${colourwayVersionId}${size && `-${size}`}`,
      category: 'kit',
      makerId: (who as { id: number }).id,
      kind: 'kit',
      size,
      colourCode: `version ${line.version}`,
      colourName: `${line.title}, ${line.colourway}`,
      colour: first?.colour ?? '#9a9a9a',
      unit: 'piece',
      place: kitPlace,
    })
    .returning({ id: item.id })
  const { id: itemId } = made as { id: number }
  await tx.insert(kitItem).values({ itemId, patternVersionId, colourwayVersionId, size })
  return itemId
}

/** What comes back of a kit that was issued: each bead into the lot it came from. A whole kit comes off the kits' own shelf. */
export async function returnKit(
  tx: Session,
  { lineId, kit, whole, sold, quantities }: ReturnKit,
  actor: BatchActor,
): Promise<void> {
  const { batchId, personId } = actor
  const { state, name } = await lockBatch(tx, batchId)
  if (state !== 'closed')
    throw new HttpProblem(409, 'wrong-state', `This batch is ${state}; nothing of it has left the shelf.`, {
      hint: 'Empty the bag instead.',
    })
  const bags = await tx
    .select()
    .from(bag)
    .where(and(eq(bag.batchId, batchId), eq(bag.lineId, lineId), eq(bag.kit, kit)))
    .orderBy(asc(bag.lotId))
  if (bags.length === 0) throw new HttpProblem(422, 'no-such-bag', 'There is no such kit in this batch.')
  const before = new Map(
    (
      await tx
        .select()
        .from(bagReturn)
        .where(and(eq(bagReturn.lineId, lineId), eq(bagReturn.kit, kit)))
    ).map(({ itemId, quantity }) => [itemId, quantity]),
  )
  const back = bags.flatMap(({ itemId, lotId, filled, roles }) => {
    const left = (filled ?? 0) - (before.get(itemId) ?? 0)
    const quantity = whole ? left : (quantities.find((each) => each.itemId === itemId)?.quantity ?? 0)
    if (quantity > left)
      throw new HttpProblem(422, 'more-than-issued', `No more than ${left} of ${roles} can come back.`, {
        path: 'quantities',
        hint: 'More than the bag held is another move: post a delivery or a correction.',
      })
    return quantity > 0 && lotId !== null ? [{ itemId, lotId, quantity }] : []
  })
  if (back.length === 0)
    throw new HttpProblem(422, 'nothing-back', 'Nothing of this kit is left to come back.', { path: 'quantities' })
  await tx
    .insert(move)
    .values(
      back.map(({ lotId, quantity }) => ({ lotId, kind: 'return' as const, onHand: quantity, reserved: 0, ...actor })),
    )
  for (const { itemId, quantity } of back)
    await tx
      .insert(bagReturn)
      .values({ lineId, kit, itemId, quantity })
      .onConflictDoUpdate({
        target: [bagReturn.lineId, bagReturn.kit, bagReturn.itemId],
        set: { quantity: sql`${bagReturn.quantity} + ${quantity}` },
      })
  if (whole) {
    const line = (await linesOf(tx, batchId)).find(({ id }) => id === lineId)
    const made = line
      ? (await shelvedKits(tx, batchId, line)).filter((each) => each.colourwayVersionId === line.colourwayVersionId)
      : []
    const shelved = sold ? undefined : made.find((each) => each.free + each.own > 0)
    const lotId = (shelved ?? made.find((each) => each.sold > 0))?.lotId
    if (lotId === undefined)
      throw new HttpProblem(
        409,
        'no-kit-left',
        sold ? 'None of these kits has been sold.' : 'None of these kits is on the shelf, and none has been sold.',
        { hint: 'Give back what is left of it, bead by bead.' },
      )
    const reason = `kit ${kit}`
    // One that a customer had comes to the shelf first, so that the kit's story tells it.
    if (!shelved) await tx.insert(move).values({ lotId, kind: 'return', onHand: 1, reserved: 0, reason, ...actor })
    const promised = shelved && shelved.free === 0 ? 1 : 0
    await leave(tx, { lotId, kind: 'open', kits: 1, promised, reason }, actor)
  }
  await logActivity(
    tx,
    personId,
    `took back ${whole ? 'a whole kit' : 'what was left of a kit'} of ${name}`,
    `/kits/${batchId}`,
  )
}

/**
 * Lots of kits of one choice that a batch packed or is promised, locked, with what is free in each, what is promised to the batch, and what was sold
 * of it and has not come back: those made as chosen first, then those for which the batch has a version of the same colourway, because another bead
 * stands in.
 */
async function shelvedKits(tx: Session, batchId: number, { patternVersionId, size, colourwayVersionId }: KitChoice) {
  const chosen = tx
    .select({ id: colourwayVersion.colourwayId })
    .from(colourwayVersion)
    .where(eq(colourwayVersion.id, colourwayVersionId))
  const rows = await tx
    .select({
      lotId: lot.id,
      colourwayVersionId: kitItem.colourwayVersionId,
      onHand: balance.onHand,
      reserved: balance.reserved,
      own: sql<number>`(select coalesce(sum(its.reserved), 0)::int from move as its where its.lot_id = ${lot.id} and its.batch_id = ${batchId})`,
      sold: sql<number>`(select coalesce(-sum(gone.on_hand), 0)::int from move as gone where gone.lot_id = ${lot.id} and gone.kind in ('sale', 'return'))`,
    })
    .from(kitItem)
    .innerJoin(lot, eq(lot.itemId, kitItem.itemId))
    .innerJoin(colourwayVersion, eq(colourwayVersion.id, kitItem.colourwayVersionId))
    .innerJoin(balance, eq(balance.lotId, lot.id))
    .where(
      and(
        sql`exists (select from move as its where its.lot_id = ${lot.id} and its.batch_id = ${batchId})`,
        eq(kitItem.patternVersionId, patternVersionId),
        eq(kitItem.size, size),
        inArray(colourwayVersion.colourwayId, chosen),
      ),
    )
    .orderBy(asc(lot.id))
    .for('update', { of: balance })
  const asChosen = (row: { colourwayVersionId: number }) => (row.colourwayVersionId === colourwayVersionId ? 0 : 1)
  return rows
    .map(({ onHand, reserved, ...each }) => ({ ...each, free: freeOf({ onHand, reserved }) }))
    .sort((a, b) => asChosen(a) - asChosen(b) || Math.sign(b.own) - Math.sign(a.own))
}

interface Leaving {
  readonly lotId: number
  readonly kind: 'sale' | 'open'
  readonly kits: number
  /** Of them, to the batch that they leave for. */
  readonly promised: number
  readonly reason: string
}

/** What was promised is given back in the same moment in which it goes. */
async function leave(tx: Session, { lotId, kind, kits, promised, reason }: Leaving, actor: BatchActor): Promise<void> {
  const given = { lotId, kind: 'release' as const, ...effectOf('release', promised), ...actor }
  const gone = { lotId, kind, onHand: -kits, reserved: 0, reason, ...actor }
  await tx.insert(move).values(promised > 0 ? [given, gone] : [gone])
}

/** So many kits of one kind that are handed over. */
interface HandedOver extends KitChoice {
  readonly kits: number
}

/**
 * Kits of a batch leave the kits' shelf for its class or order: those that it is promised first.
 *
 * @returns how many of them are not there any more, and have left it some other way
 * @throws HttpProblem when the batch has not been closed
 */
export async function sellKits(
  tx: Session,
  all: readonly HandedOver[],
  reason: string,
  actor: BatchActor,
): Promise<number> {
  const { state } = await lockBatch(tx, actor.batchId)
  if (state !== 'closed')
    throw new HttpProblem(409, 'kits-not-closed', 'Its kits have not left the shelf yet.', {
      hint: 'Close its batch first, or call it off.',
    })
  let missing = 0
  for (const { kits, ...choice } of all) {
    let left = kits
    for (const { lotId, free, own } of await shelvedKits(tx, actor.batchId, choice)) {
      const some = Math.min(left, free + own)
      if (some <= 0) continue
      left -= some
      await leave(tx, { lotId, kind: 'sale', kits: some, promised: Math.min(some, own), reason }, actor)
    }
    missing += left
  }
  return missing
}

/** As `sellKits`, and they are the last: what is left is promised to it no more. */
export async function handOverKits(...[tx, all, reason, actor]: Parameters<typeof sellKits>): Promise<number> {
  const missing = await sellKits(tx, all, reason, actor)
  await releaseKits(tx, actor)
  return missing
}

/** What is written down where kits were not there to be handed over. */
export const sayMissing = (missing: number): string =>
  missing > 0 ? `; ${missing} of its kits had left the shelf some other way` : ''

/**
 * A batch whose class or order was closed by mistake is as it was: what was handed out comes back to the kits' shelf, and what is there of its lines
 * is promised to it again; one that was called off is a draft again.
 *
 * @param kept what was handed out before a moment stays so
 */
export async function takeBack(
  tx: Session,
  actor: BatchActor,
  kept = { since: new Date(0), handed: 0 },
): Promise<void> {
  const { batchId } = actor
  const { state } = await lockBatch(tx, batchId)
  if (state === 'cancelled') return planAgain(tx, actor)
  if (state !== 'closed') return
  const gone = await tx
    .select({ lotId: move.lotId, kits: sql<number>`-sum(${move.onHand})::int` })
    .from(move)
    .where(and(eq(move.batchId, batchId), inArray(move.kind, ['sale', 'return']), gte(move.at, kept.since)))
    .groupBy(move.lotId)
    .having(sql`sum(${move.onHand}) < 0`)
    .orderBy(move.lotId)
  if (gone.length > 0)
    await tx.insert(move).values(
      gone.map(({ lotId, kits }) => ({
        lotId,
        kind: 'return' as const,
        onHand: kits,
        reserved: 0,
        reason: 'handed out by mistake',
        ...actor,
      })),
    )
  let handed = kept.handed
  const lines = (await linesOf(tx, batchId)).map((line) => {
    const gone = Math.min(handed, line.kits)
    handed -= gone
    return { ...line, kits: line.kits - gone }
  })
  const lots = await kitLots(tx, lines, batchId)
  const locked = await freeLots(tx, [...new Set(lots.map(({ itemId }) => itemId))], true)
  const free = new Map(locked.map((each) => [each.lotId, each.free]))
  // Those of its own first: others may have stood there longer.
  const own = new Set(
    (await tx.select({ lotId: move.lotId }).from(move).where(eq(move.batchId, batchId))).map(({ lotId }) => lotId),
  )
  const first = lots
    .map((each) => ({ ...each, free: free.get(each.lotId) ?? 0 }))
    .sort((a, b) => Number(own.has(b.lotId)) - Number(own.has(a.lotId)))
  await promiseKits(tx, shareKits(lines, first), free, actor)
}
