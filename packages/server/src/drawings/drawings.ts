/**
 * Drawings that the shop keeps of its patterns, so that a page of them need not compute any: made in the background, one at a time, when a
 * draft has none of its own yet.
 */
import { createHash } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { eq, sql } from 'drizzle-orm'
import type { Logger } from 'pino'
import { requestContext } from '../context'
import type { Database, Session } from '../database/connect'
import { describeError } from '../http/describe'
import type { WorkerPool } from '../jobs/pool'
import { patternDrawing } from '../schema/drawings'
import { pattern } from '../schema/patterns'

interface Draft {
  readonly id: number
  readonly source: string
}

export interface Drawings {
  digestOf(source: string): string
  /** Sees to it that these drafts are drawn. */
  want(drafts: readonly Draft[]): void
}

const digestBy = (build: string, source: string): string =>
  createHash('sha256').update(build).update('\0').update(source).digest('hex')

/** What draws is all in the workers' file. */
export const buildOf = (workerFile: string): string =>
  createHash('sha256').update(readFileSync(workerFile)).digest('hex')

/** Draws a draft, and keeps that unless it has been changed meanwhile. */
export async function drawDraft(db: Session, workers: WorkerPool, build: string, { id, source }: Draft): Promise<void> {
  const { view, ...figures } = await workers.run('draw', { source })
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
export function keepDrawings(db: Database, workers: WorkerPool, build: string, log: Logger): Drawings {
  const waiting = new Map<number, Draft>()
  /** Drafts that could not be drawn: they are not tried again until they change. */
  const failed = new Set<string>()
  let drawing = false
  const digestOf = (source: string) => digestBy(build, source)

  async function work(): Promise<void> {
    if (drawing) return
    drawing = true
    for (let [next] = waiting.values(); next; [next] = waiting.values()) {
      waiting.delete(next.id)
      try {
        await drawDraft(db, workers, build, next)
      } catch (error) {
        failed.add(digestOf(next.source))
        log.warn({ pattern: next.id, error: describeError(error) }, 'a pattern could not be drawn')
      }
    }
    drawing = false
  }

  return {
    digestOf,
    want(drafts) {
      for (const draft of drafts) if (!failed.has(digestOf(draft.source))) waiting.set(draft.id, draft)
      // Nobody waits for it, not even the one whose page wants it.
      requestContext.run(undefined, () => void work())
    },
  }
}
