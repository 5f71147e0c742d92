import type { Remote } from 'comlink'
import { TaskWorker } from '../worker/begin-worker'
import type { WriteTasks } from './write-tasks'

let worker: TaskWorker<WriteTasks> | undefined

/** Asks the one worker that writes, begun when the first pattern is written. */
export async function askWriter<Answer>(what: (writer: Remote<WriteTasks>) => Promise<Answer>): Promise<Answer> {
  worker ??= new TaskWorker<WriteTasks>('write')
  const own = worker
  // The next question begins another.
  own.failed.catch(() => {
    if (worker === own) worker = undefined
  })
  return own.answer(what(own.remote))
}
