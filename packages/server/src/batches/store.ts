import type { Batch, BatchSummary } from '@tessellum/contract/batches'
import { asc, eq, sql } from 'drizzle-orm'
import type { Session } from '../database/connect'
import { linesOf } from '../planning/lines'
import { outlookFor } from '../planning/outlook'
import { notFound } from '../problem'
import { batch, batchLine } from '../schema/batches'
import { pattern, patternVersion } from '../schema/patterns'
import type { Shop } from '../shop'

export async function listBatches(db: Session): Promise<BatchSummary[]> {
  const rows = await db
    .select({
      id: batch.id,
      name: batch.name,
      dueOn: batch.dueOn,
      state: batch.state,
      priority: batch.priority,
      kits: sql<number>`coalesce(sum(${batchLine.kits}), 0)::int`,
      patterns: sql<
        string[]
      >`coalesce(array_agg(distinct ${pattern.title}) filter (where ${pattern.title} is not null), '{}')`,
    })
    .from(batch)
    .leftJoin(batchLine, eq(batchLine.batchId, batch.id))
    .leftJoin(patternVersion, eq(patternVersion.id, batchLine.patternVersionId))
    .leftJoin(pattern, eq(pattern.id, patternVersion.patternId))
    .groupBy(batch.id)
    .orderBy(asc(batch.dueOn), asc(batch.id))
  return rows
}

export async function findBatch(shop: Shop, id: number): Promise<Batch> {
  const { db } = shop
  const [row] = await db.select().from(batch).where(eq(batch.id, id))
  if (!row) throw notFound('batch')
  const lines = await linesOf(db, id)
  return {
    id,
    name: row.name,
    dueOn: row.dueOn,
    state: row.state,
    priority: row.priority,
    kits: lines.reduce((sum, line) => sum + line.kits, 0),
    patterns: [...new Set(lines.map((line) => line.title))],
    lines: lines.map(({ patternVersionId: _, colourwayVersionId: __, ...line }) => line),
    outlook: await outlookFor(shop, lines, id),
  }
}
