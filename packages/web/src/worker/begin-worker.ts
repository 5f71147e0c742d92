import { type Remote, wrap } from 'comlink'
import type { TasksName } from './core.worker'
import workerAddress from './core.worker?worker&url'

/** Where the worker is: another address with every build of it or of anything that its tasks come from. */
export { workerAddress }

/** A page that was opened before the shop was updated asks for code that is no longer there. */
const cannotGoOn =
  'This page can no longer work that out: the shop may have been updated. Reload the page; what you have typed is kept.'

/** A worker for tasks of the core; see `core.worker`. */
export class TaskWorker<Tasks> {
  readonly remote: Remote<Tasks>
  /** Rejects where the worker cannot begin, or breaks: nothing that it was asked is answered then. */
  readonly failed: Promise<never>
  private readonly worker: Worker

  constructor(name: TasksName) {
    this.worker = new Worker(workerAddress, { type: 'module', name })
    this.remote = wrap<Tasks>(this.worker)
    this.failed = new Promise<never>((_, reject) => {
      this.worker.addEventListener('error', () => reject(new Error(cannotGoOn)), { once: true })
    })
    // Whoever waits for an answer hears of it.
    this.failed.catch(() => undefined)
  }

  /** What it answers, or why it does not. */
  answer<Answer>(asked: Promise<Answer>): Promise<Answer> {
    return Promise.race([asked, this.failed])
  }

  end(): void {
    this.worker.terminate()
  }
}
