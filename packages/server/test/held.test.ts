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

const sell = () => odile.ask('POST', `/lots/${lotId}/moves`, { kind: 'sale', quantity: 100, reason: 'counter' })
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
  const twenty = Array.from({ length: 20 }, sell)
  await until(async () => (await waiting()).length > 0)
  for (const path of ['/health', '/items', '/batches', '/buy-list', `/items/1`, '/me'])
    expect([path, (await odile.ask('GET', path)).status]).toEqual([path, 200])
  const answers = await Promise.all(twenty)
  expect([...new Set(answers.map(({ status, body }) => `${status} ${body.code}`))]).toEqual(['503 busy'])
  await letGo()
  expect((await sell()).status).toBe(200)
  await ledgerOf(shop.pool)
})
