import type { BuyLine } from '@tessellum/contract/buying'
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

const list = async (query = '') => (await bram.ask<BuyLine[]>('GET', `/buy-list${query}`)).body
const shortOf = async () => (await list()).filter(({ short }) => short > 0)

test('what the open batches are short of, in whole packs, for whom and by when', async () => {
  const [only, ...others] = (await shortOf()) as [BuyLine]
  expect(others).toEqual([])
  // 24 kits of 0.2 g of the rust round, of which 1.2 g are there: six kits; 18 go without, one tube of 8 g is enough for them, and
  // another for the 8 g that are to lie on the shelf.
  expect(only).toMatchObject({ supplier: 'Tollhouse Beads', unit: 'mg', short: 3600, low: 8000, amount: 16000 })
  expect(only.packs).toEqual([{ amount: 8000, price: 270, leadDays: 10, count: 2 }])
  expect(only.batches).toEqual([{ id: expect.any(Number), name: 'Lock keepers’ evening', dueOn: only.neededOn }])
  // Ten days of lead and two to pack.
  expect((Date.parse(only.neededOn ?? '') - Date.parse(only.orderBy ?? '')) / 86_400_000).toBe(12)
  const early = await list('?until=2020-01-01')
  expect(early.map(({ short, orderBy }) => [short, orderBy])).toEqual(early.map(() => [0, null]))
  expect((await bram.ask('GET', '/buy-list?until=soon')).body).toMatchObject({ path: 'until', message: 'Give a day.' })
})

test('a delivery is a lot of its own; the batch can be filled, and nothing is left to buy', async () => {
  const [{ itemId, batches }] = (await shortOf()) as [BuyLine]
  const came = { code: 'TR108/7', receivedOn: '2026-11-20', quantity: 8000 }
  expect((await bram.ask('POST', `/items/${itemId}/lots`, came)).status).toBe(403)
  const key = 'the-same-delivery'
  const first = await odile.ask('POST', `/items/${itemId}/lots`, came, { key })
  const again = await odile.ask('POST', `/items/${itemId}/lots`, came, { key })
  expect([first.status, again.body]).toEqual([200, first.body])
  const { body: story } = await bram.ask('GET', `/items/${itemId}`)
  expect(story).toMatchObject({ onHand: 9200 })
  expect(story.lots).toContainEqual({
    id: first.body.lotId,
    code: 'TR108/7',
    receivedOn: '2026-11-20',
    place: 'F1',
    supplier: '',
    unitCost: null,
    mgPerBead: null,
    onHand: 8000,
    reserved: 0,
    inBags: 0,
  })
  expect(await shortOf()).toEqual([])
  const { status, body } = await bram.ask('POST', `/batches/${batches[0]?.id}/reserve`, {})
  expect([status, body.state]).toEqual([200, 'reserved'])
})

test.each([
  [{ code: 'TR108/7' }, 409, 'code'],
  [{ code: ' ' }, 400, 'code'],
  [{ quantity: 0 }, 400, 'quantity'],
  [{ quantity: 1.5 }, 400, 'quantity'],
  [{ receivedOn: 'yesterday' }, 400, 'receivedOn'],
])('%j is refused by its name, and nothing comes on the shelf', async (wrong, status, path) => {
  const count = async () => (await shop.pool.query('select count(*)::int from lot')).rows[0].count
  const before = await count()
  const good = { code: 'NEW/1', receivedOn: '2026-11-20', quantity: 100 }
  const { body } = await odile.ask('GET', '/shelf?find=TR108')
  const answer = await odile.ask('POST', `/items/${body.items[0].id}/lots`, { ...good, ...wrong })
  expect([answer.status, answer.body.path]).toEqual([status, path])
  expect(await count()).toBe(before)
})

