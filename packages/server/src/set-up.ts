/** Run before the server: brings the database to the newest schema and, where it is empty, opens the demo shop. */
import { fileURLToPath } from 'node:url'
import { connect } from './database/connect'
import { migrateDatabase } from './database/migrate'
import { openDemoShop } from './demo/open-shop'

const { DATABASE_URL, DEMO_PASSWORD } = process.env
if (!DATABASE_URL) throw new Error('DATABASE_URL names the PostgreSQL database to use.')

const { pool, db } = connect(DATABASE_URL)
try {
  await migrateDatabase(db, fileURLToPath(new URL('../migrations', import.meta.url)))
  if (DEMO_PASSWORD) {
    const opened = await openDemoShop(db, DEMO_PASSWORD)
    process.stdout.write(opened ? 'demo shop opened\n' : 'records kept\n')
  }
} finally {
  await pool.end()
}
