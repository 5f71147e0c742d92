import { randomUUID } from 'node:crypto'
import type { Batch, ListedBatch } from '@tessellum/contract/batches'
import type { ClassAnswer, ClassMove } from '@tessellum/contract/classes'
import type { Bench, Diary, FetchList } from '@tessellum/contract/diary'
import type { Order, SizedOrder } from '@tessellum/contract/orders'
import type { Packing } from '@tessellum/contract/packing'
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

const day = (days: number) => new Date(Date.now() + days * 86_400_000).toISOString().slice(0, 10)
const good = () => ({
  title: 'First bezel',
  heldOn: day(40),
  beginsAt: '10:00',
  minutes: 180,
  place: 'the long table',
  seats: 4,
  teacherId: 4,
  patternId: 1,
  version: 1,
  offers: [
    { size: 'petite', colourwayId: 1 },
    { size: 'petite', colourwayId: 2 },
  ],
  spareKits: 1,
  price: 4200,
})
const offer = (more: object = {}) =>
  isaura.ask<ClassAnswer & { path?: string; message?: string }>('POST', '/classes', { ...good(), ...more })
const book = (id: number, seat: number, body: object) => isaura.ask('PUT', `/classes/${id}/seats/${seat}`, body)

test.each([
  [{ seats: 0 }, 400, 'seats'],
  [{ heldOn: day(-3) }, 422, 'heldOn'],
  [{ beginsAt: '25:00' }, 400, 'beginsAt'],
  [{ offers: [] }, 400, 'offers'],
  [{ offers: [{ size: 'petite', colourwayId: 999 }] }, 422, 'offers.0.colourwayId'],
  [{ teacherId: 99 }, 422, 'teacherId'],
])('%j is refused at its place', async (wrong, status, path) => {
  const answer = await offer(wrong)
  expect([answer.status, answer.body.path]).toEqual([status, path])
})

