/** A term at the demo shop: more colourways, kits in every state, classes with people in their seats, orders with awkward sizes. */
import type { Item } from '@tessellum/contract/stock'
import { labelledStone, stoneServes } from '@tessellum/core/catalogue/stone-size'
import { evaluatePattern } from '@tessellum/core/evaluate/evaluate-pattern'
import { unitCost } from '@tessellum/core/kit/cost'
import { itemName } from '@tessellum/core/stock/item-name'
import { effectOf } from '@tessellum/core/stock/moves'
import { eq } from 'drizzle-orm'
import { logActivity } from '../audit/log'
import { resolveLines } from '../batches/lines'
import { fillingFor, reserve } from '../batches/reserve'
import { planBatch } from '../batches/revise'
import { keepClass } from '../classes/store'
import { makeColourway } from '../colourways/store'
import type { Session } from '../database/connect'
import type { WorkerPool } from '../jobs/pool'
import { handOverKits } from '../packing/kits'
import { close, fill } from '../packing/store'
import { billsFor } from '../planning/bills'
import { linesOf } from '../planning/lines'
import { bag } from '../schema/bags'
import { booking, classTable } from '../schema/classes'
import { colourway, colourwayChoice } from '../schema/colourways'
import { customer } from '../schema/customers'
import { move } from '../schema/ledger'
import { customerOrder, handover } from '../schema/orders'
import { pattern, patternVersion } from '../schema/patterns'
import { sale, saleLine } from '../schema/sales'
import { item, lot } from '../schema/stock'
import { allItems } from '../stock/store'

interface Here {
  readonly tx: Session
  readonly workers: WorkerPool
  readonly ids: {
    readonly owner: number
    readonly designer: number
    readonly stockroom: number
    readonly teacher: number
    readonly counter: number
  }
  /** "2026-12-06", so many days from today. */
  readonly day: (days: number) => string
}

const looks = ['Reed bed', 'Rain on slate', 'Lamp hour', 'Rust gate', 'First light', 'Deep lock']

/** Two colourways for every piece that has none: each letter a bead of its kind and size, as far as the shelf goes. */
async function moreColourways({ tx, ids }: Here): Promise<void> {
  const items: Item[] = []
  for await (const part of allItems(tx)) items.push(...part)
  const taken = new Set(
    (await tx.select({ patternId: colourway.patternId }).from(colourway)).map(({ patternId }) => patternId),
  )
  const thread = items.find(({ code }) => code === 'PB6-G')
  for (const [n, { id, source }] of (await tx.select().from(pattern)).entries()) {
    if (taken.has(id)) continue
    const { beads, stones } = evaluatePattern(source).report
    for (const turn of [0, 1]) {
      const choices = [
        ...beads.map(({ role, kind, size }, i) => {
          const fitting = items.filter(
            (item) => item.kind === kind && item.size === size && item.onHand > (item.unit === 'mg' ? 15_000 : 30),
          )
          return { role, item: fitting[(n + i * 3 + turn * 5) % Math.max(1, fitting.length)] }
        }),
        ...stones.map(({ role, stone: { outline } }) => {
          const fitting = items.filter(({ category, kind, size }) => {
            const has = category === 'stone' ? labelledStone(kind, size) : undefined
            return has !== undefined && stoneServes(outline, has)
          })
          return { role, item: fitting[turn % Math.max(1, fitting.length)] }
        }),
        { role: 'thread', item: thread },
      ].flatMap(({ role, item }) =>
        item ? [{ role, size: '', itemId: item.id, counting: 'all' as const, rank: 0 }] : [],
      )
      await makeColourway(tx, id, looks[(n + turn * 3) % looks.length] as string, choices, ids.designer)
    }
  }
}

type State = 'reserved' | 'packing' | 'packed' | 'closed'

