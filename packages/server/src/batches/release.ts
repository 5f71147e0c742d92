import { effectOf } from '@tessellum/core/stock/moves'
import { eq, gt, sql } from 'drizzle-orm'
import { record } from '../audit/log'
import type { Session } from '../database/connect'
import { Refusal } from '../problem'
import { bag } from '../schema/bags'
import { batch } from '../schema/batches'
import { move } from '../schema/ledger'
import type { DoingBatch } from './batch-actor'
import { lockBatch } from './lock'

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
