/** Opens the demo shop in an empty database, through the same doors that people use. */

import { usualSettings } from '@tessellum/contract/usual-settings'
import { titleOf } from '@tessellum/core/notation/title'
import { effectOf } from '@tessellum/core/stock/moves'
import { sql } from 'drizzle-orm'
import { moreShelf } from '../../../../demo/more-shelf'
import { demoSuppliers, makers, shelf } from '../../../../demo/shelf'
import { resolveLines, writeLines } from '../batches/lines'
import { release } from '../batches/release'
import { fillingFor, reserve } from '../batches/reserve'
import { addVersion } from '../colourways/store'
import type { Database, Session } from '../database/connect'
import { keepDrawing } from '../drawings/drawings'
import type { Draft } from '../jobs/job-records'
import type { WorkerPool } from '../jobs/pool'
import { shownPictures } from '../patterns/pictures'
import { hashPassword } from '../people/passwords'
import { billsFor } from '../planning/bills'
import { linesOf } from '../planning/lines'
import { batch } from '../schema/batches'
import { colourway } from '../schema/colourways'
import { move } from '../schema/ledger'
import { pattern, patternVersion } from '../schema/patterns'
import { person } from '../schema/people'
import { item, lot, maker, pack, supplier } from '../schema/stock'
import { saveSettings } from '../settings/store'
import { demoBatches, demoColourways } from './colourways'
import { takePictures } from './pictures'
import { openTerm } from './term'

/** The pieces that have colourways come first; the rest of the shop's patterns follow by name. */
const files = import.meta.glob<string>('../../../../demo/patterns/*.tess', {
  query: '?raw',
  import: 'default',
  eager: true,
})
const first = ['windlass-pendant', 'heron-earrings', 'sluicegate-pendant']
const sources = Object.entries(files)
  .map(([file, source]) => ({ name: file.replace(/^.*\/|\.tess$/g, ''), source }))
  .sort((a, b) => place(a.name) - place(b.name) || (a.name < b.name ? -1 : 1))
  .map(({ source }) => source)

function place(name: string): number {
  const at = first.indexOf(name)
  return at < 0 ? first.length : at
}

const people = [
  { name: 'isaura', fullName: 'Isaura Quill', roles: ['owner'] },
  { name: 'bram', fullName: 'Bram Teasel', roles: ['designer'] },
  { name: 'odile', fullName: 'Odile Marrow', roles: ['stockroom'] },
  { name: 'corin', fullName: 'Corin Vetch', roles: ['teacher'] },
  { name: 'wren', fullName: 'Wren Tansy', roles: ['counter'] },
] as const

const demoProfile = {
  name: 'Merrowlock Bead Room',
  address: '3 Sluice Row, Merrowlock',
  timeZone: usualSettings.profile.timeZone,
  footer: 'For your own stitching. Please ask us before you teach it, or sell what you make from it.',
}

const day = 24 * 3600_000
const daysFrom = (days: number) => new Date(Date.now() + days * day)
const dateOf = (date: Date) => date.toISOString().slice(0, 10)

/**
 * @param build of what draws its patterns
 * @returns false when the database has a shop in it already
 */
export async function openDemoShop(
  db: Database,
  password: string,
  { workers, build }: { readonly workers: WorkerPool; readonly build: string },
): Promise<boolean> {
  return db.transaction(async (tx) => {
    // A start that was broken off may have left another set-up at work: it is waited for.
    await tx.execute(sql`select pg_advisory_xact_lock(hashtext('demo shop'))`)
    const [known] = await tx.select({ id: person.id }).from(person).limit(1)
    if (known) return false
    const passwordHash = await hashPassword(password)
    const ids = await tx
      .insert(person)
      .values(people.map((each) => ({ ...each, roles: [...each.roles], passwordHash })))
      .returning({ id: person.id, name: person.name })
    await saveSettings(tx, { profile: demoProfile })
    const idOf = (name: string) => (ids.find((each) => each.name === name) as { id: number }).id
    const items = await stockShelf(tx, idOf('odile'))
    const patterns = await keepPatterns(tx, idOf('bram'))
    // Before anything else that needs their forms, on every core.
    const drafts = await tx.select({ id: pattern.id, source: pattern.source }).from(pattern)
    const drawings = await Promise.all(drafts.map(({ source }) => workers.run('draw', { source })))
    for (const [i, drawing] of drawings.entries()) await keepDrawing(tx, build, drafts[i] as Draft, drawing)
    await keepColourways(tx, patterns, items, idOf('bram'))
    await takePictures({ tx, workers, by: idOf('bram'), patterns })
    await keepVersions(tx, idOf('bram'))
    await planBatches(tx, workers, patterns, idOf('odile'))
    const staff = {
      owner: idOf('isaura'),
      designer: idOf('bram'),
      stockroom: idOf('odile'),
      teacher: idOf('corin'),
      counter: idOf('wren'),
    }
    await openTerm({ tx, workers, ids: staff, day: (days) => dateOf(daysFrom(days)) })
    return true
  })
}