/** Plans a batch and takes it as far as it is to be. @returns its id, and its lines' choices */
async function kits(
  here: Here,
  name: string,
  due: number,
  title: string,
  count: number,
  state: State,
  kept = false,
): Promise<number> {
  const { tx, workers, ids, day } = here
  const [found] = await tx
    .select({ patternId: pattern.id, source: pattern.source, colourwayId: colourway.id })
    .from(pattern)
    .innerJoin(colourway, eq(colourway.patternId, pattern.id))
    .where(eq(pattern.title, title))
    .limit(1)
  if (!found) throw new Error(`The demo shop has no ${title}.`)
  const size = evaluatePattern(found.source).report.size
  const lines = await resolveLines(tx, [
    { patternId: found.patternId, version: 1, size, colourwayId: found.colourwayId, kits: count },
  ])
  const batchId = await planBatch(tx, { name, dueOn: day(due), priority: 2, kept }, lines, ids.stockroom)
  const actor = { batchId, personId: ids.stockroom, idempotencyKey: `demo ${name}` }
  const planned = await linesOf(tx, batchId)
  const bills = await billsFor({ db: tx, workers }, planned)
  await reserve(tx, planned, await fillingFor(tx, workers, planned, bills), actor)
  if (state === 'reserved') return batchId
  const bags = await tx.select().from(bag).where(eq(bag.batchId, batchId))
  const some = state === 'packing' ? bags.slice(0, Math.ceil(bags.length * 0.6)) : bags
  for (const { lineId, kit, itemId, target } of some) await fill(tx, { lineId, kit, itemId, quantity: target }, actor)
  if (state === 'closed') await close(tx, actor)
  return batchId
}

const guests = [
  'Wren Alder',
  'Teal Osier',
  'Piers Garganey',
  'Smew Tarrant',
  'Ness Pochard',
  'Ivo Lapwing',
  'Maud Bittern',
  'Col Reedling',
]

/** Those who have been here more than once are on record. */
async function customers({ tx, ids }: Here): Promise<void> {
  const known = [
    { name: 'Ness Pochard', contact: '0555 014 220', wristMm: 148, note: 'Comes on Saturdays.' },
    { name: 'Col Reedling', contact: 'col@reedling.example', wristMm: 211, allergies: 'nickel' },
    { name: 'Maud Bittern', contact: 'maud@bittern.example', fingerMm: 54 },
    { name: 'Teal Osier', contact: '0555 014 871', leftHanded: true },
    { name: 'Ivo Lapwing', contact: 'ivo@lapwing.example', leftHanded: true, neckMm: 390 },
  ]
  await tx.insert(customer).values(known.map((each) => ({ ...each, addedBy: ids.owner })))
}

const customerIdOf = async (tx: Session, name: string): Promise<number | null> => {
  const [found] = await tx.select({ id: customer.id }).from(customer).where(eq(customer.name, name))
  return found?.id ?? null
}

async function classes(here: Here): Promise<void> {
  const { tx, ids, day } = here
  const offered = [
    {
      title: 'First bezel, autumn',
      days: -45,
      pattern: 'Windlass pendant',
      seats: 6,
      booked: 6,
      state: 'taught',
      batch: 'closed',
    },
    {
      title: 'Rope by the water',
      days: -24,
      pattern: 'Tiller bracelet',
      seats: 5,
      booked: 4,
      state: 'taught',
      batch: 'closed',
    },
    {
      title: 'Marsh mallow evening',
      days: 6,
      pattern: 'Marsh mallow flower',
      seats: 4,
      booked: 3,
      state: 'offered',
      batch: 'packed',
    },
    {
      title: 'Cross keys for beginners',
      days: 13,
      pattern: 'Cross keys strip',
      seats: 6,
      booked: 5,
      state: 'offered',
      batch: 'packing',
    },
    {
      title: 'Capstan ring',
      days: 20,
      pattern: 'Capstan ring',
      seats: 6,
      booked: 2,
      state: 'offered',
      batch: 'reserved',
    },
    { title: 'Eddy twist', days: 41, pattern: 'Eddy twist', seats: 8, booked: 1, state: 'offered', batch: undefined },
    {
      title: 'Reedbed collar, two days',
      days: 62,
      pattern: 'Reedbed collar',
      seats: 5,
      booked: 0,
      state: 'offered',
      batch: undefined,
    },
  ] as const
  for (const { title, days, pattern: piece, seats, booked, state, batch } of offered) {
    const [found] = await tx
      .select({ patternId: pattern.id, source: pattern.source, colourwayId: colourway.id })
      .from(pattern)
      .innerJoin(colourway, eq(colourway.patternId, pattern.id))
      .where(eq(pattern.title, piece))
      .limit(1)
    if (!found) throw new Error(`The demo shop has no ${piece}.`)
    const id = await keepClass(
      tx,
      undefined,
      {
        title,
        heldOn: day(days),
        beginsAt: days % 2 ? '18:00' : '10:00',
        minutes: days === 62 ? 360 : 180,
        moreDays: days === 62 ? [{ heldOn: day(days + 1), beginsAt: '10:00' }] : [],
        place: days % 2 ? 'the window table' : 'the long table',
        seats,
        teacherId: ids.teacher,
        patternId: found.patternId,
        version: 1,
        offers: [{ size: evaluatePattern(found.source).report.size, colourwayId: found.colourwayId }],
        spareKits: 1,
        price: 3800 + seats * 100,
        note: days === 13 ? 'Two of them are left-handed: seats by the window.' : '',
      },
      ids.teacher,
    )
    for (let seat = 1; seat <= booked; seat++) {
      const name = guests[(seat + days + 60) % guests.length] as string
      const customerId = await customerIdOf(tx, name)
      const paid = state === 'taught' ? 3800 + seats * 100 : seat % 2 ? 1500 : 0
      await tx.insert(booking).values({ classId: id, seat, name, offer: 0, customerId, paid })
    }
    const batchId =
      batch === undefined ? null : await kits(here, title, days, piece, seats + 1, batch, state === 'offered')
    // Each seat took its kit home; the spare one is on the kits' shelf.
    if (batchId !== null && state === 'taught')
      await handOverKits(
        tx,
        (await linesOf(tx, batchId)).map((line) => ({ ...line, kits: booked })),
        `taught: ${title}`,
        { batchId, personId: ids.teacher, idempotencyKey: `demo taught ${title}` },
      )
    await tx.update(classTable).set({ batchId, state }).where(eq(classTable.id, id))
    await logActivity(tx, ids.teacher, `offered the class ${title}`, `/diary/classes/${id}`)
  }
}

