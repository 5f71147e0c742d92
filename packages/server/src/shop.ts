import type { Database } from './database/connect'
import type { Revision } from './database/revision'
import type { Drawings } from './drawings/drawings'
import type { FormFiles } from './forms/form-files'
import type { WorkerPool } from './jobs/pool'
import type { JobQueue } from './jobs/queue'

/** What every route may use. */
export interface Shop {
  readonly db: Database
  /** For a change that is one statement: over the connections that may wait for locks, as transactions are. */
  readonly writer: Database
  /** For what is wanted now. */
  readonly workers: WorkerPool
  /** For long work that any server may take. */
  readonly jobs: JobQueue
  readonly drawings: Drawings
  /** Undefined where it has no folder for them. */
  readonly forms: FormFiles | undefined
  readonly revision: Revision
}
