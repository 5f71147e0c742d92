/** A shop of its own for each test file: a copy of the demo database and a real server process in front of it. */
import { type ChildProcess, execFileSync, fork } from 'node:child_process'
import { randomUUID } from 'node:crypto'
import path from 'node:path'
import { Client, Pool } from 'pg'
import type { Holds } from '../src/loop-watch'

const postgres = process.env.TEST_POSTGRES ?? ''
export const password = process.env.TEST_PASSWORD ?? ''
// Built for the bench, it lies elsewhere.
const root = process.env.TEST_ROOT ?? path.join(__dirname, '../../..')

interface Answer<T> {
  readonly status: number
  readonly body: T
  readonly headers: Headers
}

/** A signed-in (or anonymous) caller, with the cookie and token that a page would keep. */
export class Caller {
  cookie = ''
  token = ''

  constructor(readonly base: string) {}

  async signIn(name: string, given = password): Promise<Answer<{ csrfToken: string }>> {
    const answer = await this.ask<{ csrfToken: string }>('POST', '/sign-in', { name, password: given })
    this.token = answer.body.csrfToken
    return answer
  }

  // biome-ignore lint/suspicious/noExplicitAny: tests read bodies as they come
  async ask<T = any>(
    method: string,
    at: string,
    body?: unknown,
    more: { key?: string; token?: string; signal?: AbortSignal } = {},
  ): Promise<Answer<T>> {
    const sent = () =>
      fetch(`${this.base}/api${at}`, {
        method,
        headers: {
          ...(this.cookie ? { cookie: this.cookie } : {}),
          ...(method === 'GET'
            ? {}
            : { 'x-csrf-token': more.token ?? this.token, 'idempotency-key': more.key ?? randomUUID() }),
          ...(body === undefined ? {} : { 'content-type': 'application/json' }),
        },
        ...(body === undefined ? {} : { body: JSON.stringify(body) }),
        ...(more.signal ? { signal: more.signal } : {}),
      })
    // The server may have closed a connection that lay idle while this process was busy; reading twice changes nothing.
    const again = (error: unknown) => {
      if (method !== 'GET' || (error as { cause?: { code?: string } }).cause?.code !== 'UND_ERR_SOCKET') throw error
      return sent()
    }
    return this.read(await sent().catch(again))
  }

  /** Sends a file as it is. */
  // biome-ignore lint/suspicious/noExplicitAny: tests read bodies as they come
  async send<T = any>(at: string, bytes: Uint8Array | string, key: string = randomUUID()): Promise<Answer<T>> {
    const headers = {
      cookie: this.cookie,
      'x-csrf-token': this.token,
      'idempotency-key': key,
      'content-type': 'application/octet-stream',
    }
    return this.read(await fetch(`${this.base}/api${at}`, { method: 'POST', headers, body: Buffer.from(bytes) }))
  }

  private async read<T>(response: Response): Promise<Answer<T>> {
    const set = response.headers.get('set-cookie')
    if (set) this.cookie = set.split(';')[0] ?? ''
    const type = response.headers.get('content-type') ?? ''
    const read = type.includes('json') ? await response.json() : await response.arrayBuffer()
    return { status: response.status, body: read as T, headers: response.headers }
  }
}

export interface Beside {
  readonly base: string
  held(): Promise<Holds>
  end(): Promise<void>
  kill(): void
}

/** By which column records are called. */
const called = {
  pattern: 'title',
  batch: 'name',
  class: 'title',
  item: 'code',
  customer: 'name',
  supplier: 'name',
} as const
export type NamedRecord = keyof typeof called

export interface Shop {
  readonly base: string
  readonly pool: Pool
  as(name: string): Promise<Caller>
  /** The number of a record of the demo shop, by what it is called. */
  idOf(record: NamedRecord, name: string): Promise<number>
  /** How long the server's event loop was held at a time since it was asked last, in milliseconds of work. */
  held(): Promise<Holds>
  /** Another server on the same database. */
  beside(): Promise<Beside>
  close(): Promise<void>
}

