import { eq, sql } from 'drizzle-orm'
import type { Session } from '../database/connect'
import { bag } from '../schema/bags'
import { batch } from '../schema/batches'

/** A batch is packing from the first filled bag on, and packed with the last. Written even when it stays the same: open pages are told by it. */
export async function settleState(tx: Session, batchId: number): Promise<void> {
  const [counted] = await tx
    .select({ all: sql<number>`count(*)::int`, filled: sql<number>`count(${bag.filled})::int` })
    .from(bag)
    .where(eq(bag.batchId, batchId))
  const { all, filled } = counted ?? { all: 0, filled: 0 }
  // Where all its kits were packed before, there is nothing left to pack.
  const state = filled === all ? 'packed' : filled === 0 ? 'reserved' : 'packing'
  await tx.update(batch).set({ state }).where(eq(batch.id, batchId))
}
