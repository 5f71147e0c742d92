/** A write answers for itself: what stands in the records is told as done, whatever comes after, and a key goes with its body. */
import { randomUUID } from 'node:crypto'
import { sql } from 'drizzle-orm'
import { drizzle } from 'drizzle-orm/node-postgres'
import { describeError } from '../src/http/describe'
import { type Caller, openShop, type Shop } from './shop'

let shop: Shop
let bram: Caller
let odile: Caller
beforeAll(async () => {
  shop = await openShop()
  bram = await shop.as('bram')
  odile = await shop.as('odile')
})
afterAll(() => shop.close())

const one = async <Row>(text: string, values: unknown[] = []): Promise<Row> =>
  (await shop.pool.query(text, values)).rows[0]

const lot = () =>
  one<{ id: number; onHand: number }>(
    `select lot.id, on_hand::float as "onHand" from lot join balance on balance.lot_id = lot.id where code = 'BC101/1'`,
  )

/** From here on no bill can be worked out: whatever plans ahead fails. */
async function spoilBills(): Promise<() => Promise<unknown>> {
  await shop.pool.query('delete from cached_bill')
  await shop.pool.query(`create function spoilt() returns trigger language plpgsql as $$
    begin raise exception 'spoilt for the test'; end $$`)
  await shop.pool.query('create trigger spoilt before insert on cached_bill execute function spoilt()')
  return () => shop.pool.query('drop function spoilt cascade')
}

test('the same key with another body is refused, and does nothing; another address is another request too', async () => {
  const { id, onHand } = await lot()
  const key = randomUUID()
  const sell = (quantity: number) =>
    odile.ask('POST', `/lots/${id}/moves`, { kind: 'sale', quantity, reason: 'counter' }, { key })
  expect((await sell(100)).status).toBe(200)
  expect((await sell(100)).status).toBe(200)
  const other = await sell(200)
  expect([other.status, other.body.code]).toEqual([409, 'key-used'])
  const elsewhere = await odile.ask(
    'POST',
    `/lots/${id + 1}/moves`,
    { kind: 'sale', quantity: 100, reason: 'counter' },
    { key },
  )
  expect([elsewhere.status, elsewhere.body.code]).toEqual([409, 'key-used'])
  expect((await lot()).onHand).toBe(onHand - 100)
})

test('a batch that is planned is told as planned, though nothing can be worked out for it; asked again, it is still one', async () => {
  const [{ id: patternId }] = (await bram.ask('GET', '/patterns')).body
  const { body: edition } = await bram.ask('GET', `/patterns/${patternId}/colourways`)
  const body = {
    name: 'Planned in trouble',
    dueOn: '2030-05-01',
    lines: [{ patternId, version: 1, size: '', colourwayId: edition[0].id, kits: 2 }],
  }
  const key = randomUUID()
  const plan = () => bram.ask('POST', '/batches', body, { key })
  const mend = await spoilBills()
  expect((await plan()).status).toBe(204)
  expect((await plan()).status).toBe(204)
  await mend()
  const { status, body: planned } = await plan()
  expect([status, planned.name]).toEqual([200, 'Planned in trouble'])
  const { count } = await one<{ count: number }>(`select count(*)::int from batch where name = 'Planned in trouble'`)
  expect(count).toBe(1)
})

test('what is refused before anything is written is still refused', async () => {
  const { id } = await lot()
  const answer = await odile.ask('POST', `/lots/${id}/moves`, { kind: 'sale', quantity: 1e9, reason: 'counter' })
  expect([answer.status, answer.body.code]).toEqual([409, 'short-of-stock'])
})

test('beads lost while packing are told as lost, though the rest cannot be laid out again', async () => {
  const { body: batches } = await odile.ask('GET', '/batches')
  const reserved = batches.find(({ state }: { state: string }) => state === 'reserved')
  const { body: packing } = await odile.ask('GET', `/batches/${reserved.id}/packing`)
  const task = packing.tasks.find(({ lotId }: { lotId: number | null }) => lotId !== null)
  const { count: before } = await one<{ count: number }>(`select count(*)::int from move where kind = 'scrap'`)
  const key = randomUUID()
  const spill = () =>
    odile.ask(
      'POST',
      `/batches/${reserved.id}/losses`,
      { itemId: task.itemId, lotId: task.lotId, how: 'spilt', quantity: 1 },
      { key },
    )
  const mend = await spoilBills()
  expect((await spill()).status).toBe(204)
  await mend()
  expect((await spill()).status).toBe(200)
  const { count } = await one<{ count: number }>(`select count(*)::int from move where kind = 'scrap'`)
  expect(count).toBe(before + 1)
})

