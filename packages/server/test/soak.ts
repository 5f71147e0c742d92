/**
 * A shop under everything at once, for as long as is asked: sixty-four people in four roles over all writes, two servers, and faults at random. What was
 * answered is then compared with what stands in the records.
 */
import { randomUUID } from 'node:crypto'
import { api, isWrite, type Route, type RouteKey, routeOf } from '@tessellum/contract/api'
import { mayDo, type Right } from '@tessellum/contract/rights'
import type { Pool } from 'pg'
import { verify } from '../src/verify/verify'
import { requests, written } from './requests'
import { type Beside, Caller, openShop, password } from './shop'
import { type StandIn, standIn } from './stand-in'

interface Told {
  say(line: string): void
  /** Kills the database, as a power cut does, and starts it again. */
  killDatabase(): Promise<void>
}

export interface Soaked {
  readonly asked: number
  readonly done: number
  readonly refused: number
  /** Asked again with the same key until the outcome was known. */
  readonly askedAgain: number
  readonly lost: readonly string[]
  readonly doubled: readonly string[]
  readonly wrong: readonly string[]
  readonly trouble: readonly string[]
  /** The longest hold of an event loop, and what 999 of a thousand stayed under, in ms. */
  readonly holdMs: { readonly longest: number; readonly most: number }
  readonly silentMs: number
  readonly faults: Readonly<Record<string, number>>
}

const roles = ['owner', 'designer', 'stockroom', 'teacher'] as const
type Role = (typeof roles)[number]

interface Person {
  readonly role: Role
  readonly name: string
  caller: Caller
}

const any = <T>(all: readonly T[]): T => all[Math.floor(Math.random() * all.length)] as T
const upTo = (most: number) => 1 + Math.floor(Math.random() * most)
const after = (ms: number) => new Promise((done) => setTimeout(done, ms))

/** Something that is done once, and how it would be found in the records. */
interface Act {
  readonly method: string
  readonly path: string
  readonly body?: unknown
  /** A statement that counts it, where it leaves something that can be counted. */
  readonly count?: readonly [string, unknown[]]
}

