import { effectOf } from '@tessellum/core/stock/moves'
import { eq, sql } from 'drizzle-orm'
import type { Session } from '../database/connect'
import type { Ready } from '../planning/ready-kits'
import { kitItem } from '../schema/kits'
import { move } from '../schema/ledger'
import { lot } from '../schema/stock'
import type { BatchActor } from './batch-actor'

/** Packed kits that a batch is promised, lot by lot: with beads in bags they make up its lines. */
export const promisedKits = (db: Session, batchId: number): Promise<(Ready & { readonly itemId: number })[]> =>
  db
    .select({ lotId: move.lotId, itemId: lot.itemId, kits: sql<number>`sum(${move.reserved})::int` })
    .from(move)
    .innerJoin(lot, eq(lot.id, move.lotId))
    .innerJoin(kitItem, eq(kitItem.itemId, lot.itemId))
    .where(eq(move.batchId, batchId))
    .groupBy(move.lotId, lot.itemId)
    .having(sql`sum(${move.reserved}) > 0`)
    .orderBy(move.lotId)

/**
 * Promises a batch these packed kits, and gives back what it had beside them.
 *
 * @param free by lot, as read when the lots were locked
 * @returns false where a lot does not have them any more; nothing has been written then
 */
export async function promiseKits(
  tx: Session,
  ready: readonly (readonly Ready[])[],
  free: ReadonlyMap<number, number>,
  actor: BatchActor,
): Promise<boolean> {
  const wanted = new Map<number, number>()
  for (const { lotId, kits } of ready.flat()) wanted.set(lotId, (wanted.get(lotId) ?? 0) + kits)
  const had = new Map((await promisedKits(tx, actor.batchId)).map(({ lotId, kits }) => [lotId, kits]))
  const net = [...new Set([...wanted.keys(), ...had.keys()])]
    .sort((a, b) => a - b)
    .map((lotId) => ({ lotId, more: (wanted.get(lotId) ?? 0) - (had.get(lotId) ?? 0) }))
    .filter(({ more }) => more !== 0)
  if (net.some(({ lotId, more }) => more > 0 && more > (free.get(lotId) ?? 0))) return false
  if (net.length > 0)
    await tx.insert(move).values(
      net.map(({ lotId, more }) => {
        const kind: 'reserve' | 'release' = more > 0 ? 'reserve' : 'release'
        return { lotId, kind, ...effectOf(kind, Math.abs(more)), ...actor }
      }),
    )
  return true
}

/** Gives back all packed kits that a batch is promised. */
export const releaseKits = (tx: Session, actor: BatchActor): Promise<boolean> => promiseKits(tx, [], new Map(), actor)