test('a class from its offer to its leftovers: booked, planned, changed, packed, taught', async () => {
  const { body: made } = await offer()
  const { id } = made
  expect(made).toMatchObject({ booked: 0, readiness: 'unplanned', offers: [{ kits: 5 }, { kits: 0 }] })
  // A beginner's piece needs more than its three hours; a practised hand's does not.
  const left = Object.fromEntries(made.plans.map((plan) => [plan.pace, plan.left]))
  expect(left.practised).toBeGreaterThan(left.beginner as number)
  expect(made.cost.seat).toBeGreaterThan(made.cost.kit)
  expect(made.cost.suggested).toBeGreaterThan(made.cost.seat)

  await book(id, 1, { name: 'Wren', offer: 0 })
  const { body: second } = await book(id, 2, { name: 'Teal', offer: 1 })
  expect(second.offers.map(({ kits }: { kits: number }) => kits)).toEqual([4, 1])
  expect((await book(id, 2, { name: 'Smew', offer: 0 })).body).toMatchObject({ code: 'seat-taken', path: 'seat' })
  expect((await book(id, 5, { name: 'Smew', offer: 0 })).body).toMatchObject({ code: 'no-such-seat' })
  expect((await book(id, 3, { name: 'Smew', offer: 7 })).body).toMatchObject({ code: 'not-offered' })
  expect((await isaura.ask('PUT', `/classes/${id}`, { ...good(), seats: 1 })).body).toMatchObject({
    code: 'booked',
    path: 'seats',
  })

  const { body: planned } = await isaura.ask<ClassAnswer>('POST', `/classes/${id}/kits`, {})
  const batchId = planned.batchId as number
  expect(planned.readiness).toBe('to reserve')
  await isaura.ask('POST', `/batches/${batchId}/reserve`, {})
  // A third seat wants the other colourway: its batch follows, and holds no more than it needs.
  expect((await book(id, 3, { name: 'Smew', offer: 1 })).body.readiness).toBe('to change')
  expect((await isaura.ask<ClassAnswer>('POST', `/classes/${id}/kits`, {})).body.readiness).toBe('to pack')
  const { body: batch } = await isaura.ask<Batch>('GET', `/batches/${batchId}`)
  expect(batch.lines.map(({ colourwayId, kits }) => [colourwayId, kits])).toEqual([
    [1, 3],
    [2, 2],
  ])
  await ledgerOf(shop.pool)
  expect((await isaura.ask('POST', `/classes/${id}/taught`, {})).body.code).toBe('kits-not-closed')
  await packAndClose(isaura, batchId)
  expect((await isaura.ask('GET', `/classes/${id}`)).body.readiness).toBe('ready')
  const price = (await isaura.ask('GET', `/batches/${batchId}/price`)).body
  expect([price.byLots, price.price > price.cost, price.lines.length]).toEqual([true, true, 2])
  // More kits, fewer beads left over in packs.
  const anew = price.boughtAnew.map(({ materials }: { materials: number }) => materials)
  expect(anew).toHaveLength(3)
  expect([...anew].sort((a, b) => b - a)).toEqual(anew)

  const { body: taught } = await isaura.ask('POST', `/classes/${id}/taught`, {})
  expect([taught.state, taught.readiness]).toEqual(['taught', 'over'])
  // Three seats had theirs; the spare ones lie on the kits' shelf.
  const { items } = (await isaura.ask('GET', '/shelf?show=kits')).body
  const own = items.filter(({ size }: { size: string }) => size === 'petite')
  expect(own.map(({ onHand }: { onHand: number }) => onHand).sort()).toEqual([0, 2])
  expect((await book(id, 4, { name: 'Late', offer: 0 })).body.code).toBe('wrong-state')
  await ledgerOf(shop.pool)

  // Put down too early: for a day it is opened again, and every kit is kept for it as before.
  expect(taught.undoable).toBe(true)
  const { body: open } = await isaura.ask<ClassAnswer>('POST', `/classes/${id}/reopen`, {})
  expect([open.state, open.readiness, open.undoable]).toEqual(['offered', 'ready', false])
  expect((await isaura.ask('POST', `/classes/${id}/reopen`, {})).body.code).toBe('wrong-state')
  const kept = (await isaura.ask('GET', '/shelf?show=kits')).body.items
    .filter(({ size }: { size: string }) => size === 'petite')
    .map(({ onHand, reserved }: { onHand: number; reserved: number }) => [onHand, reserved])
  expect(kept.sort()).toEqual([
    [2, 2],
    [3, 3],
  ])
  await ledgerOf(shop.pool)
  await isaura.ask('POST', `/classes/${id}/taught`, {})
  await shop.pool.query(`update class set over_at = now() - interval '25 hours' where id = $1`, [id])
  expect((await isaura.ask('POST', `/classes/${id}/reopen`, {})).body.code).toBe('wrong-state')
})

test('a class that is moved takes its batch along, and what no longer fits in time is told before', async () => {
  const { body: made } = await offer({ title: 'Moved bezel' })
  await isaura.ask('POST', `/classes/${made.id}/kits`)
  const batchOf = async () => {
    const { batchId } = (await isaura.ask<ClassAnswer>('GET', `/classes/${made.id}`)).body
    return (await isaura.ask<Batch>('GET', `/batches/${batchId}`)).body
  }
  expect(await batchOf()).toMatchObject({ dueOn: day(40), name: 'Moved bezel' })
  const asked = async (heldOn: string) =>
    (await isaura.ask<ClassMove>('GET', `/classes/${made.id}/move?heldOn=${heldOn}`)).body
  expect(await asked(day(60))).toEqual({ packBy: null, late: [], clashes: [] })
  // Nothing can be packed days before today.
  expect((await asked(day(0))).packBy).toMatch(/^\d{4}-\d\d-\d\d$/)
  expect(await batchOf()).toMatchObject({ dueOn: day(40) })
  const moved = { ...good(), title: 'Moved evening', heldOn: day(60) }
  expect((await isaura.ask('PUT', `/classes/${made.id}`, moved)).status).toBe(200)
  expect(await batchOf()).toMatchObject({ dueOn: day(60), name: 'Moved evening' })
  // A batch that is due after its class is not in step with it, and is brought back.
  const { id: batchId } = await batchOf()
  await isaura.ask('PUT', `/batches/${batchId}`, { name: 'Renamed by hand', dueOn: day(70), priority: 2 })
  const readiness = async () => (await isaura.ask<ClassAnswer>('GET', `/classes/${made.id}`)).body.readiness
  expect(await readiness()).toBe('to change')
  await isaura.ask('POST', `/classes/${made.id}/kits`)
  expect([await readiness(), await batchOf()]).toEqual([
    'to reserve',
    expect.objectContaining({ dueOn: day(60), name: 'Renamed by hand' }),
  ])
  await isaura.ask('PUT', `/classes/${made.id}`, { ...moved, title: 'Third name', heldOn: day(61) })
  expect(await batchOf()).toMatchObject({ dueOn: day(61), name: 'Renamed by hand' })
  const { body: other } = await offer({ title: 'Same day', heldOn: day(50) })
  expect((await asked(day(50))).clashes).toEqual([{ id: other.id, title: 'Same day', beginsAt: '10:00' }])
})