export async function soak(minutes: number, { say, killDatabase }: Told): Promise<Soaked> {
  let supplier: StandIn = await standIn('supplier')
  const shop = await openShop(undefined, { ...supplier.env, LOG_LEVEL: 'error' })
  const { pool } = shop
  // A copied database's sequences are not in the log until the next checkpoint: a crash before it would set them back.
  await pool.query('checkpoint')
  const servers: Beside[] = [await shop.beside(), await shop.beside()]
  const people = await sixtyFour(pool, servers)
  const until = performance.now() + minutes * 60_000
  const over = () => performance.now() > until
  const outcome = { asked: 0, done: 0, refused: 0, askedAgain: 0 }
  const faults: Record<string, number> = {}
  const acts = new Map<string, { act: Act; done: boolean }>()
  const trouble: string[] = []
  let longest = 0
  const holds = new Map<number, number>()
  let heard = performance.now()
  let silentMs = 0
  const answered = () => {
    const now = performance.now()
    silentMs = Math.max(silentMs, now - heard)
    heard = now
  }

  const generated = (Object.entries(api) as [RouteKey, Route][]).filter(
    ([key]) => !key.startsWith('GET') && !/sign-|people|archive|welcome|begin|settings|\/me\//.test(key),
  )

  /** One request of a route's own schemas, as anything may be sent. */
  function generatedAct(role: Role): Act | undefined {
    const [key, described] = any(generated)
    const needed = routeOf(key).right as Right
    if (!mayDo([role], needed) || described.bytes) return undefined
    const [sent] = requests(key, described, upTo(1e9), 1)
    const [method = ''] = key.split(' ')
    return sent && { method, path: `${sent.path.replace('/api', '')}?${written(sent.query)}`, body: sent.body }
  }

  async function meantAct({ role, caller }: Person): Promise<Act | undefined> {
    const name = `soak ${randomUUID()}`
    const lots = (await pool.query('select lot_id::int as id from balance order by random() limit 1')).rows
    const lot: number = lots[0].id
    const batches = (await pool.query("select id, state from batch where name like 'soak%' order by random() limit 1"))
      .rows
    const batch = batches[0] as { id: number; state: string } | undefined
    const line = { patternId: 1, version: 1, size: 'petite', colourwayId: 1, kits: upTo(3) }
    const once = (table: string, column: string): readonly [string, unknown[]] => [
      `select count(*) from ${table} where ${column} = $1`,
      [name],
    ]
    const plan: Act = {
      method: 'POST',
      path: '/batches',
      body: { name, dueOn: '2030-03-01', lines: [line] },
      count: once('batch', 'name'),
    }
    const byRole: Record<Role, () => Act | Promise<Act | undefined>> = {
      owner: () =>
        any<Act>([
          plan,
          { method: 'PUT', path: '/costs', body: { packaging: upTo(90), printing: 20, wage: 1500, teaching: 9000 } },
          {
            method: 'POST',
            path: '/orders',
            body: { customer: name, ...line, wantedOn: '2030-02-01', price: 4000 },
            count: once('customer_order', 'customer'),
          },
        ]),
      designer: () =>
        any<Act>([
          plan,
          { method: 'POST', path: '/patterns', body: { source: `pattern ${name}\n` }, count: once('pattern', 'title') },
          ...(batch
            ? [
                {
                  method: 'POST',
                  path: `/batches/${batch.id}/${batch.state === 'draft' ? 'reserve' : any(['release', 'cancel', 'plan-again'])}`,
                  body: {},
                },
              ]
            : []),
          ...(batch
            ? [{ method: 'PUT', path: `/batches/${batch.id}`, body: { dueOn: '2030-04-01', priority: upTo(3) } }]
            : []),
        ]),
      stockroom: () =>
        any<() => Act | Promise<Act | undefined>>([
          () => ({
            method: 'POST',
            path: `/lots/${lot}/moves`,
            body: { kind: any(['receive', 'sale', 'scrap', 'correction']), quantity: upTo(300), reason: name },
            count: once('move', 'reason'),
          }),
          () => ({
            method: 'POST',
            path: `/lots/${lot}/transfer`,
            body: { place: any(['A1', 'A2', 'B1']), quantity: upTo(50) },
          }),
          () => ({ method: 'POST', path: '/quotes', body: { itemIds: [upTo(9)] } }),
          ...(batch ? [() => packing(caller, batch.id)] : []),
        ])(),
      teacher: () =>
        any<Act>([
          {
            method: 'POST',
            path: '/classes',
            body: {
              title: name,
              heldOn: '2030-01-10',
              beginsAt: '10:00',
              minutes: 180,
              place: 'Loft',
              seats: 6,
              teacherId: 1,
              patternId: 1,
              version: 1,
              offers: [{ size: 'petite', colourwayId: 1 }],
            },
            count: once('class', 'title'),
          },
          {
            method: 'PUT',
            path: `/classes/${upTo(12)}/seats/${upTo(6)}`,
            body: { name, offer: 0 },
            count: once('booking', 'name'),
          },
          { method: 'POST', path: `/classes/${upTo(40)}/${any(['cancel', 'reopen'])}`, body: {} },
        ]),
    }
    return byRole[role]()
  }

  async function packing(caller: Caller, id: number): Promise<Act | undefined> {
    const { body, status } = await caller.ask('GET', `/batches/${id}/packing`)
    if (status !== 200 || !['reserved', 'packing', 'packed'].includes(body.state)) return undefined
    const task = any<{
      itemId: number
      bags: { lineId: number; kit: number; target: number; filled: number | null }[]
    }>(body.tasks)
    if (body.state === 'packed') return { method: 'POST', path: `/batches/${id}/close`, body: {} }
    const bag = task?.bags.find(({ filled }) => filled === null)
    if (!bag) return undefined
    const { lineId, kit, target } = bag
    return { method: 'PUT', path: `/batches/${id}/bags`, body: { lineId, kit, itemId: task.itemId, quantity: target } }
  }

  /** Asks until the outcome is known, as a page does: with the same key, of whichever server answers. */
  async function settle(person: Person, act: Act): Promise<void> {
    const key = randomUUID()
    outcome.asked++
    for (let tries = 0; ; tries++) {
      const hangsUp = Math.random() < 0.03
      try {
        const answer = await person.caller.ask(act.method, act.path, act.body, {
          key,
          ...(hangsUp ? { signal: AbortSignal.timeout(upTo(40)) } : {}),
        })
        answered()
        const { status, body } = answer
        if (status === 200 || status === 204) {
          outcome.done++
          acts.set(key, { act, done: true })
          return
        }
        if (status === 401 || (status === 403 && body?.code === 'stale-page')) {
          await signIn(person, servers)
          continue
        }
        if (status < 500 || body?.code?.startsWith('no-')) {
          outcome.refused++
          acts.set(key, { act, done: false })
          return
        }
        if (status === 500) trouble.push(`500: ${act.method} ${act.path} ${JSON.stringify(act.body).slice(0, 200)}`)
        if (status === 500 && tries > 3) return
      } catch {
        // The server died, or this browser has hung up: nobody knows what became of it.
      }
      outcome.askedAgain++
      await after(100 + 100 * Math.random())
      person.caller = moved(person.caller, any(servers).base)
      if (over() && tries > 300) {
        trouble.push(`never settled: ${act.method} ${act.path}`)
        return
      }
    }
  }

  async function works(person: Person): Promise<void> {
    while (!over()) {
      const act = await (Math.random() < 0.15 ? generatedAct(person.role) : meantAct(person).catch(() => undefined))
      if (act) await settle(person, act)
      else await after(20)
      await after(60 * Math.random())
    }
  }

  /** What goes wrong, one after the other. */
  async function goesWrong(): Promise<void> {
    const ways: Readonly<Record<string, () => Promise<void>>> = {
      'a server killed': async () => {
        const at = Math.floor(2 * Math.random())
        servers[at]?.kill()
        await after(800)
        servers[at] = await again(() => shop.beside())
      },
      'a connection to the database cut': async () => {
        await pool.query(
          `select pg_terminate_backend(pid) from (select pid from pg_stat_activity where datname = current_database() and usename = 'tessellum' order by random() limit 2) as cut`,
        )
      },
      'the database killed': async () => {
        await killDatabase()
        for (const [at, server] of servers.entries())
          if (!(await fetch(`${server.base}/api/health`).catch(() => undefined)))
            servers[at] = await again(() => shop.beside())
      },
      'a full disk': async () => {
        await pool.query(`create or replace function soak_full() returns trigger language plpgsql as $$
          begin raise exception 'could not extend file' using errcode = 'disk_full'; end $$`)
        await pool.query('create or replace trigger soak_full before insert on move execute function soak_full()')
        await after(1500)
        await again(() => pool.query('drop function if exists soak_full cascade'))
      },
      'a slow disk': async () => {
        await pool.query('alter system set commit_siblings = 0')
        await pool.query('alter system set commit_delay = 100000')
        await pool.query('select pg_reload_conf()')
        await after(4000)
        await again(() => pool.query('alter system reset all'))
        await again(() => pool.query('select pg_reload_conf()'))
      },
      'a stand-in lost': async () => {
        supplier.end()
        await after(3000)
        supplier = await standIn('supplier', { SUPPLIER_PORT: supplier.address.split(':')[1] ?? '0' })
      },
      'somebody disabled and let in again': async () => {
        const { id } = (await pool.query("select id from person where name like 'soak%' order by random() limit 1"))
          .rows[0]
        await pool.query('update person set disabled_at = now() where id = $1', [id])
        await after(300)
        await again(() => pool.query('update person set disabled_at = null where id = $1', [id]))
      },
    }
    while (!over()) {
      await after(2000 + 6000 * Math.random())
      const what = any(Object.keys(ways))
      faults[what] = (faults[what] ?? 0) + 1
      await (ways[what] as () => Promise<void>)().catch((error: Error) => say(`  ${what}: ${error.message}`))
    }
  }

  /** Until the last that was asked is settled: as long as anybody waits, somebody may be answered. */
  let settled = false
  async function looks(): Promise<void> {
    let told = performance.now()
    while (!settled) {
      for (const server of servers) {
        if (
          await fetch(`${server.base}/api/health`, { signal: AbortSignal.timeout(2000) }).then(
            ({ ok }) => ok,
            () => false,
          )
        )
          answered()
        const held = await Promise.race([server.held().catch(() => undefined), after(1000).then(() => undefined)])
        longest = Math.max(longest, held?.longest ?? 0)
        for (const { most, times } of held?.counts ?? []) holds.set(most, (holds.get(most) ?? 0) + times)
      }
      await after(250)
      if (performance.now() - told < 60_000) continue
      told = performance.now()
      say(
        `  ${JSON.stringify(outcome)}, held ${longest.toFixed(0)} ms at most, silent ${silentMs.toFixed(0)} ms at most`,
      )
      const wrong = await verified(pool).catch(() => [])
      for (const each of wrong) say(`  WRONG ${each}`)
    }
  }

  const wrong: string[] = []
  const looking = looks()
  await Promise.all([...people.map(works), goesWrong()])
  settled = true
  await looking
  await again(() => pool.query('select 1'))
  wrong.push(...(await verified(pool)))
  const { lost, doubled } = await accounted(pool, acts)
  await slowReads(people, servers, say)
  for (const server of servers) await server.end().catch(() => undefined)
  await shop.close()
  supplier.end()
  return {
    ...outcome,
    lost,
    doubled,
    wrong,
    trouble,
    holdMs: { longest, most: maxOf(holds, 0.999) },
    silentMs,
    faults,
  }
}

