import { and, eq, inArray, isNotNull, sql } from 'drizzle-orm'
import type { Session } from '../database/connect'
import { bag, heldByBag } from '../schema/bags'
import { batch } from '../schema/batches'

export interface Held {
  readonly batchId: number
  readonly name: string
  readonly dueOn: string
  readonly itemId: number
  readonly lotId: number
  readonly quantity: number
}

/** States in which a batch holds what its bags must have. */
export const holding = ['reserved', 'packing', 'packed'] as const

/** What batches hold of some items, by batch and lot, soonest due first. */
export async function heldOf(db: Session, ids: readonly number[]): Promise<Held[]> {
  if (ids.length === 0) return []
  const rows = await db
    .select({
      batchId: batch.id,
      name: batch.name,
      dueOn: batch.dueOn,
      itemId: bag.itemId,
      lotId: sql<number>`${bag.lotId}`,
      quantity: sql<string>`sum(${heldByBag})`,
    })
    .from(bag)
    .innerJoin(batch, eq(batch.id, bag.batchId))
    .where(and(inArray(bag.itemId, [...ids]), isNotNull(bag.lotId), inArray(batch.state, [...holding])))
    .groupBy(batch.id, bag.itemId, bag.lotId)
    .orderBy(batch.dueOn, batch.id, bag.lotId)
  return rows.map((row) => ({ ...row, quantity: Number(row.quantity) }))
}
