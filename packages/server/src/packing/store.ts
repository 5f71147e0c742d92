import type { EmptyBag, FillBag, Packing, PackingTask } from '@tessellum/contract/packing'
import { lotOfKit, readingOf } from '@tessellum/core/kit/packing'
import { itemName } from '@tessellum/core/stock/item-name'
import { and, asc, eq, inArray, sql } from 'drizzle-orm'
import { batch } from '../batches/schema'
import { linesOf, lockBatch } from '../batches/store'
import type { Session } from '../database/connect'
import { notFound, Refusal } from '../http/refusal'
import { person } from '../people/schema'
import { lot, move } from '../stock/schema'
import { listItems } from '../stock/store'
import { bag, batchTake } from './schema'

type TakeRow = typeof batchTake.$inferSelect

/** In the order in which kits are numbered through the lots. */
const takesOf = (db: Session, batchId: number): Promise<TakeRow[]> =>
  db
    .select()
    .from(batchTake)
    .where(eq(batchTake.batchId, batchId))
    .orderBy(asc(batchTake.line), asc(batchTake.itemId), asc(batchTake.lotId))

/** A batch's packing: one bead at a time through all the bags, lot by lot, so that a tube is opened once. */
export async function packingOf(db: Session, id: number): Promise<Packing> {
  const [row] = await db.select().from(batch).where(eq(batch.id, id))
  if (!row) throw notFound('batch')
  const [takes, lines] = await Promise.all([takesOf(db, id), linesOf(db, id)])
  const filled = await db
    .select({ line: bag.line, kit: bag.kit, itemId: bag.itemId, quantity: bag.quantity, by: person.fullName })
    .from(bag)
    .innerJoin(person, eq(person.id, bag.personId))
    .where(eq(bag.batchId, id))
  const known = new Map(filled.map((each) => [`${each.line} ${each.kit} ${each.itemId}`, each]))
  const items = await listItems(db, [...new Set(takes.map(({ itemId }) => itemId))])
  const lotIds = [...new Set(takes.map(({ lotId }) => lotId))]
  const lots = lotIds.length === 0 ? [] : await db.select().from(lot).where(inArray(lot.id, lotIds))
  const tasks = new Map<string, PackingTask>()
  const kitsBefore = new Map<string, number>()
  for (const take of takes) {
    const item = items.find((each) => each.id === take.itemId)
    const line = lines[take.line - 1]
    if (!item || !line) throw new Error(`Batch ${id} packs what is not there.`)
    const key = `${take.itemId} ${take.lotId}`
    const task = tasks.get(key) ?? {
      itemId: item.id,
      name: itemName(item),
      colour: item.colour,
      unit: item.unit,
      lotId: take.lotId,
      lotCode: lots.find((each) => each.id === take.lotId)?.code ?? '',
      place: item.place,
      bags: [],
    }
    tasks.set(key, task)
    const first = kitsBefore.get(`${take.line} ${take.itemId}`) ?? 0
    kitsBefore.set(`${take.line} ${take.itemId}`, first + take.kits)
    const of = [line.title, line.size, `in ${line.colourway}`].filter(Boolean).join(', ')
    for (let kit = first + 1; kit <= first + take.kits; kit++) {
      const found = known.get(`${take.line} ${kit} ${take.itemId}`)
      const { least, target, most, roles } = take
      task.bags.push({
        line: take.line,
        kit,
        of,
        roles,
        least,
        target,
        most,
        filled: found?.quantity ?? null,
        by: found?.by ?? null,
      })
    }
  }
  return {
    id,
    name: row.name,
    state: row.state,
    kits: lines.reduce((sum, { kits }) => sum + kits, 0),
    tasks: [...tasks.values()].sort((a, b) => a.place.localeCompare(b.place) || a.name.localeCompare(b.name)),
  }
}

