/** What is kept to be quick, or in case it is asked again, and is deleted when nobody can want it any more. */
import { lt, sql } from 'drizzle-orm'
import type { Logger } from 'pino'
import type { Database } from './database/connect'
import { pruneForms } from './forms/form-files'
import { describeError } from './http/describe'
import { deleteOldJobs } from './jobs/job-records'
import { deleteThrown } from './patterns/life'
import { deletePictures } from './patterns/pictures'
import { cachedBill } from './schema/batches'
import { idempotentRequest } from './schema/idempotency'

/** A page tries the same again for half an hour; a machine that was switched off over a holiday may come back after weeks. */
const requestDays = 60
const billDays = 120
const everyMs = 24 * 3600_000

export async function prune(db: Database): Promise<void> {
  await db.transaction(async (tx) => {
    // Of several servers one does it.
    const { rows } = await tx.execute<{ mine: boolean }>(
      sql`select pg_try_advisory_xact_lock(hashtext('prune')) as mine`,
    )
    if (!rows[0]?.mine) return
    await tx
      .delete(idempotentRequest)
      .where(lt(idempotentRequest.at, sql`now() - make_interval(days => ${requestDays})`))
    await deleteThrown(tx)
    await deletePictures(tx)
    await deleteOldJobs(tx)
    await tx.delete(cachedBill).where(lt(cachedBill.usedOn, sql`(now() - make_interval(days => ${billDays}))::date`))
  })
}

/** Once now, and every day that the server stands. */
export function keepPruned(
  db: Database,
  forms: { readonly folder: string; readonly build: string },
  log: Logger,
): void {
  const run = async () => {
    await prune(db).catch((error: unknown) =>
      log.warn({ error: describeError(error) }, 'old rows could not be deleted'),
    )
    await pruneForms(forms.folder, forms.build).catch((error: unknown) =>
      log.warn({ error: describeError(error) }, 'old forms could not be deleted'),
    )
  }
  setInterval(run, everyMs).unref()
  void run()
}
