import { type Remote, wrap } from 'comlink'
import type { WriteBench } from './write.worker'

let remote: Remote<WriteBench> | undefined

/** One worker, begun when the first pattern is written. */
export function writeBench(): Remote<WriteBench> {
  remote ??= wrap<WriteBench>(new Worker(new URL('./write.worker.ts', import.meta.url), { type: 'module' }))
  return remote
}
