import { randomUUID } from 'node:crypto'
import { type Caller, openShop, type Shop } from './shop'

let shop: Shop
let odile: Caller
beforeAll(async () => {
  shop = await openShop()
  odile = await shop.as('odile')
})
afterAll(() => shop.close())

const lotOf = async (code: string): Promise<{ id: number; onHand: number; reserved: number; itemId: number }> => {
  const { rows } = await shop.pool.query(
    'select lot.id, lot.item_id as "itemId", on_hand::int as "onHand", reserved::int from lot join balance on lot_id = lot.id where code = $1',
    [code],
  )
  return rows[0]
}

/** Every lot's balance against the sum of its moves, and the rules that no moment may break. */
async function ledgerAddsUp(): Promise<void> {
  const { rows } = await shop.pool.query(
    `
    select lot.code, on_hand, reserved, coalesce(sum(m.on_hand), 0) as moved, coalesce(sum(m.reserved), 0) as held from lot
    join (select lot_id, on_hand, reserved from balance) b on b.lot_id = lot.id
    left join (select lot_id, on_hand, reserved from move) m on m.lot_id = lot.id
    group by lot.code, b.on_hand, b.reserved`.replace(
      'select lot.code, on_hand, reserved',
      'select lot.code, b.on_hand, b.reserved',
    ),
  )
  for (const row of rows) {
    expect([row.code, Number(row.moved), Number(row.held)]).toEqual([
      row.code,
      Number(row.on_hand),
      Number(row.reserved),
    ])
    expect(Number(row.reserved)).toBeGreaterThanOrEqual(0)
    expect(Number(row.on_hand)).toBeGreaterThanOrEqual(Number(row.reserved))
  }
}

const planned = async (kits: number, line = { patternId: 3, version: 1, size: 'small', colourwayId: 6 }) => {
  const { body } = await odile.ask('POST', '/batches', {
    name: `Trial of ${kits}`,
    dueOn: '2027-03-01',
    lines: [{ ...line, kits }],
  })
  return body.id as number
}

test('the demo shop has some 250 items of beads, stones, thread and kits, and its ledger adds up', async () => {
  const { body } = await odile.ask('GET', '/items')
  expect(body.length).toBeGreaterThan(250)
  const beads = body.filter((item: { kind: string; size: string }) => item.kind === 'cylinder' && item.size === '11/0')
  expect(new Set(beads.map((item: { bead: { lengthMm: number } }) => item.bead.lengthMm))).toEqual(new Set([1.3, 1.4]))
  await ledgerAddsUp()
})

describe('moves by hand', () => {
  test('take from a lot what is free and no more; a refusal changes nothing', async () => {
    const before = await lotOf('BC101/1')
    expect(before.reserved).toBeGreaterThan(0)
    const free = before.onHand - before.reserved
    const path = `/lots/${before.id}/moves`
    const over = await odile.ask('POST', path, { kind: 'sale', quantity: free + 1, reason: 'counter' })
    expect([over.status, over.body.code, over.body.path]).toEqual([409, 'short-of-stock', 'quantity'])
    expect(await lotOf('BC101/1')).toEqual(before)
    expect((await odile.ask('POST', path, { kind: 'sale', quantity: free, reason: 'counter' })).status).toBe(200)
    expect((await lotOf('BC101/1')).onHand).toBe(before.reserved)
    await ledgerAddsUp()
  })

  test.each([
    [{ kind: 'sale', quantity: 0, reason: 'x' }, 'quantity'],
    [{ kind: 'sale', quantity: -5, reason: 'x' }, 'quantity'],
    [{ kind: 'sale', quantity: 1.5, reason: 'x' }, 'quantity'],
    [{ kind: 'sale', quantity: 1e12, reason: 'x' }, 'quantity'],
    [{ kind: 'gift', quantity: 5, reason: 'x' }, 'kind'],
    [{ kind: 'sale', quantity: 5, reason: '  ' }, 'reason'],
  ])('%j is refused for its %s', async (body, path) => {
    const lot = await lotOf('BC108/1')
    const answer = await odile.ask('POST', `/lots/${lot.id}/moves`, body)
    expect([answer.status, answer.body.path]).toEqual([400, path])
    expect(await lotOf('BC108/1')).toEqual(lot)
  })

  test('a repeated request acts once, and its key does not serve for anything else', async () => {
    const lot = await lotOf('BC108/1')
    const key = randomUUID()
    const sale = { kind: 'sale', quantity: 100, reason: 'counter' }
    const answers = await Promise.all([1, 2, 3].map(() => odile.ask('POST', `/lots/${lot.id}/moves`, sale, { key })))
    expect(new Set(answers.map(({ body }) => body.moveId)).size).toBe(1)
    expect((await lotOf('BC108/1')).onHand).toBe(lot.onHand - 100)
    const other = await lotOf('BC115/1')
    expect((await odile.ask('POST', `/lots/${other.id}/moves`, sale, { key })).body.code).toBe('key-used')
    expect((await odile.ask('POST', `/lots/${lot.id}/moves`, sale, { key: 'short' })).body.code).toBe('no-key')
  })

  test('the ledger is only added to, and balances are written by moves alone', async () => {
    await expect(shop.pool.query('update move set on_hand = 1')).rejects.toThrow('only added to')
    await expect(shop.pool.query('delete from move')).rejects.toThrow('only added to')
    await expect(shop.pool.query('update balance set on_hand = 1')).rejects.toThrow('not written by hand')
    const lot = await lotOf('BC115/1')
    const insert =
      'insert into move (lot_id, kind, on_hand, reserved, person_id, idempotency_key) values ($1, $2, $3, 0, 1, $4)'
    await expect(shop.pool.query(insert, [lot.id, 'sale', -lot.onHand - 1, 'past nought'])).rejects.toThrow('balance_')
    await expect(shop.pool.query(insert, [lot.id, 'receive', -5, 'wrong way'])).rejects.toThrow('move_kind')
  })
})

