import type { TasksName } from './core.worker'

/** A worker for tasks of the core; see `core.worker`. */
export const beginWorker = (name: TasksName): Worker =>
  new Worker(new URL('./core.worker.ts', import.meta.url), { type: 'module', name })
