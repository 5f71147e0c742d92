import { ledgerOf } from './ledger'
import { type Caller, openShop, type Shop } from './shop'

let shop: Shop
let odile: Caller
beforeAll(async () => {
  shop = await openShop()
  odile = await shop.as('odile')
})
afterAll(() => shop.close())

const itemOf = async (code: string) => (await odile.ask('GET', `/shelf?find=${code}`)).body.items[0]
const story = async (id: number) => (await odile.ask('GET', `/items/${id}`)).body

describe('looking along the shelf', () => {
  const page = async (query: string) => (await odile.ask('GET', `/shelf?${query}`)).body

  test.each(['colour', 'code', 'kind', 'place'])(
    'by %s, page after page: every item once, and in order',
    async (by) => {
      const walk = async (limit: number) => {
        const found: number[] = []
        let total: number | undefined
        let after: string | null = null
        do {
          const next: { items: { id: number }[]; next: string | null; total?: number } = await page(
            `by=${by}&limit=${limit}${after === null ? '' : `&after=${encodeURIComponent(after)}`}`,
          )
          total ??= next.total
          found.push(...next.items.map(({ id }) => id))
          after = next.next
        } while (after !== null)
        return { found, total }
      }
      const [few, many] = [await walk(17), await walk(200)]
      expect(few).toEqual(many)
      expect(new Set(few.found).size).toBe(few.total)
    },
  )

  test('by anything: part of a colour, a code, a maker, a place, a lot; every word must be there', async () => {
    for (const find of ['lanter', 'bc-101', 'brackwater lantern', 'BC101/2', 'a1 lantern'])
      expect((await page(`find=${encodeURIComponent(find)}`)).items[0]).toMatchObject({ colourCode: 'BC-101' })
    expect((await page('find=lantern%20tollhouse')).total).toBe(0)
    // What means something to the database is only a letter here.
    for (const find of ['%', '_', '\\', "'"]) expect((await page(`find=${encodeURIComponent(find)}`)).total).toBe(0)
  })

  test('what runs low is what has less free than it should', async () => {
    const { items, low, total } = await page('show=low&limit=200')
    expect(items.length).toBeGreaterThan(0)
    expect([low, total]).toEqual([items.length, items.length])
    for (const { onHand, reserved, reorderBelow } of items) expect(onHand - reserved).toBeLessThan(reorderBelow)
  })

  test('a page that cannot be found again says so', async () => {
    for (const after of ['x', '[]', '["a"]', '[1,2]', '["a","b"]'])
      expect((await odile.ask('GET', `/shelf?after=${encodeURIComponent(after)}`)).body).toMatchObject({
        code: 'bad-input',
        path: 'after',
      })
  })
})

describe('an item', () => {
  const good = {
    code: 'NX1',
    category: 'bead',
    maker: 'Nearby Makers',
    kind: 'round',
    size: '8/0',
    colourName: 'Lamplight',
    colour: '#c9a24a',
    unit: 'mg',
    barcode: '5099999000011',
    figures: { lengthMm: 2, acrossMm: 3, boreMm: 1, massMg: 26, contact: 2.5, bores: 1 },
    packs: [{ amount: 8000, price: 310, leadDays: 4 }],
  }

  test('is begun and changed, and found by its barcode', async () => {
    const { status, body } = await odile.ask('POST', '/items', good)
    expect([status, body.maker, body.packs]).toEqual([200, 'Nearby Makers', good.packs])
    expect((await itemOf('5099999000011')).id).toBe(body.id)
    const { body: changed } = await odile.ask('PUT', `/items/${body.id}`, { ...good, place: 'K2', packs: [] })
    expect(changed).toMatchObject({ id: body.id, place: 'K2', packs: [] })
    await odile.ask('POST', `/items/${body.id}/lots`, { code: 'N/1', receivedOn: '2026-11-01', quantity: 100 })
    expect((await odile.ask('PUT', `/items/${body.id}`, { ...good, unit: 'piece' })).body).toMatchObject({
      code: 'unit-in-use',
      path: 'unit',
    })
  })

  test.each([
    [{ code: 'BC101' }, 409, 'code'],
    [{ code: 'NX2', figures: null }, 400, 'figures'],
    [{ code: 'NX2', colour: 'green' }, 400, 'colour'],
    [{ code: 'NX2', figures: { ...good.figures, massMg: -1 } }, 400, 'figures.massMg'],
    [{ code: 'NX2', barcode: '5099999000011' }, 409, 'barcode'],
    [{ code: 'NX2', barcode: null, packs: [good.packs[0], good.packs[0]] }, 400, 'packs'],
  ])('%j is refused at its place', async (wrong, status, path) => {
    const answer = await odile.ask('POST', '/items', { ...good, ...wrong })
    expect([answer.status, answer.body.path]).toEqual([status, path])
    expect(await itemOf('NX2')).toBeUndefined()
  })
})

