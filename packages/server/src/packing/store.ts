import type { EmptyBag, FillBag, Packing, PackingTask } from '@tessellum/contract/packing'
import { readingOf } from '@tessellum/core/kit/packing'
import { itemName } from '@tessellum/core/stock/item-name'
import { effectOf } from '@tessellum/core/stock/moves'
import { and, asc, eq, inArray, sql } from 'drizzle-orm'
import { logActivity } from '../audit/log'
import type { BatchActor } from '../batches/batch-actor'
import { lockBatch } from '../batches/lock'
import { promisedKits } from '../batches/promise-kits'
import { settleState } from '../batches/state'
import type { Session } from '../database/connect'
import { linesOf } from '../planning/lines'
import { HttpProblem, notFound } from '../problem'
import { bag, bagReturn, heldBy } from '../schema/bags'
import { batch } from '../schema/batches'
import { move } from '../schema/ledger'
import { person } from '../schema/people'
import { lot } from '../schema/stock'
import { shopUnits } from '../settings/units'
import { identityOf } from '../stock/identity'
import { freeLots, listItems } from '../stock/store'
import { shelveKits } from './kits'

/** A batch's packing: one bead at a time through all the bags, lot by lot, so that a tube is opened once. */
export async function packingOf(db: Session, id: number): Promise<Packing> {
  const [row] = await db.select().from(batch).where(eq(batch.id, id))
  if (!row) throw notFound('batch')
  const lines = await linesOf(db, id)
  const bags = await db
    .select({ bag, by: person.fullName, returned: bagReturn.quantity })
    .from(bag)
    .leftJoin(person, eq(person.id, bag.personId))
    .leftJoin(
      bagReturn,
      and(eq(bagReturn.lineId, bag.lineId), eq(bagReturn.kit, bag.kit), eq(bagReturn.itemId, bag.itemId)),
    )
    .where(eq(bag.batchId, id))
    .orderBy(asc(bag.lineId), asc(bag.kit))
  const items = await listItems(db, [...new Set(bags.map((each) => each.bag.itemId))])
  const lotIds = [...new Set(bags.flatMap((each) => each.bag.lotId ?? []))]
  const lots = lotIds.length === 0 ? [] : await db.select().from(lot).where(inArray(lot.id, lotIds))
  const numbers = new Map(lines.map((line, i) => [line.id, { ...line, number: i + 1 }]))
  const tasks = new Map<string, PackingTask>()
  for (const { bag: each, by, returned } of bags) {
    const item = items.find(({ id: itemId }) => itemId === each.itemId)
    const line = numbers.get(each.lineId)
    if (!item || !line) throw new Error(`Batch ${id} packs what is not there.`)
    const key = `${each.itemId} ${each.lotId}`
    const from = lots.find(({ id: lotId }) => lotId === each.lotId)
    const task = tasks.get(key) ?? {
      itemId: item.id,
      name: itemName(item),
      item: identityOf(item),
      unit: item.unit,
      cautions: item.cautions,
      lotId: each.lotId,
      lotCode: from?.code ?? '',
      place: from?.place ?? item.place,
      bags: [],
    }
    tasks.set(key, task)
    const { lineId, kit, roles, least, target, most, beads, filled } = each
    const of = [line.title, line.size, `in ${line.colourway}`].filter(Boolean).join(', ')
    task.bags.push({
      lineId,
      line: line.number,
      kit,
      of,
      roles,
      least,
      target,
      most,
      beads,
      filled,
      by,
      returned: returned ?? 0,
    })
  }
  return {
    id,
    name: row.name,
    state: row.state,
    kits: lines.reduce((sum, { kits }) => sum + kits, 0),
    tasks: [...tasks.values()].sort(
      (a, b) => a.place.localeCompare(b.place) || a.name.localeCompare(b.name) || (a.lotId ?? 0) - (b.lotId ?? 0),
    ),
  }
}

const thisBag = ({ lineId, kit, itemId }: EmptyBag) =>
  and(eq(bag.lineId, lineId), eq(bag.kit, kit), eq(bag.itemId, itemId))

