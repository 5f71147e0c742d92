/** What a batch needs of the shelf and what the shelf allows: read from the tables, reckoned by the core. */
import { createHash } from 'node:crypto'
import type { ItemOutlook, LineOutlook, Outlook } from '@tessellum/contract/batches'
import type { Choice } from '@tessellum/contract/colourways'
import type { Allocation, AllocationLine, AllocationLot, Need } from '@tessellum/core/allocation/allocation'
import { mostAlone } from '@tessellum/core/allocation/alone'
import type { Shortage } from '@tessellum/core/allocation/shortages'
import { type Alternative, alternativesOf } from '@tessellum/core/kit/alternatives'
import { weighedOut } from '@tessellum/core/kit/packing'
import { itemName } from '@tessellum/core/stock/item-name'
import { visibleChange } from '@tessellum/core/substitute/visible-change'
import { and, eq, inArray, isNotNull, sql } from 'drizzle-orm'
import { LRUCache } from 'lru-cache'
import { choicesOf } from '../colourways/store'
import type { Session } from '../database/connect'
import { detached } from '../http/request-context'
import type { Shop } from '../http/route'
import { bag, heldByBag } from '../schema/bags'
import { patternVersion } from '../schema/patterns'
import { freeLots, listItems } from '../stock/store'
import type { WorkerPool } from '../workers/pool'
import type { Kit } from '../workers/tasks'
import { kitLots, kitsOf, shareKits, toPack } from './ready-kits'
import { batch, keptBill } from '../schema/batches'

/** A line with its pattern's text and its colourway's choices found. */
export interface PlannedLine {
  readonly patternVersionId: number
  readonly colourwayVersionId: number
  readonly size: string
  readonly kits: number
  /** The day its kits are due: what comes later is no help. */
  readonly dueOn?: string
}

export type BillEntry = LineOutlook['bill'][number]

/** One way of making a line's kits: as planned, or with what the colourway allows to stand in. */
export interface Way {
  readonly bill: readonly BillEntry[]
  readonly choices: readonly Choice[]
  readonly standIns: Alternative['standIns']
  readonly distance: number
}

export interface LineBill {
  readonly bill: LineOutlook['bill']
  readonly troubles: string[]
  /** The plan first. */
  readonly ways: readonly Way[]
}

/** The bills of a batch's lines. Reckoned in the workers, before any lock is taken. */
export async function billsFor(
  { db, workers }: { db: Session; workers: WorkerPool },
  lines: readonly PlannedLine[],
): Promise<LineBill[]> {
  const versions = await db
    .select({
      id: patternVersion.id,
      source: patternVersion.source,
      ratio: patternVersion.sampledRatio,
      count: patternVersion.sampledCount,
    })
    .from(patternVersion)
    .where(inArray(patternVersion.id, [...new Set(lines.map((line) => line.patternVersionId))]))
  const texts = new Map(versions.map((version) => [version.id, version]))
  const choices = await choicesOf(db, [...new Set(lines.map((line) => line.colourwayVersionId))])
  const items = await listItems(db, [...new Set([...choices.values()].flat().map((choice) => choice.itemId))])
  const itemOf = (id: number) => items.find((each) => each.id === id)
  return Promise.all(
    lines.map(async (line) => {
      const { source, ratio, count } = texts.get(line.patternVersionId) as (typeof versions)[number]
      const reckoned = await Promise.all(
        alternativesOf(choices.get(line.colourwayVersionId) ?? [], line.size).map(async ({ choices, standIns }) => {
          const chosen = choices.map((each) => ({ ...each, rank: each.rank ?? 0 }))
          const ids = new Set(chosen.map((choice) => choice.itemId))
          const { bill, troubles } = await billOnce(
            { db, workers },
            {
              source,
              sampled: { ratio, count },
              size: line.size,
              choices: chosen,
              items: items.filter((item) => ids.has(item.id)),
            },
          )
          const distance = standIns.reduce((sum, { itemId, insteadOf }) => {
            const [a, b] = [itemOf(itemId), itemOf(insteadOf)]
            return sum + (a && b ? visibleChange(a, b) : 0)
          }, 0)
          return {
            bill: bill.lines.map((each) => ({ ...each, roles: [...each.roles] })),
            troubles,
            standIns,
            choices: chosen,
            distance,
          }
        }),
      )
      const plan = reckoned[0] as (typeof reckoned)[number]
      // A stand-in that cannot be made is none.
      const ways = reckoned.filter(({ troubles }, i) => i === 0 || troubles.length === 0)
      return { bill: plan.bill, troubles: plan.troubles, ways }
    }),
  )
}

