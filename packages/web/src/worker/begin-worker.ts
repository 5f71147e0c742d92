import { type Remote, wrap } from 'comlink'
import type { TasksName } from './core.worker'
import workerAddress from './core.worker?worker&url'

/** Where the worker is: another address with every build of it or of anything that its tasks come from. */
export { workerAddress }

/** A page that was opened before the shop was updated asks for code that is no longer there. */
const cannotGoOn =
  'This page can no longer work that out: the shop may have been updated. Reload the page; what you have typed is kept.'

/** A worker for tasks of the core (see `core.worker`), begun with the first question, and again with the next after it was ended or broke. */
export class TaskWorker<Tasks> {
  private begun: { readonly worker: Worker; readonly remote: Remote<Tasks> } | undefined
  private readonly waiting = new Set<(why: Error) => void>()

  /** @param first is done with each worker that is begun */
  constructor(
    private readonly name: TasksName,
    private readonly first: (remote: Remote<Tasks>) => void = () => {},
  ) {}

  /** @returns what it answers; rejects where it cannot begin, breaks, or is ended */
  ask<Answer>(what: (remote: Remote<Tasks>) => Promise<Answer>): Promise<Answer> {
    this.begun ??= this.begin()
    const { remote } = this.begun
    return new Promise<Answer>((resolve, reject) => {
      this.waiting.add(reject)
      what(remote)
        .then(resolve, reject)
        .finally(() => this.waiting.delete(reject))
    })
  }

  /** Tells the worker something, where there is one. */
  tell(what: (remote: Remote<Tasks>) => void): void {
    if (this.begun) what(this.begun.remote)
  }

  /** @param why is said to those who wait for an answer */
  end(why: Error): void {
    this.begun?.worker.terminate()
    this.begun = undefined
    for (const reject of this.waiting) reject(why)
    this.waiting.clear()
  }

  private begin() {
    const worker = new Worker(workerAddress, { type: 'module', name: this.name })
    worker.addEventListener('error', () => {
      if (this.begun?.worker === worker) this.end(new Error(cannotGoOn))
    })
    const remote = wrap<Tasks>(worker)
    this.first(remote)
    return { worker, remote }
  }
}
