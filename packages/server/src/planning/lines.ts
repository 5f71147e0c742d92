import type { Batch } from '@tessellum/contract/batches'
import type { Choice } from '@tessellum/contract/colourways'
import { asc, eq, inArray, sql } from 'drizzle-orm'
import type { Session } from '../database/connect'
import { batchColourway, batchLine } from '../schema/batches'
import { colourway, colourwayVersion } from '../schema/colourways'
import { pattern, patternVersion } from '../schema/patterns'

/** A line with its pattern's text and its colourway's choices found. */
export interface PlannedLine {
  readonly patternVersionId: number
  readonly colourwayVersionId: number
  readonly size: string
  readonly kits: number
  /** Other beads than the colourway's, for this line only: not written down yet. */
  readonly choices?: readonly Choice[]
  /** The day its kits are due: what comes later is no help. */
  readonly dueOn?: string
}

type NamedLine = Batch['lines'][number] & PlannedLine

/** A batch's lines with the names people know them by. */
export const linesOf = async (db: Session, batchId: number): Promise<NamedLine[]> =>
  (await linesOfBatches(db, [batchId])).get(batchId) ?? []

/** The same of many batches, in one statement; by batch. */
export async function linesOfBatches(db: Session, batchIds: readonly number[]): Promise<Map<number, NamedLine[]>> {
  const found = new Map<number, NamedLine[]>()
  if (batchIds.length === 0) return found
  const rows = await db
    .select({
      batchId: batchLine.batchId,
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
      ownColourway: sql<boolean>`exists (select 1 from ${batchColourway} where ${batchColourway.colourwayVersionId} = ${colourwayVersion.id})`,
      kits: batchLine.kits,
    })
    .from(batchLine)
    .innerJoin(patternVersion, eq(patternVersion.id, batchLine.patternVersionId))
    .innerJoin(pattern, eq(pattern.id, patternVersion.patternId))
    .innerJoin(colourwayVersion, eq(colourwayVersion.id, batchLine.colourwayVersionId))
    .innerJoin(colourway, eq(colourway.id, colourwayVersion.colourwayId))
    .where(inArray(batchLine.batchId, [...batchIds]))
    .orderBy(asc(batchLine.batchId), asc(batchLine.position))
  for (const { batchId, ...line } of rows) {
    const lines = found.get(batchId)
    if (lines) lines.push(line)
    else found.set(batchId, [line])
  }
  return found
}
