import type { BatchLine } from '@tessellum/contract/batches'
import { eq, inArray, sql } from 'drizzle-orm'
import { findColourway } from '../colourways/store'
import type { Session } from '../database/connect'
import { findVersion } from '../patterns/store'
import { linesOf, type PlannedLine } from '../planning/lines'
import { HttpProblem } from '../problem'
import { batchLine } from '../schema/batches'
import type { BatchActor } from './batch-actor'
import { ownColourway } from './own-colourway'

/** A line as it should be; with the id of the one that it was, if there was one. */
export type WantedLine = PlannedLine & { readonly id?: number | undefined }

/** Lines that stay keep their ids, and with them their bags. @returns ids in the order of the lines */
export async function writeLines(
  tx: Session,
  lines: readonly WantedLine[],
  { batchId, personId }: Pick<BatchActor, 'batchId' | 'personId'>,
): Promise<number[]> {
  const old = await tx.select({ id: batchLine.id }).from(batchLine).where(eq(batchLine.batchId, batchId))
  const gone = old.map(({ id }) => id).filter((id) => !lines.some((line) => line.id === id))
  if (gone.length > 0) await tx.delete(batchLine).where(inArray(batchLine.id, gone))
  // Out of the way first: no two lines share a position, not even for a moment.
  await tx
    .update(batchLine)
    .set({ position: sql`-1 - ${batchLine.position}` })
    .where(eq(batchLine.batchId, batchId))
  const ids: number[] = []
  for (const [position, { id, choices, ...rest }] of lines.entries()) {
    const line = choices
      ? { ...rest, colourwayVersionId: await ownColourway(tx, rest.colourwayVersionId, choices, { batchId, personId }) }
      : rest
    if (id === undefined) {
      const [made] = await tx
        .insert(batchLine)
        .values({ batchId, position, ...line })
        .returning({ id: batchLine.id })
      ids.push((made as { id: number }).id)
    } else {
      await tx
        .update(batchLine)
        .set({ position, ...line })
        .where(eq(batchLine.id, id))
      ids.push(id)
    }
  }
  return ids
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
    throw new HttpProblem(409, 'crossed', 'Somebody changed these lines at the same moment.', {
      hint: 'Reload the page.',
    })
  // One after the other: within a transaction they share a connection.
  const resolved: WantedLine[] = []
  for (const [i, line] of lines.entries()) {
    const wrong = (message: string, path: string) =>
      new HttpProblem(422, 'bad-line', message, { path: `lines.${i}.${path}`, hint: 'Choose another.' })
    const version = await findVersion(db, line.patternId, line.version).catch((error: unknown) => {
      throw error instanceof HttpProblem ? wrong('There is no such version of that pattern.', 'version') : error
    })
    const chosen = await findColourway(db, line.colourwayId, line.colourwayVersion).catch((error: unknown) => {
      throw error instanceof HttpProblem ? wrong('There is no such colourway.', 'colourwayId') : error
    })
    if (chosen.batchId !== null && chosen.batchId !== batchId)
      throw wrong(`Version ${chosen.version} of "${chosen.name}" is for another batch.`, 'colourwayVersion')
    if (chosen.patternId !== line.patternId)
      throw wrong(`The colourway "${chosen.name}" is another pattern's.`, 'colourwayId')
    resolved.push({
      ...(line.id === undefined ? {} : { id: line.id }),
      patternVersionId: version.id,
      colourwayVersionId: chosen.versionId,
      size: line.size,
      kits: line.kits,
    })
  }
  return resolved
}
