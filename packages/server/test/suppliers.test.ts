import type { RecordFileOutcome } from '@tessellum/contract/record-file'
import { type Item, type ItemStory, saveItem } from '@tessellum/contract/stock'
import type { Stocktake } from '@tessellum/contract/stocktake'
import type { Supplier, SupplierCard } from '@tessellum/contract/suppliers'
import { type Caller, openShop, type Shop } from './shop'

let shop: Shop
let isaura: Caller
let odile: Caller
beforeAll(async () => {
  shop = await openShop()
  isaura = await shop.as('isaura')
  odile = await shop.as('odile')
})
afterAll(() => shop.close())

const item = async (id: number) => (await odile.ask<ItemStory>('GET', `/items/${id}`)).body

/** Changes an item as its form does: with all that it has. */
async function changeItem(id: number, change: object): Promise<void> {
  const { bead: figures, ...found } = await item(id)
  const kept = Object.fromEntries(Object.entries({ ...found, figures }).filter(([name]) => name in saveItem.shape))
  expect((await odile.ask('PUT', `/items/${id}`, { ...kept, ...change })).status).toBe(200)
}

test('a supplier tells what they sell at what price since when, and what was bought of them', async () => {
  const { body: all } = await odile.ask<Supplier[]>('GET', '/suppliers')
  const first = all[0] as Supplier
  expect(first).toMatchObject({ name: 'Brackwater Glass', leadDays: 7, minOrder: 4000 })
  const card = async () => (await odile.ask<SupplierCard>('GET', `/suppliers/${first.id}`)).body
  const [sold] = (await card()).prices
  const itemId = sold?.itemId ?? 0
  await shop.pool.query(`update pack set priced_on = '2025-05-01' where item_id = ${itemId}`)
  const [small, ...others] = (await item(itemId)).packs
  if (!small) throw new Error('The demo item has no pack.')
  const dearer = { ...small, price: small.price + 10 }
  await changeItem(itemId, { packs: [dearer, ...others] })
  const since = async () =>
    (await card()).prices.find((each) => each.itemId === itemId)?.packs.map(({ pricedOn }) => pricedOn)
  const [changed, ...kept] = (await since()) ?? []
  expect([changed === '2025-05-01', kept]).toEqual([false, others.map(() => '2025-05-01')])
  const wanted = { itemId, supplier: first.name, amount: small.amount, cost: 700, expectedOn: '2027-02-01' }
  await odile.ask('POST', '/purchases', wanted)
  expect(await card()).toMatchObject({
    onItsWay: first.onItsWay + 700,
    bought: [{ itemId, cost: 700, state: 'ordered' }],
  })
})

test('a supplier who is called something else keeps what they sell and what was bought of them', async () => {
  const { body: all } = await odile.ask<Supplier[]>('GET', '/suppliers')
  const { id, ...before } = all.find(({ items }) => items > 0) as Supplier
  const card = async () => (await odile.ask<SupplierCard>('GET', `/suppliers/${id}`)).body
  const { prices, bought } = await card()
  const { name, contact, leadDays, minOrder, note } = before
  const renamed = await odile.ask('PUT', `/suppliers/${id}`, {
    name: `${name} and Daughter`,
    contact,
    leadDays,
    minOrder,
    note,
  })
  expect(renamed.status).toBe(200)
  const now = await card()
  const told = (each: readonly { readonly itemId: number }[]) => each.map(({ itemId }) => itemId).sort()
  expect([now.name, now.items]).toEqual([`${name} and Daughter`, before.items])
  expect([told(now.prices), told(now.bought)]).toEqual([told(prices), told(bought)])
  expect((await item(prices[0]?.itemId ?? 0)).maker).toBe(`${name} and Daughter`)
  const { body: page } = await odile.ask('GET', `/shelf?find=${encodeURIComponent('and daughter')}`)
  expect(page.items.length).toBeGreaterThan(0)
})