test('planning the kits of a class, sent twice, plans one batch, and says so both times', async () => {
  const { body: made } = await offer({ title: 'Sent twice' })
  const key = randomUUID()
  const plan = () => isaura.ask<ClassAnswer>('POST', `/classes/${made.id}/kits`, {}, { key })
  const [first, second] = [await plan(), await plan()]
  expect([first.status, second.status]).toEqual([200, 200])
  expect(second.body.batchId).toBe(first.body.batchId)
})

test('called off, a class gives back what its kits held', async () => {
  const before = await ledgerOf(shop.pool)
  const { body: made } = await offer({ title: 'Called off' })
  const { body: planned } = await isaura.ask<ClassAnswer>('POST', `/classes/${made.id}/kits`, {})
  await isaura.ask('POST', `/batches/${planned.batchId}/reserve`, {})
  await isaura.ask('POST', `/classes/${made.id}/cancel`, {})
  expect(await ledgerOf(shop.pool)).toEqual(before)
  expect((await isaura.ask('GET', `/batches/${planned.batchId}`)).body.state).toBe('cancelled')
  // Offered again, its kits are planned as they were.
  const { body: again } = await isaura.ask<ClassAnswer>('POST', `/classes/${made.id}/reopen`, {})
  expect([again.state, again.readiness]).toEqual(['offered', 'to reserve'])
  await isaura.ask('POST', `/classes/${made.id}/cancel`, {})
})

test('called off by a teacher, its kits stay reserved until somebody gives them back who may', async () => {
  const { body: made } = await offer({ title: 'Called off by its teacher' })
  const { body: planned } = await isaura.ask<ClassAnswer>('POST', `/classes/${made.id}/kits`, {})
  await isaura.ask('POST', `/batches/${planned.batchId}/reserve`, {})
  const before = await ledgerOf(shop.pool)
  const corin = await shop.as('corin')
  expect((await corin.ask('POST', `/batches/${planned.batchId}/release`, {})).status).toBe(403)
  expect((await corin.ask('POST', `/classes/${made.id}/cancel`, {})).body.state).toBe('cancelled')
  expect(await ledgerOf(shop.pool)).toEqual(before)
  expect((await isaura.ask('POST', `/batches/${planned.batchId}/cancel`, {})).body.state).toBe('cancelled')
})

test('two who book the same seat at once: one has it', async () => {
  const { body: made } = await offer({ title: 'Crowded' })
  const answers = await Promise.all(['Wren', 'Teal', 'Smew'].map((name) => book(made.id, 1, { name, offer: 0 })))
  expect(answers.map(({ status }) => status).sort()).toEqual([200, 409, 409])
})

test('where a class stands in the walk is known on every machine', async () => {
  const { body: made } = await offer({ title: 'Walked' })
  const corin = await shop.as('corin')
  await corin.ask('PUT', `/classes/${made.id}/walk`, { step: 7 })
  expect((await isaura.ask('GET', `/classes/${made.id}`)).body.walkStep).toBe(7)
})

