import { type Remote, wrap } from 'comlink'
import type { WriteTasks } from './write.worker'

let remote: Remote<WriteTasks> | undefined

/** One worker, begun when the first pattern is written. */
export function writeClient(): Remote<WriteTasks> {
  remote ??= wrap<WriteTasks>(new Worker(new URL('./write.worker.ts', import.meta.url), { type: 'module' }))
  return remote
}
