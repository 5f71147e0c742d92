/** Kits that stand packed on the shelf: they go before beads, and are promised like beads. */
import type { Batch, Competing } from '@tessellum/contract/batches'
import type { BuyLine } from '@tessellum/contract/buying'
import type { ClassAnswer } from '@tessellum/contract/classes'
import type { Order } from '@tessellum/contract/orders'
import type { Packing } from '@tessellum/contract/packing'
import type { ShelfPage } from '@tessellum/contract/stock'
import { ledgerOf } from './ledger'
import { packAndClose } from './pack'
import { type Caller, openShop, type Shop } from './shop'

let shop: Shop
let isaura: Caller
beforeAll(async () => {
  shop = await openShop()
  isaura = await shop.as('isaura')
})
afterAll(() => shop.close())

const petite = { patternId: 1, version: 1, size: 'petite', colourwayId: 1 }
const day = (days: number) => new Date(Date.now() + days * 86_400_000).toISOString().slice(0, 10)
const plan = async (name: string, kits: number) =>
  (await isaura.ask<Batch>('POST', '/batches', { name, dueOn: day(60), lines: [{ ...petite, kits }] })).body
const reserve = (id: number) => isaura.ask<Batch>('POST', `/batches/${id}/reserve`, {})
const bags = async (id: number) =>
  (await isaura.ask<Packing>('GET', `/batches/${id}/packing`)).body.tasks.map((task) => task.bags.length)
const shelf = async () => {
  await ledgerOf(shop.pool)
  const { items } = (await isaura.ask<ShelfPage>('GET', '/shelf?show=kits&find=windlass+petite')).body
  return items.map(({ onHand, reserved }) => [onHand, reserved])[0]
}

test('what stands packed is promised first, and only the rest is packed', async () => {
  await packAndClose(isaura, (await plan('For the shelf', 5)).id)
  expect(await shelf()).toEqual([5, 0])
  const drafted = await plan('Market', 8)
  expect(drafted.outlook.lines[0]).toMatchObject({ ready: 5, together: 8 })
  // Every item of the bill is needed for three kits only.
  const [line] = drafted.outlook.lines
  for (const { itemId, quantity } of line?.bill ?? [])
    expect(drafted.outlook.items.find((item) => item.itemId === itemId)?.needed).toBe(3 * quantity)
  const { body } = await reserve(drafted.id)
  expect([body.state, await bags(drafted.id), await shelf()]).toEqual(['reserved', [3, 3, 3, 3, 3], [5, 5]])
  expect((await plan('Later', 8)).outlook.lines[0]).toMatchObject({ ready: 0 })

  // Fewer kits, and there is less to pack; then fewer than stand there.
  const change = (kits: number) =>
    isaura.ask('PUT', `/batches/${drafted.id}/lines`, { lines: [{ ...petite, id: drafted.lines[0]?.id, kits }] })
  await change(6)
  expect([await bags(drafted.id), await shelf()]).toEqual([
    [1, 1, 1, 1, 1],
    [5, 5],
  ])
  await change(4)
  expect([await bags(drafted.id), await shelf()]).toEqual([[], [5, 4]])
  expect((await isaura.ask('GET', `/batches/${drafted.id}`)).body.state).toBe('packed')
  await change(7)
  expect([await bags(drafted.id), await shelf()]).toEqual([
    [2, 2, 2, 2, 2],
    [5, 5],
  ])
  // What is in bags stays there: with a kit less it is a packed one that goes back, and no more are taken though they stand there.
  const { tasks } = (await isaura.ask<Packing>('GET', `/batches/${drafted.id}/packing`)).body
  for (const { itemId, bags: all } of tasks)
    for (const { lineId, kit, target } of all)
      await isaura.ask('PUT', `/batches/${drafted.id}/bags`, { lineId, kit, itemId, quantity: target })
  await change(6)
  expect([await bags(drafted.id), await shelf()]).toEqual([
    [2, 2, 2, 2, 2],
    [5, 4],
  ])
  await change(6)
  expect(await shelf()).toEqual([5, 4])
  await isaura.ask('POST', `/batches/${drafted.id}/cancel`, {})
  expect(await shelf()).toEqual([5, 0])
})