describe('reserving', () => {
  test('the last grams twice at once: exactly one batch gets them', async () => {
    // 1.2 g of TR-108 at 0.2 g a kit are six kits.
    const ids = await Promise.all([planned(6), planned(6), planned(6), planned(6)])
    const answers = await Promise.all(ids.map((id) => odile.ask('POST', `/batches/${id}/reserve`, {})))
    expect(answers.map(({ status }) => status).sort()).toEqual([200, 409, 409, 409])
    for (const { status, body } of answers)
      if (status === 409) expect(body).toMatchObject({ code: 'short-of-stock', path: 'lines.0' })
    expect(await lotOf('TR108/1')).toMatchObject({ onHand: 1200, reserved: 1200 })
    await ledgerAddsUp()
    const winner = ids[answers.findIndex(({ status }) => status === 200)]
    const back = await odile.ask('POST', `/batches/${winner}/release`, {})
    expect(back.body.state).toBe('draft')
    expect(await lotOf('TR108/1')).toMatchObject({ onHand: 1200, reserved: 0 })
    await ledgerAddsUp()
  })

  test('is all or nothing: what there is enough of stays free when one item is short', async () => {
    const before = await shop.pool.query('select count(*) from move')
    const id = await planned(7)
    const { status, body } = await odile.ask('POST', `/batches/${id}/reserve`, {})
    expect(status).toBe(409)
    expect(body.message).toContain('from kit 7 on')
    expect((await shop.pool.query('select count(*) from move')).rows).toEqual(before.rows)
    expect((await odile.ask('GET', `/batches/${id}`)).body.state).toBe('draft')
  })

  test('pressed twice, it reserves once; with another key it is told that it is reserved', async () => {
    const id = await planned(2)
    const key = randomUUID()
    const twice = await Promise.all([1, 2].map(() => odile.ask('POST', `/batches/${id}/reserve`, {}, { key })))
    expect(twice.map(({ status }) => status)).toEqual([200, 200])
    expect((await lotOf('TR108/1')).reserved).toBe(400)
    expect((await odile.ask('POST', `/batches/${id}/reserve`, {})).body.code).toBe('wrong-state')
    await odile.ask('POST', `/batches/${id}/cancel`, {})
    expect((await lotOf('TR108/1')).reserved).toBe(0)
    expect((await odile.ask('POST', `/batches/${id}/release`, {})).body.code).toBe('wrong-state')
  })

  test('many hands at once, reserving, releasing and selling: the ledger adds up at the end', async () => {
    const ids = await Promise.all(Array.from({ length: 6 }, () => planned(3)))
    const lot = await lotOf('TR108/1')
    const answers = await Promise.all(
      Array.from({ length: 48 }, (_, i) => {
        const id = ids[i % ids.length]
        if (i % 4 === 3)
          return odile.ask('POST', `/lots/${lot.id}/moves`, {
            kind: i % 8 === 3 ? 'sale' : 'receive',
            quantity: 60,
            reason: 'rush',
          })
        return odile.ask('POST', `/batches/${id}/${i % 3 === 0 ? 'release' : 'reserve'}`, {})
      }),
    )
    expect(answers.filter(({ status }) => status >= 500)).toEqual([])
    expect(answers.filter(({ status }) => status === 200).length).toBeGreaterThan(0)
    await ledgerAddsUp()
    const { rows } = await shop.pool.query(
      `select batch.state, coalesce(sum(move.reserved), 0)::int as held from batch left join move on batch_id = batch.id where batch.id = any($1) group by batch.id`,
      [ids],
    )
    // Reserved batches hold something of everything, drafts hold nothing: none is half done.
    for (const { state, held } of rows) expect(held > 0).toBe(state === 'reserved')
  })
})