/** Fills one bag, or corrects what is in it. The batch is packing from the first bag on, and packed with the last. */
export async function fill(tx: Session, batchId: number, filling: FillBag, personId: number): Promise<void> {
  const { line, kit, itemId, quantity } = filling
  const state = await lockForPacking(tx, batchId)
  const takes = await takesOf(tx, batchId)
  const take = lotOfKit(
    takes.filter((each) => each.line === line && each.itemId === itemId),
    kit,
  )
  if (!take)
    throw new Refusal(422, 'no-such-bag', 'There is no such bag in this batch.', { hint: 'Load the page anew.' })
  const reading = readingOf(take, quantity)
  if (reading !== 'in') {
    throw new Refusal(
      422,
      'off-the-band',
      reading === 'under' ? 'Too little is in the bag.' : 'Too much is in the bag.',
      {
        path: 'quantity',
        hint: `Between ${take.least} and ${take.most}; ${take.target} are meant.`,
      },
    )
  }
  await tx
    .insert(bag)
    .values({ batchId, line, kit, itemId, lotId: take.lotId, quantity, personId })
    .onConflictDoUpdate({
      target: [bag.batchId, bag.line, bag.kit, bag.itemId],
      set: { quantity, personId, at: new Date() },
    })
  await settleState(tx, batchId, state, takes)
}

/** What was in it goes back into its tube. */
export async function empty(tx: Session, batchId: number, { line, kit, itemId }: EmptyBag): Promise<void> {
  const state = await lockForPacking(tx, batchId)
  await tx
    .delete(bag)
    .where(and(eq(bag.batchId, batchId), eq(bag.line, line), eq(bag.kit, kit), eq(bag.itemId, itemId)))
  await settleState(tx, batchId, state, await takesOf(tx, batchId))
}

async function lockForPacking(tx: Session, batchId: number): Promise<string> {
  const { state } = await lockBatch(tx, batchId)
  if (state !== 'reserved' && state !== 'packing' && state !== 'packed')
    throw new Refusal(409, 'wrong-state', `This batch is ${state}; it is not being packed.`, {
      hint: state === 'draft' ? 'Reserve it first.' : 'Load the page anew.',
    })
  return state
}

async function settleState(tx: Session, batchId: number, before: string, takes: readonly TakeRow[]): Promise<void> {
  const [counted] = await tx.select({ bags: sql<number>`count(*)::int` }).from(bag).where(eq(bag.batchId, batchId))
  const bags = counted?.bags ?? 0
  const all = takes.reduce((sum, { kits }) => sum + kits, 0)
  const state = bags === 0 ? 'reserved' : bags === all ? 'packed' : 'packing'
  // Written even when it stays the same: open pages are told by it.
  if (state !== before || bags > 0) await tx.update(batch).set({ state }).where(eq(batch.id, batchId))
}

/** Issues what is in the bags, lot by lot, and gives back what was promised beyond it. */
export async function close(
  tx: Session,
  { batchId, personId, actionKey }: { batchId: number; personId: number; actionKey: string },
): Promise<void> {
  const { state } = await lockBatch(tx, batchId)
  if (state !== 'packed')
    throw new Refusal(409, 'wrong-state', `This batch is ${state}; only a packed one is closed.`, {
      hint: state === 'packing' ? 'Fill the last bags first.' : 'Load the page anew.',
    })
  const held = await tx
    .select({ lotId: move.lotId, reserved: sql<string>`sum(${move.reserved})` })
    .from(move)
    .where(eq(move.batchId, batchId))
    .groupBy(move.lotId)
  const used = await tx
    .select({ lotId: bag.lotId, quantity: sql<string>`sum(${bag.quantity})` })
    .from(bag)
    .where(eq(bag.batchId, batchId))
    .groupBy(bag.lotId)
    .orderBy(asc(bag.lotId))
  await tx.insert(move).values(
    used.map(({ lotId, quantity }) => ({
      lotId,
      kind: 'issue' as const,
      onHand: -Number(quantity),
      reserved: -Number(held.find((each) => each.lotId === lotId)?.reserved ?? 0),
      batchId,
      personId,
      actionKey,
    })),
  )
  await tx.update(batch).set({ state: 'closed' }).where(eq(batch.id, batchId))
}
