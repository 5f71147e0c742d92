/** Another bead in one line of one batch: the line gets a version of its colourway that is for this batch only. */
import type { SubstituteInLine } from '@tessellum/contract/batches'
import { and, eq } from 'drizzle-orm'
import { colourway, colourwayVersion } from '../colourways/schema'
import { addVersion, choicesOf, explain } from '../colourways/store'
import type { Session } from '../database/connect'
import { notFound, Refusal } from '../http/refusal'
import { batchLine } from './schema'
import { lockBatch } from './store'

/** @param line counted from 1, as people do */
export async function substituteIn(
  tx: Session,
  batchId: number,
  line: number,
  { role, itemId, counting = 'all' }: SubstituteInLine,
  by: number,
): Promise<void> {
  const row = await lockBatch(tx, batchId)
  if (row.state !== 'draft') {
    throw new Refusal(409, 'wrong-state', `This batch is ${row.state}; its beads are fixed.`, {
      hint: 'Give back what it holds first, then change it and reserve again.',
    })
  }
  const [found] = await tx
    .select({ id: batchLine.id, versionId: batchLine.colourwayVersionId, colourwayId: colourwayVersion.colourwayId })
    .from(batchLine)
    .innerJoin(colourwayVersion, eq(colourwayVersion.id, batchLine.colourwayVersionId))
    .where(and(eq(batchLine.batchId, batchId), eq(batchLine.position, line - 1)))
  if (!found) throw notFound('line')
  const { colourwayId } = found
  const [locked] = await tx.select().from(colourway).where(eq(colourway.id, colourwayId)).for('update')
  const before = (await choicesOf(tx, [found.versionId])).get(found.versionId) ?? []
  const choices = [...before.filter((choice) => choice.role !== role), { role, size: '', itemId, counting }]
  try {
    const colourwayVersionId = await addVersion(tx, colourwayId, choices, by, batchId)
    await tx.update(batchLine).set({ colourwayVersionId }).where(eq(batchLine.id, found.id))
  } catch (error) {
    throw explain(error, locked?.name ?? '')
  }
}
