import type { Actor } from '../idempotency/run-once'

/** Something done to a batch. */
export interface BatchActor extends Actor {
  readonly batchId: number
}