/** A form takes a moment to settle, and a kit's bill is the same for everybody: it is reckoned once, and kept. */
export async function billOnce({ db, workers }: { db: Session; workers: WorkerPool }, kit: Kit) {
  // Of an item, only what a bill depends on: not what is on the shelf.
  const items = kit.items.map(({ id, unit, category, bead }) => ({ id, unit, category, bead }))
  const digest = createHash('sha256')
    .update(JSON.stringify({ ...kit, items, reckoned: billVersion }))
    .digest('base64')
  const [known] = await db.select().from(keptBill).where(eq(keptBill.digest, digest))
  if (known) return known
  const { bill, troubles } = await workers.run('bill', kit)
  await db.insert(keptBill).values({ digest, bill, troubles }).onConflictDoNothing()
  return { bill, troubles }
}

/** Raised whenever the same text comes to another bill than before. */
const billVersion = 1

/** Lots that a batch may take from; what it holds itself is free to it. */
export interface FreeLot {
  readonly lotId: number
  readonly itemId: number
  readonly free: number
  readonly receivedOn: string
  readonly mgPerBead: number | null
  /** The day it comes, of one that is on its way. */
  readonly comesOn?: string
}

/**
 * What a kit takes of an item, also from lots whose beads were weighed.
 *
 * @param dueOn the day the kit is due, where lots are on their way
 */
export function needOf(entry: BillEntry, lots: readonly FreeLot[], dueOn?: string): Need {
  const { itemId, quantity, unit } = entry
  const byLot = Object.fromEntries(
    lots
      .filter((each) => each.itemId === itemId)
      .flatMap(({ lotId, mgPerBead, comesOn }) => {
        if (comesOn !== undefined && dueOn !== undefined && comesOn > dueOn) return [[lotId, Number.POSITIVE_INFINITY]]
        return unit === 'mg' && mgPerBead !== null ? [[lotId, weighedOut(entry, mgPerBead)]] : []
      }),
  )
  return Object.keys(byLot).length > 0 ? { itemId, quantity, byLot } : { itemId, quantity }
}

/**
 * Lots in the order in which they are used up: the oldest, and of one day the smallest.
 *
 * @param before lots that go before all others, such as those whose tubes are open for the batch already
 */
export function ranked(lots: readonly FreeLot[], before: ReadonlySet<number> = new Set()): AllocationLot[] {
  const later = ({ lotId }: FreeLot) => (before.has(lotId) ? 0 : 1)
  const order = [...lots].sort(
    (a, b) => later(a) - later(b) || a.receivedOn.localeCompare(b.receivedOn) || a.free - b.free || a.lotId - b.lotId,
  )
  const met = new Map<number, number>()
  return order.map(({ lotId, itemId, free }) => {
    const rank = met.get(itemId) ?? 0
    met.set(itemId, rank + 1)
    return { lotId, itemId, free, rank }
  })
}

/**
 * The best filling of lines, solved off the event loop.
 *
 * @param priorities by line; all alike when absent
 */
export const allocationFor = (
  workers: WorkerPool,
  lines: readonly PlannedKits[],
  bills: readonly LineBill[],
  lots: readonly FreeLot[],
  priorities: readonly number[] = [],
): Promise<Allocation> => workers.run('allocate', rivals(lines, bills, lots, priorities))

interface Bought {
  readonly allocation: Allocation
  readonly shortages: readonly Shortage[]
}

