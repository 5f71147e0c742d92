import type { Packing, PackingTask } from '@tessellum/contract/packing'
import { ledgerOf } from './ledger'
import { sellShelved } from './pack'
import { type Caller, openShop, type Shop } from './shop'

let shop: Shop
let odile: Caller
beforeAll(async () => {
  shop = await openShop(undefined, { LOG_LEVEL: 'error' })
  odile = await shop.as('odile')
})
afterAll(() => shop.close())

/** A reserved batch of the small pendant. */
async function begin(kits: number): Promise<number> {
  await sellShelved(shop, odile)
  const line = { patternId: 1, version: 1, size: 'petite', colourwayId: 1, kits }
  const { body } = await odile.ask('POST', '/batches', { name: `Pack ${kits}`, dueOn: '2027-03-01', lines: [line] })
  await odile.ask('POST', `/batches/${body.id}/reserve`, {})
  return body.id
}
const packing = async (id: number) => (await odile.ask<Packing>('GET', `/batches/${id}/packing`)).body
const fill = (id: number, body: object) => odile.ask('PUT', `/batches/${id}/bags`, body)
const ledger = () => ledgerOf(shop.pool)

async function fillAll(id: number): Promise<void> {
  for (const { itemId, bags } of (await packing(id)).tasks)
    for (const { lineId, kit, target, filled } of bags)
      if (filled === null) await fill(id, { lineId, kit, itemId, quantity: target })
}
const green = ({ tasks }: Packing) => tasks.find(({ name }) => name.includes('Lantern green')) as PackingTask
const bagsOf = ({ tasks }: Packing) => tasks.flatMap(({ bags }) => bags)
const filledIn = (found: Packing) => bagsOf(found).filter(({ filled }) => filled !== null)

test('one bead at a time through all the bags, with what each must hold', async () => {
  const found = await packing(await begin(3))
  expect([found.kits, found.state, found.tasks.length]).toEqual([3, 'reserved', 5])
  const { bags } = green(found)
  // 63 beads of 5.2 mg are 327.6 mg; 0.4 g are meant; two steps of the scale more will do.
  expect(bags[0]).toMatchObject({ line: 1, kit: 1, roles: 'A', least: 328, target: 400, most: 600, filled: null })
  expect(bags.map(({ kit }) => kit)).toEqual([1, 2, 3])
})

test('too little, too much and a bag that is none are refused; a bag may be corrected and emptied', async () => {
  const id = await begin(2)
  const { itemId, lotId, bags } = green(await packing(id))
  const bag = { lineId: bags[0]?.lineId, kit: 1, itemId }
  expect((await fill(id, { ...bag, quantity: 327 })).body).toMatchObject({
    code: 'off-the-band',
    message: 'Too little is in the bag.',
  })
  expect((await fill(id, { ...bag, quantity: 601 })).body).toMatchObject({
    code: 'off-the-band',
    message: 'Too much is in the bag.',
  })
  expect((await fill(id, { ...bag, kit: 3, quantity: 400 })).body).toMatchObject({ code: 'no-such-bag' })
  expect((await fill(id, { ...bag, quantity: 400, lotId: 1 + (lotId ?? 0) })).body).toMatchObject({
    code: 'wrong-lot',
    message: expect.stringContaining('is filled from lot'),
  })
  expect((await packing(id)).state).toBe('reserved')
  await fill(id, { ...bag, quantity: 400, lotId })
  const { body } = await fill(id, { ...bag, quantity: 420 })
  expect(body.state).toBe('packing')
  expect(filledIn(body)).toEqual([expect.objectContaining({ kit: 1, filled: 420, by: 'Odile Marrow' })])
  const { body: emptied } = await odile.ask('POST', `/batches/${id}/bags/empty`, bag)
  expect([emptied.state, filledIn(emptied)]).toEqual(['reserved', []])
  const bram = await shop.as('bram')
  expect((await bram.ask('PUT', `/batches/${id}/bags`, { ...bag, quantity: 400 })).status).toBe(403)
})

