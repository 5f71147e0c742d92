/** Long work that any server may take: two queues stand for two servers on one database. */
import { Pool } from 'pg'
import pino from 'pino'
import { RequestAborted, requestContext } from '../src/context'
import { connect } from '../src/database/connect'
import type { Draft } from '../src/jobs/job-records'
import { type JobHandlers, type JobQueue, jobQueue } from '../src/jobs/queue'
import { HttpProblem } from '../src/problem'
import { emptyShop } from './shop'

let url: string
let admin: Pool
let opened: ReturnType<typeof connect>
const queues: JobQueue[] = []

beforeAll(async () => {
  url = `${process.env.TEST_POSTGRES}${await emptyShop()}`
  admin = new Pool({ connectionString: url, max: 4 })
  opened = connect(url)
})
afterEach(async () => {
  await Promise.all(queues.splice(0).map((queue) => queue.close()))
  await admin.query('delete from job')
})
afterAll(async () => {
  await admin.end()
  await opened.pool.end()
})

type Document = Parameters<JobHandlers['document']>[0]
/** Any input will do: what is made of it is up to the test. */
const page = (title: string) => ({ title }) as unknown as Document
const titleOf = (input: Document) => (input as unknown as { title: string }).title
const as = <T>(personId: number, work: () => T, signal = new AbortController().signal): T =>
  requestContext.run({ personId, signal }, work)

/** One more server, with what it does. */
function server(handlers: Partial<JobHandlers>): JobQueue {
  const none = async () => Buffer.from('nothing')
  const log = pino({ level: 'silent' })
  const queue = jobQueue({
    url,
    db: opened.db,
    build: 'one',
    handlers: { document: none, draw: async () => undefined, ...handlers },
    log,
  })
  queues.push(queue)
  return queue
}

/** The servers' connections that hold jobs, as PostgreSQL knows them. */
const holders = async (): Promise<number[]> =>
  (await admin.query(`select distinct pid from pg_locks where locktype = 'advisory' and classid = 7353002`)).rows.map(
    ({ pid }) => pid,
  )

async function until(holds: () => Promise<boolean> | boolean): Promise<void> {
  while (!(await holds())) await new Promise((done) => setTimeout(done, 20))
}

test('what is asked for twice, at two servers, is worked out once', async () => {
  let made = 0
  const document = async (input: Document) => {
    made++
    await new Promise((done) => setTimeout(done, 100))
    return Buffer.from(`set: ${titleOf(input)}`)
  }
  const [here, there] = [server({ document }), server({ document })]
  here.start()
  there.start()
  const asked = [here, there, here].map((queue, i) => as(i + 1, () => queue.run('document', page('Bezel'))))
  expect((await Promise.all(asked)).map(String)).toEqual(Array(3).fill('set: Bezel'))
  expect(String(await as(9, () => there.run('document', page('Bezel'))))).toBe('set: Bezel')
  expect(made).toBe(1)
})

test('a job goes on at another server when the one that had it dies', async () => {
  const hangs = server({ document: () => new Promise(() => undefined) })
  hangs.start()
  const asks = server({ document: async (input) => Buffer.from(`set: ${titleOf(input)}`) })
  const answer = as(1, () => asks.run('document', page('Bezel')))
  await until(async () => (await holders()).length === 1)
  asks.start()
  // The connection of a server that dies ends.
  await admin.query('select pg_terminate_backend(pid) from unnest($1::int[]) pid', [await holders()])
  await hangs.close()
  expect(String(await answer)).toBe('set: Bezel')
})

test('what makes servers die is given up after three', async () => {
  const asks = server({})
  const answer = as(1, () => asks.run('document', page('Poison'))).catch((error: unknown) => error)
  for (let n = 0; n < 3; n++) {
    const dies = server({ document: () => new Promise(() => undefined) })
    dies.start()
    await until(async () => (await holders()).length === 1)
    await dies.close()
    await until(async () => (await holders()).length === 0)
  }
  asks.start()
  expect(await answer).toMatchObject({ status: 500, code: 'job-failed' })
})

test('people take turns, and the shop’s own work comes last', async () => {
  const begun: string[] = []
  const take = async (title: string) => {
    begun.push(title)
    await new Promise((done) => setTimeout(done, 5))
  }
  const queue = server({
    document: async (input) => {
      await take(titleOf(input))
      return Buffer.from('set')
    },
    draw: async (draft: Draft) => {
      await take(draft.source)
      return undefined
    },
  })
  await queue.add('draw', [{ id: 1, source: 'own' }])
  const asked = ['a1', 'a2', 'a3', 'b1'].map(async (title, i) => {
    await until(async () => (await admin.query('select count(*)::int as n from job')).rows[0].n === i + 1)
    return as(title.charCodeAt(0), () => queue.run('document', page(title)))
  })
  await until(async () => (await admin.query('select count(*)::int as n from job')).rows[0].n === 5)
  expect(await queue.ahead('b'.charCodeAt(0))).toBe(1)
  expect(await queue.ahead('a'.charCodeAt(0))).toBe(3)
  queue.start()
  await Promise.all(asked)
  await until(() => begun.length === 5)
  expect(begun).toEqual(['a1', 'b1', 'a2', 'a3', 'own'])
})

test('what nobody waits for any more is not begun, and stops where it has begun, at whatever server', async () => {
  let stopped = false
  const works = server({
    document: () =>
      new Promise((_, reject) => {
        requestContext.getStore()?.signal.addEventListener('abort', () => {
          stopped = true
          reject(new RequestAborted())
        })
      }),
  })
  const asks = server({})
  asks.start()
  works.start()
  await asks.close()
  const gone = new AbortController()
  const left = as(1, () => works.run('document', page('Left')), gone.signal).catch((error: unknown) => error)
  await until(async () => (await holders()).length === 1)
  gone.abort()
  expect(await left).toBeInstanceOf(RequestAborted)
  await until(() => stopped)
  await until(async () => (await admin.query('select count(*)::int as n from job')).rows[0].n === 0)
})

test('why something could not be done is told, and it is tried again when it is asked for again', async () => {
  let tries = 0
  const queue = server({
    document: async () => {
      if (++tries === 1) throw new HttpProblem(422, 'too-large', 'That is too much.', { hint: 'Send less.' })
      return Buffer.from('set')
    },
    draw: async () => {
      tries++
      throw new Error('no form')
    },
  })
  queue.start()
  const ask = () => as(1, () => queue.run('document', page('Large')))
  await expect(ask()).rejects.toMatchObject({ status: 422, code: 'too-large', hint: 'Send less.' })
  expect(String(await ask())).toBe('set')
  // The shop's own is not, for as long as that is kept.
  for (let n = 0; n < 2; n++) {
    await queue.add('draw', [{ id: 1, source: 'part p' }])
    await until(
      async () => (await admin.query('select count(*)::int as n from job where done_at is null')).rows[0].n === 0,
    )
  }
  expect(tries).toBe(3)
})
