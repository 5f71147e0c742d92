/** Taking and giving back: a batch's promises on the shared shelf. */
import type { Allocation } from '@tessellum/core/allocation/allocation'
import { itemName } from '@tessellum/core/stock/item-name'
import { effectOf } from '@tessellum/core/stock/moves'
import { eq, gt, sql } from 'drizzle-orm'
import type { Doing } from '../actions/once'
import { addVersion, lockColourwayOf } from '../colourways/store'
import type { Session } from '../database/connect'
import { Refusal } from '../http/refusal'
import { bag } from '../schema/bags'
import { settleState } from '../packing/state'
import { move } from '../schema/ledger'
import { freeLots, listItems } from '../stock/store'
import { record } from '../trail/record'
import type { WorkerPool } from '../workers/pool'
import { bagsOf, byLot, massesOf, type NewBag } from './lay-out'
import { allocationFor, itemsIn, type LineBill, type PlannedLine } from './plan'
import { kitLots, kitsOf, promiseKits, type Ready, shareKits, toPack } from './ready-kits'
import { batch, batchLine } from '../schema/batches'
import { lockBatch } from './store'

/** Something done to a batch. */
export interface DoingBatch extends Doing {
  readonly batchId: number
}

/** Somebody else has taken from a lot since the allocation was worked out. */
export class TakenMeanwhile extends Error {}

type Line = PlannedLine & { readonly id: number }

/** Where a batch's kits come from: packed ones off the shelf, and beads for the rest. */
export interface Filling {
  readonly bills: readonly LineBill[]
  readonly ready: readonly (readonly Ready[])[]
  /** Of kits that are to be packed. */
  readonly allocation: Allocation
  readonly kitItems: readonly number[]
}

export async function fillingFor(
  db: Session,
  workers: WorkerPool,
  lines: readonly PlannedLine[],
  bills: readonly LineBill[],
): Promise<Filling> {
  const lots = await kitLots(db, lines)
  const ready = shareKits(lines, lots)
  const free = await freeLots(db, itemsIn(bills), false)
  const allocation = await allocationFor(workers, toPack(lines, ready), bills, free)
  return { bills, ready, allocation, kitItems: [...new Set(lots.map(({ itemId }) => itemId))] }
}

/**
 * Promises a draft batch everything its lines need, or nothing. The allocation was worked out beforehand; the balances it takes from are read and
 * locked in the transaction that writes the moves, so that whoever comes second sees what is left. Kits in which something stands in become a
 * line of their own, with a colourway for this batch only.
 *
 * @throws TakenMeanwhile when the lots do not hold any more what it takes: to be worked out again
 */
export async function reserve(
  tx: Session,
  lines: readonly Line[],
  { bills, ready, allocation: { takes, lines: answers }, kitItems }: Filling,
  doing: DoingBatch,
): Promise<void> {
  const row = await lockBatch(tx, doing.batchId)
  if (row.state !== 'draft')
    throw new Refusal(409, 'wrong-state', `This batch is ${row.state} already.`, { hint: 'Reload the page.' })
  const wanted = toPack(lines, ready)
  const trouble = bills.flatMap(({ troubles }, l) => (wanted[l]?.kits === 0 ? [] : troubles))[0]
  if (trouble)
    throw new Refusal(422, 'not-makeable', trouble, { hint: 'Mend the pattern or the colourway, then reserve.' })
  const short = answers.find(({ line, kits }) => kits < (wanted[line]?.kits ?? 0))
  if (short) {
    const [by] = short.limitedBy
    const [item] = by ? await listItems(tx, [by.itemId]) : []
    throw new Refusal(
      409,
      'short-of-stock',
      `Short of ${item ? itemName(item) : 'beads that other lines take'} from kit ${short.kits + kitsOf(ready[short.line]) + 1} on. Nothing has been reserved.`,
      {
        path: `lines.${short.line}`,
        hint: 'Plan fewer kits, choose another colourway, or receive more.',
      },
    )
  }
  const ids = itemsIn(bills)
  const lots = await freeLots(tx, [...ids, ...kitItems], true)
  const free = new Map(lots.map((each) => [each.lotId, each.free]))
  if (!(await promiseKits(tx, ready, free, doing))) throw new TakenMeanwhile()
  const massOf = massesOf(await listItems(tx, ids), lots)
  const bags: (NewBag & { lineId: number })[] = []
  for (const { line, variants } of answers) {
    const planned = lines[line] as Line
    let lineId: number | undefined = planned.id
    const packed = kitsOf(ready[line])
    for (const [variant, kits] of variants.entries()) {
      // Packed kits are as planned, and stay with the line whatever stands in for the rest.
      const here = variant === 0 ? packed + kits : kits
      if (here === 0) continue
      const way = bills[line]?.ways[variant]
      if (!way) throw new Error(`Line ${line} has no way ${variant}.`)
      const own =
        variant === 0
          ? planned.colourwayVersionId
          : await ownColourway(tx, planned.colourwayVersionId, way.choices, doing)
      const values = { kits: here, colourwayVersionId: own }
      // The first of a line's ways stays where the line is; any other is a line after all the rest.
      if (lineId === undefined) {
        const [made] = await tx
          .insert(batchLine)
          .values({
            batchId: doing.batchId,
            position: sql`(select coalesce(max(position), 0) + 1 from batch_line where batch_id = ${doing.batchId})`,
            patternVersionId: planned.patternVersionId,
            size: planned.size,
            ...values,
          })
          .returning({ id: batchLine.id })
        lineId = (made as { id: number }).id
      } else await tx.update(batchLine).set(values).where(eq(batchLine.id, lineId))
      const numbers = Array.from({ length: kits }, (_, n) => n + 1)
      for (const entry of way.bill) {
        const of = takes.filter(
          (take) => take.line === line && take.variant === variant && take.itemId === entry.itemId,
        )
        bags.push(...bagsOf(numbers, entry, of, massOf).map((each) => ({ ...each, lineId: lineId as number })))
      }
      lineId = undefined
    }
  }
  const beads = byLot(bags)
  for (const [lotId, quantity] of beads) if ((free.get(lotId) ?? 0) < quantity) throw new TakenMeanwhile()
  if (beads.size > 0)
    await tx.insert(move).values(
      [...beads].map(([lotId, quantity]) => ({
        lotId,
        kind: 'reserve' as const,
        ...effectOf('reserve', quantity),
        ...doing,
      })),
    )
  await insertBags(tx, doing.batchId, bags)
  await settleState(tx, doing.batchId)
  const kits = lines.reduce((sum, line) => sum + line.kits, 0)
  await record(tx, doing.personId, `reserved ${kits} kits of ${row.name}`, `/kits/${doing.batchId}`)
}

