import type { Doing } from '../idempotency/run-once'

/** Something done to a batch. */
export interface DoingBatch extends Doing {
  readonly batchId: number
}
