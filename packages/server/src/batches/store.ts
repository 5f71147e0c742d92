import type { Batch, ListedBatch } from '@tessellum/contract/batches'
import { asc, eq, sql } from 'drizzle-orm'
import { type Drawn, drawnIn } from '../colourways/drawn-in'
import type { Session } from '../database/connect'
import { linesOf } from '../planning/lines'
import { outlookFor } from '../planning/outlook'
import { notFound } from '../problem'
import { bag } from '../schema/bags'
import { batch, batchLine } from '../schema/batches'
import { pattern, patternVersion } from '../schema/patterns'
import type { Shop } from '../shop'

export async function listBatches(db: Session): Promise<ListedBatch[]> {
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
      bags: sql<
        ListedBatch['bags']
      >`(select json_build_object('filled', count(${bag.filled}), 'of', count(*)) from ${bag} where ${bag.batchId} = ${batch.id})`,
      drawn: sql<Drawn | null>`(
        select json_build_object('patternId', version.pattern_id, 'digest', drawn.digest, 'roles', drawn.figures -> 'roles',
          'colourwayVersionId', line.colourway_version_id, 'size', line.size)
        from batch_line line
        join pattern_version version on version.id = line.pattern_version_id
        join pattern_drawing drawn on drawn.pattern_id = version.pattern_id and drawn.view is not null
        where line.batch_id = ${batch.id} order by line.position limit 1
      )`,
    })
    .from(batch)
    .leftJoin(batchLine, eq(batchLine.batchId, batch.id))
    .leftJoin(patternVersion, eq(patternVersion.id, batchLine.patternVersionId))
    .leftJoin(pattern, eq(pattern.id, patternVersion.patternId))
    .groupBy(batch.id)
    .orderBy(asc(batch.dueOn), asc(batch.id))
  const drawings = await drawnIn(
    db,
    rows.map(({ drawn }) => drawn),
  )
  return rows.map(({ drawn: _, ...row }, i) => ({ ...row, drawing: drawings[i] ?? null }))
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
