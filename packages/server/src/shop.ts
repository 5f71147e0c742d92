import type { Database } from './database/connect'
import type { Drawings } from './drawings/drawings'
import type { WorkerPool } from './jobs/pool'

/** What every route may use. */
export interface Shop {
  readonly db: Database
  readonly workers: WorkerPool
  readonly drawings: Drawings
}
