import type { ClassAnswer } from '@tessellum/contract/classes'
import type { Customer, CustomerCard } from '@tessellum/contract/customers'
import type { Order } from '@tessellum/contract/orders'
import type { RecordFileOutcome } from '@tessellum/contract/record-file'
import { type Caller, openShop, type Shop } from './shop'

let shop: Shop
let isaura: Caller
let wren: Caller
beforeAll(async () => {
  shop = await openShop()
  isaura = await shop.as('isaura')
  wren = await shop.as('wren')
})
afterAll(() => shop.close())

const add = async (more: object) => (await isaura.ask<CustomerCard>('POST', '/customers', more)).body
const card = async (id: number) => (await isaura.ask<CustomerCard>('GET', `/customers/${id}`)).body
const dayFrom = (days: number) => new Date(Date.now() + days * 86_400_000).toISOString().slice(0, 10)

async function orderFor(customerId: number | null, more: object = {}) {
  const { body: colourways } = await isaura.ask('GET', '/patterns/1/colourways')
  const wanted = {
    customer: 'Sedge Wheatear',
    customerId,
    patternId: 1,
    version: 1,
    size: 'petite',
    colourwayId: colourways[0].id,
    wantedOn: dayFrom(30),
    price: 4000,
    paid: 1000,
    promised: 'for her birthday',
    ...more,
  }
  return isaura.ask<Order[]>('POST', '/orders', wanted)
}

test('a customer is found by any word, and the card tells what they ordered, bought, booked and owe', async () => {
  const { id } = await add({ name: 'Sedge Wheatear', contact: '0555 014 300', wristMm: 160, leftHanded: true })
  const found = async (find: string) =>
    (await isaura.ask<{ customers: Customer[] }>('GET', `/customers?find=${find}`)).body.customers.map(
      (each) => each.id,
    )
  expect([
    await found('sedge'),
    await found('014%20300'),
    await found('wheat%20sedge'),
    await found('sedge%20x'),
  ]).toEqual([[id], [id], [id], []])
  await orderFor(id)
  const { body: items } = await wren.ask('GET', '/items')
  const thread = items.find((item: { unit: string; onHand: number; reserved: number }) => item.unit === 'mm')
  const line = { what: 'item', itemId: thread.id, quantity: 1000, price: 250 }
  await wren.ask('POST', '/sales', { customer: 'Sedge Wheatear', customerId: id, lines: [line] })
  const { body: classes } = await isaura.ask('GET', '/classes')
  const open = classes.find(
    (each: { state: string; booked: number; seats: number }) => each.state === 'offered' && each.booked < each.seats,
  )
  const { body: offered } = await isaura.ask<ClassAnswer>('GET', `/classes/${open.id}`)
  const seat = offered.seats
  await isaura.ask('PUT', `/classes/${open.id}/seats/${seat}`, { name: 'Sedge Wheatear', customerId: id, offer: 0 })
  const { body: marked } = await isaura.ask<ClassAnswer>('PUT', `/classes/${open.id}/seats/${seat}/mark`, {
    paid: 1500,
    absent: false,
  })
  expect(marked.bookings.find((each) => each.seat === seat)).toMatchObject({
    paid: 1500,
    leftHanded: true,
    contact: '0555 014 300',
  })
  const known = await card(id)
  expect(known.orders).toMatchObject([
    { what: 'Windlass pendant, petite, in Lantern', state: 'taken', price: 4000, paid: 1000 },
  ])
  expect(known.sales).toMatchObject([{ total: 250 }])
  expect(known.classes).toMatchObject([{ id: open.id, paid: 1500, absent: false }])
  expect(known.owed).toBe(3000 + offered.price - 1500)
})