test('closing issues what is in the bags, gives back what was promised beyond it, and shelves the kits; it acts once', async () => {
  const before = await ledger()
  const id = await begin(4)
  expect((await odile.ask('POST', `/batches/${id}/close`, {})).body).toMatchObject({ code: 'wrong-state' })
  await fillAll(id)
  const found = await packing(id)
  expect(found.state).toBe('packed')
  // One bag came out a little lighter, as scales do.
  const task = green(found)
  const bag = { lineId: task.bags[0]?.lineId, itemId: task.itemId }
  await fill(id, { ...bag, kit: 2, quantity: 390 })
  const close = () => odile.ask('POST', `/batches/${id}/close`, {}, { key: 'close-this-batch' })
  const [first, again] = [await close(), await close()]
  expect([first.status, first.body.state, again.body]).toEqual([200, 'closed', first.body])
  const after = await ledger()
  const lot = (balances: typeof after) => balances.get(task.lotId ?? 0)
  expect(lot(after)).toEqual({ onHand: (lot(before)?.onHand ?? 0) - 1590, reserved: lot(before)?.reserved })
  const shelf = (await odile.ask('GET', '/shelf?show=kits&find=windlass%20petite')).body
  expect(shelf.items).toEqual([
    expect.objectContaining({ colourName: 'Windlass pendant, Lantern', onHand: 4, unit: 'piece' }),
  ])
  expect((await fill(id, { ...bag, kit: 1, quantity: 400 })).body.code).toBe('wrong-state')
  expect((await odile.ask('POST', `/batches/${id}/cancel`, {})).body.code).toBe('wrong-state')

  // A whole kit comes back, bead by bead into its lots and off the kits' shelf; then only what is left of another.
  const back = (body: object, key?: string) => odile.ask('POST', `/batches/${id}/returns`, body, key ? { key } : {})
  const whole = { lineId: bag.lineId, kit: 2, whole: true }
  expect((await back(whole, 'one-whole-kit-back')).status).toBe(200)
  expect((await back(whole, 'one-whole-kit-back')).status).toBe(200)
  expect((await back(whole)).body.code).toBe('nothing-back')
  expect(lot(await ledger())?.onHand).toBe((lot(before)?.onHand ?? 0) - 1200)
  const part = (quantity: number) => ({ lineId: bag.lineId, kit: 1, quantities: [{ itemId: task.itemId, quantity }] })
  expect((await back(part(300))).status).toBe(200)
  expect((await back(part(101))).body).toMatchObject({
    code: 'more-than-issued',
    message: 'No more than 100 of A can come back.',
  })
  expect((await odile.ask('GET', '/shelf?show=kits&find=windlass%20petite')).body.items[0].onHand).toBe(3)
  expect(lot(await ledger())?.onHand).toBe((lot(before)?.onHand ?? 0) - 900)

  // The three kits on the shelf are sold; one of them comes back whole, and another cannot that was never sold.
  const kitLot = (await odile.ask('GET', `/items/${shelf.items[0].id}`)).body.lots[0].id
  const sell = (quantity: number) =>
    odile.ask('POST', `/lots/${kitLot}/moves`, { kind: 'sale', quantity, reason: 'counter' })
  const sold = (number: number) => ({ lineId: bag.lineId, kit: number, whole: true, sold: true })
  expect((await back(sold(3))).body).toMatchObject({
    code: 'no-kit-left',
    message: 'None of these kits has been sold.',
  })
  await sell(3)
  expect((await back({ ...whole, kit: 3 })).status).toBe(200)
  expect((await back(sold(4))).status).toBe(200)
  const { body: story } = await odile.ask('GET', `/items/${shelf.items[0].id}`)
  expect(story.moves.slice(0, 5).map(({ kind }: { kind: string }) => kind)).toEqual([
    'open',
    'return',
    'open',
    'return',
    'sale',
  ])
  expect(story.onHand).toBe(0)
  await ledger()
})

test('what is in a bag beyond its target is taken from the lot as it is put in, and said at that bag where the lot has no more', async () => {
  const id = await begin(2)
  const { itemId, lotId, bags } = green(await packing(id))
  const bag = { lineId: bags[0]?.lineId, itemId }
  const free = async () => {
    const tube = (await ledger()).get(lotId ?? 0)
    return (tube?.onHand ?? 0) - (tube?.reserved ?? 0)
  }
  const before = await free()
  await fill(id, { ...bag, kit: 1, quantity: 420 })
  expect(await free()).toBe(before - 20)
  await odile.ask('POST', `/batches/${id}/bags/empty`, { ...bag, kit: 1 })
  expect(await free()).toBe(before)
  // All but 20 mg of what is free is sold meanwhile.
  await odile.ask('POST', `/lots/${lotId}/moves`, { kind: 'sale', quantity: before - 20, reason: 'counter' })
  await fillAll(id)
  await fill(id, { ...bag, kit: 1, quantity: 410 })
  const { body } = await fill(id, { ...bag, kit: 2, quantity: 411 })
  expect(body).toMatchObject({
    code: 'short-of-stock',
    path: 'quantity',
    message: expect.stringMatching(/0\.41 g.*0\.411 g/),
  })
  await fill(id, { ...bag, kit: 2, quantity: 410 })
  expect(await free()).toBe(0)
  const held = (await ledger()).get(lotId ?? 0)
  expect((await odile.ask('POST', `/batches/${id}/close`, {})).body.state).toBe('closed')
  const left = (held?.onHand ?? 0) - 820
  expect((await ledger()).get(lotId ?? 0)).toEqual({ onHand: left, reserved: left })
  await odile.ask('POST', `/lots/${lotId}/moves`, { kind: 'receive', quantity: before, reason: 'delivery' })
})

