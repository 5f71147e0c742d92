/** Connections that are lost in the middle of something, and lots that somebody holds: the shop goes on. */
import type { PoolClient } from 'pg'
import { ledgerOf } from './ledger'
import { type Caller, openShop, type Shop } from './shop'

let shop: Shop
let odile: Caller
let holder: PoolClient
let lotId: number
beforeAll(async () => {
  shop = await openShop(undefined, { LOCK_SECONDS: '2' })
  odile = await shop.as('odile')
  holder = await shop.pool.connect()
  lotId = (await shop.pool.query(`select id from lot where code = 'BC101/1'`)).rows[0].id
})
afterAll(async () => {
  holder.release()
  await shop.close()
})

const sell = (lot = lotId, reason = 'counter') =>
  odile.ask('POST', `/lots/${lot}/moves`, { kind: 'sale', quantity: 100, reason })
const hold = async () => {
  await holder.query('begin')
  await holder.query('select * from balance where lot_id = $1 for update', [lotId])
}
const letGo = () => holder.query('rollback')
const waiting = async () => {
  const { rows } = await shop.pool.query(
    `select pid from pg_stat_activity where datname = current_database() and wait_event_type = 'Lock'`,
  )
  return rows.map(({ pid }: { pid: number }) => pid)
}
async function until(done: () => Promise<boolean>): Promise<void> {
  while (!(await done())) await new Promise((again) => setTimeout(again, 30))
}

test('a connection that is lost in the middle of a change is told plainly, and the server goes on', async () => {
  const before = await ledgerOf(shop.pool)
  await hold()
  const lost = sell()
  await until(async () => (await waiting()).length === 1)
  for (const pid of await waiting()) await shop.pool.query('select pg_terminate_backend($1)', [pid])
  const { status, body } = await lost
  expect([status, body.code]).toEqual([503, 'records-unreachable'])
  await letGo()
  expect(await ledgerOf(shop.pool)).toEqual(before)
  expect((await sell()).status).toBe(200)
})

test('while one holds a lot and twenty wait for it, everybody reads on; those who wait are told to try again', async () => {
  await hold()
  const twenty = Array.from({ length: 20 }, () => sell())
  await until(async () => (await waiting()).length > 0)
  for (const path of ['/health', '/items', '/batches', '/buy-list', `/items/1`, '/me'])
    expect([path, (await odile.ask('GET', path)).status]).toEqual([path, 200])
  const answers = await Promise.all(twenty)
  expect([...new Set(answers.map(({ status, body }) => `${status} ${body.code}`))]).toEqual(['503 busy'])
  await letGo()
  expect((await sell()).status).toBe(200)
  await ledgerOf(shop.pool)
})

describe('moves that come together', () => {
  let others: number[]
  beforeAll(async () => {
    const { rows } = await shop.pool.query(
      `select min(lot_id) as id from balance join lot on lot.id = lot_id
      where on_hand - reserved > 10000 and item_id <> (select item_id from lot where id = $1) group by item_id limit 20`,
      [lotId],
    )
    others = rows.map(({ id }) => id)
    expect(others.length).toBe(20)
  })

  test('wait for the lot of none but their own', async () => {
    await hold()
    const held = sell()
    const answers = await Promise.all(others.map((id) => sell(id)))
    expect(answers.map(({ status }) => status)).toEqual(others.map(() => 200))
    await letGo()
    expect((await held).status).toBe(200)
    await ledgerOf(shop.pool)
  })

  test('are posted by few statements, and each is answered by itself', async () => {
    // The first is held up in its statement, until all the others have come.
    await holder.query('begin')
    const total = 'select * from item_total where item_id = (select item_id from lot where id = $1) for update'
    await holder.query(total, [lotId])
    const reason = 'all at once'
    const first = sell(lotId, reason)
    await until(async () => (await waiting()).length > 0)
    const sale = { kind: 'sale', quantity: 100, reason: 'sent again' }
    const asked = [
      ...others.map((id) => sell(id, reason)),
      ...[1, 2].map(() => odile.ask('POST', `/lots/${others[0]}/moves`, sale, { key: 'one-key-for-both' })),
      sell(99_999_999),
    ]
    for (let i = 0; i < 3; i++) await odile.ask('GET', '/items')
    await letGo()
    const answers = await Promise.all(asked)
    expect((await first).status).toBe(200)
    const said = answers.map(({ status, body }) => body.code ?? status)
    expect(said).toEqual([...others.map(() => 200), 200, 200, 'not-found'])
    expect(answers[20]?.body).toEqual(answers[21]?.body)
    const { rows } = await shop.pool.query(
      'select count(*)::int as moves, count(distinct xmin::text)::int as statements from move where reason = $1',
      [reason],
    )
    expect(rows[0].moves).toBe(21)
    expect(rows[0].statements).toBeLessThan(8)
    await ledgerOf(shop.pool)
  })

  test('are posted without the one that asks for too much', async () => {
    const reason = 'beside too much'
    const asked = others.map((id, n) =>
      odile.ask('POST', `/lots/${id}/moves`, { kind: 'sale', quantity: n === 7 ? 1e9 : 100, reason }),
    )
    const answers = await Promise.all(asked)
    expect(answers.map(({ body }) => body.code)).toEqual(others.map((_, n) => (n === 7 ? 'short-of-stock' : undefined)))
    const { rows } = await shop.pool.query(
      `select (select count(*)::int from move where reason = $1) as moves, (select count(*)::int from audit_entry where what like '%' || $1) as entries`,
      [reason],
    )
    expect(rows[0]).toEqual({ moves: 19, entries: 19 })
    await ledgerOf(shop.pool)
  })
})