async function orders({ tx, ids, day }: Here): Promise<void> {
  const wanted = [
    {
      customer: 'Ness Pochard',
      title: 'Tiller bracelet',
      size: 'usual, length = 171 mm',
      worn: 'wrist' as const,
      measureMm: 148,
      days: 17,
      promised: 'a very small wrist: tried on before it is finished off',
    },
    {
      customer: 'Col Reedling',
      title: 'Tiller bracelet',
      size: 'usual, length = 236 mm',
      worn: 'wrist' as const,
      measureMm: 211,
      days: 30,
      promised: 'without nickel',
    },
    {
      customer: 'Maud Bittern',
      title: 'Windlass pendant',
      size: 'classic',
      worn: null,
      measureMm: null,
      days: 24,
      promised: 'in a box, by Saturday',
    },
  ]
  for (const { customer: name, title, size, worn, measureMm, days, promised } of wanted) {
    const [found] = await tx
      .select({ patternId: pattern.id, colourwayId: colourway.id })
      .from(pattern)
      .innerJoin(colourway, eq(colourway.patternId, pattern.id))
      .where(eq(pattern.title, title))
      .limit(1)
    if (!found) throw new Error(`The demo shop has no ${title}.`)
    const [line] = await resolveLines(tx, [
      { patternId: found.patternId, version: 1, size, colourwayId: found.colourwayId, kits: 1 },
    ])
    if (!line) throw new Error('An order has one line.')
    await tx.insert(customerOrder).values({
      customer: name,
      customerId: await customerIdOf(tx, name),
      paid: 1500,
      worn,
      measureMm,
      patternVersionId: line.patternVersionId,
      colourwayVersionId: line.colourwayVersionId,
      size,
      wantedOn: day(days),
      price: 4600,
      promised,
      madeBy: ids.designer,
    })
  }
}

/** An order that is done with: handed over, and paid. */
async function pastOrder(here: Here): Promise<void> {
  const { tx, ids, day } = here
  const [name, title, daysAgo] = ['Piers Garganey', 'Capstan ring', 12] as const
  const batchId = await kits(here, `Order of ${title}`, -daysAgo - 2, title, 1, 'closed', true)
  const [line] = await linesOf(tx, batchId)
  if (!line) throw new Error('An order has one line.')
  const { patternVersionId, colourwayVersionId, size } = line
  await handOverKits(tx, [{ ...line, kits: 1 }], `handed over to ${name}`, {
    batchId,
    personId: ids.stockroom,
    idempotencyKey: 'demo past order',
  })
  const [made] = await tx
    .insert(customerOrder)
    .values({
      customer: name,
      paid: 4200,
      price: 4200,
      worn: null,
      measureMm: null,
      patternVersionId,
      colourwayVersionId,
      size,
      wantedOn: day(-daysAgo),
      state: 'done',
      overAt: new Date(`${day(-daysAgo)}T14:00:00Z`),
      batchId,
      madeAt: new Date(`${day(-40)}T11:00:00Z`),
      madeBy: ids.designer,
    })
    .returning({ id: customerOrder.id })
  const at = new Date(`${day(-daysAgo)}T14:00:00Z`)
  await tx.insert(handover).values({ orderId: (made as { id: number }).id, kits: 1, at, madeBy: ids.stockroom })
}