async function stockShelf(tx: Session, by: number): Promise<Map<string, number>> {
  const made = await tx
    .insert(maker)
    .values(makers.map((name) => ({ name })))
    .returning()
  await tx.insert(supplier).values([...demoSuppliers])
  const makerIds = new Map(made.map((each) => [each.name, each.id]))
  const ids = new Map<string, number>()
  for (const [i, { lots, packs, figures, maker: name, ...rest }] of [...shelf, ...moreShelf].entries()) {
    const bores = figures ? { bores: figures.bores ?? 1 } : {}
    const [row] = await tx
      .insert(item)
      .values({ ...rest, ...figures, ...bores, makerId: makerIds.get(name) as number })
      .returning({ id: item.id })
    const itemId = (row as { id: number }).id
    ids.set(rest.code, itemId)
    await tx.insert(pack).values(packs.map((each) => ({ ...each, itemId, pricedOn: dateOf(daysFrom(-300)) })))
    for (const [n, quantity] of lots.entries()) {
      const received = daysFrom(-300 + n * 170 + (i % 30))
      const [lotRow] = await tx
        .insert(lot)
        .values({
          itemId,
          code: `${rest.code}/${n + 1}`,
          receivedOn: dateOf(received),
          // What does not fit into its drawer any more lies in the cellar.
          place: n === 0 ? rest.place : 'cellar',
          supplier: name,
          unitCost: Math.min(...packs.map(({ price, amount }) => price / amount)),
        })
        .returning({ id: lot.id })
      const lotId = (lotRow as { id: number }).id
      const moves: (typeof move.$inferInsert)[] = []
      const post = (kind: 'receive' | 'sale' | 'correction', amount: number, reason: string, days: number) =>
        moves.push({
          lotId,
          kind,
          ...effectOf(kind, amount),
          reason,
          personId: by,
          at: new Date(received.getTime() + days * day),
          idempotencyKey: `demo ${lotId} ${reason}`,
        })
      post('receive', quantity, 'delivery', 0)
      // The counter sells from the same tubes; now and then a count finds a little less.
      if (i >= shelf.length) {
        // A little every month, more before the fairs; what came later has sold faster. Nothing is sold after today.
        const age = Math.floor((Date.now() - received.getTime()) / day)
        const month = Math.min(30, Math.floor((age - 1) / 9))
        for (let sold = 1; sold <= 9; sold++)
          post('sale', Math.ceil(quantity / (sold % 4 === 0 ? 22 : 60)), `counter, part ${sold}`, sold * month)
      }
      if (i < shelf.length && n === 0 && quantity > 15_000 && rest.category === 'bead') {
        post('sale', 2000 + (i % 5) * 1000, 'counter', 40 + (i % 20))
        if (i % 6 === 0) post('correction', -(100 + (i % 4) * 100), 'stocktake: spilt', 90)
      }
      await tx.insert(move).values(moves)
    }
  }
  return ids
}

async function keepPatterns(tx: Session, by: number): Promise<Map<string, number>> {
  const ids = new Map<string, number>()
  for (const source of sources) {
    const title = titleOf(source)
    const [row] = await tx
      .insert(pattern)
      .values({ title, source, savedBy: by, savedAt: daysFrom(-40) })
      .returning({ id: pattern.id })
    ids.set(title, (row as { id: number }).id)
  }
  return ids
}

/** With the pictures that there are. */
async function keepVersions(tx: Session, by: number): Promise<void> {
  for (const { id, source } of await tx.select({ id: pattern.id, source: pattern.source }).from(pattern))
    await tx.insert(patternVersion).values({
      patternId: id,
      number: 1,
      name: 'First edition',
      source,
      pictures: await shownPictures(tx, id),
      madeBy: by,
      madeAt: daysFrom(-40),
    })
}

async function keepColourways(
  tx: Session,
  patterns: ReadonlyMap<string, number>,
  items: ReadonlyMap<string, number>,
  by: number,
): Promise<void> {
  const itemIdOf = (code: string) => {
    const id = items.get(code)
    if (id === undefined) throw new Error(`The demo shelf has no ${code}.`)
    return id
  }
  for (const { pattern: title, name, items: chosen } of demoColourways) {
    const [row] = await tx
      .insert(colourway)
      .values({ patternId: patterns.get(title) as number, name })
      .returning({ id: colourway.id })
    const choices = Object.entries(chosen).flatMap(([role, codes]) =>
      typeof codes === 'string'
        ? [{ role, size: '', itemId: itemIdOf(codes), counting: 'all' as const, rank: 0 }]
        : Object.entries(codes).map(([size, code]) => ({
            role,
            size,
            itemId: itemIdOf(code),
            counting: 'all' as const,
            rank: 0,
          })),
    )
    await addVersion(tx, (row as { id: number }).id, choices, by)
  }
}

async function planBatches(
  tx: Session,
  workers: WorkerPool,
  patterns: ReadonlyMap<string, number>,
  by: number,
): Promise<void> {
  const colourways = await tx.select().from(colourway)
  for (const { name, dueInDays, state, lines } of demoBatches) {
    const resolved = await resolveLines(
      tx,
      lines.map((line) => {
        const patternId = patterns.get(line.pattern) as number
        const chosen = colourways.find((each) => each.patternId === patternId && each.name === line.colourway)
        return { patternId, version: 1, size: line.size, colourwayId: (chosen as { id: number }).id, kits: line.kits }
      }),
    )
    const [row] = await tx
      .insert(batch)
      .values({ name, dueOn: dateOf(daysFrom(dueInDays)), madeBy: by })
      .returning({ id: batch.id })
    const batchId = (row as { id: number }).id
    const actor = { batchId, personId: by, idempotencyKey: `demo batch ${batchId}` }
    await writeLines(tx, resolved, actor)
    if (state === 'reserved') {
      const planned = await linesOf(tx, batchId)
      const bills = await billsFor({ db: tx, workers }, planned)
      await reserve(tx, planned, await fillingFor(tx, workers, planned, bills), actor)
    } else if (state === 'cancelled') await release(tx, actor, 'cancelled')
  }
}
