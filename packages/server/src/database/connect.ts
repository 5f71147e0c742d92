import { drizzle } from 'drizzle-orm/node-postgres'
import pg from 'pg'
import type { Logger } from 'pino'

interface Connecting {
  /** Connections at once. */
  readonly max?: number
  /** How long a request waits for what another holds; it is told to try again then. */
  readonly lockSeconds?: number
}

function poolOf(url: string, log: Logger | undefined, { max = 12, lockSeconds = 8 }: Connecting) {
  const pool = new pg.Pool({
    connectionString: url,
    max,
    // For a free connection: as long as two who hold one may each wait for a lock, and then some. A database that is gone refuses at once.
    connectionTimeoutMillis: (2 * lockSeconds + 4) * 1000,
    idleTimeoutMillis: 30_000,
    lock_timeout: lockSeconds * 1000,
    // Whoever hangs in the middle of something lets go of it in the end.
    statement_timeout: 300_000,
    idle_in_transaction_session_timeout: 300_000,
  })
  const lost = (error: Error) => log?.warn({ error: error.message }, 'a database connection was lost')
  // A connection that the database drops is replaced at the next request; without a listener it would end the process, idle or in use.
  pool.on('error', lost)
  pool.on('connect', (client) => client.on('error', lost))
  return pool
}

export function connect(url: string, log?: Logger, connecting: Connecting = {}) {
  const pool = poolOf(url, log, connecting)
  return { pool, db: drizzle({ client: pool }) }
}

/**
 * The shop's records: what changes them has connections of its own, so that reading goes on however many wait for one lot.
 *
 * @param lockSeconds how long a change waits for what another holds
 */
export function connectShop(url: string, lockSeconds: number, log?: Logger) {
  const { pool: reading, db } = connect(url, log)
  const { pool: changing, db: changer } = connect(url, log, { lockSeconds })
  db.transaction = changer.transaction.bind(changer)
  return { db, writer: changer, close: () => Promise.all([reading.end(), changing.end()]) }
}

export type Database = ReturnType<typeof connect>['db']
/** A transaction, or the database itself. */
export type Session = Pick<Database, 'select' | 'selectDistinctOn' | 'insert' | 'update' | 'delete' | 'execute'>