/** What the counter has sold in the last weeks: beads that no kit of the demo takes, and patterns. */
async function sales({ tx, ids, day }: Here): Promise<void> {
  const shelf: Item[] = []
  for await (const part of allItems(tx)) shelf.push(...part)
  const inKits = new Set(
    (await tx.select({ itemId: colourwayChoice.itemId }).from(colourwayChoice)).map(({ itemId }) => itemId),
  )
  const forSale = shelf.filter(
    ({ id, category, unit, onHand, reserved, packs }) =>
      category === 'bead' && unit === 'mg' && !inKits.has(id) && packs.length > 0 && onHand - reserved > 12_000,
  )
  const editions = await tx
    .select({ id: patternVersion.id, title: pattern.title })
    .from(patternVersion)
    .innerJoin(pattern, eq(pattern.id, patternVersion.patternId))
    .where(eq(patternVersion.number, 1))
    .orderBy(patternVersion.id)
  for (let n = 0; n < 26; n++) {
    const at = new Date(`${day(-2 - Math.floor(n * 2.3))}T${10 + (n % 7)}:${n % 2 ? '40' : '15'}:00Z`)
    const [made] = await tx
      .insert(sale)
      .values({ customer: n % 3 ? '' : (guests[n % guests.length] as string), at, madeBy: ids.counter })
      .returning({ id: sale.id })
    const saleId = (made as { id: number }).id
    const edition = editions[n % editions.length]
    if (n % 4 === 1 && edition)
      await tx.insert(saleLine).values({
        saleId,
        patternVersionId: edition.id,
        name: `${edition.title}, version 1`,
        unit: 'piece',
        quantity: 1,
        price: 650,
      })
    for (let i = 0; i <= n % 3; i++) {
      const of = forSale[(n * 3 + i) % forSale.length]
      if (!of) throw new Error('The demo shelf has nothing for the counter to sell.')
      const quantity = 1000 * (2 + ((n + i) % 4))
      const [tube] = await tx.select({ id: lot.id }).from(lot).where(eq(lot.itemId, of.id)).orderBy(lot.id).limit(1)
      const price = Math.ceil((unitCost(of.packs) ?? 0) * quantity * 0.25) * 10
      const [kept] = await tx
        .insert(saleLine)
        .values({ saleId, itemId: of.id, name: itemName(of), unit: of.unit, quantity, price })
        .returning({ id: saleLine.id })
      await tx.insert(move).values({
        lotId: (tube as { id: number }).id,
        kind: 'sale',
        ...effectOf('sale', quantity),
        reason: `sale ${saleId}`,
        saleLineId: (kept as { id: number }).id,
        personId: ids.counter,
        at,
        idempotencyKey: `demo sale ${saleId}`,
      })
    }
  }
}

/** A version that was given out with a fault in it, and the one that mends it. */
async function erratum({ tx, ids }: Here): Promise<void> {
  const [row] = await tx.select().from(pattern).where(eq(pattern.title, 'Mooring ring'))
  if (!row) throw new Error('The demo shop has no Mooring ring.')
  const of = { patternId: row.id, source: row.source, published: true, madeBy: ids.designer }
  const wrong = row.source.replace('"lower edge"', '"upper edge"')
  await tx.insert(patternVersion).values({ ...of, source: wrong, number: 2, name: 'For sale' })
  await tx.insert(patternVersion).values({
    ...of,
    number: 3,
    name: 'For sale, mended',
    corrects: 2,
    note: 'Both edges were called the upper one.',
  })
}

/** What happens on every shelf: a colour that is made no more, a lot that did not keep its own. */
async function troubles({ tx, ids }: Here): Promise<void> {
  await tx
    .update(item)
    .set({ cautions: 'discontinued by its maker: what is here is the last of it', reorderBelow: 0 })
    .where(eq(item.code, 'BC164'))
  const [pale] = await tx.select({ id: lot.id }).from(lot).where(eq(lot.code, 'BH101/2'))
  if (!pale) throw new Error('The demo shelf has no BH101/2.')
  await tx.insert(move).values({
    lotId: pale.id,
    kind: 'scrap',
    ...effectOf('scrap', 4000),
    reason: 'ran pale when it was washed',
    personId: ids.stockroom,
    idempotencyKey: 'demo pale lot',
  })
}

export async function openTerm(here: Here): Promise<void> {
  await troubles(here)
  await moreColourways(here)
  await erratum(here)
  await customers(here)
  await classes(here)
  await kits(here, 'Boathouse window', -60, 'Bulrush beaded bead', 4, 'closed')
  await kits(here, 'Towpath fair', 9, 'Bulrush beaded bead', 5, 'packing')
  await orders(here)
  await pastOrder(here)
  await sales(here)
}
