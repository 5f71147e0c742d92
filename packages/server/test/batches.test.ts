import { ledgerOf } from './ledger'
import { type Caller, openShop, type Shop } from './shop'

let shop: Shop
let bram: Caller
beforeAll(async () => {
  shop = await openShop()
  bram = await shop.as('bram')
})
afterAll(() => shop.close())

const line = { patternId: 1, version: 1, size: 'petite', colourwayId: 1, kits: 12 }
const plan = (more: object = {}) =>
  bram.ask('POST', '/batches', { name: 'Trial', dueOn: '2027-03-01', lines: [{ ...line, ...more }] })

describe('bad input', () => {
  test.each([
    [{ kits: 0 }, 'lines.0.kits', /at least 1/],
    [{ kits: -1 }, 'lines.0.kits', /at least 1/],
    [{ kits: 1.5 }, 'lines.0.kits', /whole/],
    [{ kits: 1e9 }, 'lines.0.kits', /at most 10,000/],
    [{ kits: 'twelve' }, 'lines.0.kits', /number of kits/],
    [{ colourwayId: undefined }, 'lines.0.colourwayId', /colourway/],
  ])('%j is refused at %s', async (more, path, message) => {
    const { status, body } = await plan(more)
    expect([status, body.path]).toEqual([400, path])
    expect(body.message).toMatch(message)
  })

  test('a version, a colourway or a day that is not there is named', async () => {
    expect((await plan({ version: 9 })).body).toMatchObject({ code: 'bad-line', path: 'lines.0.version' })
    expect((await plan({ colourwayId: 3 })).body).toMatchObject({
      path: 'lines.0.colourwayId',
      message: expect.stringContaining("another pattern's"),
    })
    const late = await bram.ask('POST', '/batches', { name: 'Trial', dueOn: '2027-02-30', lines: [line] })
    expect(late.body.path).toBe('dueOn')
    expect((await bram.ask('POST', '/batches', { name: 'Trial', dueOn: '2027-03-01', lines: [] })).body.path).toBe(
      'lines',
    )
  })

  test('a size that the pattern has not is a trouble of its line, and cannot be reserved', async () => {
    const { body } = await plan({ size: 'vast' })
    expect(body.outlook).toMatchObject({
      ready: false,
      lines: [
        { troubles: [expect.stringContaining('no size "vast"'), 'S has no item in this colourway.'], couldMake: 0 },
      ],
    })
    const { status, body: refused } = await bram.ask('POST', `/batches/${body.id}/reserve`, {})
    expect([status, refused.code]).toEqual([422, 'not-makeable'])
  })

  test('no batch was made by any of these', async () => {
    const { rows } = await shop.pool.query(`select count(*)::int from batch where name = 'Trial'`)
    expect(rows[0].count).toBe(1)
  })

  test('a stone of another size than the pattern is a trouble of its line, and cannot be reserved', async () => {
    const { body: colourways } = await bram.ask('GET', '/patterns/1/colourways')
    const { choices } = colourways[0] as { choices: { role: string; size: string; itemId: number }[] }
    const classic = choices.find(({ role, size }) => role === 'S' && size === 'classic')
    const { body: wrong } = await bram.ask('POST', '/patterns/1/colourways', {
      name: 'Too large a stone',
      choices: choices.map((choice) =>
        choice.role === 'S' && choice.size === 'petite' ? { ...choice, itemId: classic?.itemId } : choice,
      ),
    })
    const { body } = await plan({ size: 'petite', colourwayId: wrong.id })
    expect(body.outlook.lines[0]).toMatchObject({
      troubles: [
        'S is round, 14 mm here, and the stone that is chosen is round, 18 mm. Choose another stone, or another size of the pattern.',
      ],
      couldMake: 0,
    })
    expect((await bram.ask('POST', `/batches/${body.id}/reserve`, {})).body.code).toBe('not-makeable')
  })
})

describe('a batch of 12 Windlass kits, petite, in Lantern', () => {
  test('takes 12 times the bill: 0.4 g A, 0.1 g B, 0.4 g C, a stone, 120 cm of thread as its form has it', async () => {
    const { body } = await plan()
    expect(body.outlook.ready).toBe(true)
    expect(body.outlook.items.map(({ needed, unit }: { needed: number; unit: string }) => `${needed} ${unit}`)).toEqual(
      ['4800 mg', '1200 mg', '4800 mg', '12 piece', '14400 mm'],
    )
  })

  test('of 500 it says what is short, from which kit on, and who holds some', async () => {
    const { body } = await bram.ask('POST', '/batches/outlook', { lines: [{ ...line, kits: 500 }] })
    const stone = body.items.find(({ unit }: { unit: string }) => unit === 'piece')
    // 42 received, 6 promised to the Saturday class: 36 left.
    expect(stone).toMatchObject({ needed: 500, onHand: 42, promised: 6, free: 36, short: 464, shortFromKit: 37 })
    expect(stone.heldBy).toEqual([expect.objectContaining({ name: 'Saturday class: first bezel', quantity: 6 })])
    expect(body.lines[0].couldMake).toBe(36)
    expect(body.ready).toBe(false)
  })

  test('keeps the colourway and the version it was planned with', async () => {
    const { body: planned } = await plan()
    const { body: colourway } = await bram.ask('GET', '/patterns/1/colourways')
    const { id, name, choices } = colourway[0]
    const changed = choices.map((choice: { role: string; itemId: number }) =>
      choice.role === 'A' ? { ...choice, itemId: choice.itemId + 2 } : choice,
    )
    await bram.ask('PUT', `/colourways/${id}`, { name, choices: changed })
    const { body: after } = await bram.ask('GET', `/batches/${planned.id}`)
    expect(after.outlook).toEqual(planned.outlook)
    const { body: next } = await plan()
    expect(next.lines[0].colourwayVersion).toBe(2)
    expect(next.outlook.items[0].itemId).not.toBe(planned.outlook.items[0].itemId)
  })

  test('holds what it needs while it is reserved, and nothing once it is given back', async () => {
    const { body: planned } = await plan()
    const lines = [{ ...line, kits: 3 }]
    await bram.ask('POST', `/batches/${planned.id}/reserve`, {})
    const { body: held } = await bram.ask('GET', `/batches/${planned.id}`)
    expect(
      held.outlook.items.every((item: { promisedHere: number; needed: number }) => item.promisedHere === item.needed),
    ).toBe(true)
    await bram.ask('POST', `/batches/${planned.id}/release`, {})
    expect((await bram.ask('PUT', `/batches/${planned.id}/lines`, { lines })).body.kits).toBe(3)
  })
})