/** Fills one bag, or corrects what is in it: what is in it beyond what it was promised is taken from its lot at once. */
export async function fill(tx: Session, filling: FillBag, actor: BatchActor): Promise<void> {
  const { batchId, personId } = actor
  const { quantity, lotId } = filling
  await lockForPacking(tx, batchId)
  const [found] = await tx
    .select({ bag, lotCode: lot.code })
    .from(bag)
    .leftJoin(lot, eq(lot.id, bag.lotId))
    .where(and(eq(bag.batchId, batchId), thisBag(filling)))
  if (!found)
    throw new HttpProblem(422, 'no-such-bag', 'There is no such bag in this batch.', { hint: 'Reload the page.' })
  if (found.bag.lotId === null)
    throw new HttpProblem(409, 'nothing-promised', 'Nothing is promised to this bag any more.', {
      hint: 'Lay it out again when there is stock, or change the batch.',
    })
  if (lotId !== undefined && lotId !== found.bag.lotId)
    throw new HttpProblem(409, 'wrong-lot', `This bag is filled from lot ${found.lotCode}.`, {
      path: 'lotId',
      hint: 'Take that tube, or swap the lot for all the bags that are still empty.',
    })
  const [of] = await listItems(tx, [filling.itemId])
  const units = await shopUnits(tx)
  const say = (amount: number) => units.exactly(amount, of?.unit ?? 'piece')
  const reading = readingOf(found.bag, quantity)
  if (reading !== 'in') {
    throw new HttpProblem(
      422,
      'off-the-band',
      reading === 'under' ? 'Too little is in the bag.' : 'Too much is in the bag.',
      {
        path: 'quantity',
        hint: `Put in ${say(found.bag.target)}: not under ${say(found.bag.least)}, not over ${say(found.bag.most)}.`,
      },
    )
  }
  const held = heldBy(found.bag)
  const more = heldBy({ ...found.bag, filled: quantity }) - held
  if (more > 0) {
    const lots = await freeLots(tx, [filling.itemId], true)
    const free = lots.find((each) => each.lotId === found.bag.lotId)?.free ?? 0
    if (free < more) {
      throw new HttpProblem(
        409,
        'short-of-stock',
        `Lot ${found.lotCode} has only ${say(held + free)} for this bag; you entered ${say(quantity)}.`,
        {
          path: 'quantity',
          hint: 'Take a little out, or correct the count of the tube if it holds more than the ledger says.',
        },
      )
    }
  }
  await hold(tx, found.bag.lotId, more, actor)
  await tx.update(bag).set({ filled: quantity, personId, at: new Date() }).where(thisBag(filling))
  await settleState(tx, batchId)
}

/** A lot promises a bag so much more, or less. */
async function hold(tx: Session, lotId: number, more: number, actor: BatchActor): Promise<void> {
  if (more === 0) return
  const kind: 'reserve' | 'release' = more > 0 ? 'reserve' : 'release'
  await tx.insert(move).values({ lotId, kind, ...effectOf(kind, Math.abs(more)), ...actor })
}

/** What was in it goes back into its tube. */
export async function empty(tx: Session, emptied: EmptyBag, actor: BatchActor): Promise<void> {
  const { batchId } = actor
  await lockForPacking(tx, batchId)
  const mine = and(eq(bag.batchId, batchId), thisBag(emptied))
  const [found] = await tx.select().from(bag).where(mine)
  if (found?.lotId) await hold(tx, found.lotId, found.target - heldBy(found), actor)
  await tx.update(bag).set({ filled: null, personId: null, at: null }).where(mine)
  await settleState(tx, batchId)
}

export async function lockForPacking(tx: Session, batchId: number) {
  const row = await lockBatch(tx, batchId)
  if (row.state !== 'reserved' && row.state !== 'packing' && row.state !== 'packed')
    throw new HttpProblem(409, 'wrong-state', `This batch is ${row.state}; it is not being packed.`, {
      hint: row.state === 'draft' ? 'Reserve it first.' : 'Reload the page.',
    })
  return row
}

/** Issues what is in the bags, lot by lot, gives back what was promised beyond it, and puts the kits on the shelf. */
export async function close(tx: Session, actor: BatchActor): Promise<void> {
  const { batchId, personId } = actor
  const { state, name, kept } = await lockBatch(tx, batchId)
  if (state !== 'packed')
    throw new HttpProblem(409, 'wrong-state', `This batch is ${state}; only a packed one is closed.`, {
      hint: state === 'packing' ? 'Fill the last bags first.' : 'Reload the page.',
    })
  const held = await tx
    .select({ lotId: move.lotId, reserved: sql<string>`sum(${move.reserved})` })
    .from(move)
    .where(eq(move.batchId, batchId))
    .groupBy(move.lotId)
  const used = await tx
    .select({ lotId: sql<number>`${bag.lotId}`, quantity: sql<string>`sum(${bag.filled})` })
    .from(bag)
    .where(eq(bag.batchId, batchId))
    .groupBy(bag.lotId)
    .orderBy(asc(bag.lotId))
  const issued = used.map(({ lotId, quantity }) => ({
    lotId,
    kind: 'issue' as const,
    onHand: -Number(quantity),
    reserved: -Number(held.find((each) => each.lotId === lotId)?.reserved ?? 0),
    ...actor,
  }))
  // What stood packed on the shelf stays there; nobody waits for the kits of a batch that is for the shelf.
  const ready = await promisedKits(tx, batchId)
  const given = kept
    ? []
    : ready.map(({ lotId, kits }) => ({ lotId, kind: 'release' as const, ...effectOf('release', kits), ...actor }))
  const moves = [...issued, ...given].sort((a, b) => a.lotId - b.lotId)
  if (moves.length > 0) await tx.insert(move).values(moves)
  await shelveKits(tx, kept, actor)
  await tx.update(batch).set({ state: 'closed' }).where(eq(batch.id, batchId))
  await logActivity(tx, personId, `closed ${name}`, `/kits/${batchId}`)
}
