import type { Batch, BatchLine, BatchSummary } from '@tessellum/contract/batches'
import { itemName } from '@tessellum/core/stock/item-name'
import { sayQuantity } from '@tessellum/core/stock/quantity'
import { asc, eq, inArray, sql } from 'drizzle-orm'
import { colourway, colourwayVersion } from '../schema/colourways'
import { findColourway } from '../colourways/store'
import type { Session } from '../database/connect'
import { notFound, Refusal } from '../http/refusal'
import type { Shop } from '../http/route'
import type { bag } from '../schema/bags'
import { pattern, patternVersion } from '../schema/patterns'
import { findVersion } from '../patterns/store'
import { listItems } from '../stock/store'
import type { WantedLine } from './change'
import { outlookFor, type PlannedLine } from './plan'
import { batch, batchLine } from '../schema/batches'

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

/** A batch's lines with the names people know them by. */
export async function linesOf(db: Session, batchId: number): Promise<(Batch['lines'][number] & PlannedLine)[]> {
  return db
    .select({
      id: batchLine.id,
      patternId: pattern.id,
      version: patternVersion.number,
      patternVersionId: patternVersion.id,
      title: pattern.title,
      size: batchLine.size,
      colourwayId: colourway.id,
      colourway: colourway.name,
      colourwayVersion: colourwayVersion.number,
      colourwayVersionId: colourwayVersion.id,
      ownColourway: sql<boolean>`${colourwayVersion.batchId} is not null`,
      kits: batchLine.kits,
    })
    .from(batchLine)
    .innerJoin(patternVersion, eq(patternVersion.id, batchLine.patternVersionId))
    .innerJoin(pattern, eq(pattern.id, patternVersion.patternId))
    .innerJoin(colourwayVersion, eq(colourwayVersion.id, batchLine.colourwayVersionId))
    .innerJoin(colourway, eq(colourway.id, colourwayVersion.colourwayId))
    .where(inArray(batchLine.batchId, [batchId]))
    .orderBy(asc(batchLine.position))
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

/**
 * Finds the pattern's and the colourway's version of each line; says which line names one that does not exist.
 *
 * @param batchId the batch whose lines they are, which may have colourways of its own
 */
export async function resolveLines(db: Session, lines: readonly BatchLine[], batchId?: number): Promise<WantedLine[]> {
  const own = batchId === undefined ? [] : (await linesOf(db, batchId)).map(({ id }) => id)
  const named = lines.flatMap(({ id }) => id ?? [])
  if (named.some((id) => !own.includes(id)) || new Set(named).size < named.length)
    throw new Refusal(409, 'crossed', 'Somebody changed these lines at the same moment.', {
      hint: 'Reload the page.',
    })
  return Promise.all(
    lines.map(async (line, i) => {
      const wrong = (message: string, path: string) =>
        new Refusal(422, 'bad-line', message, { path: `lines.${i}.${path}`, hint: 'Choose another.' })
      const version = await findVersion(db, line.patternId, line.version).catch((error: unknown) => {
        throw error instanceof Refusal ? wrong('There is no such version of that pattern.', 'version') : error
      })
      const chosen = await findColourway(db, line.colourwayId, line.colourwayVersion).catch((error: unknown) => {
        throw error instanceof Refusal ? wrong('There is no such colourway.', 'colourwayId') : error
      })
      if (chosen.batchId !== null && chosen.batchId !== batchId)
        throw wrong(`Version ${chosen.version} of "${chosen.name}" is for another batch.`, 'colourwayVersion')
      if (chosen.patternId !== line.patternId)
        throw wrong(`The colourway "${chosen.name}" is another pattern's.`, 'colourwayId')
      return {
        ...(line.id === undefined ? {} : { id: line.id }),
        patternVersionId: version.id,
        colourwayVersionId: chosen.versionId,
        size: line.size,
        kits: line.kits,
      }
    }),
  )
}

/** A batch's row, locked until the transaction ends. */
export async function lockBatch(tx: Session, id: number) {
  const [row] = await tx.select().from(batch).where(eq(batch.id, id)).for('update')
  if (!row) throw notFound('batch')
  return row
}

/** "Bag 3, Windlass pendant: 0.4 g of cylinder 11/0 Lantern green..." */
export async function bagName(
  db: Session,
  { lineId, kit, itemId, filled }: Pick<typeof bag.$inferSelect, 'lineId' | 'kit' | 'itemId' | 'filled'>,
  lines: Awaited<ReturnType<typeof linesOf>>,
): Promise<string> {
  const [of] = await listItems(db, [itemId])
  const title = lines.find(({ id }) => id === lineId)?.title ?? ''
  const what = of ? `${sayQuantity(filled ?? 0, of.unit)} of ${itemName(of)}` : ''
  return `Bag ${kit}, ${title}: ${what}`
}
