import { effectOf } from '@tessellum/core/stock/moves'
import { eq, gt, sql } from 'drizzle-orm'
import { logActivity } from '../audit/log'
import type { Session } from '../database/connect'
import { HttpProblem } from '../problem'
import { bag } from '../schema/bags'
import { batch } from '../schema/batches'
import { move } from '../schema/ledger'
import type { BatchActor } from './batch-actor'
import { lockBatch } from './lock'
import { releaseKits } from './promise-kits'

/** Gives back all that a batch holds and leaves it as a draft, or cancelled. */
export async function release(tx: Session, actor: BatchActor, to: 'draft' | 'cancelled'): Promise<void> {
  const row = await lockBatch(tx, actor.batchId)
  // What is in bags already goes back into its tubes when a batch is called off.
  const over = row.state === 'cancelled' || row.state === 'closed'
  const [{ filled } = { filled: 0 }] = await tx
    .select({ filled: sql<number>`count(${bag.filled})::int` })
    .from(bag)
    .where(eq(bag.batchId, actor.batchId))
  if (over || (to === 'draft' && (row.state === 'draft' || filled > 0))) {
    throw new HttpProblem(409, 'wrong-state', `This batch is ${row.state}; there is nothing to give back.`, {
      hint: 'Reload the page.',
    })
  }
  const held = sql<string>`sum(${move.reserved})`
  const holdings = await tx
    .select({ lotId: move.lotId, held })
    .from(move)
    .where(eq(move.batchId, actor.batchId))
    .groupBy(move.lotId)
    .having(gt(held, sql`0`))
    .orderBy(move.lotId)
  if (holdings.length > 0) {
    await tx.insert(move).values(
      holdings.map(({ lotId, held }) => ({
        lotId,
        kind: 'release' as const,
        ...effectOf('release', Number(held)),
        ...actor,
      })),
    )
  }
  await tx.delete(bag).where(eq(bag.batchId, actor.batchId))
  await tx.update(batch).set({ state: to }).where(eq(batch.id, actor.batchId))
  const what = to === 'draft' ? `gave back what ${row.name} held` : `called off ${row.name}`
  await logActivity(tx, actor.personId, what, `/kits/${actor.batchId}`)
}

/** A batch that was called off is a draft again, with the lines it had. */
export async function planAgain(tx: Session, { batchId, personId }: BatchActor): Promise<void> {
  const { state, name } = await lockBatch(tx, batchId)
  if (state !== 'cancelled')
    throw new HttpProblem(409, 'wrong-state', `This batch is ${state}; it has not been called off.`, {
      hint: 'Reload the page.',
    })
  await tx.update(batch).set({ state: 'draft' }).where(eq(batch.id, batchId))
  await logActivity(tx, personId, `planned ${name} again`, `/kits/${batchId}`)
}

/**
 * Calls off a batch of a class or an order that is called off. What has left the shelf already only gives back the kits that were kept for it.
 *
 * @param mayGiveBack whether who does it may give back what is reserved; a plan may be called off by anybody who got here
 * @returns whether kits stay reserved, as they may not be given back
 */
export async function callOffBatch(tx: Session, actor: BatchActor, mayGiveBack: boolean): Promise<boolean> {
  const { state } = await lockBatch(tx, actor.batchId)
  if (state === 'closed' || state === 'cancelled') {
    await releaseKits(tx, actor)
    return false
  }
  if (state !== 'draft' && !mayGiveBack) return true
  await release(tx, actor, 'cancelled')
  return false
}