/** In pieces, since a statement has at most 65,535 parameters. */
export async function insertBags(
  tx: Session,
  batchId: number,
  bags: readonly (NewBag & { lineId: number })[],
): Promise<void> {
  for (let at = 0; at < bags.length; at += 4000)
    await tx.insert(bag).values(bags.slice(at, at + 4000).map((each) => ({ ...each, batchId })))
}

/** A version of a colourway with other choices, for this batch and nobody else. */
export async function ownColourway(
  tx: Session,
  colourwayVersionId: number,
  choices: LineBill['ways'][number]['choices'],
  { batchId, personId }: DoingBatch,
): Promise<number> {
  return addVersion(tx, await lockColourwayOf(tx, colourwayVersionId), choices, personId, batchId)
}

/** Gives back all that a batch holds and leaves it as a draft, or cancelled. */
export async function release(tx: Session, doing: DoingBatch, to: 'draft' | 'cancelled'): Promise<void> {
  const row = await lockBatch(tx, doing.batchId)
  // What is in bags already goes back into its tubes when a batch is called off.
  const over = row.state === 'cancelled' || row.state === 'closed'
  const [{ filled } = { filled: 0 }] = await tx
    .select({ filled: sql<number>`count(${bag.filled})::int` })
    .from(bag)
    .where(eq(bag.batchId, doing.batchId))
  if (over || (to === 'draft' && (row.state === 'draft' || filled > 0))) {
    throw new Refusal(409, 'wrong-state', `This batch is ${row.state}; there is nothing to give back.`, {
      hint: 'Reload the page.',
    })
  }
  const held = sql<string>`sum(${move.reserved})`
  const holdings = await tx
    .select({ lotId: move.lotId, held })
    .from(move)
    .where(eq(move.batchId, doing.batchId))
    .groupBy(move.lotId)
    .having(gt(held, sql`0`))
    .orderBy(move.lotId)
  if (holdings.length > 0) {
    await tx.insert(move).values(
      holdings.map(({ lotId, held }) => ({
        lotId,
        kind: 'release' as const,
        ...effectOf('release', Number(held)),
        ...doing,
      })),
    )
  }
  await tx.delete(bag).where(eq(bag.batchId, doing.batchId))
  await tx.update(batch).set({ state: to }).where(eq(batch.id, doing.batchId))
  const what = to === 'draft' ? `gave back what ${row.name} held` : `called off ${row.name}`
  await record(tx, doing.personId, what, `/kits/${doing.batchId}`)
}

/** A batch that was called off is a draft again, with the lines it had. */
export async function planAgain(tx: Session, { batchId, personId }: DoingBatch): Promise<void> {
  const { state, name } = await lockBatch(tx, batchId)
  if (state !== 'cancelled')
    throw new Refusal(409, 'wrong-state', `This batch is ${state}; it has not been called off.`, {
      hint: 'Reload the page.',
    })
  await tx.update(batch).set({ state: 'draft' }).where(eq(batch.id, batchId))
  await record(tx, personId, `planned ${name} again`, `/kits/${batchId}`)
}