test('who is forgotten is nowhere any more; what was ordered and sold stays', async () => {
  const name = 'Sedge Wheatear'
  const [{ id } = { id: 0 }] = (await isaura.ask<{ customers: Customer[] }>('GET', '/customers?find=sedge')).body
    .customers
  const { body: orders } = await isaura.ask<Order[]>('GET', '/orders')
  const order = orders.find((each) => each.customerId === id) as Order
  await isaura.ask('POST', `/orders/${order.id}/kits`)
  const before = (await shop.pool.query('select count(*)::int as n from sale_line')).rows[0].n
  expect((await isaura.ask('POST', `/customers/${id}/forget`)).body).toEqual({ ok: true })
  expect((await isaura.ask('GET', `/customers/${id}`)).status).toBe(404)
  // Every text of every table.
  const { rows: columns } = await shop.pool.query(
    `select table_name as t, column_name as c from information_schema.columns
     where table_schema = 'public' and data_type in ('text', 'jsonb')`,
  )
  const left: string[] = []
  for (const { t, c } of columns) {
    const { rowCount } = await shop.pool.query(
      `select from "${t}" where "${c}"::text like '%${name}%' or "${c}"::text like '%014 300%'`,
    )
    if (rowCount) left.push(`${t}.${c}`)
  }
  expect(left).toEqual([])
  const { body: after } = await isaura.ask<Order[]>('GET', '/orders')
  expect(after.find((each) => each.id === order.id)).toMatchObject({
    customer: 'a customer',
    customerId: null,
    price: 4000,
    promised: '',
  })
  expect((await shop.pool.query('select count(*)::int as n from sale_line')).rows[0].n).toBe(before)
  const gone = await orderFor(id)
  expect([gone.status, gone.body]).toEqual([422, expect.objectContaining({ code: 'no-customer', path: 'customerId' })])
  await expect(shop.pool.query('update sale set at = now()')).rejects.toThrow()
  await expect(shop.pool.query('delete from sale')).rejects.toThrow()
})

test('what was done for somebody who is forgotten is not done again, and its answer is gone', async () => {
  const key = { key: 'a-key-of-somebody' }
  const named = { name: 'Öl "Jack" Heron' }
  const first = await isaura.ask('POST', '/customers', named, key)
  expect((await isaura.ask('POST', '/customers', named, key)).body.id).toBe(first.body.id)
  await isaura.ask('POST', `/customers/${first.body.id}/forget`)
  expect((await isaura.ask('POST', '/customers', named, key)).status).toBe(204)
  expect((await isaura.ask('GET', '/customers?find=heron')).body.customers).toEqual([])
})

test('an open order stands in the list however many are over', async () => {
  const open = async () =>
    (await isaura.ask<Order[]>('GET', '/orders')).body.filter(({ state }) => state === 'taken').map(({ id }) => id)
  const before = await open()
  expect(before.length).toBeGreaterThan(0)
  await shop.pool.query(
    `insert into customer_order (customer, pattern_version_id, size, colourway_version_id, wanted_on, state, over_at, made_by)
     select 'Somebody', pattern_version_id, size, colourway_version_id, '2031-01-01', 'done', now(), made_by
     from customer_order, generate_series(1, 250) where id = (select min(id) from customer_order)`,
  )
  expect(await open()).toEqual(before)
})

test('who keeps customers one by one may neither take all of them away nor forget one for good', async () => {
  const other = await shop.as('wren')
  const { id } = await add({ name: 'Knot Ruff' })
  expect((await other.ask('GET', `/customers/${id}`)).status).toBe(200)
  expect((await other.ask('GET', '/customers.csv')).status).toBe(403)
  expect((await other.ask('POST', `/customers/${id}/forget`)).status).toBe(403)
  expect((await other.send('/customers/file', 'name\nTwite\n')).status).toBe(403)
})

test('a customer that a file has twice is one customer, as the last row says', async () => {
  const file = 'name;contact;note\nSiskin Pine;y;first\nSiskin Pine;y;second\n'
  const { body } = await isaura.send<RecordFileOutcome>('/customers/file', file)
  expect(body).toMatchObject({ rows: 2, added: 1, changed: 0, same: 0, done: true })
  const { body: found } = await isaura.ask<{ customers: Customer[] }>('GET', '/customers?find=siskin')
  expect(found.customers).toMatchObject([{ note: 'second' }])
})

