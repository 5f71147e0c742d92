/** Each check finds what it is there to find: the shop is right, and is spoilt in one way after the other. */
import { checks } from '../src/verify/checks'
import { verify } from '../src/verify/verify'
import { openShop, type Shop } from './shop'

let shop: Shop
beforeAll(async () => {
  shop = await openShop()
})
afterAll(() => shop.close())

const wrongNames = async () => {
  const client = await shop.pool.connect()
  const found = await verify(client)
  client.release()
  return found.filter(({ wrong }) => wrong.length > 0).map(({ name }) => name)
}

test('the demo shop is right, and there is something to look at in most of it', async () => {
  expect(await wrongNames()).toEqual([])
  const client = await shop.pool.connect()
  expect((await verify(client)).filter(({ looked }) => looked > 0).length).toBeGreaterThan(8)
  client.release()
})

/** By the check that must find it; what the database itself refuses is done behind its back. */
const spoilt: Readonly<Record<string, string>> = {
  'each lot has on hand and reserved what its moves add up to':
    'update balance set on_hand = on_hand + 1 where lot_id = 3',
  'each lot has a balance': 'delete from balance where lot_id = 3',
  'nothing is below 0, and nothing is promised that is not there':
    'update balance set on_hand = reserved - 1 where lot_id = 3',
  'of each lot is reserved what batches hold in bags and packed kits':
    "update bag set target = target + 1, most = most + 1 where ctid = (select bag.ctid from bag join batch on batch.id = bag.batch_id where state = 'reserved' limit 1)",
  'each item has the total of its lots': 'update item_total set reserved = reserved + 1 where item_id = 3',
  'each line of a batch that holds anything has its kits, in bags or packed':
    "update batch_line set kits = kits + 1 where id = (select line_id from bag join batch on batch.id = bag.batch_id where state = 'reserved' limit 1)",
  'no bag is of a batch that holds nothing, or of a line that is another batch’s':
    "update batch set state = 'draft' where id = (select batch_id from bag join batch on batch.id = bag.batch_id where state = 'reserved' limit 1)",
  'a packed batch has every bag filled':
    "update batch set state = 'packed' where id = (select batch_id from bag where filled is null limit 1)",
  'no request has acted twice':
    "insert into move (lot_id, kind, on_hand, reserved, person_id, idempotency_key, reason) select 3, 'sale', -1, 0, 1, 'twice-done', 'x' from generate_series(1, 2)",
  'each request that was carried out has its result':
    "insert into idempotent_request (key, kind, person_id) values ('half-done', 'x', 1)",
  'a move is reversed once, and whole':
    "insert into move (lot_id, kind, on_hand, reserved, person_id, idempotency_key, reason, reverses) select lot_id, 'correction', 1 - on_hand, 0, 1, 'half-back', 'x', id from move where kind = 'receive' limit 1",
}

test.each(checks.map(({ name }) => name))('found: %s', async (name) => {
  const client = await shop.pool.connect()
  try {
    await client.query('begin')
    await client.query('set local session_replication_role = replica')
    for (const { conname, table } of (
      await client.query(
        "select conname, conrelid::regclass::text as table from pg_constraint where contype = 'c' and conrelid in ('balance'::regclass, 'bag'::regclass)",
      )
    ).rows)
      await client.query(`alter table ${table} drop constraint ${conname}`)
    const { rowCount } = await client.query(spoilt[name] ?? '')
    expect(rowCount).toBeGreaterThan(0)
    const check = checks.find((each) => each.name === name)
    expect((await client.query(check?.wrong ?? '')).rows.length).toBeGreaterThan(0)
  } finally {
    await client.query('rollback')
    client.release()
  }
})