describe('lots', () => {
  test('part of one goes to another place and back; a whole tube takes its promises along', async () => {
    const { id } = await itemOf('BC101')
    const [first] = (await story(id)).lots
    const move = (lotId: number, body: object) => odile.ask('POST', `/lots/${lotId}/transfer`, body)
    expect((await move(first.id, { place: first.place, quantity: 5 })).body.code).toBe('there-already')
    expect((await move(first.id, { place: 'window', quantity: first.onHand })).body.code).toBe('short-of-stock')
    await move(first.id, { place: 'window', quantity: 5000 })
    const after = (await story(id)).lots
    const there = after.find((lot: { place: string }) => lot.place === 'window')
    expect(there).toMatchObject({ code: first.code, receivedOn: first.receivedOn, onHand: 5000 })
    expect((await story(id)).onHand).toBe(
      first.onHand + after.find((lot: { code: string }) => lot.code === 'BC101/2').onHand,
    )
    expect((await move(first.id, { place: 'window' })).body.code).toBe('part-is-there')
    await move(there.id, { place: first.place, quantity: 5000 })
    await move(first.id, { place: 'top shelf' })
    expect((await story(id)).lots.find((lot: { id: number }) => lot.id === first.id)).toMatchObject({
      place: 'top shelf',
      onHand: first.onHand,
      reserved: first.reserved,
    })
    const moved = (await story(id)).moves.filter(({ kind }: { kind: string }) => kind === 'transfer')
    expect(moved.map(({ onHand, reason }: { onHand: number; reason: string }) => [onHand, reason])).toEqual([
      [0, `the whole tube, from ${first.place} to top shelf`],
      [5000, 'from window'],
      [-5000, `to ${first.place}`],
      [5000, `from ${first.place}`],
      [-5000, 'to window'],
    ])
    await ledgerOf(shop.pool)
  })

  test('two tubes of a lot go to one place at the same moment: one tube lies there, with both in it', async () => {
    const { id } = await itemOf('BC101')
    const [first] = (await story(id)).lots
    const at = async (place: string) => (await story(id)).lots.filter((lot: { place: string }) => lot.place === place)
    const move = (lotId: number, place: string, quantity: number) =>
      odile.ask('POST', `/lots/${lotId}/transfer`, { place, quantity })
    for (let turn = 0; turn < 6; turn++) {
      await move(first.id, 'left', 60)
      const [left] = await at('left')
      const place = `there ${turn}`
      const answers = await Promise.all([move(first.id, place, 40), move(left.id, place, 60)])
      expect(answers.map(({ status }) => status)).toEqual([200, 200])
      expect((await at(place)).map(({ onHand }: { onHand: number }) => onHand)).toEqual([100])
    }
    await ledgerOf(shop.pool)
  })

  test('clocks may be set back: moves stay in the order in which they were written', async () => {
    const { id } = await itemOf('BC108')
    const [lot] = (await story(id)).lots
    await shop.pool.query(
      `insert into move (lot_id, kind, on_hand, reserved, person_id, at, idempotency_key, reason) values ($1, 'receive', 7, 0, 1, now() - interval '3 years', 'before', 'set back')`,
      [lot.id],
    )
    expect((await story(id)).moves[0].reason).toBe('set back')
  })

  test('the moves of an item are read page by page', async () => {
    const { id } = await itemOf('BC115')
    const [lot] = (await story(id)).lots
    await shop.pool.query(
      `insert into move (lot_id, kind, on_hand, reserved, person_id, idempotency_key) select $1, 'correction', case when n % 2 = 0 then 1 else -1 end, 0, 1, 'n' || n from generate_series(1, 240) n`,
      [lot.id],
    )
    const first = await story(id)
    const second = (await odile.ask('GET', `/items/${id}/moves?before=${first.moves[99].id}`)).body
    const third = (await odile.ask('GET', `/items/${id}/moves?before=${second.moves[99].id}`)).body
    expect([first.moreMoves, second.more, third.more]).toEqual([true, true, false])
    const ids = [first, second, third].flatMap(({ moves }) => moves.map((move: { id: number }) => move.id))
    expect(new Set(ids).size).toBe(ids.length)
    expect(ids).toEqual([...ids].sort((a, b) => b - a))
  })
})

