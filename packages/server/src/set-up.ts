/** Run before the server: brings the database to the newest schema and, where it is empty and this is wanted, opens the demo shop or puts an archive back. */
import { readFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { BadArchive, restoreArchive } from './archive/restore'
import { connect } from './database/connect'
import { migrateDatabase } from './database/migrate'
import { openDemoShop } from './demo/open-shop'
import { buildOf, formsFolder, keepFormsIn } from './forms/form-files'
import { workerPool } from './jobs/pool'

const { DATABASE_URL, DEMO_PASSWORD, ARCHIVE, ARCHIVE_KEY = '', FORMS = '' } = process.env
if (!DATABASE_URL) throw new Error('DATABASE_URL names the PostgreSQL database to use.')

// Nobody waits at a screen: a slow database, or another set-up of the same one, is waited for.
const { pool, db } = connect(DATABASE_URL, undefined, { lockSeconds: 300 })
try {
  await migrateDatabase(db, fileURLToPath(new URL('../migrations', import.meta.url)))
  if (DEMO_PASSWORD && ARCHIVE) {
    const only = await restoreArchive(db, readFileSync(ARCHIVE), DEMO_PASSWORD, ARCHIVE_KEY)
    process.stdout.write('archive put back\n')
    if (only !== undefined)
      process.stdout.write(
        `This shop has not signed it. Only ${only} can sign in, and lets the others in again under People.\n`,
      )
  } else if (DEMO_PASSWORD) {
    const workerFile = fileURLToPath(new URL('./worker.js', import.meta.url))
    const build = buildOf(workerFile)
    const folder = formsFolder(FORMS, build)
    keepFormsIn(folder)
    const workers = workerPool(workerFile, { FORMS: folder })
    const opened = await openDemoShop(db, DEMO_PASSWORD, { workers, build }).finally(() => workers.close())
    process.stdout.write(opened ? 'demo shop opened\n' : 'records kept\n')
  }
} catch (error) {
  if (!(error instanceof BadArchive)) throw error
  process.stderr.write(`${error.message}\n`)
  process.exitCode = 2
} finally {
  await pool.end()
}
