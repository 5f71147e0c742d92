import type { Batch, Competing, CouldMake } from '@tessellum/contract/batches'
import type { Order } from '@tessellum/contract/orders'
import type { ShortagePlan } from '@tessellum/contract/shortage-plan'
import { ledgerOf } from './ledger'
import { packAndClose } from './pack'
import { type Caller, openShop, type Shop } from './shop'

let shop: Shop
let bram: Caller
beforeAll(async () => {
  shop = await openShop()
  bram = await shop.as('bram')
  await bram.ask('POST', '/batches/3/cancel', {})
})
// What one test has planned is no rival of the next one's.
afterEach(async () => {
  const { body } = await bram.ask('GET', '/batches')
  for (const { id, state } of body)
    if (id > 5 && state !== 'cancelled') await bram.ask('POST', `/batches/${id}/cancel`, {})
})
afterAll(() => shop.close())

/** The small pendant in ochre: 0.2 g of a rust round of which the shop has 1.2 g, so six kits. */
const ochre = async (kits: number) => {
  const { body: patterns } = await bram.ask('GET', '/patterns')
  const { id: patternId } = patterns.find(({ title }: { title: string }) => title === 'Sluicegate pendant')
  const { body: colourways } = await bram.ask('GET', `/patterns/${patternId}/colourways`)
  const { id: colourwayId } = colourways.find(({ name }: { name: string }) => name === 'Ochre lock')
  return { patternId, version: 1, size: 'small', colourwayId, kits }
}
const plan = async (name: string, kits: number, more: object = {}) =>
  (await bram.ask<Batch>('POST', '/batches', { name, dueOn: '2027-03-01', lines: [await ochre(kits)], ...more })).body
const itemOf = async (code: string) => (await bram.ask('GET', `/shelf?find=${code}`)).body.items[0].id as number

test('drafts take from one shelf in their turn: the more urgent first, then the sooner due', async () => {
  await plan('Late', 4, { dueOn: '2027-06-01' })
  await plan('Soon', 4, { dueOn: '2027-02-01' })
  const waiting = await plan('Waits', 4, { dueOn: '2027-01-01', priority: 3 })
  const kits = async () => {
    const { body } = await bram.ask<Competing>('GET', '/batches/competing')
    return Object.fromEntries(body.filter(({ name }) => name !== 'Market table').map((each) => [each.name, each.kits]))
  }
  expect(await kits()).toEqual({ Soon: 4, Late: 2, Waits: 0 })
  await bram.ask('PUT', `/batches/${waiting.id}`, { dueOn: '2027-01-01', priority: 1 })
  expect(await kits()).toEqual({ Waits: 4, Soon: 2, Late: 0 })
  const { body } = await bram.ask<Competing>('GET', '/batches/competing')
  expect(body.find(({ name }) => name === 'Late')?.limitedBy).toEqual([expect.stringContaining('Rust gate (TR-108)')])
})

test('how many can be made: alone, together, and as whole sets', async () => {
  const lantern = { patternId: 1, version: 1, size: 'petite', colourwayId: 1, kits: 2 }
  const { body } = await bram.ask<CouldMake>('POST', '/batches/could-make', { lines: [await ochre(1), lantern] })
  // 36 of the small stone are free; and two of them go into a set with each of six.
  expect(body).toEqual({ alone: [6, 36], together: [6, 36], sets: 6, proven: true })
  const twice = await bram.ask<CouldMake>('POST', '/batches/could-make', { lines: [await ochre(1), await ochre(2)] })
  expect(twice.body).toMatchObject({ alone: [6, 6], sets: 2 })
  expect(twice.body.together.reduce((sum, kits) => sum + kits, 0)).toBe(6)
})

test('what one more pack would allow is told', async () => {
  const { outlook } = await plan('Twenty', 20)
  expect(outlook.lines[0]).toMatchObject({ couldMake: 6, oneMore: [{ amount: 8000, kits: 30 }] })
})

const allow = async (codes: string[]) => {
  const { patternId, colourwayId } = await ochre(1)
  const { body } = await bram.ask('GET', `/patterns/${patternId}/colourways`)
  const { name, choices } = body.find(({ id }: { id: number }) => id === colourwayId)
  const others = await Promise.all(
    codes.map(async (code, i) => ({ role: 'D', size: '', itemId: await itemOf(code), counting: 'all', rank: i + 1 })),
  )
  return bram.ask('PUT', `/colourways/${colourwayId}`, {
    name,
    choices: [...choices.filter(({ rank }: { rank: number }) => rank === 0), ...others],
  })
}