test('an order counts as coming, comes as a lot at its cost, and is taken off the list meanwhile', async () => {
  const lines = [{ patternId: 1, version: 1, size: 'petite', colourwayId: 1, kits: 80 }]
  await bram.ask('POST', '/batches', { name: 'Great order', dueOn: '2027-05-01', lines })
  const [first] = (await shortOf()) as [BuyLine]
  expect(first).toMatchObject({ coming: 0, unit: 'piece' })
  const { itemId, amount, supplier, cost } = first
  const wanted = { itemId, supplier, amount, cost, expectedOn: '2027-04-01' }
  expect((await (await shop.as('corin')).ask('POST', '/purchases', wanted)).status).toBe(403)
  const late = await bram.ask('POST', '/purchases', { ...wanted, expectedOn: '2027-05-02' })
  // What comes after the day it is due is no help.
  expect((await shortOf())[0]).toMatchObject({ itemId, short: first.short, coming: amount })
  await bram.ask('POST', `/purchases/${late.body.purchaseId}/cancel`, {})
  const { body } = await bram.ask('POST', '/purchases', wanted)
  expect((await shortOf()).some((each) => each.itemId === itemId)).toBe(false)
  expect((await bram.ask('GET', `/items/${itemId}`)).body).toMatchObject({
    coming: amount,
    purchases: [{ amount, cost }],
  })
  const receive = () =>
    odile.ask('POST', `/purchases/${body.purchaseId}/receive`, {
      code: 'CAME',
      receivedOn: '2027-04-01',
      quantity: amount,
    })
  const came = await receive()
  expect(came.status).toBe(200)
  expect((await receive()).body.code).toBe('wrong-state')
  const { body: story } = await bram.ask('GET', `/items/${itemId}`)
  expect(story.lots).toContainEqual(
    expect.objectContaining({ id: came.body.lotId, supplier, onHand: amount, unitCost: cost / amount }),
  )
  expect([story.coming, (await bram.ask('GET', '/purchases')).body]).toEqual([0, []])
})

test('7 g of 8 g ordered leave 1 g on its way, at its share of the cost, until it is said that no more will come', async () => {
  const itemId = (await shortOf())[0]?.itemId ?? 1
  const { body } = await bram.ask('POST', '/purchases', {
    itemId,
    supplier: 'Brackwater Glass',
    amount: 8000,
    cost: 400,
    expectedOn: '2027-04-01',
  })
  const receive = (id: number, code: string, quantity: number, more = {}) =>
    odile.ask('POST', `/purchases/${id}/receive`, { code, receivedOn: '2027-04-01', quantity, ...more })
  expect((await receive(body.purchaseId, 'PART-1', 7000)).status).toBe(200)
  const open = async () =>
    (await bram.ask('GET', '/purchases')).body.filter((each: { itemId: number }) => each.itemId === itemId)
  const [rest, ...others] = await open()
  expect([rest.amount, rest.cost, others]).toEqual([1000, 50, []])
  expect((await receive(rest.id, 'PART-2', 900, { restComing: false })).status).toBe(200)
  expect(await open()).toEqual([])
  const { body: story } = await bram.ask('GET', `/items/${itemId}`)
  const costOf = (code: string) => story.lots.find((lot: { code: string }) => lot.code === code)
  expect(costOf('PART-1')).toMatchObject({ onHand: 7000, unitCost: 350 / 7000 })
  expect(costOf('PART-2')).toMatchObject({ onHand: 900, unitCost: 50 / 900 })
})

test('what runs low is bought up to its level, and counts as coming once it is ordered', async () => {
  const { body } = await odile.ask('GET', '/shelf?show=low')
  const low = body.items.filter(({ category }: { category: string }) => category !== 'kit')
  expect(low.length).toBeGreaterThan(0)
  const lineOf = async (id: number) => (await list()).find(({ itemId }) => itemId === id)
  for (const { id, onHand, reserved, reorderBelow } of low) {
    const line = await lineOf(id)
    // Nothing is on its way; what drafts take of it is beside that.
    expect(line?.low).toBeGreaterThanOrEqual(reorderBelow - Math.max(0, onHand - reserved))
    expect(line?.amount).toBeGreaterThanOrEqual((line?.short ?? 0) + (line?.low ?? 0))
  }
  const [{ id }] = low
  const line = (await lineOf(id)) as BuyLine
  const { supplier, amount, cost } = line
  await bram.ask('POST', '/purchases', { itemId: id, supplier, amount, cost, expectedOn: '2027-04-01' })
  expect(await lineOf(id)).toBeUndefined()
})

test('a delivery of an item that is none is refused', async () => {
  const { status } = await odile.ask('POST', '/items/99999/lots', {
    code: 'X/1',
    receivedOn: '2026-11-20',
    quantity: 1,
  })
  expect(status).toBe(404)
})
