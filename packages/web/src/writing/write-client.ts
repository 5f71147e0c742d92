import { TaskWorker } from '../worker/begin-worker'
import type { WriteTasks } from './write-tasks'

/** The one worker that writes. */
export const writer = new TaskWorker<WriteTasks>('write')
