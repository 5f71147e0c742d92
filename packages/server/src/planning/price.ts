/** What a batch's kits cost: by the lots they are filled from once they are laid out, by the cheapest pack until then. */
import type { BatchPrice } from '@tessellum/contract/diary'
import { costOfKit, unitCost } from '@tessellum/core/kit/cost'
import { priceOfKit } from '@tessellum/core/kit/price'
import { itemName } from '@tessellum/core/stock/item-name'
import { eq, sql } from 'drizzle-orm'
import { bag } from '../schema/bags'
import { lot } from '../schema/stock'
import { costSettings } from '../settings/store'
import type { Shop } from '../shop'
import { listItems } from '../stock/store'
import { billsFor } from './bills'
import { linesOf, type PlannedLine } from './lines'

/** Materials of one kit of each line, in minor units, by packs. */
export async function materialsOf(
  shop: Shop,
  lines: readonly PlannedLine[],
): Promise<{ cost: number; unpriced: number[] }[]> {
  const bills = await billsFor(shop, lines)
  const ids = [...new Set(bills.flatMap(({ bill }) => bill.map(({ itemId }) => itemId)))]
  const costs = new Map((await listItems(shop.db, ids)).map(({ id, packs }) => [id, unitCost(packs)]))
  return bills.map(({ bill }) => {
    const { cost, unpriced } = costOfKit(bill, costs)
    return { cost, unpriced: [...unpriced] }
  })
}

export async function priceOfBatch(shop: Shop, id: number): Promise<BatchPrice> {
  const { db } = shop
  const lines = await linesOf(db, id)
  const settings = await costSettings(db)
  const byPacks = await materialsOf(shop, lines)
  const byLots = await db
    .select({
      lineId: bag.lineId,
      /** That are packed for it; what else it has stood on the shelf, and cost about the same. */
      kits: sql<number>`count(distinct ${bag.kit})::int`,
      cost: sql<number>`sum(coalesce(${bag.filled}, ${bag.target}) * ${lot.unitCost})::float8`,
      unknown: sql<number>`count(*) filter (where ${lot.unitCost} is null)::int`,
    })
    .from(bag)
    .leftJoin(lot, eq(lot.id, bag.lotId))
    .where(eq(bag.batchId, id))
    .groupBy(bag.lineId)
  const names = new Map(
    (
      await listItems(
        db,
        byPacks.flatMap(({ unpriced }) => unpriced),
      )
    ).map((item) => [item.id, itemName(item)]),
  )
  const known = byLots.length > 0 && byLots.every(({ unknown }) => unknown === 0)
  const priced = lines.map((line, i) => {
    const laid = byLots.find(({ lineId }) => lineId === line.id)
    const packs = byPacks[i] ?? { cost: 0, unpriced: [] }
    const materials = known && laid ? laid.cost / laid.kits : packs.cost
    const unpriced = known ? [] : packs.unpriced.map((itemId) => names.get(itemId) ?? '')
    return { ...priceOfKit(materials, settings), unpriced }
  })
  const sum = (of: 'cost' | 'price') => priced.reduce((total, each, i) => total + each[of] * (lines[i]?.kits ?? 0), 0)
  return {
    byLots: known,
    lines: priced,
    cost: sum('cost'),
    price: sum('price'),
    boughtAnew: await boughtAnew(shop, lines),
  }
}

/** The more kits, the fewer beads are left over in packs, and the cheaper the packs. */
async function boughtAnew(shop: Shop, lines: readonly PlannedLine[]): Promise<BatchPrice['boughtAnew']> {
  const bills = await billsFor(shop, lines)
  const kits = lines.reduce((sum, line) => sum + line.kits, 0)
  const needs = new Map<number, number>()
  for (const [i, { bill }] of bills.entries())
    for (const { itemId, quantity } of bill)
      needs.set(itemId, (needs.get(itemId) ?? 0) + quantity * (lines[i]?.kits ?? 0))
  const items = await listItems(shop.db, [...needs.keys()])
  if (items.length === 0 || items.some(({ packs }) => packs.length === 0)) return []
  return Promise.all(
    [1, 2, 4].map(async (times) => {
      const shortages = items.map(({ id, packs }) => ({ short: (needs.get(id) ?? 0) * times, packs }))
      const bought = await shop.workers.run('buy', { shortages })
      const cost = bought.reduce((sum, purchase) => sum + (purchase?.cost ?? 0), 0)
      return { times, kits: kits * times, materials: Math.round(cost / (kits * times)) }
    }),
  )
}