test('suppliers are added once, go out and in as CSV, and their orders outlive them', async () => {
  const { body: made } = await odile.ask<SupplierCard>('POST', '/suppliers', {
    name: 'Reed & Rush',
    contact: '+44 555',
    minOrder: 1250,
  })
  expect((await odile.ask('POST', '/suppliers', { name: 'Reed & Rush' })).body).toMatchObject({
    code: 'name-taken',
    path: 'name',
  })
  const csv = await (await fetch(`${shop.base}/api/suppliers.csv`, { headers: { cookie: odile.cookie } })).text()
  // A spreadsheet would work out what begins with a plus.
  expect(csv).toContain("'+44 555")
  expect(csv).toContain('12.50')
  const { body: again } = await odile.send<RecordFileOutcome>('/suppliers/file', csv)
  expect(again).toMatchObject({ added: 0, changed: 0, faults: [], done: true })
  const file = 'name,lead days,minimum order\nReed & Rush,9,20\nSedge Wire,x,1\n'
  const { body: refused } = await odile.send<RecordFileOutcome>('/suppliers/file', file)
  expect(refused.faults.map(({ row, column }) => [row, column])).toEqual([[3, 'lead days']])
  expect((await odile.ask('POST', `/suppliers/${made.id}/remove`)).body).toEqual({ ok: true })
  expect((await odile.ask('GET', `/suppliers/${made.id}`)).status).toBe(404)
  const corin = await shop.as('corin')
  expect((await corin.ask('POST', '/suppliers', { name: 'x' })).status).toBe(403)
})

test('the counter asks what the price list says; without it what it was sold for last, or what it costs', async () => {
  const { body: items } = await odile.ask<Item[]>('GET', '/items')
  const { rows } = await shop.pool.query<{ id: number }>(
    'select item_id as id from sale_line where item_id is not null',
  )
  const bead = items.find(
    ({ id, unit, onHand, reserved }) =>
      unit === 'mg' && onHand - reserved > 9000 && !rows.some((sold) => sold.id === id),
  )
  if (!bead) throw new Error('The demo shelf has nothing that was never sold.')
  const asked = async () => (await isaura.ask('GET', `/items/${bead.id}/selling-price`)).body
  expect(await asked()).toMatchObject({ from: 'cost and margin' })
  const line = { what: 'item', itemId: bead.id, quantity: 2000, price: 300 }
  await isaura.ask('POST', '/sales', { lines: [line] })
  expect(await asked()).toEqual({ perUnit: 0.15, from: 'last sale' })
  expect((await odile.ask('PUT', `/items/${bead.id}/selling-price`, { price: 95 })).body).toEqual({
    perUnit: 0.095,
    from: 'price list',
  })
  const { body: list } = await isaura.ask('GET', `/prices?find=${encodeURIComponent(bead.code)}`)
  expect(list.items).toContainEqual(expect.objectContaining({ id: bead.id, price: 95 }))
  const csv = await (await fetch(`${shop.base}/api/prices.csv`, { headers: { cookie: odile.cookie } })).text()
  expect(csv).toContain(`${bead.code},`)
  expect(csv).toContain('0.95,g,GBP')
  // Changing what an item is does not unsettle its price.
  await changeItem(bead.id, { cautions: 'nickel' })
  expect(await asked()).toMatchObject({ from: 'price list' })
  await odile.ask('PUT', `/items/${bead.id}/selling-price`, { price: null })
  expect(await asked()).toMatchObject({ from: 'last sale' })
  const wren = await shop.as('wren')
  expect((await wren.ask('PUT', `/items/${bead.id}/selling-price`, { price: 1 })).status).toBe(403)
})

test('a tube that nobody knew is found while a place is counted, and is stock when the count is posted', async () => {
  const { body: places } = await odile.ask<{ place: string }[]>('GET', '/places')
  const { body: counting } = await odile.ask<Stocktake>('POST', '/stocktakes', { place: places[0]?.place })
  const known = counting.rows[0] as Stocktake['rows'][number]
  const found = (body: object) => odile.ask<Stocktake>('POST', `/stocktakes/${counting.id}/found`, body)
  const twice = await found({ itemId: known.itemId, code: known.lotCode, quantity: 100 })
  expect([twice.status, twice.body]).toEqual([409, expect.objectContaining({ code: 'code-taken', path: 'code' })])
  const before = (await item(known.itemId)).onHand
  const { body: listed } = await found({ itemId: known.itemId, code: 'FOUND-1', quantity: 1234 })
  expect(listed.rows.find(({ lotCode }) => lotCode === 'FOUND-1')).toMatchObject({
    frozen: 0,
    expected: 0,
    counted: 1234,
  })
  expect((await item(known.itemId)).onHand).toBe(before)
  await odile.ask('POST', `/stocktakes/${counting.id}/post`)
  const after = await item(known.itemId)
  expect(after.onHand).toBe(before + 1234)
  expect(after.lots).toContainEqual(expect.objectContaining({ code: 'FOUND-1', onHand: 1234, place: places[0]?.place }))
})