describe('orders', () => {
  const tiller = async () => {
    const { body } = await isaura.ask('GET', '/patterns')
    return body.find(({ title }: { title: string }) => title === 'Tiller bracelet').id as number
  }

  test('a wrist is made to measure, and the nearest size is named beside it', async () => {
    const asked = { patternId: await tiller(), version: 1, worn: 'wrist', measureMm: 163 }
    const { body } = await isaura.ask<SizedOrder>('POST', '/orders/size', asked)
    const [made, ...sizes] = body.ways
    expect(made).toMatchObject({ made: true, trouble: null })
    expect(made?.size).toMatch(/^usual, length = \d+(\.\d)? mm$/)
    // The wrist, its ease, and pi times the rope's thickness.
    expect(body.wantedMm).toBeGreaterThan(163 + 18)
    expect(sizes.map(({ size }) => size).sort()).toEqual(['short', 'usual'])
  })

  test.each([
    [{ worn: 'wrist', measureMm: 16 }, 'smaller than any'],
    [{ worn: 'finger', measureMm: 180 }, 'larger than any'],
  ])('%j is nobody’s', async (wrong, message) => {
    const { status, body } = await isaura.ask('POST', '/orders/size', { patternId: 1, version: 1, ...wrong })
    expect([status, body.path, body.message]).toEqual([422, 'measureMm', expect.stringContaining(message)])
  })

  test('from taken to handed over; and called off half packed, everything goes back', async () => {
    const order = {
      customer: 'Pochard',
      worn: 'neck',
      measureMm: 450,
      patternId: 1,
      version: 1,
      size: 'petite',
      colourwayId: 1,
      wantedOn: day(20),
      price: 5200,
      promised: 'in a box',
    }
    const { body: orders } = await isaura.ask<Order[]>('POST', '/orders', order)
    const of = (all: Order[]) => all.find(({ customer }) => customer === 'Pochard') as Order
    const { id } = of(orders)
    expect(of(orders)).toMatchObject({ readiness: 'unplanned', colourway: 'Lantern' })
    const handOver = (kits: number) => isaura.ask('POST', `/orders/${id}/hand-over`, { kits })
    const { body: planned } = await isaura.ask<Order[]>('POST', `/orders/${id}/kits`, {})
    const batchId = of(planned).batchId as number
    expect((await isaura.ask('POST', `/orders/${id}/kits`, {})).body.code).toBe('planned')
    expect((await handOver(1)).body.code).toBe('kits-not-closed')
    // Changed while nothing is promised to it, its batch follows; the price may be changed at any time.
    const change = (more: object) => isaura.ask<Order[]>('PUT', `/orders/${id}`, { ...order, ...more })
    expect(of((await change({ kits: 2 })).body)).toMatchObject({ kits: 2, readiness: 'to reserve' })
    const lines = (await isaura.ask<Batch>('GET', `/batches/${batchId}`)).body.lines
    expect(lines.map(({ kits }) => kits)).toEqual([2])
    const dueOn = async () => (await isaura.ask<Batch>('GET', `/batches/${batchId}`)).body.dueOn
    await change({ kits: 2, wantedOn: day(33) })
    expect(await dueOn()).toBe(day(33))
    await change({ kits: 2 })
    await isaura.ask('POST', `/batches/${batchId}/reserve`, {})
    expect((await change({ kits: 3, price: 9000 })).body).toMatchObject({ code: 'planned' })
    expect(of((await change({ kits: 2, price: 9000 })).body).price).toBe(9000)
    await packAndClose(isaura, batchId)
    /** Of its packed kits: how many have left the shelf, and how many are promised to it. */
    const shelf = async () => {
      await ledgerOf(shop.pool)
      const { rows } = await shop.pool.query(
        `select -coalesce(sum(move.on_hand) filter (where kind in ('sale', 'return')), 0)::int as gone, sum(move.reserved)::int as promised
         from move join lot on lot.id = lot_id join kit_item using (item_id) where batch_id = $1`,
        [batchId],
      )
      return rows[0]
    }
    const undo = async () => of((await isaura.ask<Order[]>('POST', `/orders/${id}/reopen`, {})).body)
    const open = { state: 'taken', readiness: 'ready', undoable: true }
    expect((await handOver(3)).body).toMatchObject({ code: 'more-than-ordered', path: 'kits' })
    expect(of((await handOver(1)).body)).toMatchObject({ ...open, handed: 1 })
    expect(await shelf()).toEqual({ gone: 1, promised: 1 })
    expect((await handOver(2)).body.message).toContain('Only 1 ')
    expect((await change({ kits: 1, price: 9000 })).body).toMatchObject({ code: 'handed-over', path: 'kits' })
    expect(of((await handOver(1)).body)).toMatchObject({ state: 'done', undoable: true, handed: 2 })
    expect(await shelf()).toEqual({ gone: 2, promised: 0 })
    // By mistake: each time what was last handed over comes back, and is kept for it.
    expect(await undo()).toMatchObject({ ...open, handed: 1 })
    expect(await shelf()).toEqual({ gone: 1, promised: 1 })
    expect(await undo()).toMatchObject({ ...open, handed: 0, undoable: false })
    expect(await shelf()).toEqual({ gone: 0, promised: 2 })
    // The rest is called off, and after all is not.
    await handOver(1)
    expect(of((await isaura.ask('POST', `/orders/${id}/cancel`, {})).body)).toMatchObject({ state: 'cancelled' })
    expect(await shelf()).toEqual({ gone: 1, promised: 0 })
    expect(await undo()).toMatchObject({ ...open, handed: 1 })
    expect(await shelf()).toEqual({ gone: 1, promised: 1 })
    expect(of((await handOver(1)).body).state).toBe('done')

    const before = await ledgerOf(shop.pool)
    const { body: again } = await isaura.ask<Order[]>('POST', '/orders', {
      ...order,
      customer: 'Garganey',
      kits: 4,
      wantedOn: day(25),
    })
    const other = again.find(({ customer }) => customer === 'Garganey') as Order
    const batch = (await isaura.ask<Order[]>('POST', `/orders/${other.id}/kits`, {})).body.find(
      ({ id: one }) => one === other.id,
    )?.batchId
    await isaura.ask('POST', `/batches/${batch}/reserve`, {})
    const { tasks } = (await isaura.ask<Packing>('GET', `/batches/${batch}/packing`)).body
    const bag = tasks[0]?.bags[0]
    await isaura.ask('PUT', `/batches/${batch}/bags`, {
      lineId: bag?.lineId,
      kit: 1,
      itemId: tasks[0]?.itemId,
      quantity: bag?.target,
    })
    await isaura.ask('POST', `/orders/${other.id}/cancel`, {})
    expect(await ledgerOf(shop.pool)).toEqual(before)
  })

  test('a measure without what it is of is refused', async () => {
    const { body } = await isaura.ask('POST', '/orders', {
      customer: 'X',
      measureMm: 160,
      patternId: 1,
      version: 1,
      colourwayId: 1,
      wantedOn: day(9),
    })
    expect(body).toMatchObject({ code: 'bad-input', path: 'measureMm' })
  })
})

