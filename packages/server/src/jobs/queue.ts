/**
 * Long work, kept in PostgreSQL, so that any server takes it and none is lost with a server. Whoever works on a job holds an advisory lock
 * on it: PostgreSQL lets go of that as soon as the server's connection ends, however it ends, and another server takes the job.
 */
import { availableParallelism } from 'node:os'
import pg from 'pg'
import type { Logger } from 'pino'
import { RequestAborted, requestContext } from '../context'
import type { Database } from '../database/connect'
import { isUnreachable } from '../database/errors'
import { describeError } from '../http/describe'
import { HttpProblem } from '../problem'
import { type JobName, jobRecords, lockSpace, type OpenJob, type QueuedJobs } from './job-records'

/** What each does; bytes are for who waits. */
export type JobHandlers = { readonly [Name in JobName]: (input: QueuedJobs[Name]) => Promise<Uint8Array | undefined> }

export interface JobQueue {
  /** Waits until a job is done. Whoever asks for the same waits for the same job, or gets what it came to. */
  run<Name extends JobName>(name: Name, input: QueuedJobs[Name]): Promise<Buffer>
  /** Has jobs of the shop's own done when there is nothing else to do. What could not be done is not tried again for a day. */
  add<Name extends JobName>(name: Name, inputs: readonly QueuedJobs[Name][]): Promise<void>
  /** How many jobs are begun before the last that a person waits for. */
  ahead(personId: number): Promise<number>
  start(): void
  close(): Promise<void>
}

/** So often it is looked whether a server has died with a job, or a notice was missed. */
const lookEveryMs = 5000

/** Begun so often and never done, it is what makes servers die. */
const maxAttempts = 3

interface Parts {
  readonly url: string
  readonly db: Database
  /** Of what works jobs out. */
  readonly build: string
  readonly handlers: JobHandlers
  readonly log: Logger
}

