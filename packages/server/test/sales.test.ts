/** Over the counter: sold, taken back, told to who keeps the books; the shelf and the money agree at every step. */
import type { Sale, SalesOfDays } from '@tessellum/contract/sales'
import { ledgerOf } from './ledger'
import { type Caller, openShop, type Shop } from './shop'

let shop: Shop
let isaura: Caller
beforeAll(async () => {
  shop = await openShop()
  isaura = await shop.as('isaura')
})
afterAll(() => shop.close())

const today = new Date().toISOString().slice(0, 10)
const ofToday = async () => (await isaura.ask<SalesOfDays>('GET', `/sales?from=${today}&to=${today}`)).body
const sell = (lines: object[], customer = '') => isaura.ask<Sale>('POST', '/sales', { customer, lines })
const free = async (itemId: number) => {
  await ledgerOf(shop.pool)
  const { rows } = await shop.pool.query(
    'select on_hand::int - reserved::int as free from item_total where item_id = $1',
    [itemId],
  )
  return rows[0].free as number
}
/** An item with beads in more than one lot. */
const inLots = async () => {
  const { rows } = await shop.pool.query(
    `select item_id as id from lot join balance on lot_id = lot.id join item on item.id = item_id
     where on_hand > reserved and category = 'bead' group by item_id having count(*) > 1 order by item_id limit 1`,
  )
  return rows[0].id as number
}

test('several things at once: from the oldest lot on, and back into the lots they came from', async () => {
  const itemId = await inLots()
  const { rows: lots } = await shop.pool.query(
    'select lot_id, (on_hand - reserved)::int as free from balance join lot on lot.id = lot_id where item_id = $1 order by received_on, lot_id',
    [itemId],
  )
  const before = await free(itemId)
  const quantity = lots[0].free + 3
  const { body: sale } = await sell(
    [
      { what: 'item', itemId, quantity, price: 640 },
      { what: 'pattern', patternId: 1, version: 1, quantity: 1, price: 650 },
    ],
    'Pochard',
  )
  expect(await free(itemId)).toBe(before - quantity)
  const left = await shop.pool.query('select (on_hand - reserved)::int as free from balance where lot_id = $1', [
    lots[0].lot_id,
  ])
  expect(left.rows[0].free).toBe(0)
  const [line, pattern] = sale.lines
  expect(pattern).toMatchObject({ patternId: 1, version: 1, price: 650 })
  const back = (body: object) => isaura.ask<Sale>('POST', `/sales/${sale.id}/returns`, body)
  const some = { lineId: line?.id, quantity: 5, refund: 100 }
  expect((await back({ lines: [{ ...some, quantity: quantity + 1 }] })).body).toMatchObject({
    code: 'more-than-sold',
    path: 'lines.0.quantity',
  })
  expect((await back({ lines: [{ ...some, refund: 641 }] })).body).toMatchObject({ code: 'more-than-paid' })
  expect((await back({ lines: [some] })).body.lines[0]).toMatchObject({ returned: 5, refunded: 100 })
  expect(await free(itemId)).toBe(before - quantity + 5)
  const rest = { lineId: line?.id, quantity: quantity - 5, refund: 540 }
  const gone = { lineId: pattern?.id, quantity: 1, refund: 0 }
  expect((await back({ lines: [rest, gone] })).status).toBe(200)
  const { rows: after } = await shop.pool.query(
    'select lot_id, (on_hand - reserved)::int as free from balance join lot on lot.id = lot_id where item_id = $1 order by received_on, lot_id',
    [itemId],
  )
  expect(after).toEqual(lots)
  expect(await ofToday()).toMatchObject({ taken: 1290, refunded: 640 })
})

test('what is promised is not sold, and then nothing is', async () => {
  const itemId = await inLots()
  const before = await free(itemId)
  const { status, body } = await isaura.ask('POST', '/sales', {
    lines: [
      { what: 'pattern', patternId: 1, version: 1, quantity: 1, price: 650 },
      { what: 'item', itemId, quantity: before + 1, price: 100 },
    ],
  })
  expect([status, body.code, body.path]).toEqual([409, 'short-of-stock', 'lines.1.quantity'])
  expect(await free(itemId)).toBe(before)
  const known = (await ofToday()).sales.length
  // Two ask for the last of it at once: one gets it.
  const all = { what: 'item', itemId, quantity: before, price: 100 }
  const both = await Promise.all([sell([all]), sell([all])])
  expect(both.map((each) => each.status).sort()).toEqual([200, 409])
  expect(await free(itemId)).toBe(0)
  expect((await ofToday()).sales).toHaveLength(known + 1)
})

test('what was sold here is taken back here, and not by hand', async () => {
  const { rows } = await shop.pool.query('select id from move where sale_line_id is not null order by id desc limit 1')
  const { body } = await isaura.ask('POST', `/moves/${rows[0].id}/reverse`, { reason: 'by mistake' })
  expect(body.code).toBe('sold-at-the-counter')
})

test('what to ask: as it was sold last, or by its cost and the margin', async () => {
  const itemId = await inLots()
  const { rows } = await shop.pool.query('select min(price::float8 / amount) as each from pack where item_id = $1', [
    itemId,
  ])
  const asked = (await isaura.ask('GET', `/items/${itemId}/selling-price`)).body
  expect(asked.from).toBe('cost and margin')
  expect(asked.perUnit).toBeGreaterThan(rows[0].each)
  await sell([{ what: 'item', itemId, quantity: 2000, price: 700 }])
  expect((await isaura.ask('GET', `/items/${itemId}/selling-price`)).body).toEqual({ perUnit: 0.35, from: 'last sale' })
})

test('the books: a row for each line that was sold and each that came back, adding up to what was taken', async () => {
  const response = await fetch(`${shop.base}/api/sales.csv?from=${today}&to=${today}`, {
    headers: { cookie: isaura.cookie },
  })
  const rows = (await response.text()).trim().split('\n').slice(1)
  const sum = rows.reduce((all, row) => all + Math.round(Number(/,(-?[\d.]+),-?[\d.]+,GBP/.exec(row)?.[1]) * 100), 0)
  const { taken, refunded } = await ofToday()
  expect(sum).toBe(taken - refunded)
})

test('the counter sells and takes back, and does nothing else', async () => {
  const wren = await shop.as('wren')
  const line = { what: 'pattern', patternId: 1, version: 1, quantity: 1, price: 650 }
  expect((await wren.ask('POST', '/sales', { lines: [line] })).status).toBe(200)
  expect((await wren.ask('GET', '/shelf')).status).toBe(200)
  expect((await wren.ask('POST', '/batches', {})).status).toBe(403)
  expect((await (await shop.as('bram')).ask('POST', '/sales', { lines: [line] })).status).toBe(403)
})