test('an order for what stands packed is short of nothing, though there is not a bead left; it is kept for its customer', async () => {
  const { rows } = await shop.pool.query(
    `select lot.id, on_hand - reserved as free from balance join lot on lot.id = lot_id join item on item.id = item_id
      where category = 'bead' and on_hand > reserved`,
  )
  for (const { id, free } of rows)
    await isaura.ask('POST', `/lots/${id}/moves`, { kind: 'sale', quantity: Number(free), reason: 'all sold' })
  const order = { ...petite, customer: 'Pochard', kits: 2, wantedOn: day(20) }
  const of = (all: Order[]) => all.find(({ customer }) => customer === 'Pochard') as Order
  const { id } = of((await isaura.ask<Order[]>('POST', '/orders', order)).body)
  const planned = of((await isaura.ask<Order[]>('POST', `/orders/${id}/kits`, {})).body)
  expect(planned.readiness).toBe('to reserve')
  const waiting = async () =>
    (await isaura.ask<BuyLine[]>('GET', '/buy-list')).body.flatMap(({ batches }) => batches.map(({ name }) => name))
  expect(await waiting()).not.toContain(`Order ${id}`)
  const { body: competing } = await isaura.ask<Competing>('GET', '/batches/competing')
  expect(competing.find(({ name }) => name === `Order ${id}`)).toMatchObject({ wanted: 2, kits: 2, limitedBy: [] })
  const batchId = planned.batchId as number
  expect((await reserve(batchId)).body.state).toBe('packed')
  expect((await isaura.ask('POST', `/batches/${batchId}/close`, {})).status).toBe(200)
  expect(await shelf()).toEqual([5, 2])

  // Nobody else gets them: not at the counter, not for another order.
  const { rows: lots } = await shop.pool.query(
    `select lot_id from balance join lot on lot.id = lot_id join kit_item on kit_item.item_id = lot.item_id where size = 'petite' and on_hand > 0`,
  )
  const sale = { kind: 'sale', quantity: 4, reason: 'counter' }
  expect((await isaura.ask('POST', `/lots/${lots[0].lot_id}/moves`, sale)).body.code).toBe('short-of-stock')
  expect((await plan('Four of them', 4)).outlook.lines[0]).toMatchObject({ ready: 3, together: 3 })
  expect(of((await isaura.ask<Order[]>('POST', `/orders/${id}/hand-over`, { kits: 2 })).body).state).toBe('done')
  expect(await shelf()).toEqual([3, 0])
})

test('those who ask for the last packed kits at once get each kit once', async () => {
  const four = await Promise.all(['A', 'B', 'C', 'D'].map((name) => plan(name, 2)))
  const answers = await Promise.all(four.map(({ id }) => reserve(id)))
  // Three stand there, no bead is left: one gets its two.
  expect(answers.map(({ status }) => status).sort()).toEqual([200, 409, 409, 409])
  expect(await shelf()).toEqual([3, 2])
  const [first] = answers.filter(({ status }) => status === 200)
  await isaura.ask('POST', `/batches/${first?.body.id}/release`, {})
  expect(await shelf()).toEqual([3, 0])
})

test('a class takes what stands packed, keeps what is packed for it until it is taught, and then lets the rest go', async () => {
  const { body: offered } = await isaura.ask<ClassAnswer>('POST', '/classes', {
    title: 'Two seats',
    heldOn: day(30),
    beginsAt: '10:00',
    minutes: 180,
    place: 'the long table',
    seats: 2,
    teacherId: 4,
    patternId: 1,
    version: 1,
    offers: [{ size: 'petite', colourwayId: 1 }],
    spareKits: 1,
  })
  await isaura.ask('PUT', `/classes/${offered.id}/seats/1`, { name: 'Wren', offer: 0 })
  const { body: planned } = await isaura.ask<ClassAnswer>('POST', `/classes/${offered.id}/kits`, {})
  expect(planned.readiness).toBe('to reserve')
  await packAndClose(isaura, planned.batchId as number)
  expect(await shelf()).toEqual([3, 3])
  expect((await isaura.ask('POST', `/classes/${offered.id}/taught`, {})).body.state).toBe('taught')
  expect(await shelf()).toEqual([2, 0])
})