test('what was done is told as done when it is sent again, though by now it would be refused; new, it is refused', async () => {
  const { body: batches } = await odile.ask('GET', '/batches')
  const { id } = batches.find(({ state }: { state: string }) => state === 'reserved')
  const { body: before } = await odile.ask('GET', `/batches/${id}`)
  const [{ patternId, version, size, colourwayId }] = before.lines
  const [layOut, swap] = [randomUUID(), randomUUID()]
  const layOutWith = (key: string) => odile.ask('POST', `/batches/${id}/lay-out`, {}, { key })
  const { role, itemId } = { role: 'A', itemId: before.outlook.lines[0].bill[0].itemId }
  const last = before.lines.length
  const swapWith = (key: string) =>
    odile.ask('POST', `/batches/${id}/lines/${last}/substitute`, { role, itemId, kits: 1 }, { key })
  expect((await layOutWith(layOut)).status).toBe(200)
  expect((await swapWith(swap)).status).toBe(200)
  const one = { patternId, version, size, colourwayId, kits: 1 }
  expect((await odile.ask('PUT', `/batches/${id}/lines`, { lines: [one] })).status).toBe(200)
  expect((await odile.ask('POST', `/batches/${id}/cancel`, {})).status).toBe(200)
  expect([(await layOutWith(layOut)).status, (await swapWith(swap)).status]).toEqual([204, 204])
  expect([(await layOutWith(randomUUID())).status, (await swapWith(randomUUID())).status]).toEqual([409, 404])
  // Somebody else's key is nobody's excuse.
  const other = await bram.ask('POST', `/batches/${id}/plan-again`, {}, { key: layOut })
  expect([other.status, other.body.code]).toEqual([409, 'key-used'])
})

test('a change of lines, name and day is one: refused for its lines, it leaves the name as it was', async () => {
  const { body: batches } = await bram.ask('GET', '/batches')
  const reserved = batches.find(({ state }: { state: string }) => state === 'reserved')
  const { body: before } = await bram.ask('GET', `/batches/${reserved.id}`)
  const lines = before.lines.map(({ id, patternId, version, size, colourwayId, kits }: Record<string, unknown>) => ({
    id,
    patternId,
    version,
    size,
    colourwayId,
    kits,
  }))
  const put = (kits: number, name: string) =>
    bram.ask('PUT', `/batches/${reserved.id}/lines`, {
      lines: [{ ...lines[0], kits }, ...lines.slice(1)],
      name,
      dueOn: '2031-01-01',
    })
  expect((await put(9000, 'Never')).body.code).toBe('short-of-stock')
  expect((await bram.ask('GET', `/batches/${reserved.id}`)).body).toMatchObject({
    name: before.name,
    dueOn: before.dueOn,
  })
  expect((await put(lines[0].kits, 'Renamed')).body).toMatchObject({ name: 'Renamed', dueOn: '2031-01-01' })
})

test('a full disk is told as one, with what to do', async () => {
  await shop.pool.query(`create function full_disk() returns trigger language plpgsql as $$
    begin raise exception 'could not extend file' using errcode = 'disk_full'; end $$`)
  await shop.pool.query('create trigger full_disk before insert on move execute function full_disk()')
  const { id, onHand } = await lot()
  const { status, body } = await odile.ask('POST', `/lots/${id}/moves`, {
    kind: 'sale',
    quantity: 1,
    reason: 'counter',
  })
  await shop.pool.query('drop function full_disk cascade')
  expect([status, body.code]).toEqual([507, 'disk-full'])
  expect((await lot()).onHand).toBe(onHand)
})

test('of a statement that failed the log says what the database said, and nothing of what was sent', async () => {
  const db = drizzle({ client: shop.pool })
  const failed = await db.execute(sql`select ${'a secret text'}::int`).catch((error: unknown) => error)
  const said = describeError(failed)
  expect(said).toMatchObject({ code: '22P02' })
  expect(String((failed as Error).message)).toContain('a secret text')
  expect(JSON.stringify({ ...said, message: '' })).not.toContain('a secret')
})
