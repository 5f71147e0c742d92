/** The price list: what is asked at the counter for a gram, a metre or a piece. */
import type { PricesPage } from '@tessellum/contract/sales'
import { priceFor } from '@tessellum/core/kit/price'
import { itemName } from '@tessellum/core/stock/item-name'
import { perSpoken, spokenUnit } from '@tessellum/core/stock/quantity'
import { and, asc, eq, sql } from 'drizzle-orm'
import { logActivity } from '../audit/log'
import type { Caller } from '../context'
import type { Database, Session } from '../database/connect'
import { beyond, likeAnywhere, wordsIn } from '../database/paging'
import { runOnce } from '../idempotency/run-once'
import { notFound } from '../problem'
import { item, maker } from '../schema/stock'
import { costSettings } from '../settings/store'
import { identityOf } from '../stock/identity'
import { sellingPriceOf } from './store'

/** What a unit costs by its cheapest pack. */
const unitCost = sql<
  number | null
>`(select min(pack.price::float8 / pack.amount) from pack where pack.item_id = item.id)`

const priced = (db: Session) =>
  db
    .select({
      ...identityOf(item),
      code: item.code,
      maker: maker.name,
      unit: item.unit,
      price: item.sellingPrice,
      cost: unitCost,
    })
    .from(item)
    .innerJoin(maker, eq(maker.id, item.makerId))
    .orderBy(asc(item.colourName), asc(item.id))
    .$dynamic()

interface Wanted {
  readonly find: string
  readonly after?: string | undefined
  readonly limit: number
}

export async function pricesPage(db: Session, { find, after, limit }: Wanted): Promise<PricesPage> {
  const costs = await costSettings(db)
  const rows = await priced(db)
    .where(
      and(
        ...wordsIn(find).map((word) => sql`${item.words} like ${likeAnywhere(word)}`),
        after === undefined ? undefined : beyond([item.colourName, item.id], after),
      ),
    )
    .limit(limit + 1)
  const page = rows.slice(0, limit)
  const last = page[page.length - 1]
  return {
    items: page.map((row) => ({
      id: row.id,
      name: itemName(row),
      code: row.code,
      item: identityOf(row),
      unit: row.unit,
      price: row.price,
      suggested: row.cost === null ? null : priceFor(row.cost * perSpoken[row.unit], costs),
    })),
    next: rows.length > limit && last ? JSON.stringify([last.colourName, last.id]) : null,
  }
}

export const saveSellingPrice = (db: Database, id: number, price: number | null, caller: Caller) =>
  runOnce(db, caller, `selling price ${id}`, async (tx) => {
    const [changed] = await tx
      .update(item)
      .set({ sellingPrice: price })
      .where(eq(item.id, id))
      .returning({ name: item.colourName })
    if (!changed) throw notFound('item')
    await logActivity(tx, caller.id, `settled what is asked for ${changed.name}`, '/counter/prices')
    return sellingPriceOf(tx, id)
  })

/** Everything that has a price of its own. */
export async function priceRows(db: Session, currency: string): Promise<string[][]> {
  const rows = await priced(db).where(sql`${item.sellingPrice} is not null`)
  return [
    ['code', 'item', 'price', 'for a', 'currency'],
    ...rows.map((row) => [
      row.code,
      itemName(row),
      ((row.price ?? 0) / 100).toFixed(2),
      spokenUnit[row.unit],
      currency,
    ]),
  ]
}