/** The bench, the diary and every class ask for the same as long as no bead is moved. */
const kept = new LRUCache<string, Promise<Bought>>({ max: 12 })

/** What must be bought to make all lines: none exactly where the best filling makes them. */
export function shortagesFor(
  workers: WorkerPool,
  lines: readonly PlannedKits[],
  bills: readonly LineBill[],
  lots: readonly FreeLot[],
  priorities: readonly number[] = [],
): Promise<Bought> {
  const problem = rivals(lines, bills, lots, priorities)
  const key = createHash('sha256').update(JSON.stringify(problem)).digest('base64')
  const known = kept.get(key)
  if (known) return known
  const answer = detached(work)
  kept.set(key, answer)
  // What failed, or was not proven in time, is tried again by whoever asks next.
  const forget = () => kept.get(key) === answer && kept.delete(key)
  answer.then(({ allocation }) => allocation.proven || forget(), forget)
  return answer

  async function work(): Promise<Bought> {
    const allocation = await workers.run('allocate', problem)
    return { allocation, shortages: await workers.run('shortages', { ...problem, allocation }) }
  }
}

type PlannedKits = Pick<PlannedLine, 'kits' | 'dueOn'>

/** Lines that want the same lots, as the solver is asked. What cannot be made as it stands wants nothing. */
const rivals = (
  lines: readonly PlannedKits[],
  bills: readonly LineBill[],
  lots: readonly FreeLot[],
  priorities: readonly number[],
): { lines: AllocationLine[]; lots: AllocationLot[] } => ({
  lines: lines.map(({ kits, dueOn }, line) => ({
    line,
    wanted: (bills[line]?.troubles.length ?? 0) > 0 ? 0 : kits,
    priority: priorities[line] ?? 0,
    variants: (bills[line]?.ways ?? []).map(({ bill, distance }) => ({
      bill: bill.map((entry) => needOf(entry, lots, dueOn)),
      distance,
    })),
  })),
  lots: ranked(lots),
})

export const itemsIn = (bills: readonly LineBill[]): number[] => [
  ...new Set(bills.flatMap(({ ways }) => ways.flatMap(({ bill }) => bill.map(({ itemId }) => itemId)))),
]