/** A database of its own with nothing in it, not even tables. @returns its name */
export async function emptyDatabase(): Promise<string> {
  const admin = new Client({ connectionString: `${postgres}postgres` })
  await admin.connect()
  const name = `empty_${randomUUID().replaceAll('-', '')}`
  await admin.query(`create database ${name} owner tessellum`)
  await admin.end()
  return name
}

/** A database with its tables and nothing in them. @returns its name */
export async function emptyShop(): Promise<string> {
  const name = await emptyDatabase()
  execFileSync(process.execPath, [path.join(root, 'packages/server/dist/set-up.js')], {
    env: { ...process.env, DATABASE_URL: `${postgres}${name}`, DEMO_PASSWORD: '' },
  })
  return name
}

/**
 * @param through gives the server another address for its database, such as a proxy's
 * @param env more that the server is told
 * @param there a database that there is already
 */
export async function openShop(
  through: (port: number) => Promise<number> = async (port) => port,
  env: Readonly<Record<string, string>> = {},
  there?: string,
): Promise<Shop> {
  const admin = new Client({ connectionString: `${postgres}postgres` })
  await admin.connect()
  const name = there ?? `shop_${randomUUID().replaceAll('-', '')}`
  if (!there) await admin.query(`create database ${name} template shop owner tessellum`)
  await admin.end()

  const direct = new URL(`${postgres}${name}`)
  const served = new URL(direct)
  served.port = String(await through(Number(direct.port)))
  const { child, port } = await serve(served.href, env)
  const pool = new Pool({ connectionString: direct.href, max: 4 })
  pool.on('error', () => undefined)
  const base = `http://127.0.0.1:${port}`
  return {
    base,
    pool,
    async as(person) {
      const caller = new Caller(base)
      await caller.signIn(person)
      return caller
    },
    async idOf(record, name) {
      const { rows } = await pool.query<{ id: number }>(`select id from ${record} where ${called[record]} = $1`, [name])
      const [found, other] = rows
      if (!found || other) throw new Error(`There are ${rows.length} records called "${name}" in ${record}.`)
      return found.id
    },
    held: () => heldBy(child),
    async beside() {
      const another = await serve(served.href, env)
      return {
        base: `http://127.0.0.1:${another.port}`,
        held: () => heldBy(another.child),
        end: () => ended(another.child),
        kill: () => void another.child.kill('SIGKILL'),
      }
    },
    async close() {
      await pool.end()
      await ended(child)
    },
  }
}

function serve(
  databaseUrl: string,
  env: Readonly<Record<string, string>>,
): Promise<{ child: ChildProcess; port: number }> {
  return new Promise((resolve, reject) => {
    const child = fork(path.join(root, 'packages/server/dist/main.js'), {
      env: {
        ...process.env,
        NODE_ENV: 'production',
        LOG_LEVEL: 'silent',
        // A slow machine is not to change what is answered.
        ANSWER_SECONDS: '600',
        CHECK_ANSWERS: 'true',
        PORT: '0',
        DATABASE_URL: databaseUrl,
        ARCHIVE_KEY: 'a key for the tests only',
        WEB_ROOT: path.join(root, 'packages/web/dist'),
        ...env,
      },
    })
    child.once('exit', (code) => reject(new Error(`the server ended with ${code}`)))
    child.once('message', (message) => resolve({ child, port: (message as { listening: number }).listening }))
  })
}

const heldBy = (child: ChildProcess) =>
  new Promise<Holds>((resolve, reject) => {
    const gone = () => reject(new Error('the server has ended'))
    child.once('exit', gone)
    child.once('message', (told) => {
      child.off('exit', gone)
      resolve((told as { loop: Holds }).loop)
    })
    child.send('loop', (error) => error && reject(error))
  })

const ended = (child: ChildProcess) =>
  new Promise<void>((done) => {
    child.once('exit', () => done())
    child.kill('SIGTERM')
  })
