/** What a batch needs of the shelf and what the shelf allows: read from the tables, reckoned by the core. */
import type { ItemOutlook, LineOutlook, Outlook } from '@tessellum/contract/batches'
import type { Choice } from '@tessellum/contract/colourways'
import type { Allocation } from '@tessellum/core/allocation/allocation'
import { allocate, type Demand, mostKits } from '@tessellum/core/kit/allocate'
import { itemName } from '@tessellum/core/stock/item-name'
import { eq, gt, inArray, sql } from 'drizzle-orm'
import { choicesOf } from '../colourways/store'
import type { Session } from '../database/connect'
import type { Shop } from '../http/route'
import { patternVersion } from '../patterns/schema'
import { lot, move } from '../stock/schema'
import { freeLots, listItems } from '../stock/store'
import type { WorkerPool } from '../workers/pool'
import { batch } from './schema'

/** A line with its pattern's text and its colourway's choices found. */
export interface PlannedLine {
  readonly patternVersionId: number
  readonly colourwayVersionId: number
  readonly size: string
  readonly kits: number
}

export interface LineBill {
  readonly bill: LineOutlook['bill']
  readonly troubles: string[]
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
  return Promise.all(
    lines.map(async (line) => {
      const chosen: Choice[] = choices.get(line.colourwayVersionId) ?? []
      const ids = new Set(chosen.map((choice) => choice.itemId))
      const { source, ratio, count } = texts.get(line.patternVersionId) as (typeof versions)[number]
      const { bill, troubles } = await workers.run('bill', {
        source,
        sampled: { ratio, count },
        size: line.size,
        choices: chosen,
        items: items.filter((item) => ids.has(item.id)),
      })
      return { bill: bill.lines.map((each) => ({ ...each, roles: [...each.roles] })), troubles }
    }),
  )
}

/** Lots that a batch may take from; what it holds itself is free to it. */
interface FreeLot {
  readonly lotId: number
  readonly itemId: number
  readonly free: number
  readonly receivedOn: string
}

/** The best filling of a batch's lines, solved off the event loop. */
export function allocationFor(
  workers: WorkerPool,
  lines: readonly PlannedLine[],
  bills: readonly LineBill[],
  lots: readonly FreeLot[],
): Promise<Allocation> {
  // The oldest are used up first, and of one day the smallest.
  const order = [...lots].sort(
    (a, b) => a.receivedOn.localeCompare(b.receivedOn) || a.free - b.free || a.lotId - b.lotId,
  )
  const met = new Map<number, number>()
  return workers.run('allocate', {
    lines: lines.map(({ kits }, line) => ({
      line,
      wanted: (bills[line]?.troubles.length ?? 0) > 0 ? 0 : kits,
      priority: 0,
      variants: [
        { bill: (bills[line]?.bill ?? []).map(({ itemId, quantity }) => ({ itemId, quantity })), distance: 0 },
      ],
    })),
    lots: order.map(({ lotId, itemId, free }) => {
      const rank = met.get(itemId) ?? 0
      met.set(itemId, rank + 1)
      return { lotId, itemId, free, rank }
    }),
  })
}

export const itemsIn = (bills: readonly LineBill[]): number[] => [
  ...new Set(bills.flatMap(({ bill }) => bill.map(({ itemId }) => itemId))),
]

const demandsOf = (lines: readonly PlannedLine[], bills: readonly LineBill[]): Demand[] =>
  lines.flatMap((line, i) =>
    (bills[i]?.bill ?? []).map(({ itemId, quantity }) => ({ line: i, itemId, quantity, kits: line.kits })),
  )

/** @param batchId the batch itself, whose own promises are not counted against it */
export async function outlookFor(
  shop: Shop,
  lines: readonly PlannedLine[],
  batchId: number | undefined,
): Promise<Outlook> {
  const bills = await billsFor(shop, lines)
  const { db } = shop
  const ids = itemsIn(bills)
  const [items, free, held] = await Promise.all([listItems(db, ids), freeLots(db, ids, false), heldOf(db, ids)])
  const here = held.filter((each) => each.batchId === batchId)
  const lots = free.map((each) => ({
    ...each,
    free: each.free + sumOf(here.filter((one) => one.lotId === each.lotId)),
  }))
  const demands = demandsOf(lines, bills)
  const allocation = await allocationFor(shop.workers, lines, bills, lots)
  const filled = allocation.lines.every(({ line, kits }) => kits === lines[line]?.kits)
  // What must be bought to make it all, item by item, whatever else is short.
  const shortages = filled ? [] : allocate(demands, lots).shortages
  const outlookLines: LineOutlook[] = bills.map(({ bill, troubles }, i) => {
    const { kits, limitedBy } = mostKits(bill, lots)
    return {
      bill,
      troubles,
      couldMake: troubles.length > 0 ? 0 : kits,
      together: allocation.lines[i]?.kits ?? 0,
      limitedBy: troubles.length > 0 ? [] : limitedBy,
    }
  })
  const outlookItems: ItemOutlook[] = ids.map((itemId) => {
    const item = items.find((each) => each.id === itemId)
    if (!item) throw new Error(`Item ${itemId} has gone.`)
    const short = shortages.filter((each) => each.itemId === itemId)
    return {
      itemId,
      name: itemName(item),
      colour: item.colour,
      unit: item.unit,
      needed: demands
        .filter((demand) => demand.itemId === itemId)
        .reduce((sum, demand) => sum + demand.quantity * demand.kits, 0),
      onHand: item.onHand,
      promised: item.reserved,
      promisedHere: sumOf(here.filter((each) => each.itemId === itemId)),
      free: item.onHand - item.reserved,
      short: short.reduce((sum, each) => sum + each.missing, 0),
      shortFromKit: short[0]?.fromKit ?? null,
      heldBy: byBatch(held.filter((each) => each.itemId === itemId && each.batchId !== batchId)),
    }
  })
  const ready = filled && outlookLines.every((line) => line.troubles.length === 0)
  return { lines: outlookLines, items: outlookItems, ready, proven: allocation.proven }
}

interface Held {
  readonly batchId: number
  readonly name: string
  readonly dueOn: string
  readonly itemId: number
  readonly lotId: number
  readonly quantity: number
}

/** What batches hold of some items, by batch and lot, soonest due first. */
async function heldOf(db: Session, ids: readonly number[]): Promise<Held[]> {
  if (ids.length === 0) return []
  const quantity = sql<string>`sum(${move.reserved})`
  const rows = await db
    .select({ batchId: batch.id, name: batch.name, dueOn: batch.dueOn, itemId: lot.itemId, lotId: lot.id, quantity })
    .from(move)
    .innerJoin(lot, eq(lot.id, move.lotId))
    .innerJoin(batch, eq(batch.id, move.batchId))
    .where(inArray(lot.itemId, [...ids]))
    .groupBy(batch.id, lot.itemId, lot.id)
    .having(gt(quantity, sql`0`))
    .orderBy(batch.dueOn, batch.id, lot.id)
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
