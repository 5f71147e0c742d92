import type { Packing } from '@tessellum/contract/packing'
import { type Caller, openShop, type Shop } from './shop'

let shop: Shop
let odile: Caller
beforeAll(async () => {
  shop = await openShop()
  odile = await shop.as('odile')
})
afterAll(() => shop.close())

/** A reserved batch of the small pendant. */
async function begin(kits: number): Promise<number> {
  const line = { patternId: 1, version: 1, size: 'petite', colourwayId: 1, kits }
  const { body } = await odile.ask('POST', '/batches', { name: `Pack ${kits}`, dueOn: '2027-03-01', lines: [line] })
  await odile.ask('POST', `/batches/${body.id}/reserve`, {})
  return body.id
}
const packing = async (id: number) => (await odile.ask<Packing>('GET', `/batches/${id}/packing`)).body
const fill = (id: number, body: object) => odile.ask('PUT', `/batches/${id}/bags`, body)

async function fillAll(id: number): Promise<void> {
  for (const { itemId, bags } of (await packing(id)).tasks)
    for (const { line, kit, target } of bags) await fill(id, { line, kit, itemId, quantity: target })
}

/** Balances as they are, and as the moves add up to. */
async function ledger() {
  const { rows } = await shop.pool.query(`
    select b.lot_id, b.on_hand::int, b.reserved::int,
      coalesce(sum(m.on_hand), 0)::int as moved, coalesce(sum(m.reserved), 0)::int as promised
    from balance b left join move m on m.lot_id = b.lot_id group by b.lot_id order by b.lot_id`)
  for (const row of rows) expect([row.on_hand, row.reserved]).toEqual([row.moved, row.promised])
  return new Map(rows.map((row) => [row.lot_id, { onHand: row.on_hand, reserved: row.reserved }]))
}

test('one bead at a time through all the bags, with what each must hold', async () => {
  const { tasks, kits, state } = await packing(await begin(3))
  expect([kits, state, tasks.length]).toEqual([3, 'reserved', 5])
  const green = tasks.find(({ name }) => name.includes('Lantern green'))
  // 63 beads of 5.2 mg are 327.6 mg; 0.4 g are meant; two steps of the scale more will do.
  expect(green?.bags[0]).toMatchObject({
    line: 1,
    kit: 1,
    roles: 'A',
    least: 328,
    target: 400,
    most: 600,
    filled: null,
  })
  expect(green?.bags.map(({ kit }) => kit)).toEqual([1, 2, 3])
})

test('too little, too much and a bag that is none are refused; a bag may be corrected and emptied', async () => {
  const id = await begin(2)
  const itemId = (await packing(id)).tasks.find(({ name }) => name.includes('Lantern green'))?.itemId
  const bag = { line: 1, kit: 1, itemId }
  expect((await fill(id, { ...bag, quantity: 327 })).body).toMatchObject({
    code: 'off-the-band',
    message: 'Too little is in the bag.',
  })
  expect((await fill(id, { ...bag, quantity: 601 })).body).toMatchObject({
    code: 'off-the-band',
    message: 'Too much is in the bag.',
  })
  expect((await fill(id, { ...bag, kit: 3, quantity: 400 })).body).toMatchObject({ code: 'no-such-bag' })
  expect((await packing(id)).state).toBe('reserved')
  await fill(id, { ...bag, quantity: 400 })
  const { body } = await fill(id, { ...bag, quantity: 420 })
  expect(body.state).toBe('packing')
  const filled = (found: Packing) => found.tasks.flatMap(({ bags }) => bags).filter((each) => each.filled !== null)
  expect(filled(body)).toEqual([expect.objectContaining({ kit: 1, filled: 420, by: 'Odile Marrow' })])
  const { body: emptied } = await odile.ask('POST', `/batches/${id}/bags/empty`, bag)
  expect([emptied.state, filled(emptied)]).toEqual(['reserved', []])
  const bram = await shop.as('bram')
  expect((await bram.ask('PUT', `/batches/${id}/bags`, { ...bag, quantity: 400 })).status).toBe(403)
})

test('closing issues what is in the bags and gives back what was promised beyond it; it acts once', async () => {
  const before = await ledger()
  const id = await begin(4)
  expect((await odile.ask('POST', `/batches/${id}/close`, {})).body).toMatchObject({ code: 'wrong-state' })
  await fillAll(id)
  const { tasks, state } = await packing(id)
  expect(state).toBe('packed')
  // One bag came out a little lighter, as scales do.
  const green = tasks.find(({ name }) => name.includes('Lantern green')) as Packing['tasks'][number]
  await fill(id, { line: 1, kit: 2, itemId: green.itemId, quantity: 390 })
  const close = () => odile.ask('POST', `/batches/${id}/close`, {}, { key: 'close-this-batch' })
  const [first, again] = [await close(), await close()]
  expect([first.status, first.body.state, again.body]).toEqual([200, 'closed', first.body])
  const after = await ledger()
  const lot = (balances: typeof after) => balances.get(green.lotId)
  expect(lot(after)).toEqual({ onHand: (lot(before)?.onHand ?? 0) - 1590, reserved: lot(before)?.reserved })
  expect((await fill(id, { line: 1, kit: 1, itemId: green.itemId, quantity: 400 })).body.code).toBe('wrong-state')
  expect((await odile.ask('POST', `/batches/${id}/cancel`, {})).body.code).toBe('wrong-state')
})

test('called off in the middle, everything goes back', async () => {
  const before = await ledger()
  const id = await begin(2)
  const [task] = (await packing(id)).tasks
  const [bag] = task?.bags ?? []
  await fill(id, { line: 1, kit: 1, itemId: task?.itemId, quantity: bag?.target })
  expect((await odile.ask('POST', `/batches/${id}/release`, {})).body.code).toBe('wrong-state')
  expect((await odile.ask('POST', `/batches/${id}/cancel`, {})).body.state).toBe('cancelled')
  expect(await ledger()).toEqual(before)
  expect((await packing(id)).tasks).toEqual([])
})

test('two packers at once: every bag is filled once, and the last one makes it packed', async () => {
  const id = await begin(6)
  const isaura = await shop.as('isaura')
  const { tasks } = await packing(id)
  const all = tasks.flatMap(({ itemId, bags }) =>
    bags.map(({ line, kit, target }) => ({ line, kit, itemId, quantity: target })),
  )
  const answers = await Promise.all(
    [...all, ...all].map((body, i) => (i % 2 ? odile : isaura).ask('PUT', `/batches/${id}/bags`, body)),
  )
  expect(answers.every(({ status }) => status === 200)).toBe(true)
  const { rows } = await shop.pool.query('select count(*)::int from bag where batch_id = $1', [id])
  expect([rows[0].count, (await packing(id)).state]).toEqual([all.length, 'packed'])
})