test('called off in the middle, everything goes back', async () => {
  await sellShelved(shop, odile)
  const before = await ledger()
  const id = await begin(2)
  const [task] = (await packing(id)).tasks
  const [bag] = task?.bags ?? []
  await fill(id, { lineId: bag?.lineId, kit: 1, itemId: task?.itemId, quantity: bag?.target })
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
    bags.map(({ lineId, kit, target }) => ({ lineId, kit, itemId, quantity: target })),
  )
  const answers = await Promise.all(
    [...all, ...all].map((body, i) => (i % 2 ? odile : isaura).ask('PUT', `/batches/${id}/bags`, body)),
  )
  expect(answers.every(({ status }) => status === 200)).toBe(true)
  const { rows } = await shop.pool.query('select count(filled)::int from bag where batch_id = $1', [id])
  expect([rows[0].count, (await packing(id)).state]).toEqual([all.length, 'packed'])
})

describe('changed after it was reserved', () => {
  const change = (id: number, lines: object[]) => odile.ask('PUT', `/batches/${id}/lines`, { lines })
  const lineOf = async (id: number) => (await odile.ask('GET', `/batches/${id}`)).body.lines[0]

  test('more kits, then fewer: what is filled stays filled, and only what must go goes', async () => {
    const id = await begin(3)
    const { itemId, bags } = green(await packing(id))
    const lineId = bags[0]?.lineId
    await fill(id, { lineId, kit: 3, itemId, quantity: 410 })
    const line = await lineOf(id)
    const { body: more } = await change(id, [{ ...line, kits: 5 }])
    expect([more.state, more.kits, more.toEmpty]).toEqual(['packing', 5, []])
    await ledger()
    const { body: fewer } = await change(id, [{ ...line, kits: 1 }])
    // The one that is begun is the one that stays.
    expect([fewer.state, fewer.kits, fewer.toEmpty]).toEqual(['packing', 1, []])
    const left = await packing(id)
    expect([bagsOf(left).map(({ kit }) => kit), filledIn(left).length]).toEqual([[3, 3, 3, 3, 3], 1])
    await ledger()
  })

  test('another colourway keeps what both take, and says which bags go back into their tubes', async () => {
    const id = await begin(2)
    const before = await packing(id)
    const { itemId, bags } = green(before)
    await fill(id, { lineId: bags[0]?.lineId, kit: 1, itemId, quantity: 400 })
    const { body } = await change(id, [{ ...(await lineOf(id)), colourwayId: 2, colourwayVersion: 1 }])
    expect(body.lines[0]).toMatchObject({ colourway: 'Ember and rust', kits: 2 })
    expect(body.toEmpty).toEqual([
      expect.stringMatching(/^Bag 1, Windlass pendant: 0.4 g of cylinder 11\/0 Lantern green/),
    ])
    expect((await packing(id)).tasks.some((task) => task.itemId === itemId)).toBe(false)
    await ledger()
  })

  test('what does not fit on the shelf changes nothing', async () => {
    const id = await begin(2)
    const before = await ledger()
    const { status, body } = await change(id, [{ ...(await lineOf(id)), kits: 4000 }])
    expect([status, body.code]).toEqual([409, 'short-of-stock'])
    expect(body.message).toContain('Nothing has been changed')
    expect(await ledger()).toEqual(before)
    expect((await odile.ask('GET', `/batches/${id}`)).body.kits).toBe(2)
  })

  test('a line that somebody else has changed meanwhile is not overwritten', async () => {
    const id = await begin(1)
    const line = await lineOf(id)
    expect((await change(id, [{ ...line, id: line.id + 1000 }])).body.code).toBe('crossed')
  })
})

