/** What is to be fetched from the shelf before packing: one walk for all batches of the next days. */
import type { FetchList } from '@tessellum/contract/diary'
import { and, eq, inArray, isNull, lte, sql } from 'drizzle-orm'
import { bag } from '../schema/bags'
import { batch } from '../schema/batches'
import { item, lot } from '../schema/stock'
import { dayBefore, lastDueBy } from '../settings/days'
import { settingsNow } from '../settings/store'
import type { Shop } from '../shop'
import { identityOf } from '../stock/identity'

export async function fetchListOf(shop: Shop, today: string): Promise<FetchList> {
  const { db } = shop
  const { kits, days, ahead } = await settingsNow(shop)
  const until = dayBefore(today, -ahead.fetchDays)
  const toPack = and(
    inArray(batch.state, ['reserved', 'packing']),
    lte(batch.dueOn, lastDueBy(until, kits.packingDays, days)),
    isNull(bag.filled),
  )
  // A lot lies where it was put, or else where its item does.
  const place = sql<string>`coalesce(nullif(${lot.place}, ''), ${item.place})`
  const [batches, tubes] = await Promise.all([
    db
      .selectDistinctOn([batch.dueOn, batch.id], { id: batch.id, name: batch.name })
      .from(batch)
      .innerJoin(bag, eq(bag.batchId, batch.id))
      .where(toPack)
      .orderBy(batch.dueOn, batch.id),
    db
      .select({
        place,
        lotId: lot.id,
        lot: lot.code,
        item: identityOf(item),
        unit: item.unit,
        quantity: sql<number>`sum(${bag.target})::float8`,
        bags: sql<number>`count(*)::int`,
      })
      .from(bag)
      .innerJoin(batch, eq(batch.id, bag.batchId))
      .innerJoin(lot, eq(lot.id, bag.lotId))
      .innerJoin(item, eq(item.id, lot.itemId))
      .where(toPack)
      .groupBy(lot.id, item.id)
      .orderBy(place, item.kind, item.size, item.colourName, lot.id),
  ])
  const places: { place: string; tubes: FetchList['places'][number]['tubes'] }[] = []
  for (const { place: at, ...tube } of tubes) {
    const last = places.at(-1)
    if (last?.place === at) last.tubes.push(tube)
    else places.push({ place: at, tubes: [tube] })
  }
  return { until, batches, places }
}
