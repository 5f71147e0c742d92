/** Drawings that the shop keeps of its patterns, so that a page of them need not compute any: made in the background when a draft has none of its own yet. */
import { createHash } from 'node:crypto'
import { eq, sql } from 'drizzle-orm'
import type { Logger } from 'pino'
import type { Session } from '../database/connect'
import { describeError } from '../http/describe'
import type { Draft } from '../jobs/job-records'
import type { WorkerPool } from '../jobs/pool'
import type { JobQueue } from '../jobs/queue'
import type { Tasks } from '../jobs/tasks'
import { patternDrawing } from '../schema/drawings'
import { pattern } from '../schema/patterns'

export interface Drawings {
  digestOf(source: string): string
  /** Sees to it that these drafts are drawn. */
  want(drafts: readonly Draft[]): void
}

const digestBy = (build: string, source: string): string =>
  createHash('sha256').update(build).update('\0').update(source).digest('hex')

/** Draws a draft, and keeps that. */
export async function drawDraft(db: Session, workers: WorkerPool, build: string, { id, source }: Draft): Promise<void> {
  await keepDrawing(db, build, { id, source }, await workers.run('draw', { source }))
}

/** Keeps what was drawn of a draft, unless that has been changed meanwhile. */
export async function keepDrawing(
  db: Session,
  build: string,
  { id, source }: Draft,
  { view, ...figures }: Tasks['draw']['output'],
): Promise<void> {
  const drawn = { digest: digestBy(build, source), figures, view }
  const [now] = await db.select({ source: pattern.source }).from(pattern).where(eq(pattern.id, id))
  if (now?.source !== source) return
  await db
    .insert(patternDrawing)
    .values({ patternId: id, ...drawn })
    .onConflictDoUpdate({ target: patternDrawing.patternId, set: drawn })
  await db.execute(sql`select pg_notify('changes', 'drawings')`)
}

/** @param build of what draws: another build may draw otherwise */
export const keepDrawings = (queue: JobQueue, build: string, log: Logger): Drawings => ({
  digestOf: (source) => digestBy(build, source),
  want(drafts) {
    const jobs = drafts.map(({ id, source }) => ({ id, source }))
    queue
      .add('draw', jobs)
      .catch((error: unknown) =>
        log.warn({ error: describeError(error) }, 'patterns could not be put down to be drawn'),
      )
  },
})