describe('the diary and the bench', () => {
  test('promises stand beside what they still need', async () => {
    const { body } = await isaura.ask<Diary>('GET', `/diary?from=${day(-30)}&to=${day(60)}`)
    const evening = body.find(({ title }) => title === 'Lock keepers’ evening')
    expect(evening).toMatchObject({ kind: 'batch', readiness: 'short' })
    expect((evening?.buyBy ?? '') < (evening?.on ?? '')).toBe(true)
    expect(body.find(({ title }) => title === 'First bezel')).toMatchObject({ kind: 'class', readiness: 'over' })
    expect(body.some(({ title }) => title === 'Called off')).toBe(false)
    expect([...body].sort((a, b) => a.on.localeCompare(b.on)).map(({ on }) => on)).toEqual(body.map(({ on }) => on))
  })

  test('what is to be done next is a line each, the most pressing first', async () => {
    const { body } = await isaura.ask<Bench>('GET', '/bench')
    expect(body).toContainEqual(
      expect.objectContaining({ kind: 'buy', text: expect.stringContaining('Order 2 x 8 g of round 11/0 Rust gate') }),
    )
    expect(body).toContainEqual(
      expect.objectContaining({ kind: 'pack', text: 'Pack 10 kits of Saturday class: first bezel' }),
    )
    expect(body).toContainEqual(expect.objectContaining({ kind: 'low', page: '/stock?show=low' }))
    const days = body.map(({ by }) => by ?? '9999')
    expect(days).toEqual([...days].sort())
  })

  test('what to fetch from the shelf is what the empty bags of the next days want, lot by lot, place by place', async () => {
    const { body } = await isaura.ask<FetchList>('GET', '/bench/fetch')
    const { rows: bags } = await shop.pool.query(
      `select bag.*, batch.name, batch.state, batch.due_on::text as due from bag join batch on batch.id = bag.batch_id`,
    )
    const { rows: lots } = await shop.pool.query(
      `select lot.id, lot.place, item.place as of_item from lot join item on item.id = lot.item_id`,
    )
    const packingDays = (await isaura.ask('GET', '/settings')).body.kits.packingDays
    const wanted = bags.filter(
      ({ state, filled, lot_id, due }) =>
        ['reserved', 'packing'].includes(state) && filled === null && lot_id !== null && due <= day(14 + packingDays),
    )
    expect(wanted.length).toBeGreaterThan(20)
    const told = body.places.flatMap(({ place, tubes }) => tubes.map((tube) => ({ place, ...tube })))
    expect(new Set(told.map(({ lotId }) => lotId))).toEqual(new Set(wanted.map(({ lot_id }) => lot_id)))
    for (const { lotId, place, bags: count, quantity } of told) {
      const own = wanted.filter(({ lot_id }) => lot_id === lotId)
      const lot = lots.find(({ id }) => id === lotId)
      expect([count, quantity, place]).toEqual([
        own.length,
        own.reduce((sum, { target }) => sum + Number(target), 0),
        lot.place || lot.of_item,
      ])
    }
    expect(body.places.map(({ place }) => place)).toEqual([...new Set(told.map(({ place }) => place))])
    expect(new Set(body.batches.map(({ name }) => name))).toEqual(new Set(wanted.map(({ name }) => name)))
  })

  test('the list of batches tells how far each is packed, and pictures it in the colours of its own line', async () => {
    const { body } = await isaura.ask<ListedBatch[]>('GET', '/batches')
    const { rows: bags } = await shop.pool.query('select batch_id, filled from bag')
    const { rows: lines } = await shop.pool.query(
      'select batch_id, size, colourway_version_id as version from batch_line order by batch_id, position',
    )
    const { rows: choices } = await shop.pool.query(
      'select role, choice.size, colourway_version_id as version, item.colour from colourway_choice choice join item on item.id = item_id where rank = 0',
    )
    for (const { id, bags: told, drawing } of body) {
      const own = bags.filter(({ batch_id }) => batch_id === id)
      expect(told).toEqual({ filled: own.filter(({ filled }) => filled !== null).length, of: own.length })
      const line = lines.find(({ batch_id }) => batch_id === id)
      const ofLine = choices.filter(({ version, size }) => version === line.version && ['', line.size].includes(size))
      for (const { role, colour, size } of ofLine)
        if (role !== 'thread' && (size !== '' || !ofLine.some((each) => each.role === role && each.size !== '')))
          expect([id, role, drawing?.colours[role]]).toEqual([id, role, colour])
    }
    expect(body.filter(({ drawing }) => drawing).length).toBeGreaterThan(5)
  })

  test('as a calendar: every class at its hour', async () => {
    const response = await fetch(`${shop.base}/api/diary.ics?from=${day(-30)}&to=${day(60)}`, {
      headers: { cookie: isaura.cookie },
    })
    const text = await response.text()
    expect(response.headers.get('content-type')).toContain('text/calendar')
    expect(text).toContain('BEGIN:VCALENDAR')
    expect(text).toContain(`DTSTART:${day(40).replaceAll('-', '')}T100000`)
    expect(text).toContain('SUMMARY:First bezel')
  })

  test('costs are evaluated as the owner says, by the owner only', async () => {
    const { body: costs } = await isaura.ask('GET', '/costs')
    expect((await (await shop.as('bram')).ask('PUT', '/costs', costs)).status).toBe(403)
    expect((await isaura.ask('PUT', '/costs', { ...costs, margin: 1.2 })).body).toMatchObject({ path: 'margin' })
    const before = (await isaura.ask('GET', '/batches/1/price')).body
    await isaura.ask('PUT', '/costs', { ...costs, packaging: costs.packaging + 100 })
    const after = (await isaura.ask('GET', '/batches/1/price')).body
    expect(after.lines[0].cost).toBe(before.lines[0].cost + 100)
  })
})
