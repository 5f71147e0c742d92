import { randomUUID } from 'node:crypto'
import { balance } from './balancer'
import { isOut } from './sessions'
import { Caller, openShop, type Shop } from './shop'

let shop: Shop
let other: Awaited<ReturnType<Shop['beside']>>
beforeAll(async () => {
  shop = await openShop()
  other = await shop.beside()
})
afterAll(async () => {
  await other.end()
  await shop.close()
})

/** Reads server-sent events until one fits. */
async function hears(caller: Caller, wanted: string, then: () => Promise<unknown>): Promise<void> {
  const stop = new AbortController()
  const response = await fetch(`${caller.base}/api/changes`, {
    headers: { cookie: caller.cookie },
    signal: stop.signal,
  })
  const reader = response.body?.getReader()
  let heard = ''
  let done = false
  while (reader && !heard.includes(`data: ${wanted}`)) {
    if (!done && heard.includes(': open')) {
      done = true
      await then()
    }
    const { value, done: over } = await reader.read()
    if (over) break
    heard += Buffer.from(value).toString()
  }
  stop.abort()
  expect(heard).toContain(`data: ${wanted}`)
}

describe('two servers on one database behave as one', () => {
  test('what is planned at one is short on the pages of the other at once', async () => {
    const [here, there] = [await shop.as('odile'), new Caller(other.base)]
    await there.signIn('odile')
    const short = async () => {
      const { body } = await there.ask('GET', '/buy-list')
      return body.flatMap(({ batches }: { batches: { name: string }[] }) => batches.map(({ name }) => name))
    }
    await short()
    const lines = [{ patternId: 1, version: 1, size: 'petite', colourwayId: 1, kits: 4000 }]
    await hears(there, 'batches', () =>
      here.ask('POST', '/batches', { name: 'Far too many', dueOn: '2027-06-01', lines }),
    )
    expect(await short()).toContain('Far too many')
  })

  test('who comes to listen is told what changed while their page was still being read', async () => {
    const [here, there] = [await shop.as('odile'), new Caller(other.base)]
    await there.signIn('odile')
    const lines = [{ patternId: 1, version: 1, size: 'petite', colourwayId: 1, kits: 1 }]
    await here.ask('POST', '/batches', { name: 'Unheard', dueOn: '2027-06-01', lines })
    await hears(there, 'batches', async () => {})
  })

  test('a session of one is a session of the other, and ends on both', async () => {
    const here = await shop.as('odile')
    const there = new Caller(other.base)
    there.cookie = here.cookie
    expect((await there.ask('GET', '/me')).body.name).toBe('odile')
    await here.ask('POST', '/sign-out', {})
    await isOut(there)
  })

  test('wrong passwords count together', async () => {
    for (let i = 0; i < 10; i++) await new Caller(i % 2 ? shop.base : other.base).signIn('corin', 'no')
    expect((await new Caller(other.base).signIn('corin')).status).toBe(429)
  })

  test('a request repeated at the other acts once', async () => {
    const here = await shop.as('odile')
    const there = new Caller(other.base)
    await there.signIn('odile')
    const key = randomUUID()
    const { rows } = await shop.pool.query(`select id from lot where code = 'BC122/1'`)
    const sale = { kind: 'sale', quantity: 70, reason: 'counter' }
    const answers = await Promise.all(
      [here, there].map((caller) => caller.ask('POST', `/lots/${rows[0].id}/moves`, sale, { key })),
    )
    expect(new Set(answers.map(({ body }) => body.moveId)).size).toBe(1)
  })

  test('what is done at one is told to the pages of the other', async () => {
    const here = await shop.as('odile')
    const there = new Caller(other.base)
    await there.signIn('odile')
    const { rows } = await shop.pool.query(`select id from lot where code = 'BC129/1'`)
    await hears(there, 'stock', () =>
      here.ask('POST', `/lots/${rows[0].id}/moves`, { kind: 'sale', quantity: 10, reason: 'counter' }),
    )
  })
})

test('behind a balancer, under load, a server that dies loses nothing and stops nobody', async () => {
  const [second, doomed] = [await shop.beside(), await shop.beside()]
  const balancer = await balance([shop.base, second.base, doomed.base])
  const callers = await Promise.all(
    ['isaura', 'odile', 'isaura', 'odile', 'isaura', 'odile'].map(async (name) => {
      const caller = new Caller(balancer.base)
      await caller.signIn(name)
      return caller
    }),
  )
  const { rows: lots } = await shop.pool.query(`select id from lot where item_id <= 12 order by id`)
  const reason = 'behind a balancer'
  const answered = new Set<number>()
  let rounds = 0
  await Promise.all(
    callers.map(async (caller, c) => {
      for (let n = 0; n < 20; n++) {
        const lotId = lots[(7 * c + n) % lots.length].id
        const { status, body } = await caller.ask('POST', `/lots/${lotId}/moves`, {
          kind: 'receive',
          quantity: 5,
          reason,
        })
        expect(status).toBe(200)
        answered.add(body.moveId)
        if (n % 10 === 5) {
          const written = await caller.ask('GET', `/patterns/${1 + c}/document.pdf`)
          expect([written.status, written.headers.get('content-type')]).toEqual([200, 'application/pdf'])
        }
        if (++rounds === 40) doomed.kill()
      }
    }),
  )
  balancer.close()
  await second.end()
  expect(answered.size).toBe(120)
  const { rows } = await shop.pool.query('select count(*)::int as moves from move where reason = $1', [reason])
  expect(rows[0].moves).toBe(120)
})

test('a server killed hard while it reserves leaves the batch reserved whole or not at all', async () => {
  const odile = await shop.as('odile')
  const lines = [{ patternId: 1, version: 1, size: 'petite', colourwayId: 1, kits: 1 }]
  for (let i = 0; i < 6; i++) {
    const { body } = await odile.ask('POST', '/batches', { name: `Cut short ${i}`, dueOn: '2027-03-01', lines })
    const doomed = await shop.beside()
    const caller = new Caller(doomed.base)
    await caller.signIn('odile')
    const asked = caller.ask('POST', `/batches/${body.id}/reserve`, {}).catch(() => undefined)
    await new Promise((done) => setTimeout(done, i * 12))
    doomed.kill()
    await asked
    // The database ends what the dead server had begun; the lock on the batch tells when.
    const { rows } = await shop.pool.query(
      `select state, (select count(distinct lot_id)::int from move where batch_id = batch.id) as held from batch where id = $1 for update`,
      [body.id],
    )
    expect([
      { state: 'draft', held: 0 },
      { state: 'reserved', held: 5 },
    ]).toContainEqual(rows[0])
  }
})