/** What one read after the other holds the loop for, in the shop as large as it has become. */
async function slowReads(
  people: readonly Person[],
  servers: readonly Beside[],
  say: (line: string) => void,
): Promise<void> {
  const [server] = servers
  const [owner] = people
  if (!server || !owner) return
  await signIn(owner, [server])
  for (const [key, { answer, params }] of Object.entries<Route>(api)) {
    if (!key.startsWith('GET') || params || key.includes(':') || typeof answer === 'string') continue
    const held: number[] = []
    for (let turn = 0; turn < 3; turn++) {
      await server.held()
      await owner.caller.ask('GET', key.replace('GET /api', ''))
      held.push((await server.held()).longest)
    }
    if (Math.max(...held) > 15) say(`  ${key} holds the loop for ${held.map((ms) => ms.toFixed(0)).join(', ')} ms`)
  }
}

/** The bound under which so large a share of them lies. */
function maxOf(holds: ReadonlyMap<number, number>, share: number): number {
  const bounds = [...holds.keys()].sort((a, b) => a - b)
  const all = [...holds.values()].reduce((sum, times) => sum + times, 0)
  let under = 0
  for (const bound of bounds) {
    under += holds.get(bound) ?? 0
    if (under >= share * all) return bound
  }
  return Number.POSITIVE_INFINITY
}

