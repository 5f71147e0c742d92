import type { Database } from './database/connect'
import type { Revision } from './database/revision'
import type { Drawings } from './drawings/drawings'
import type { WorkerPool } from './jobs/pool'

/** What every route may use. */
export interface Shop {
  readonly db: Database
  /** For a change that is one statement: over the connections that may wait for locks, as transactions are. */
  readonly writer: Database
  readonly workers: WorkerPool
  readonly drawings: Drawings
  readonly revision: Revision
}
