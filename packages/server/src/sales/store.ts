import type { Sale, SalesOfDays } from '@tessellum/contract/sales'
import { priceFor } from '@tessellum/core/kit/price'
import { perSpoken } from '@tessellum/core/stock/quantity'
import { and, desc, eq, inArray, isNotNull, type SQL, sql } from 'drizzle-orm'
import type { Session } from '../database/connect'
import { notFound } from '../problem'
import { patternVersion } from '../schema/patterns'
import { person } from '../schema/people'
import { sale, saleLine, saleReturn } from '../schema/sales'
import { item, lot, pack } from '../schema/stock'
import { dayIn, onDays, timeZoneOf } from '../settings/days'
import { costSettings } from '../settings/store'

/** More sales are not listed at once. */
const maxListed = 500

async function salesWhere(db: Session, wanted: SQL | undefined): Promise<Sale[]> {
  const sales = await db
    .select({ id: sale.id, customer: sale.customer, customerId: sale.customerId, at: sale.at, by: person.fullName })
    .from(sale)
    .innerJoin(person, eq(person.id, sale.madeBy))
    .where(wanted)
    .orderBy(desc(sale.id))
    .limit(maxListed)
  if (sales.length === 0) return []
  const lines = await db
    .select({
      id: saleLine.id,
      saleId: saleLine.saleId,
      itemId: saleLine.itemId,
      patternId: patternVersion.patternId,
      version: patternVersion.number,
      name: saleLine.name,
      unit: saleLine.unit,
      quantity: saleLine.quantity,
      price: saleLine.price,
      tax: saleLine.tax,
      returned: sql<number>`coalesce(sum(${saleReturn.quantity}), 0)::float8`,
      refunded: sql<number>`coalesce(sum(${saleReturn.refund}), 0)::float8`,
    })
    .from(saleLine)
    .leftJoin(patternVersion, eq(patternVersion.id, saleLine.patternVersionId))
    .leftJoin(saleReturn, eq(saleReturn.lineId, saleLine.id))
    .where(
      inArray(
        saleLine.saleId,
        sales.map(({ id }) => id),
      ),
    )
    .groupBy(saleLine.id, patternVersion.id)
    .orderBy(saleLine.id)
  const of = new Map<number, Sale['lines']>(sales.map(({ id }) => [id, []]))
  for (const { saleId, ...line } of lines) of.get(saleId)?.push(line)
  return sales.map((each) => ({ ...each, at: each.at.toISOString(), lines: of.get(each.id) ?? [] }))
}

export async function findSale(db: Session, id: number): Promise<Sale | undefined> {
  const [found] = await salesWhere(db, eq(sale.id, id))
  return found
}

interface Span {
  readonly from: string
  readonly to: string
}

export async function salesOf(db: Session, span: Span): Promise<SalesOfDays> {
  const zone = await timeZoneOf(db)
  const [sales, [taken], [refunded]] = await Promise.all([
    salesWhere(db, onDays(sale.at, span, zone)),
    db
      .select({ sum: sql<number>`coalesce(sum(${saleLine.price}), 0)::float8` })
      .from(saleLine)
      .innerJoin(sale, eq(sale.id, saleLine.saleId))
      .where(onDays(sale.at, span, zone)),
    db
      .select({ sum: sql<number>`coalesce(sum(${saleReturn.refund}), 0)::float8` })
      .from(saleReturn)
      .where(onDays(saleReturn.at, span, zone)),
  ])
  return { sales, taken: taken?.sum ?? 0, refunded: refunded?.sum ?? 0 }
}

/** Every line that was sold and every return of those days, a row each, oldest first: for who keeps the books. */
export async function bookkeeping(db: Session, span: Span, currency: string): Promise<string[][]> {
  const zone = await timeZoneOf(db)
  const columns = { sale: sale.id, name: saleLine.name, unit: saleLine.unit }
  const sold = await db
    .select({
      ...columns,
      day: dayIn(sale.at, zone),
      at: sale.at,
      quantity: saleLine.quantity,
      amount: saleLine.price,
      tax: saleLine.tax,
    })
    .from(saleLine)
    .innerJoin(sale, eq(sale.id, saleLine.saleId))
    .where(onDays(sale.at, span, zone))
  const back = await db
    .select({
      ...columns,
      day: dayIn(saleReturn.at, zone),
      at: saleReturn.at,
      quantity: sql<number>`-${saleReturn.quantity}`.mapWith(Number),
      amount: sql<number>`-${saleReturn.refund}`.mapWith(Number),
      // Of what is given back, the same share as of what was paid.
      tax: sql<number>`-round(${saleReturn.refund}::numeric * ${saleLine.tax} / nullif(${saleLine.price}, 0))`.mapWith(
        Number,
      ),
    })
    .from(saleReturn)
    .innerJoin(saleLine, eq(saleLine.id, saleReturn.lineId))
    .innerJoin(sale, eq(sale.id, saleLine.saleId))
    .where(onDays(saleReturn.at, span, zone))
  const rows = [...sold, ...back].sort((a, b) => a.at.getTime() - b.at.getTime() || a.sale - b.sale)
  return [
    ['day', 'sale', 'what', 'quantity', 'unit', 'amount', 'tax in it', 'currency'],
    ...rows.map((row) => [
      row.day,
      String(row.sale),
      row.name,
      String(row.quantity),
      row.unit,
      (row.amount / 100).toFixed(2),
      (row.tax / 100).toFixed(2),
      currency,
    ]),
  ]
}

export async function sellingPriceOf(db: Session, itemId: number) {
  const [listed] = await db.select({ price: item.sellingPrice, unit: item.unit }).from(item).where(eq(item.id, itemId))
  if (!listed) throw notFound('item')
  if (listed.price !== null) return { perUnit: listed.price / perSpoken[listed.unit], from: 'price list' as const }
  const [last] = await db
    .select({ perUnit: sql<number>`${saleLine.price}::float8 / ${saleLine.quantity}` })
    .from(saleLine)
    .where(eq(saleLine.itemId, itemId))
    .orderBy(desc(saleLine.id))
    .limit(1)
  if (last) return { perUnit: last.perUnit, from: 'last sale' as const }
  const [packs] = await db
    .select({ each: sql<number | null>`min(${pack.price}::float8 / ${pack.amount})` })
    .from(pack)
    .where(eq(pack.itemId, itemId))
  const [made] = await db
    .select({ each: lot.unitCost })
    .from(lot)
    .where(and(eq(lot.itemId, itemId), isNotNull(lot.unitCost)))
    .orderBy(desc(lot.id))
    .limit(1)
  const cost = packs?.each ?? made?.each ?? null
  if (cost === null) return { perUnit: null, from: null }
  const costs = await costSettings(db)
  // By the thousand, so that what is asked for a gram is not rounded up to tens of pence for a milligram.
  return { perUnit: priceFor(cost * 1000, costs) / 1000, from: 'cost and margin' as const }
}
