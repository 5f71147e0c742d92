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

const list = async (query = '') => (await bram.ask('GET', `/buy-list${query}`)).body

test('what the open batches are short of, in whole packs, for whom and by when', async () => {
  const [only, ...others] = await list()
  expect(others).toEqual([])
  // 24 kits of 0.2 g of the rust round, of which 1.2 g are there: six kits; 18 go without, one tube of 8 g is enough.
  expect(only).toMatchObject({ supplier: 'Tollhouse Beads', unit: 'mg', short: 3600, amount: 8000 })
  expect(only.packs).toEqual([{ amount: 8000, price: 270, count: 1 }])
  expect(only.batches).toEqual([{ id: expect.any(Number), name: 'Lock keepers’ evening' }])
  // Ten days of lead and two to pack.
  expect((Date.parse(only.neededOn) - Date.parse(only.orderBy)) / 86_400_000).toBe(12)
  expect(await list('?until=2020-01-01')).toEqual([])
  expect((await bram.ask('GET', '/buy-list?until=soon')).body).toMatchObject({ path: 'until', message: 'Give a day.' })
})

test('a delivery is a lot of its own; the batch can be filled, and nothing is left to buy', async () => {
  const [{ itemId, batches }] = await list()
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
    onHand: 8000,
    reserved: 0,
  })
  expect(await list()).toEqual([])
  const { status, body } = await bram.ask('POST', `/batches/${batches[0].id}/reserve`, {})
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
  const answer = await odile.ask('POST', '/items/1/lots', { ...good, ...wrong })
  expect([answer.status, answer.body.path]).toEqual([status, path])
  expect(await count()).toBe(before)
})

test('a delivery of an item that is none is refused', async () => {
  const { status } = await odile.ask('POST', '/items/99999/lots', {
    code: 'X/1',
    receivedOn: '2026-11-20',
    quantity: 1,
  })
  expect(status).toBe(404)
})