test('customers go out as CSV and come in again the same; a single fault keeps all of it out', async () => {
  await add({ name: 'Rail "Jack" Öl', contact: 'a, b', allergies: 'nickel', fingerMm: 54.5, note: 'two\nlines' })
  const csv = await (await fetch(`${shop.base}/api/customers.csv`, { headers: { cookie: isaura.cookie } })).text()
  const again = await isaura.send<RecordFileOutcome>('/customers/file', csv)
  expect(again.body).toMatchObject({ added: 0, changed: 0, faults: [], done: true })
  expect(again.body.same).toBe(again.body.rows)
  const file = 'Name;Contact;Wrist mm;Left-handed\nDipper Swift;x;162,5;yes\nRuff Knot;;150;no\n'
  const { body: looked } = await isaura.send<RecordFileOutcome>('/customers/file/preview', file)
  expect(looked).toMatchObject({ rows: 2, added: 2, done: false })
  const bad = `${file};;abc;\nTwite;;-3;\n`
  const { body: refused } = await isaura.send<RecordFileOutcome>('/customers/file', bad)
  expect(refused).toMatchObject({ done: false })
  expect(refused.faults.map(({ row, column }) => `${row} ${column}`)).toEqual(['4 name', '4 wrist mm', '5 wrist mm'])
  expect((await isaura.send<RecordFileOutcome>('/customers/file', 'a,b\n1,2\n')).body.faults[0]?.column).toBe('name')
  await isaura.send('/customers/file', file)
  const { body } = await isaura.ask<{ customers: Customer[] }>('GET', '/customers?find=dipper')
  expect(body.customers).toMatchObject([{ wristMm: 162.5, leftHanded: true }])
})

test('a class has further days, a waiting list whose first gets a seat, and tells no contacts to who may not know them', async () => {
  const { body: first } = await isaura.ask<ClassAnswer>('GET', '/classes/6')
  const { title, heldOn, beginsAt, minutes, place, teacherId, patternId, version, spareKits, price, note } = first
  const offers = first.offers.map(({ size, colourwayId }) => ({ size, colourwayId }))
  const wanted = {
    title,
    heldOn,
    beginsAt,
    minutes,
    place,
    teacherId,
    patternId,
    version,
    spareKits,
    price,
    note,
    offers,
  }
  const next = dayFrom(60)
  const { body: longer } = await isaura.ask<ClassAnswer>('PUT', '/classes/6', {
    ...wanted,
    seats: 1,
    moreDays: [{ heldOn: next, beginsAt: '18:00' }],
  })
  expect(longer.moreDays).toEqual([{ heldOn: next, beginsAt: '18:00' }])
  const before = { ...wanted, seats: 1, moreDays: [{ heldOn: dayFrom(-1), beginsAt: '18:00' }] }
  expect((await isaura.ask('PUT', '/classes/6', before)).body).toMatchObject({ path: 'moreDays' })
  expect(longer.cost.seat).toBeGreaterThan(first.cost.seat)
  const { body: diary } = await isaura.ask('GET', `/diary?from=${next}&to=${next}`)
  // Its kits are as far as they are, though its first day lies before these.
  const { readiness } = longer
  expect(readiness).not.toBe('ready')
  expect(diary).toContainEqual(
    expect.objectContaining({ kind: 'class', id: 6, on: next, beginsAt: '18:00', readiness }),
  )
  // In a calendar that begins after the first day, too, a further day is as long as the class.
  const calendar = await fetch(`${shop.base}/api/diary.ics?from=${next}&to=${next}`, {
    headers: { cookie: isaura.cookie },
  })
  const ends = new Date(Date.parse(`${next}T18:00:00Z`) + minutes * 60_000)
    .toISOString()
    .slice(0, 19)
    .replace(/[-:]/g, '')
  expect(await calendar.text()).toContain(`DTEND:${ends}`)
  const { id: customerId } = await add({ name: 'Wigeon Marsh', contact: '0555 014 301' })
  const wait = { name: 'Wigeon Marsh', contact: '0555 014 301', customerId }
  const { body: listed } = await isaura.ask<ClassAnswer>('POST', '/classes/6/waiting', wait)
  await isaura.ask('POST', '/classes/6/waiting', { name: 'Plover Ness' })
  const waitingId = listed.waiting[0]?.id
  const seat = { ...wait, waitingId, offer: 0 }
  expect((await isaura.ask('PUT', '/classes/6/seats/1', seat)).body.code).toBe('seat-taken')
  await isaura.ask('POST', '/classes/6/seats/1/free')
  const { body: seated } = await isaura.ask<ClassAnswer>('PUT', '/classes/6/seats/1', seat)
  expect([seated.bookings.map((each) => each.name), seated.waiting.map((each) => each.name)]).toEqual([
    ['Wigeon Marsh'],
    ['Plover Ness'],
  ])
  const odile = await shop.as('odile')
  const { body: packing } = await odile.ask<ClassAnswer>('GET', '/classes/6')
  expect(packing.bookings[0]).toMatchObject({ name: 'Wigeon Marsh', contact: '' })
  expect((await odile.ask('GET', '/customers')).status).toBe(403)
  expect((await wren.ask('POST', '/classes/6/waiting', wait)).status).toBe(403)
})
