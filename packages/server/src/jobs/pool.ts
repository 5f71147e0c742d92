import { availableParallelism } from 'node:os'
import { Piscina } from 'piscina'
import { RequestAborted, requestContext } from '../context'
import { HttpProblem } from '../problem'
import { FairQueue, type Pace } from './fair-queue'
import {
  type Answered,
  isStopRequested,
  type Job,
  newTaskControl,
  progressOf,
  requestStop,
  type TaskControl,
} from './task-control'
import type { TaskName, Tasks } from './tasks'

export interface WorkerPool {
  run<Name extends TaskName>(name: Name, input: Tasks[Name]['input']): Promise<Tasks[Name]['output']>
  /** How much goes before what somebody waits for, and how much is done of what is worked out for them, from 0 to 1. */
  stateFor(personId: number): { ahead: number; done: number }
  load(): { readonly waiting: number; readonly running: number }
  close(): Promise<void>
}

/** All else may take minutes. */
const quick: ReadonlySet<TaskName> = new Set<TaskName>(['evaluate', 'sizes', 'allocate', 'shortages', 'buy'])

/**
 * Work is bounded by what it counts, such as beads, steps and iterations; this only ends a thread that hangs. It runs from when the work begins, not
 * from when it was asked for, and is long enough for a machine that is busy with other things.
 */
const hangsMs = 30 * 60_000
/** Fifty lines with eight ways of making each are four hundred bills, and a person may have several pages open. */
const maxEach = 2000
const maxWaiting = 20_000

interface Waiting {
  readonly begin: () => void
}

/**
 * Threads for everything that takes more than a moment, so that the server itself never stops listening. Long work may take every core; one thread
 * more is kept from it, so that what is quick does not wait behind it. What nobody waits for any more is not begun, and what has begun is told to stop; its thread lives on.
 */
export function workerPool(
  file: string,
  env: Readonly<Record<string, string>> = {},
  threads = availableParallelism() + 1,
): WorkerPool {
  const pool = new Piscina({
    filename: file,
    minThreads: 1,
    maxThreads: threads,
    env: { ...process.env, ...env },
    resourceLimits: { maxOldGenerationSizeMb: 1024 },
  })
  const queue = new FairQueue<Waiting>()
  const busy: Record<Pace, number> = { quick: 0, long: 0 }
  /** What is being worked out, and for whom. */
  const running = new Map<TaskControl, number>()

  function next(): void {
    while (busy.quick + busy.long < threads) {
      const work = (busy.long < threads - 1 ? queue.take('long') : undefined) ?? queue.take('quick')
      if (!work) return
      work.begin()
    }
  }

  async function begun<Name extends TaskName>(pace: Pace, job: Job<Name>): Promise<Tasks[Name]['output']> {
    const hangs = AbortSignal.timeout(hangsMs)
    busy[pace]++
    try {
      const answer: Answered<Tasks[Name]['output']> = await pool.run(job, { signal: hangs })
      if ('done' in answer) return answer.done
      throw HttpProblem.from(answer.refused)
    } catch (error) {
      if (isStopRequested(job.control)) throw new RequestAborted()
      if (hangs.aborted)
        throw new HttpProblem(422, 'takes-too-long', 'This took longer than half an hour and was stopped.', {
          hint: 'Try again later. If it happens again, make the pattern in parts.',
        })
      // A file that unpacks to more than a thread may hold ends the thread, and nothing else.
      if ((error as { code?: string }).code === 'ERR_WORKER_OUT_OF_MEMORY')
        throw new HttpProblem(422, 'too-large', 'That is more than can be worked out at once.', {
          hint: 'Send it in parts.',
        })
      throw error
    } finally {
      busy[pace]--
      next()
    }
  }

  return {
    run(name, input) {
      const { personId = 0, signal } = requestContext.getStore() ?? {}
      const pace: Pace = quick.has(name) ? 'quick' : 'long'
      if (queue.length >= maxWaiting || queue.lengthOf(personId) >= maxEach)
        throw new HttpProblem(503, 'busy', 'Too much is being worked out at once.', { hint: 'Try again in a moment.' })
      return new Promise((resolve, reject) => {
        const control = newTaskControl()
        const work: Waiting = {
          begin: () => {
            running.set(control, personId)
            void begun(pace, { name, input, control }).then(resolve, reject).finally(left)
          },
        }
        const gone = () => {
          requestStop(control)
          if (queue.remove(personId, pace, work)) reject(new RequestAborted())
        }
        const left = () => {
          running.delete(control)
          signal?.removeEventListener('abort', gone)
        }
        if (signal?.aborted) reject(new RequestAborted())
        else {
          signal?.addEventListener('abort', gone, { once: true })
          queue.add(personId, pace, work)
          next()
        }
      })
    },
    stateFor: (personId) => ({
      ahead: queue.ahead(personId),
      done: Math.max(
        0,
        ...[...running].filter(([, whose]) => whose === personId).map(([control]) => progressOf(control)),
      ),
    }),
    load: () => ({ waiting: queue.length, running: running.size }),
    close: () => pool.destroy(),
  }
}
