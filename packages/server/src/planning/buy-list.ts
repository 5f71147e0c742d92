/** What must be bought, by when, so that every open batch can be filled. */
import type { BuyLine } from '@tessellum/contract/buying'
import { itemName } from '@tessellum/core/stock/item-name'
import { sql } from 'drizzle-orm'
import { detached } from '../context'
import { dayBefore, lastWorkingDay, workingDaysBefore } from '../settings/days'
import { settingsNow } from '../settings/store'
import type { Shop } from '../shop'
import { identityOf } from '../stock/identity'
import { listPurchases } from '../stock/purchases'
import { freeLots, listItems } from '../stock/store'
import type { FreeLot } from './allocation'
import { billsFor, itemsIn } from './bills'
import { draftLines, type MovedBatch, stillToPack } from './drafts'
import { shortagesFor } from './shortages'

interface Kept {
  readonly revision: number
  readonly lines: Promise<BuyLine[]>
}

/** Of each shop, what must be bought for all drafts: nearly every page asks for it, and it is the same for as long as nothing is changed. */
const latest = new WeakMap<Shop, Kept>()

/** What drafts are short of, and what runs low. @param until a day by which they are due; all drafts when absent */
export async function buyList(shop: Shop, until: string | undefined): Promise<BuyLine[]> {
  const revision = shop.revision.now
  if (until !== undefined || revision === undefined) return planBuying(shop, until)
  const known = latest.get(shop)
  if (known?.revision === revision) return known.lines
  const planned = detached(() => planBuying(shop, undefined))
  const kept = { revision, lines: planned }
  latest.set(shop, kept)
  // What failed is tried again by whoever asks next.
  planned.catch(() => latest.get(shop) === kept && latest.delete(shop))
  return kept.lines
}

/** The same as if one of the drafts were due on another day. */
export const buyListIfMoved = (shop: Shop, moved: MovedBatch): Promise<BuyLine[]> => planBuying(shop, undefined, moved)

async function planBuying(shop: Shop, until: string | undefined, moved?: MovedBatch): Promise<BuyLine[]> {
  const { db, workers } = shop
  const drafts = (await draftLines(db, moved)).filter(({ dueOn }) => until === undefined || dueOn <= until)
  const wanted = await stillToPack(db, drafts)
  const bills = await billsFor(shop, wanted)
  const { kits, days } = await settingsNow(shop)
  // What is ordered counts as there for what is due after it comes: each order as a lot of its own.
  const coming = await listPurchases(db)
  const lots: FreeLot[] = [
    ...(await freeLots(db, itemsIn(bills), false)),
    ...coming.map(({ id, itemId, amount, expectedOn }) => ({
      lotId: -id,
      itemId,
      free: amount,
      receivedOn: expectedOn,
      comesOn: expectedOn,
      mgPerBead: null,
    })),
  ]
  const turns = wanted.map(({ turn }) => turn)
  const { shortages } = await shortagesFor(workers, wanted, bills, lots, turns)
  const { rows: lowNow } = await db.execute<{ id: number }>(
    sql`select item_id as id from item_total join item on item.id = item_id where low and category <> 'kit'`,
  )
  const ids = [...new Set([...shortages.map(({ itemId }) => itemId), ...lowNow.map(({ id }) => id)])]
  const found = (await listItems(db, ids)).map((item) => {
    const missing = shortages.filter(({ itemId }) => itemId === item.id)
    const short = missing.reduce((sum, each) => sum + each.missing, 0)
    const onItsWay = coming.reduce((sum, { itemId, amount }) => sum + (itemId === item.id ? amount : 0), 0)
    const planned = bills.reduce(
      (sum, { bill }, i) =>
        sum + (bill.find(({ itemId }) => itemId === item.id)?.quantity ?? 0) * (wanted[i]?.kits ?? 0),
      0,
    )
    const left = item.onHand - item.reserved + onItsWay + short - planned
    return { item, missing, short, planned, coming: onItsWay, low: Math.max(0, item.reorderBelow - Math.max(0, left)) }
  })
  const toBuy = found.filter(({ short, low }) => short + low > 0)
  const purchases = await workers.run('buy', {
    shortages: toBuy.map(({ item, short, low }) => ({ packs: item.packs, short: short + low })),
  })
  const lines = toBuy.map(({ item, missing, short, low, planned, coming }, i): BuyLine => {
    const batches = new Map(
      missing.flatMap(({ line }) => {
        const of = wanted[line]
        return of ? [[of.batchId, { id: of.batchId, name: of.batchName, dueOn: of.dueOn }] as const] : []
      }),
    )
    const waiting = [...batches.values()].sort((a, b) => a.dueOn.localeCompare(b.dueOn))
    const purchase = purchases[i]
    const packs = item.packs
      .map((pack, p) => ({ ...pack, count: purchase?.counts[p] ?? 0 }))
      .filter(({ count }) => count > 0)
    const lead = Math.max(0, ...packs.map(({ leadDays }) => leadDays))
    const neededOn = waiting[0]?.dueOn ?? null
    return {
      itemId: item.id,
      name: itemName(item),
      item: identityOf(item),
      unit: item.unit,
      supplier: item.maker,
      free: item.onHand - item.reserved,
      planned,
      reorderBelow: item.reorderBelow,
      short,
      low,
      packs: packs.map(({ amount, price, leadDays, count }) => ({ amount, price, leadDays, count })),
      amount: purchase?.amount ?? 0,
      cost: purchase?.cost ?? 0,
      neededOn,
      coming,
      orderBy:
        neededOn === null
          ? null
          : lastWorkingDay(dayBefore(workingDaysBefore(neededOn, kits.packingDays, days), lead), days),
      batches: waiting,
    }
  })
  const late = ({ orderBy }: BuyLine) => orderBy ?? '9999'
  return lines.sort((a, b) => late(a).localeCompare(late(b)) || a.name.localeCompare(b.name))
}

/** Drafts that are short of something, each with the last day to order it. */
export function shortIn(lines: readonly BuyLine[]): Map<number, string> {
  const short = new Map<number, string>()
  for (const { orderBy, batches } of lines)
    for (const { id } of batches) {
      if (orderBy === null) continue
      const before = short.get(id)
      if (before === undefined || orderBy < before) short.set(id, orderBy)
    }
  return short
}

export const shortBatches = async (shop: Shop): Promise<Map<number, string>> => shortIn(await buyList(shop, undefined))
