/** Packed kits are stock of their own: an item for each pattern version, size and colourway, and a lot for each batch. */
import type { ReturnKit } from '@tessellum/contract/packing'
import { freeOf } from '@tessellum/core/stock/moves'
import { and, asc, eq, inArray, sql } from 'drizzle-orm'
import type { DoingBatch } from '../batches/reserve'
import { batch } from '../batches/schema'
import { linesOf, lockBatch } from '../batches/store'
import { colourwayVersion } from '../colourways/schema'
import type { Session } from '../database/connect'
import { Refusal } from '../http/refusal'
import { balance, item, kitItem, lot, maker, move } from '../stock/schema'
import { record } from '../trail/record'
import { bag, bagReturn } from './schema'

/** Who makes kits. */
const house = 'made here'
const kitPlace = 'kit shelf'

export async function shelveKits(tx: Session, doing: DoingBatch): Promise<void> {
  const { batchId } = doing
  const [found] = await tx.select({ name: batch.name }).from(batch).where(eq(batch.id, batchId))
  const today = sql`(now() at time zone 'UTC')::date`
  // In one statement, so that every batch takes its items in one order.
  const received: (typeof move.$inferInsert)[] = []
  for (const [i, line] of (await linesOf(tx, batchId)).entries()) {
    const itemId = await kitItemOf(tx, line)
    const [made] = await tx
      .insert(lot)
      .values({
        itemId,
        code: `${found?.name} ${batchId}.${i + 1}`,
        receivedOn: today as unknown as string,
        place: kitPlace,
        unitCost: await costOfKits(tx, line.id, line.kits),
      })
      .returning({ id: lot.id })
    const { id: lotId } = made as { id: number }
    received.push({ lotId, kind: 'receive', onHand: line.kits, reserved: 0, reason: 'packed', ...doing })
  }
  await tx.insert(move).values(received)
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
  doing: DoingBatch,
): Promise<void> {
  const { batchId, personId } = doing
  const { state, name } = await lockBatch(tx, batchId)
  if (state !== 'closed')
    throw new Refusal(409, 'wrong-state', `This batch is ${state}; nothing of it has left the shelf.`, {
      hint: 'Empty the bag instead.',
    })
  const bags = await tx
    .select()
    .from(bag)
    .where(and(eq(bag.batchId, batchId), eq(bag.lineId, lineId), eq(bag.kit, kit)))
    .orderBy(asc(bag.lotId))
  if (bags.length === 0) throw new Refusal(422, 'no-such-bag', 'There is no such kit in this batch.')
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
      throw new Refusal(422, 'more-than-issued', `No more than ${left} of ${roles} can come back.`, {
        path: 'quantities',
        hint: 'More than the bag held is another move: post a delivery or a correction.',
      })
    return quantity > 0 && lotId !== null ? [{ itemId, lotId, quantity }] : []
  })
  if (back.length === 0)
    throw new Refusal(422, 'nothing-back', 'Nothing of this kit is left to come back.', { path: 'quantities' })
  await tx
    .insert(move)
    .values(
      back.map(({ lotId, quantity }) => ({ lotId, kind: 'return' as const, onHand: quantity, reserved: 0, ...doing })),
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
    const shelved = sold ? undefined : made.find(({ free }) => free > 0)
    const lotId = (shelved ?? made.find((each) => each.sold > 0))?.lotId
    if (lotId === undefined)
      throw new Refusal(
        409,
        'no-kit-left',
        sold ? 'None of these kits has been sold.' : 'None of these kits is on the shelf, and none has been sold.',
        { hint: 'Give back what is left of it, bead by bead.' },
      )
    const reason = `kit ${kit}`
    // One that a customer had comes to the shelf first, so that the kit's story tells it.
    if (!shelved) await tx.insert(move).values({ lotId, kind: 'return', onHand: 1, reserved: 0, reason, ...doing })
    await tx.insert(move).values({ lotId, kind: 'open', onHand: -1, reserved: 0, reason, ...doing })
  }
  await record(
    tx,
    personId,
    `took back ${whole ? 'a whole kit' : 'what was left of a kit'} of ${name}`,
    `/kits/${batchId}`,
  )
}

interface KitChoice {
  readonly patternVersionId: number
  readonly size: string
  readonly colourwayVersionId: number
}

/**
 * Lots of a batch's kits of one choice, locked, with what is free in each and what was sold of it and has not come back: those made as chosen
 * first, then those
 * for which the batch has a version of the same colourway, because another bead stands in.
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
      sold: sql<number>`(select coalesce(-sum(gone.on_hand), 0)::int from move as gone where gone.lot_id = ${lot.id} and gone.kind in ('sale', 'return'))`,
    })
    .from(move)
    .innerJoin(lot, eq(lot.id, move.lotId))
    .innerJoin(kitItem, eq(kitItem.itemId, lot.itemId))
    .innerJoin(colourwayVersion, eq(colourwayVersion.id, kitItem.colourwayVersionId))
    .innerJoin(balance, eq(balance.lotId, lot.id))
    .where(
      and(
        eq(move.batchId, batchId),
        eq(move.kind, 'receive'),
        eq(kitItem.patternVersionId, patternVersionId),
        eq(kitItem.size, size),
        inArray(colourwayVersion.colourwayId, chosen),
      ),
    )
    .orderBy(sql`${kitItem.colourwayVersionId} <> ${colourwayVersionId}`, asc(lot.id))
    .for('update', { of: balance })
  return rows.map(({ onHand, reserved, ...each }) => ({ ...each, free: freeOf({ onHand, reserved }) }))
}

interface Sold extends DoingBatch, KitChoice {
  readonly kits: number
  readonly reason: string
}

/** Kits of a batch leave the kits' shelf. @returns how many of them are not there any more, and have left it some other way */
export async function sellKits(
  tx: Session,
  { patternVersionId, size, colourwayVersionId, kits, reason, ...doing }: Sold,
): Promise<number> {
  let left = kits
  for (const { lotId, free } of await shelvedKits(tx, doing.batchId, {
    patternVersionId,
    size,
    colourwayVersionId,
  })) {
    const some = Math.min(left, free)
    if (some <= 0) continue
    left -= some
    await tx.insert(move).values({ lotId, kind: 'sale', onHand: -some, reserved: 0, reason, ...doing })
  }
  return left
}
