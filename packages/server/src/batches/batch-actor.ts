import type { Actor } from '../context'

/** Something done to a batch. */
export interface BatchActor extends Actor {
  readonly batchId: number
}
