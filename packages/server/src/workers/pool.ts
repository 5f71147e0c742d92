import { Piscina } from 'piscina'
import { Refusal } from '../http/refusal'
import type { TaskName, Tasks } from './tasks'

export interface WorkerPool {
  run<Name extends TaskName>(name: Name, input: Tasks[Name]['input']): Promise<Tasks[Name]['output']>
  close(): Promise<void>
}

/** Work is bounded by what it counts, such as beads and steps; this only ends what hangs, on a busy machine too. */
const limitMs = 180_000

/** Threads for everything that takes more than a moment, so that the server itself never stops listening. */
export function workerPool(file: string): WorkerPool {
  const pool = new Piscina({
    filename: file,
    minThreads: 1,
    maxThreads: 2,
    maxQueue: 200,
    resourceLimits: { maxOldGenerationSizeMb: 1024 },
  })
  return {
    async run(name, input) {
      const limit = AbortSignal.timeout(limitMs)
      try {
        return await pool.run(input, { name, signal: limit })
      } catch (error) {
        if (limit.aborted)
          throw new Refusal(422, 'takes-too-long', 'This took longer than three minutes and was stopped.', {
            hint: 'Try again later. If it happens again, make the pattern in parts.',
          })
        if (error instanceof Error && error.message.includes('Task queue'))
          throw new Refusal(503, 'busy', 'Too much is being worked out at once.', { hint: 'Try again in a moment.' })
        // A file that unpacks to more than a thread may hold ends the thread, and nothing else.
        if ((error as { code?: string }).code === 'ERR_WORKER_OUT_OF_MEMORY')
          throw new Refusal(422, 'too-large', 'That is more than can be worked out at once.', {
            hint: 'Send it in parts.',
          })
        throw error
      }
    },
    close: () => pool.destroy(),
  }
}
