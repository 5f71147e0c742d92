import { asc, eq } from 'drizzle-orm'
import type { Session } from '../database/connect'
import { batch } from '../schema/batches'
import { linesOfBatches, type PlannedLine } from './lines'
import { kitLots, shareKits, toPack } from './ready-kits'

export interface DraftLine extends PlannedLine {
  readonly id: number
  readonly title: string
  readonly colourway: string
  readonly batchId: number
  readonly batchName: string
  readonly dueOn: string
  /** The batch's place in the order in which drafts go. */
  readonly turn: number
}

export const drafts = (db: Session) =>
  db
    .select({ id: batch.id, name: batch.name, dueOn: batch.dueOn, priority: batch.priority })
    .from(batch)
    .where(eq(batch.state, 'draft'))
    .orderBy(asc(batch.priority), asc(batch.dueOn), asc(batch.id))

/** A batch as if it were due on another day. */
export interface MovedBatch {
  readonly batchId: number
  readonly dueOn: string
}

function inTurn<Draft extends { readonly id: number; readonly dueOn: string; readonly priority: number }>(
  batches: readonly Draft[],
  moved: MovedBatch | undefined,
): readonly Draft[] {
  if (!moved) return batches
  return batches
    .map((each) => (each.id === moved.batchId ? { ...each, dueOn: moved.dueOn } : each))
    .sort((a, b) => a.priority - b.priority || a.dueOn.localeCompare(b.dueOn) || a.id - b.id)
}

/** Every line of every draft, in the order in which they go. */
export async function draftLines(db: Session, moved?: MovedBatch): Promise<DraftLine[]> {
  const batches = inTurn(await drafts(db), moved)
  const lines = await linesOfBatches(
    db,
    batches.map(({ id }) => id),
  )
  return batches.flatMap(({ id: batchId, name: batchName, dueOn }, turn) =>
    (lines.get(batchId) ?? []).map((line) => ({ ...line, batchId, batchName, dueOn, turn })),
  )
}

/** Lines in the order in which they go, with only those kits that do not stand packed on the shelf. */
export async function stillToPack<Line extends PlannedLine>(db: Session, lines: readonly Line[]): Promise<Line[]> {
  return toPack(lines, shareKits(lines, await kitLots(db, lines)))
}
