/** The core, and painting, off the page's own thread. Each worker runs the tasks that it is named after; what their parts share is loaded once for all of them. */
import { expose } from 'comlink'

const tasks = {
  evaluate: () => import('../patterns/evaluate-tasks'),
  form: () => import('../piece/form-tasks'),
  paint: () => import('../piece/paint-tasks'),
  propose: () => import('../colours/propose-tasks'),
  write: () => import('../writing/write-tasks'),
}

export type TasksName = keyof typeof tasks

// What is asked before the tasks are there is answered once they are.
const early: MessageEvent[] = []
const wait = (event: MessageEvent) => early.push(event)
self.addEventListener('message', wait)
tasks[self.name as TasksName]().then(
  (found) => {
    self.removeEventListener('message', wait)
    expose(found.tasks)
    for (const { data, ports } of early) self.dispatchEvent(new MessageEvent('message', { data, ports: [...ports] }))
  },
  (error: unknown) => {
    // The page hears only of what nobody catches.
    setTimeout(() => {
      throw error
    })
  },
)
