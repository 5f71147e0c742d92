/** What must be bought, by when, so that every open batch can be filled. */
import type { BuyLine } from '@tessellum/contract/buying'
import { allocate, type Demand } from '@tessellum/core/kit/allocate'
import { itemName } from '@tessellum/core/stock/item-name'
import { and, asc, eq, lte } from 'drizzle-orm'
import { billsFor, itemsIn } from '../batches/plan'
import { batch } from '../batches/schema'
import { linesOf } from '../batches/store'
import type { Shop } from '../http/route'
import { listPurchases } from '../stock/purchases'
import { freeLots, listItems } from '../stock/store'

/** Between a delivery and the day a batch is due: time to pack it. */
const packingDays = 2

/** Of drafts, soonest due first: what is reserved has its beads. @param until a day; all batches when absent */
export async function buyList(shop: Shop, until: string | undefined): Promise<BuyLine[]> {
  const { db, workers } = shop
  const open = await db
    .select({ id: batch.id, name: batch.name, dueOn: batch.dueOn })
    .from(batch)
    .where(and(eq(batch.state, 'draft'), until ? lte(batch.dueOn, until) : undefined))
    .orderBy(asc(batch.dueOn), asc(batch.id))
  const demands: Demand[] = []
  const ofLine: (typeof open)[number][] = []
  const bills = []
  for (const each of open) {
    const lines = await linesOf(db, each.id)
    for (const [i, found] of (await billsFor(shop, lines)).entries()) {
      bills.push(found)
      for (const { itemId, quantity } of found.bill)
        demands.push({ line: ofLine.length, itemId, quantity, kits: lines[i]?.kits ?? 0, on: each.dueOn })
      ofLine.push(each)
    }
  }
  // What is ordered counts as there for what is due after it comes: each order as a lot of its own.
  const coming = await listPurchases(db)
  const lots = [
    ...(await freeLots(db, itemsIn(bills), false)),
    ...coming.map(({ id, itemId, amount, expectedOn }) => ({ lotId: -id, itemId, free: amount, from: expectedOn })),
  ]
  const { shortages } = allocate(demands, lots)
  const ids = [...new Set(shortages.map(({ itemId }) => itemId))]
  const items = await listItems(db, ids)
  const short = (itemId: number) => shortages.filter((each) => each.itemId === itemId)
  const purchases = await workers.run('buy', {
    shortages: items.map(({ id, packs }) => ({
      packs,
      short: short(id).reduce((sum, { missing }) => sum + missing, 0),
    })),
  })
  const lines = items.map((item, i): BuyLine => {
    const missing = short(item.id)
    const waiting = [...new Set(missing.map(({ line }) => ofLine[line] as (typeof open)[number]))]
    const purchase = purchases[i]
    const packs = item.packs
      .map((pack, p) => ({ ...pack, count: purchase?.counts[p] ?? 0 }))
      .filter(({ count }) => count > 0)
    const lead = Math.max(0, ...packs.map(({ leadDays }) => leadDays))
    const neededOn = waiting[0]?.dueOn ?? ''
    return {
      itemId: item.id,
      name: itemName(item),
      colour: item.colour,
      unit: item.unit,
      supplier: item.maker,
      short: missing.reduce((sum, each) => sum + each.missing, 0),
      packs: packs.map(({ amount, price, leadDays, count }) => ({ amount, price, leadDays, count })),
      amount: purchase?.amount ?? 0,
      cost: purchase?.cost ?? 0,
      neededOn,
      coming: coming.filter(({ itemId }) => itemId === item.id).reduce((sum, { amount }) => sum + amount, 0),
      orderBy: daysBefore(neededOn, lead + packingDays),
      batches: waiting.map(({ id, name }) => ({ id, name })),
    }
  })
  return lines.sort((a, b) => a.orderBy.localeCompare(b.orderBy) || a.name.localeCompare(b.name))
}

const daysBefore = (day: string, days: number) =>
  new Date(Date.parse(`${day}T00:00:00Z`) - days * 86_400_000).toISOString().slice(0, 10)

/** Drafts that are short of something, each with the last day to order it. */
export function shortIn(lines: readonly BuyLine[]): Map<number, string> {
  const short = new Map<number, string>()
  for (const { orderBy, batches } of lines)
    for (const { id } of batches) {
      const before = short.get(id)
      if (before === undefined || orderBy < before) short.set(id, orderBy)
    }
  return short
}

export const shortBatches = async (shop: Shop): Promise<Map<number, string>> => shortIn(await buyList(shop, undefined))