describe('counting a place', () => {
  const begin = (place: string) => odile.ask('POST', '/stocktakes', { place })
  const count = (id: number, lotId: number, counted: number | null) =>
    odile.ask('PUT', `/stocktakes/${id}/lots/${lotId}`, { counted })

  test('what moves meanwhile is accounted for, and differences are posted with their cost', async () => {
    const { body: taking } = await begin('A3')
    expect(taking.rows.length).toBeGreaterThan(2)
    expect((await begin('A3')).body).toMatchObject({ code: 'counting-already' })
    const [one, two, three] = taking.rows
    await odile.ask('POST', `/lots/${one.lotId}/moves`, { kind: 'sale', quantity: 1000, reason: 'counter' })
    // Counted after the sale: 0.3 g less than the ledger has by then.
    await count(taking.id, one.lotId, one.frozen - 1300)
    await odile.ask('POST', `/lots/${one.lotId}/moves`, { kind: 'sale', quantity: 500, reason: 'counter' })
    await count(taking.id, two.lotId, two.frozen + 200)
    const { body: counted } = await count(taking.id, three.lotId, three.frozen)
    const [first, second] = counted.rows
    expect(first).toMatchObject({
      moved: -1000,
      expected: one.frozen - 1000,
      counted: one.frozen - 1300,
      countedBy: 'Odile Marrow',
    })
    expect([first.cost < 0, second.cost > 0]).toEqual([true, true])
    const { body: posted } = await odile.ask('POST', `/stocktakes/${taking.id}/post`, {})
    expect([posted.state, posted.counted]).toEqual(['posted', 3])
    const lots = await ledgerOf(shop.pool)
    expect(lots.get(one.lotId)?.onHand).toBe(one.frozen - 1300 - 500)
    expect(lots.get(two.lotId)?.onHand).toBe(two.frozen + 200)
    expect((await count(taking.id, one.lotId, 1)).body.code).toBe('wrong-state')
  })

  test('less than is promised posts nothing, and says to whom; left out, the rest is posted', async () => {
    const { body: taking } = await begin('A1')
    const row = taking.rows.find(({ name }: { name: string }) => name.includes('Tarnished brass'))
    await count(taking.id, row.lotId, 100)
    const post = () => odile.ask('POST', `/stocktakes/${taking.id}/post`, {})
    const before = await ledgerOf(shop.pool)
    const refused = await post()
    expect(refused.body).toMatchObject({ code: 'promised', path: String(row.lotId) })
    expect(refused.body.message).toContain('Saturday class')
    expect(await ledgerOf(shop.pool)).toEqual(before)
    await count(taking.id, row.lotId, null)
    expect((await post()).body.state).toBe('posted')
  })

  test('what lies in bags already is not looked for in the tube', async () => {
    const line = { patternId: 1, version: 1, size: 'petite', colourwayId: 1, kits: 1 }
    const { body } = await odile.ask('POST', '/batches', { name: 'One', dueOn: '2027-03-01', lines: [line] })
    await odile.ask('POST', `/batches/${body.id}/reserve`, {})
    const { tasks } = (await odile.ask('GET', `/batches/${body.id}/packing`)).body
    const stone = tasks.find(({ unit }: { unit: string }) => unit === 'piece')
    await odile.ask('PUT', `/batches/${body.id}/bags`, {
      lineId: stone.bags[0].lineId,
      kit: 1,
      itemId: stone.itemId,
      quantity: 1,
    })
    const { body: taking } = await begin(stone.place)
    const row = taking.rows.find(({ lotId }: { lotId: number }) => lotId === stone.lotId)
    const lot = (await ledgerOf(shop.pool)).get(stone.lotId)
    expect(row.frozen).toBe((lot?.onHand ?? 0) - 1)
    await odile.ask('POST', `/stocktakes/${taking.id}/abandon`, {})
  })
})

test('what was done can be read by the owner, newest first, and by nobody else', async () => {
  const isaura = await shop.as('isaura')
  const { entries } = (await isaura.ask('GET', '/audit')).body
  expect(entries[0]).toMatchObject({ by: 'Odile Marrow', what: 'abandoned the count of drawer 3' })
  expect(entries.map(({ what }: { what: string }) => what)).toContainEqual(
    'posted a sale of 0.5 g of Copper rivet: counter',
  )
  expect((await isaura.ask('GET', '/audit?find=count')).body.entries.length).toBeLessThan(entries.length)
  expect((await isaura.ask('GET', `/audit?before=${entries[2].id}`)).body.entries[0].id).toBe(entries[3].id)
  expect((await odile.ask('GET', '/audit')).status).toBe(403)
  await expect(shop.pool.query('delete from audit_entry')).rejects.toThrow('only added to')
})
