import type { TasksName } from './core.worker'
import workerAddress from './core.worker?worker&url'

/** Where the worker is: another address with every build of it or of anything that its tasks come from. */
export { workerAddress }

/** A worker for tasks of the core; see `core.worker`. */
export const beginWorker = (name: TasksName): Worker => new Worker(workerAddress, { type: 'module', name })
