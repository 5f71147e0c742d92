import { sql } from 'drizzle-orm'
import { migrate } from 'drizzle-orm/node-postgres/migrator'
import type { Database } from './connect'

/** Brings the database to the newest schema. Several starts at once wait for one another. */
export async function migrateDatabase(db: Database, folder: string): Promise<void> {
  const lock = 7_353_001
  await db.transaction(async (tx) => {
    await tx.execute(sql`select pg_advisory_xact_lock(${lock})`)
    await migrate(db, { migrationsFolder: folder })
  })
}
