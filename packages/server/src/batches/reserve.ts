/** Taking and giving back: a batch's promises on the shared shelf. */
import type { Allocation } from '@tessellum/core/allocation/allocation'
import { bandOf } from '@tessellum/core/kit/packing'
import { itemName } from '@tessellum/core/stock/item-name'
import { effectOf } from '@tessellum/core/stock/moves'
import { eq, gt, sql } from 'drizzle-orm'
import type { Session } from '../database/connect'
import { Refusal } from '../http/refusal'
import { bag, batchTake } from '../packing/schema'
import { move } from '../stock/schema'
import { freeLots, listItems } from '../stock/store'
import { itemsIn, type LineBill, type PlannedLine } from './plan'
import { batch } from './schema'
import { lockBatch } from './store'

interface Doing {
  readonly batchId: number
  readonly personId: number
  readonly actionKey: string
}

/** Somebody else has taken from a lot since the allocation was worked out. */
export class TakenMeanwhile extends Error {}

/**
 * Promises a draft batch everything its lines need, or nothing. The allocation was worked out beforehand; the balances it takes from are read and
 * locked in the transaction that writes the moves, so that whoever comes second sees what is left.
 *
 * @throws TakenMeanwhile when the lots do not hold any more what it takes: to be worked out again
 */
export async function reserve(
  tx: Session,
  lines: readonly PlannedLine[],
  bills: readonly LineBill[],
  { takes, lines: answers }: Allocation,
  doing: Doing,
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
  const lots = new Map((await freeLots(tx, itemsIn(bills), true)).map(({ lotId, free }) => [lotId, free]))
  const wanted = new Map<number, number>()
  for (const { lotId, quantity } of takes) wanted.set(lotId, (wanted.get(lotId) ?? 0) + quantity)
  for (const [lotId, quantity] of wanted) if ((lots.get(lotId) ?? 0) < quantity) throw new TakenMeanwhile()
  await tx.insert(move).values(
    takes.map(({ lotId, quantity }) => ({
      lotId,
      kind: 'reserve' as const,
      ...effectOf('reserve', quantity),
      ...doing,
    })),
  )
  const items = new Map((await listItems(tx, itemsIn(bills))).map((item) => [item.id, item]))
  await tx.insert(batchTake).values(
    takes.map(({ line, itemId, lotId, kits }) => {
      const billed = bills[line]?.bill.find((each) => each.itemId === itemId) as LineBill['bill'][number]
      const { least, target, most } = bandOf(billed, items.get(itemId)?.bead?.massMg)
      const roles = billed.roles.join(' + ')
      return {
        batchId: doing.batchId,
        line: line + 1,
        itemId,
        lotId,
        kits,
        least,
        target,
        most: Math.floor(most),
        roles,
      }
    }),
  )
  await tx.update(batch).set({ state: 'reserved' }).where(eq(batch.id, doing.batchId))
}

/** Gives back all that a batch holds and leaves it as a draft, or cancelled. */
export async function release(tx: Session, doing: Doing, to: 'draft' | 'cancelled'): Promise<void> {
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
  await tx.delete(batchTake).where(eq(batchTake.batchId, doing.batchId))
  await tx.update(batch).set({ state: to }).where(eq(batch.id, doing.batchId))
}