describe('another bead in one line of one batch', () => {
  const made = async () => (await plan()).body.id as number
  const itemOf = async (code: string) => {
    const { body } = await bram.ask<{ id: number; code: string }[]>('GET', '/items')
    return (body.find((each) => each.code === code) as { id: number }).id
  }

  test('changes its bill by the way chosen, and nobody else is offered it', async () => {
    const id = await made()
    const itemId = await itemOf('TC101')
    const exact = async (counting: string) => {
      const { status, body } = await bram.ask('POST', `/batches/${id}/lines/1/substitute`, {
        role: 'A',
        itemId,
        counting,
      })
      expect(status).toBe(200)
      expect(body.lines[0]).toMatchObject({ ownColourway: true })
      return body.outlook.lines[0].bill.find((each: { itemId: number }) => each.itemId === itemId).exact
    }
    expect(await exact('all')).toBe(56)
    expect(await exact('none')).toBe(63)
    const { body: lantern } = await bram.ask('GET', '/patterns/1/colourways')
    expect(lantern.find((each: { id: number }) => each.id === 1)).toMatchObject({ version: 2, batchId: null })
    // Not for another batch, though its number is known.
    const { body: own } = await bram.ask('GET', `/batches/${id}`)
    const { colourwayVersion } = own.lines[0]
    expect((await plan({ colourwayVersion })).body).toMatchObject({
      code: 'bad-line',
      path: 'lines.0.colourwayVersion',
      message: expect.stringContaining('for another batch'),
    })
    // Its own keeps it when the number of kits changes, and gives it up when the newest is asked for.
    const put = (more: object) => bram.ask('PUT', `/batches/${id}/lines`, { lines: [{ ...line, kits: 7, ...more }] })
    expect((await put({ colourwayVersion })).body.lines[0]).toMatchObject({ ownColourway: true, kits: 7 })
    expect((await put({})).body.lines[0]).toMatchObject({ ownColourway: false, colourwayVersion: 2 })
  })

  test('an item, a line or a state that will not do is refused, and nothing changes', async () => {
    const id = await made()
    const substitute = (at: number, itemId: number) =>
      bram.ask('POST', `/batches/${id}/lines/${at}/substitute`, { role: 'A', itemId })
    expect((await substitute(1, 99_999)).body).toMatchObject({ code: 'no-such-item' })
    expect((await substitute(2, 1)).status).toBe(404)
    const { body } = await bram.ask('GET', `/batches/${id}`)
    expect(body.lines[0]).toMatchObject({ ownColourway: false, colourwayVersion: 2 })
    await bram.ask('POST', `/batches/${id}/cancel`, {})
    expect((await substitute(1, 1)).body).toMatchObject({ code: 'wrong-state' })
    // Called off by mistake, it is planned again with its lines.
    const { body: again } = await bram.ask('POST', `/batches/${id}/plan-again`, {})
    expect([again.state, again.lines]).toEqual(['draft', body.lines])
    expect((await bram.ask('POST', `/batches/${id}/plan-again`, {})).body).toMatchObject({ code: 'wrong-state' })
  })

  test('for some of the kits of a reserved batch it changes the pattern, the bill and what is held', async () => {
    const id = await made()
    await bram.ask('POST', `/batches/${id}/reserve`, {})
    const itemId = await itemOf('TC101')
    const { body } = await bram.ask('POST', `/batches/${id}/lines/1/substitute`, { role: 'A', itemId, kits: 5 })
    expect(
      body.lines.map(({ kits, ownColourway }: { kits: number; ownColourway: boolean }) => [kits, ownColourway]),
    ).toEqual([
      [7, false],
      [5, true],
    ])
    const { body: story } = await bram.ask('GET', `/items/${itemId}`)
    const bill = body.outlook.lines[1].bill.find((each: { itemId: number }) => each.itemId === itemId)
    expect(story.promises).toEqual([expect.objectContaining({ batchId: id, quantity: 5 * bill.quantity })])
    await ledgerOf(shop.pool)
  })
})