/** @param batchId the batch itself, whose own promises are not counted against it */
export async function outlookFor(
  shop: Shop,
  lines: readonly PlannedLine[],
  batchId: number | undefined,
): Promise<Outlook> {
  const bills = await billsFor(shop, lines)
  const { db } = shop
  const all = itemsIn(bills)
  // What only stands in is on the shelf, but not planned.
  const ids = [...new Set(bills.flatMap(({ bill }) => bill.map(({ itemId }) => itemId)))]
  const [items, free, held] = await Promise.all([listItems(db, all), freeLots(db, all, false), heldOf(db, all)])
  const here = held.filter((each) => each.batchId === batchId)
  const lots = free.map((each) => ({
    ...each,
    free: each.free + sumOf(here.filter((one) => one.lotId === each.lotId)),
  }))
  const ready = shareKits(lines, await kitLots(db, lines, batchId))
  const wanted = toPack(lines, ready)
  const { allocation, shortages } = await shortagesFor(shop.workers, wanted, bills, lots)
  const filled = allocation.lines.every(({ line, kits }) => kits === wanted[line]?.kits)
  const outlookLines: LineOutlook[] = bills.map(({ bill, troubles }, i) => {
    const { kits, limitedBy } = mostAlone(bill, lots)
    const made = allocation.lines[i]
    return {
      bill,
      troubles,
      ready: kitsOf(ready[i]),
      couldMake: kitsOf(ready[i]) + (troubles.length > 0 ? 0 : kits),
      together: kitsOf(ready[i]) + (made?.kits ?? 0),
      limitedBy: troubles.length > 0 ? [] : limitedBy,
      standIns: (bills[i]?.ways ?? []).flatMap(({ standIns }, w) => {
        const standing = made?.variants[w] ?? 0
        return standing > 0 && standIns.length > 0
          ? [{ kits: standing, roles: standIns.map(({ role, itemId }) => ({ role, name: nameOf(itemId) })) }]
          : []
      }),
      oneMore: troubles.length > 0 || kits >= (wanted[i]?.kits ?? 0) ? [] : oneMore(bill, limitedBy, kitsOf(ready[i])),
    }
  })
  function nameOf(itemId: number) {
    const item = items.find(({ id }) => id === itemId)
    return item ? itemName(item) : ''
  }
  /** What the smallest pack of each thing that limits a line would allow. */
  function oneMore(bill: readonly BillEntry[], limitedBy: readonly number[], ready: number): LineOutlook['oneMore'] {
    return limitedBy.flatMap((itemId) => {
      const [pack] = items.find(({ id }) => id === itemId)?.packs ?? []
      if (!pack) return []
      const { kits } = mostAlone(bill, [...lots, { itemId, free: pack.amount }])
      return [{ itemId, amount: pack.amount, kits: kits + ready }]
    })
  }
  const outlookItems: ItemOutlook[] = ids.map((itemId) => {
    const item = items.find((each) => each.id === itemId)
    if (!item) throw new Error(`Item ${itemId} has gone.`)
    const short = shortages.filter((each) => each.itemId === itemId)
    return {
      itemId,
      name: itemName(item),
      colour: item.colour,
      unit: item.unit,
      needed: bills.reduce(
        (sum, { bill }, i) =>
          sum + (bill.find((entry) => entry.itemId === itemId)?.quantity ?? 0) * (wanted[i]?.kits ?? 0),
        0,
      ),
      onHand: item.onHand,
      promised: item.reserved,
      promisedHere: sumOf(here.filter((each) => each.itemId === itemId)),
      free: item.onHand - item.reserved,
      short: short.reduce((sum, each) => sum + each.missing, 0),
      shortFromKit: short[0] ? (lines[short[0].line]?.kits ?? 0) - short[0].kits + 1 : null,
      heldBy: byBatch(held.filter((each) => each.itemId === itemId && each.batchId !== batchId)),
    }
  })
  const makeable = outlookLines.every(({ troubles }, i) => troubles.length === 0 || wanted[i]?.kits === 0)
  return { lines: outlookLines, items: outlookItems, ready: filled && makeable, proven: allocation.proven }
}

export interface Held {
  readonly batchId: number
  readonly name: string
  readonly dueOn: string
  readonly itemId: number
  readonly lotId: number
  readonly quantity: number
}

/** States in which a batch holds what its bags must have. */
export const holding = ['reserved', 'packing', 'packed'] as const

/** What batches hold of some items, by batch and lot, soonest due first. */
export async function heldOf(db: Session, ids: readonly number[]): Promise<Held[]> {
  if (ids.length === 0) return []
  const rows = await db
    .select({
      batchId: batch.id,
      name: batch.name,
      dueOn: batch.dueOn,
      itemId: bag.itemId,
      lotId: sql<number>`${bag.lotId}`,
      quantity: sql<string>`sum(${heldByBag})`,
    })
    .from(bag)
    .innerJoin(batch, eq(batch.id, bag.batchId))
    .where(and(inArray(bag.itemId, [...ids]), isNotNull(bag.lotId), inArray(batch.state, [...holding])))
    .groupBy(batch.id, bag.itemId, bag.lotId)
    .orderBy(batch.dueOn, batch.id, bag.lotId)
  return rows.map((row) => ({ ...row, quantity: Number(row.quantity) }))
}

const sumOf = (promises: readonly { readonly quantity: number }[]) =>
  promises.reduce((sum, each) => sum + each.quantity, 0)

function byBatch(promises: readonly Held[]): ItemOutlook['heldBy'] {
  const batches = new Map<number, ItemOutlook['heldBy'][number]>()
  for (const { batchId, name, dueOn, quantity } of promises) {
    const before = batches.get(batchId)
    batches.set(batchId, { batchId, name, dueOn, quantity: (before?.quantity ?? 0) + quantity })
  }
  return [...batches.values()]
}