describe('what a colourway allows to stand in', () => {
  test('is used only where it must be, the nearest first, and makes a line of its own when it is reserved', async () => {
    // Copper is near to rust; pewter is not.
    await allow(['TR101', 'BR101'])
    const made = await plan('Ten', 10)
    expect(made.outlook).toMatchObject({ ready: true, lines: [{ together: 10 }] })
    expect(made.outlook.lines[0]?.substitutes).toEqual([
      { kits: 4, roles: [{ role: 'D', name: expect.stringContaining('Copper rivet') }] },
    ])
    const { body: reserved } = await bram.ask<Batch>('POST', `/batches/${made.id}/reserve`, {})
    expect(reserved.lines.map(({ kits, ownColourway }) => [kits, ownColourway])).toEqual([
      [6, false],
      [4, true],
    ])
    const copper = await itemOf('BR101')
    expect(reserved.outlook.lines[1]?.bill.some(({ itemId, roles }) => itemId === copper && roles.includes('D'))).toBe(
      true,
    )
    const lots = await ledgerOf(shop.pool)
    const held = await shop.pool.query(
      `select lot_id, sum(target)::int as held from bag join batch on batch.id = bag.batch_id where item_id = $1 and state = 'reserved' group by lot_id`,
      [copper],
    )
    for (const { lot_id, held: sum } of held.rows) expect(lots.get(lot_id)?.reserved).toBe(sum)
  })

  test('is not used where the plan is filled', async () => {
    const { body } = await allow(['TR101'])
    expect(body.choices.filter(({ role }: { role: string }) => role === 'D')).toHaveLength(2)
    const made = await plan('Five', 5)
    expect(made.outlook.lines[0]?.substitutes).toEqual([])
    const { body: reserved } = await bram.ask<Batch>('POST', `/batches/${made.id}/reserve`, {})
    expect(reserved.lines).toHaveLength(1)
  })
})

describe('a bead that is short over several batches', () => {
  test('most kits are made with the least change to be seen, and one batch accepts its share', async () => {
    const first = await plan('First', 5, { dueOn: '2027-01-01' })
    const second = await plan('Second', 5)
    const rust = await itemOf('TR108')
    const { body } = await bram.ask<ShortagePlan>('GET', `/items/${rust}/shortage-plan`)
    expect(body.lines.map(({ batchName, wanted, without }) => [batchName, wanted, without])).toEqual([
      ['First', 5, 5],
      ['Second', 5, 1],
    ])
    const made = body.lines.map(({ asPlanned, ways }) => asPlanned + ways.reduce((sum, { kits }) => sum + kits, 0))
    expect(made).toEqual([5, 5])
    // Six keep the bead that was planned: no more than must be are changed.
    expect(body.lines.reduce((sum, { asPlanned }) => sum + asPlanned, 0)).toBe(6)
    const changed = body.lines.filter(({ ways }) => ways.length > 0)
    for (const { batchId, lineId, ways } of changed) {
      const substitutes = ways.map(({ kits, choices }) => ({ lineId, kits, choices }))
      const accepted = await bram.ask<Batch>('POST', `/batches/${batchId}/substitutes`, { substitutes })
      expect(accepted.body.kits).toBe(5)
      expect(accepted.body.lines.some(({ ownColourway }) => ownColourway)).toBe(true)
    }
    for (const { id } of [first, second]) {
      const { status, body: reserved } = await bram.ask<Batch>('POST', `/batches/${id}/reserve`, {})
      expect([status, reserved.state]).toEqual([200, 'reserved'])
    }
    await ledgerOf(shop.pool)
  })

  test('an item that is none, and a line that is not the batch’s, are refused', async () => {
    expect((await bram.ask('GET', '/items/99999/shortage-plan')).status).toBe(404)
    const choices = [{ role: 'D', itemId: 1, counting: 'all' }]
    const substitutes = [{ lineId: 99_999, kits: 1, choices }]
    expect((await bram.ask('POST', '/batches/4/substitutes', { substitutes })).status).toBe(404)
  })
})

test('an order is handed over whole, the kits in which another bead stands in too', async () => {
  await allow(['TR101', 'BR101'])
  const isaura = await shop.as('isaura')
  const wanted = { customer: 'Pochard', worn: null, measureMm: null, wantedOn: '2027-03-01', price: 0, promised: '' }
  const { body: orders } = await isaura.ask<Order[]>('POST', '/orders', { ...wanted, ...(await ochre(10)) })
  const of = (all: Order[]) => all.find(({ customer }) => customer === 'Pochard') as Order
  const { id } = of(orders)
  const batchId = of((await isaura.ask<Order[]>('POST', `/orders/${id}/kits`, {})).body).batchId as number
  await packAndClose(isaura, batchId)
  const { body: batch } = await bram.ask<Batch>('GET', `/batches/${batchId}`)
  expect(batch.lines.map(({ kits, ownColourway }) => [kits, ownColourway])).toEqual([
    [6, false],
    [4, true],
  ])
  expect(of((await isaura.ask<Order[]>('POST', `/orders/${id}/hand-over`, { kits: 10 })).body).state).toBe('done')
  const left = await shop.pool.query(
    `select sum(balance.on_hand)::int as kits from move join balance on balance.lot_id = move.lot_id
      where move.batch_id = $1 and move.kind = 'receive'`,
    [batchId],
  )
  expect(left.rows).toEqual([{ kits: 0 }])
  await ledgerOf(shop.pool)
})