describe('a wrong move', () => {
  const post = async (kind: string, quantity: number) =>
    (await odile.ask('POST', '/lots/2/moves', { kind, quantity, reason: 'a slip' })).body.moveId as number
  const onHand = async () =>
    (await shop.pool.query('select on_hand::int from balance where lot_id = 2')).rows[0].on_hand

  test('is taken back by another, once, whoever tries at the same time; both stay in the ledger', async () => {
    const before = await onHand()
    const id = await post('sale', 700)
    expect(await onHand()).toBe(before - 700)
    const back = () => odile.ask('POST', `/moves/${id}/reverse`, { reason: 'posted by mistake' })
    const statuses = (await Promise.all([back(), back(), back()])).map(({ status }) => status).sort()
    expect(statuses).toEqual([200, 409, 409])
    expect(await onHand()).toBe(before)
    const { body } = await odile.ask('GET', '/items/1')
    expect(body.moves.find((move: { id: number }) => move.id === id)).toMatchObject({ reversed: true, onHand: -700 })
    expect(body.moves[0]).toMatchObject({ kind: 'reverse', onHand: 700, reversed: false })
  })

  test('that has been built upon is not: what it brought is sold or promised', async () => {
    const id = await post('receive', 500)
    await post('sale', await onHand())
    const { status, body } = await odile.ask('POST', `/moves/${id}/reverse`, { reason: 'never came' })
    expect([status, body.code]).toEqual([409, 'short-of-stock'])
    expect(await onHand()).toBe(0)
  })

  test('of a batch is not reversed by hand, and a reversal itself is not reversed', async () => {
    const { rows } = await shop.pool.query(
      `select id::int from move where kind in ('reserve', 'reverse') order by id limit 2`,
    )
    for (const { id } of rows)
      expect((await odile.ask('POST', `/moves/${id}/reverse`, { reason: 'x' })).body.code).toBe('not-by-hand')
    expect((await odile.ask('POST', '/moves/1/reverse', {})).body.path).toBe('reason')
  })
})

test("an item's story ends with what is there, and its promises are those of the batches that hold it", async () => {
  const { body: items } = await odile.ask<{ id: number }[]>('GET', '/items')
  for (const { id } of items) {
    const { body } = await odile.ask('GET', `/items/${id}`)
    const last = body.days[body.days.length - 1] ?? { onHand: 0, reserved: 0 }
    expect([last.onHand, last.reserved]).toEqual([body.onHand, body.reserved])
    const promised = body.promises.reduce((sum: number, each: { quantity: number }) => sum + each.quantity, 0)
    expect(promised).toBe(body.reserved)
    expect([...body.days].sort((a, b) => a.day.localeCompare(b.day))).toEqual(body.days)
  }
})

test('an item that is not there is told so', async () => {
  const { status, body } = await odile.ask('GET', '/items/999999')
  expect([status, body.code]).toEqual([404, 'not-found'])
})

test("an item's days are those of its moves, however they were written down, and by the shop's own clock", async () => {
  const { id: lot, itemId } = await lotOf('BC108/1')
  const look = async (timeZone: string) => {
    const { rows } = await shop.pool.query<{ at: Date; onHand: number; reserved: number }>(
      `select at, move.on_hand::int as "onHand", reserved::int from move join lot on lot.id = lot_id where item_id = $1 order by at`,
      [itemId],
    )
    const days = new Map<string, { onHand: number; reserved: number }>()
    const all = { onHand: 0, reserved: 0 }
    for (const { at, onHand, reserved } of rows) {
      all.onHand += onHand
      all.reserved += reserved
      days.set(new Intl.DateTimeFormat('sv-SE', { timeZone }).format(at), { ...all })
    }
    const { body } = await odile.ask('GET', `/items/${itemId}`)
    expect(body.days).toEqual([...days].map(([day, left]) => ({ day, ...left })))
    return days.size
  }
  const add = (at: string, id: string) =>
    shop.pool.query(
      `insert into move (id, lot_id, kind, on_hand, reserved, reason, person_id, at, idempotency_key) overriding system value
       values (${id}, $1, 'correction', 7, 0, 'in the test', 1, $2, $3)`,
      [lot, at, randomUUID()],
    )
  const next = `nextval(pg_get_serial_sequence('move', 'id'))`
  const before = await look('Europe/London')
  const { rows } = await shop.pool.query(`select ${next} as taken`)
  expect((await odile.ask('POST', `/lots/${lot}/moves`, { kind: 'receive', quantity: 9, reason: 'x' })).status).toBe(
    200,
  )
  await look('Europe/London')
  // Numbered before the last and written after it; by a clock that was set back; and twice on a day, some minutes from its end.
  await add('now', rows[0].taken)
  await look('Europe/London')
  await add('2025-03-03 12:00Z', next)
  await add('2031-01-05 23:50Z', next)
  await look('Europe/London')
  await add('2031-01-06 00:10Z', next)
  expect(await look('Europe/London')).toBeGreaterThanOrEqual(before + 3)
  await shop.pool.query(`
    insert into shop_setting (id, settings) values (1, '{"profile": {"timeZone": "Asia/Tokyo"}}')
    on conflict (id) do update set settings = jsonb_set(shop_setting.settings, '{profile,timeZone}', '"Asia/Tokyo"')`)
  await look('Asia/Tokyo')
})
