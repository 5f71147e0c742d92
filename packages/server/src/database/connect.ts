import { drizzle } from 'drizzle-orm/node-postgres'
import pg from 'pg'
import type { Logger } from 'pino'

/** @param max connections at once */
export function connect(url: string, log?: Logger, max = 12) {
  const pool = new pg.Pool({ connectionString: url, max, connectionTimeoutMillis: 4000, idleTimeoutMillis: 30_000 })
  // An idle connection that the database drops is replaced at the next request; without a listener it would end the process.
  pool.on('error', (error) => log?.warn({ error: error.message }, 'a database connection was lost'))
  return { pool, db: drizzle({ client: pool }) }
}

export type Database = ReturnType<typeof connect>['db']
/** A transaction, or the database itself. */
export type Session = Pick<Database, 'select' | 'selectDistinctOn' | 'insert' | 'update' | 'delete' | 'execute'>