export function jobQueue({ url, db, build, handlers, log }: Parts): JobQueue {
  const records = jobRecords(db, build)
  /** Listens, and holds the locks. */
  let client: pg.Client | undefined
  let closed = false
  /** What is worked on here. */
  const running = new Map<number, { readonly personId: number | null; readonly stop: AbortController }>()
  /** What has ended here, and is locked still: one statement at a time goes to the connection. */
  const finished: number[] = []
  /** Who waits here, by job: each looks what has become of it. */
  const waiters = new Map<number, Set<() => void>>()

  const report = (error: unknown) => log.warn({ error: describeError(error) }, 'the queue of jobs could not go on')

  async function listen(): Promise<void> {
    const next = new pg.Client({ connectionString: url, connectionTimeoutMillis: 4000 })
    const lost = () => {
      if (client === next) client = undefined
      next.end().catch(() => undefined)
    }
    next.on('error', lost)
    next.on('end', lost)
    next.on('notification', ({ payload = '' }) => {
      const [what, id] = payload.split(' ')
      if (what === 'done') wake(Number(id))
      else if (what === 'left') running.get(Number(id))?.stop.abort()
      else take().catch(report)
    })
    await next.connect()
    if (closed) return lost()
    await next.query(`set application_name = 'tessellum jobs ${process.pid}'; listen jobs`)
    client = next
    finished.length = 0
  }

  const wake = (id: number) => {
    for (const look of waiters.get(id) ?? []) look()
  }

  /** Now and then, and once at the beginning. */
  async function look(): Promise<void> {
    if (!client) await listen()
    for (const id of waiters.keys()) wake(id)
    await take()
  }

  let taking = false
  let takeAgain = false
  /** Begins as many as there are cores. */
  async function take(): Promise<void> {
    takeAgain = true
    if (taking) return
    taking = true
    try {
      while (takeAgain) {
        takeAgain = false
        for (let id = finished.pop(); client && id !== undefined; id = finished.pop()) await letGo(client, id)
        for (let next = await takeOne(); next; next = await takeOne()) void work(next)
      }
    } finally {
      taking = false
    }
  }

  async function takeOne(): Promise<OpenJob | undefined> {
    if (closed || !client || running.size >= availableParallelism()) return undefined
    const locks = client
    // Of the shop's own jobs one is done at a time.
    const ownToo = ![...running.values()].some(({ personId }) => personId === null)
    for (const job of await records.next(20, ownToo)) {
      const { rows } = await locks.query('select pg_try_advisory_lock($1, $2) as mine', [lockSpace, job.id])
      if (!rows[0].mine) continue
      try {
        if (!(await mayBegin(job.id))) continue
        running.set(job.id, { personId: job.personId, stop: new AbortController() })
        return job
      } finally {
        // What is not begun is let go of, whatever went wrong: nobody else could take it.
        if (!running.has(job.id)) finished.push(job.id)
      }
    }
    return undefined
  }

  /** It may have been done, or left, since it was looked for; or have been begun too often. */
  async function mayBegin(id: number): Promise<boolean> {
    const attempts = await records.begin(id)
    if (attempts === undefined) return false
    if (attempts <= maxAttempts) return true
    await records.end(id, {
      problem: new HttpProblem(500, 'job-failed', 'This was tried three times, and the server stopped each time.', {
        hint: 'Tell whoever looks after the server.',
      }),
    })
    return false
  }

  /** A connection that has ended holds nothing any more. */
  const letGo = (locks: pg.Client, id: number) =>
    locks.query('select pg_advisory_unlock($1, $2)', [lockSpace, id]).catch(() => undefined)

  async function work({ id, name, input, personId }: OpenJob): Promise<void> {
    const signal = running.get(id)?.stop.signal as AbortSignal
    try {
      const handler = handlers[name] as (input: unknown) => Promise<Uint8Array | undefined>
      const asks = personId === null ? undefined : { personId, signal }
      const result = await requestContext.run(asks, () => handler(JSON.parse(input)))
      await records.end(id, { result: result && Buffer.from(result) })
    } catch (error) {
      // Nobody waits any more; or this server ends, or has lost the database, and another takes it.
      if (!(error instanceof RequestAborted || closed || isUnreachable(error))) {
        if (!(error instanceof HttpProblem)) log.error({ job: name, error: describeError(error) }, 'a job failed')
        const problem =
          error instanceof HttpProblem ? error : new HttpProblem(500, 'job-failed', 'This could not be worked out.')
        await records.end(id, { problem }).catch(report)
      }
    } finally {
      running.delete(id)
      finished.push(id)
      await take().catch(report)
    }
  }

  let looking: NodeJS.Timeout | undefined

  return {
    async run(name, input) {
      const { personId = 0, signal } = requestContext.getStore() ?? {}
      const id = await records.ask(name, input, personId)
      return new Promise((resolve, reject) => {
        const look = async () => {
          const outcome = await records.outcome(id)
          if (!outcome) return
          over()
          if (outcome.result) resolve(outcome.result)
          else reject(outcome.problem ?? new RequestAborted())
        }
        const waiter = () => void look().catch(report)
        const gone = () => {
          over()
          records.leave(id).catch(report)
          reject(new RequestAborted())
        }
        const over = () => {
          signal?.removeEventListener('abort', gone)
          const all = waiters.get(id)
          all?.delete(waiter)
          if (all?.size === 0) waiters.delete(id)
        }
        if (signal?.aborted) {
          gone()
          return
        }
        signal?.addEventListener('abort', gone, { once: true })
        waiters.set(id, (waiters.get(id) ?? new Set()).add(waiter))
        // It may be done already.
        waiter()
        records.tell('new').catch(report)
      })
    },

    async add(name, inputs) {
      if ((await records.add(name, inputs)) > 0) await records.tell('new')
    },

    ahead: records.ahead,

    start() {
      const run = () => void look().catch(report)
      looking = setInterval(run, lookEveryMs)
      run()
    },

    async close() {
      closed = true
      clearInterval(looking)
      for (const { stop } of running.values()) stop.abort()
      const ending = client
      client = undefined
      await ending?.end().catch(() => undefined)
    },
  }
}