const verified = async (pool: Pool): Promise<string[]> => {
  const client = await pool.connect()
  try {
    return (await verify(client)).flatMap(({ name, wrong }) => wrong.map((each) => `${name}: ${each}`))
  } finally {
    client.release()
  }
}

/** What was told as done stands once, and what was refused does not stand at all. */
async function accounted(pool: Pool, acts: ReadonlyMap<string, { act: Act; done: boolean }>) {
  const lost: string[] = []
  const doubled: string[] = []
  const { rows } = await pool.query<{ key: string }>('select key from idempotent_request')
  const keys = new Set(rows.map(({ key }) => key))
  /** Routes that keep no key: they say the same however often. */
  const keyless = (method: string, path: string) =>
    /\/walk|\/draft/.test(path) ||
    (Object.keys(api) as RouteKey[]).some(
      (key) =>
        !isWrite(key) &&
        key.startsWith(method) &&
        new RegExp(`^${key.split(' ')[1]?.replace('/api', '').replace(/:\w+/g, '[^/?]+')}(\\?|$)`).test(path),
    )
  for (const [key, { act, done }] of acts) {
    const what = `${act.method} ${act.path} ${key}`
    if (done && !keyless(act.method, act.path) && !keys.has(key)) lost.push(what)
    if (!done && keys.has(key)) doubled.push(`refused, and done: ${what}`)
    if (!act.count) continue
    const found = Number((await pool.query(act.count[0], act.count[1])).rows[0].count)
    if (found > 1 || (!done && found > 0)) doubled.push(`${found} times: ${what}`)
  }
  return { lost, doubled }
}

async function again<T>(act: () => Promise<T>): Promise<T> {
  for (let tries = 0; ; tries++) {
    try {
      return await act()
    } catch (error) {
      if (tries > 100) throw error
      await after(300)
    }
  }
}

async function sixtyFour(pool: Pool, servers: readonly Beside[]): Promise<Person[]> {
  const people: Person[] = []
  for (let i = 0; i < 64; i++) {
    const role = roles[i % 4] as Role
    const name = `soak${i}`
    await pool.query(
      'insert into person (name, full_name, roles, password_hash) select $1, $2, array[$3], password_hash from person order by id limit 1',
      [name, `Person ${i}`, role],
    )
    const person = { role, name, caller: new Caller(any(servers).base) }
    await signIn(person, servers)
    people.push(person)
  }
  return people
}

async function signIn(person: Person, servers: readonly Beside[]): Promise<void> {
  person.caller = new Caller(any(servers).base)
  await again(async () => {
    const { status } = await person.caller.signIn(person.name, password)
    if (status !== 200) throw new Error(`${person.name} cannot sign in: ${status}`)
  })
}

/** The same browser, asking another server. */
function moved({ cookie, token }: Caller, base: string): Caller {
  const caller = new Caller(base)
  caller.cookie = cookie
  caller.token = token
  return caller
}