describe('at the bench', () => {
  test('a spilt tube is scrapped; the bags that lose their promise are filled from another lot', async () => {
    const id = await begin(3)
    const { itemId, lotId, bags } = green(await packing(id))
    await fill(id, { lineId: bags[0]?.lineId, kit: 1, itemId, quantity: 400 })
    const tube = (await ledger()).get(lotId ?? 0)
    // All that is free, and one bag's beads beside.
    const quantity = (tube?.onHand ?? 0) - (tube?.reserved ?? 0) + 300
    const lost = { itemId, lotId, how: 'spilt', quantity }
    const answer = await odile.ask<Packing>('POST', `/batches/${id}/losses`, lost)
    expect(answer.status).toBe(200)
    const of = answer.body.tasks.filter((task) => task.itemId === itemId)
    expect(of.map((task) => [task.lotId === lotId, task.bags.map(({ kit }) => kit)])).toEqual(
      expect.arrayContaining([
        [true, [1, 2]],
        [false, [3]],
      ]),
    )
    expect((await ledger()).get(lotId ?? 0)?.onHand).toBe((tube?.onHand ?? 0) - quantity)
    expect((await odile.ask('GET', `/items/${itemId}`)).body.moves).toContainEqual(
      expect.objectContaining({ kind: 'scrap', reason: 'spilt while packing', onHand: -quantity }),
    )
  })

  test('another lot for all the bags that are still empty; beads that weigh otherwise are weighed otherwise', async () => {
    const id = await begin(3)
    const { itemId, lotId, bags } = green(await packing(id))
    await fill(id, { lineId: bags[0]?.lineId, kit: 1, itemId, quantity: 400 })
    const { body: made } = await odile.ask('POST', `/items/${itemId}/lots`, {
      code: 'HEAVY',
      receivedOn: '2026-11-20',
      quantity: 9000,
    })
    expect((await odile.ask('POST', `/lots/${made.lotId}/weighing`, { beads: 10, mg: 100 })).body.path).toBe('beads')
    await odile.ask('POST', `/lots/${made.lotId}/weighing`, { beads: 100, mg: 1040 })
    const swap = (toLotId: number) =>
      odile.ask<Packing>('POST', `/batches/${id}/swaps`, { itemId, fromLotId: lotId, toLotId })
    expect((await swap(999_999)).body).toMatchObject({ code: 'no-such-lot' })
    const { body } = await swap(made.lotId)
    const heavy = body.tasks.find((task) => task.lotId === made.lotId)
    // 63 beads of 10.4 mg are 655.2 mg.
    expect(heavy?.bags.map(({ kit, least }) => [kit, least])).toEqual([
      [2, 656],
      [3, 656],
    ])
    expect(heavy?.bags[0]?.target).toBeGreaterThan(700)
    await ledger()
    const next = await begin(1)
    expect(green(await packing(next)).lotId).not.toBe(made.lotId)
  })

  test('where no other lot holds it the bag stays open, and is laid out once there is more', async () => {
    const id = await begin(2)
    const found = await packing(id)
    const stone = found.tasks.find(({ unit, name }) => unit === 'piece' && name.includes('stone')) as PackingTask
    const { lots } = (await odile.ask('GET', `/items/${stone.itemId}`)).body
    // Every other lot is sold out first.
    for (const lot of lots)
      if (lot.onHand > lot.reserved)
        await odile.ask('POST', `/lots/${lot.id}/moves`, {
          kind: 'sale',
          quantity: lot.onHand - lot.reserved,
          reason: 'counter',
        })
    const lost = { itemId: stone.itemId, lotId: stone.lotId, how: 'missing', quantity: 1 }
    const { body } = await odile.ask<Packing>('POST', `/batches/${id}/losses`, lost)
    const open = body.tasks.find((task) => task.itemId === stone.itemId && task.lotId === null)
    expect(open?.bags.map(({ kit }) => kit)).toEqual([2])
    const bag = { lineId: open?.bags[0]?.lineId, kit: 2, itemId: stone.itemId, quantity: 1 }
    expect((await fill(id, bag)).body.code).toBe('nothing-promised')
    await fillAll(id)
    expect((await odile.ask('POST', `/batches/${id}/close`, {})).body.code).toBe('wrong-state')
    await odile.ask('POST', `/items/${stone.itemId}/lots`, { code: 'ONE-MORE', receivedOn: '2026-11-20', quantity: 1 })
    await odile.ask('POST', `/batches/${id}/lay-out`, {})
    expect((await fill(id, bag)).status).toBe(200)
    expect((await odile.ask('POST', `/batches/${id}/close`, {})).body.state).toBe('closed')
    await ledger()
  })
})
