import { eq } from 'drizzle-orm'
import type { Session } from '../database/connect'
import { notFound } from '../problem'
import { batch } from '../schema/batches'

/** A batch's row, locked until the transaction ends. */
export async function lockBatch(tx: Session, id: number) {
  const [row] = await tx.select().from(batch).where(eq(batch.id, id)).for('update')
  if (!row) throw notFound('batch')
  return row
}
