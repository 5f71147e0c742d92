/** Taking and giving back: a batch's promises on the shared shelf. */
import type { Allocation } from '@tessellum/core/allocation/allocation'
import { itemName } from '@tessellum/core/stock/item-name'
import { effectOf } from '@tessellum/core/stock/moves'
import { eq, gt, sql } from 'drizzle-orm'
import type { Doing } from '../actions/once'
import { addVersion, lockColourwayOf } from '../colourways/store'
import type { Session } from '../database/connect'
import { Refusal } from '../http/refusal'
import { bag } from '../packing/schema'
import { move } from '../stock/schema'
import { freeLots, listItems } from '../stock/store'
import { record } from '../trail/record'
import { bagsOf, byLot, massesOf, type NewBag } from './lay-out'
import { itemsIn, type LineBill, type PlannedLine } from './plan'
import { batch, batchLine } from './schema'
import { lockBatch } from './store'

/** Something done to a batch. */
export interface DoingBatch extends Doing {
  readonly batchId: number
}

/** Somebody else has taken from a lot since the allocation was worked out. */
export class TakenMeanwhile extends Error {}

type Line = PlannedLine & { readonly id: number }

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
  bills: readonly LineBill[],
  { takes, lines: answers }: Allocation,
  doing: DoingBatch,
): Promise<void> {
  const row = await lockBatch(tx, doing.batchId)
  if (row.state !== 'draft')
    throw new Refusal(409, 'wrong-state', `This batch is ${row.state} already.`, { hint: 'Load the page anew.' })
  const trouble = bills.flatMap(({ troubles }) => troubles)[0]
  if (trouble)
    throw new Refusal(422, 'not-makeable', trouble, { hint: 'Mend the pattern or the colourway, then reserve.' })
  const short = answers.find(({ line, kits }) => kits < (lines[line]?.kits ?? 0))
  if (short) {
    const [by] = short.limitedBy
    const [item] = by ? await listItems(tx, [by.itemId]) : []
    throw new Refusal(
      409,
      'short-of-stock',
      `Short of ${item ? itemName(item) : 'beads that other lines take'} from kit ${short.kits + 1} on. Nothing has been reserved.`,
      {
        path: `lines.${short.line}`,
        hint: 'Plan fewer kits, choose another colourway, or receive more.',
      },
    )
  }
  const ids = itemsIn(bills)
  const lots = await freeLots(tx, ids, true)
  const massOf = massesOf(await listItems(tx, ids), lots)
  const bags: (NewBag & { lineId: number })[] = []
  for (const { line, variants } of answers) {
    const planned = lines[line] as Line
    let lineId: number | undefined = planned.id
    for (const [variant, kits] of variants.entries()) {
      if (kits === 0) continue
      const way = bills[line]?.ways[variant]
      if (!way) throw new Error(`Line ${line} has no way ${variant}.`)
      const own =
        variant === 0
          ? planned.colourwayVersionId
          : await ownColourway(tx, planned.colourwayVersionId, way.choices, doing)
      const values = { kits, colourwayVersionId: own }
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
  const free = new Map(lots.map((each) => [each.lotId, each.free]))
  const wanted = byLot(bags)
  for (const [lotId, quantity] of wanted) if ((free.get(lotId) ?? 0) < quantity) throw new TakenMeanwhile()
  await tx.insert(move).values(
    [...wanted].map(([lotId, quantity]) => ({
      lotId,
      kind: 'reserve' as const,
      ...effectOf('reserve', quantity),
      ...doing,
    })),
  )
  await insertBags(tx, doing.batchId, bags)
  await tx.update(batch).set({ state: 'reserved' }).where(eq(batch.id, doing.batchId))
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
  if (over || (to === 'draft' && row.state !== 'reserved')) {
    throw new Refusal(409, 'wrong-state', `This batch is ${row.state}; there is nothing to give back.`, {
      hint: 'Load the page anew.',
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
