import { type Remote, wrap } from 'comlink'
import { beginWorker } from '../worker/begin-worker'
import type { WriteTasks } from './write-tasks'

let remote: Remote<WriteTasks> | undefined

/** One worker, begun when the first pattern is written. */
export function writeClient(): Remote<WriteTasks> {
  remote ??= wrap<WriteTasks>(beginWorker('write'))
  return remote
}
