import type { Item } from '@tessellum/contract/stock'
import { and, asc, eq, inArray, isNotNull, sql } from 'drizzle-orm'
import type { Session } from '../database/connect'
import { preparedQuery } from '../database/prepared'
import { bag } from '../schema/bags'
import { batch } from '../schema/batches'
import { balance, itemTotal, purchase } from '../schema/ledger'
import { item, lot, maker, pack } from '../schema/stock'
import { identityOf } from './identity'

/** Of a bead; null for what is not one. */
const figures = {
  lengthMm: item.lengthMm,
  acrossMm: item.acrossMm,
  boreMm: item.boreMm,
  massMg: item.massMg,
  contact: item.contact,
  bores: item.bores,
}

const items = (db: Session) =>
  db
    .select({
      ...identityOf(item),
      code: item.code,
      unit: item.unit,
      barcode: item.barcode,
      cautions: item.cautions,
      reorderBelow: item.reorderBelow,
      maker: maker.name,
      packs: sql<
        Item['packs']
      >`(select coalesce(json_agg(json_build_object('amount', ${pack.amount}, 'price', ${pack.price}, 'leadDays', ${pack.leadDays}) order by ${pack.amount}), '[]') from ${pack} where ${pack.itemId} = ${item.id})`,
      coming: sql<number>`(select coalesce(sum(${purchase.amount}), 0)::float8 from ${purchase} where ${purchase.itemId} = ${item.id} and ${purchase.state} = 'ordered')`,
      onHand: itemTotal.onHand,
      reserved: itemTotal.reserved,
      ...figures,
    })
    .from(item)
    .innerJoin(maker, eq(maker.id, item.makerId))
    .innerJoin(itemTotal, eq(itemTotal.itemId, item.id))
    .$dynamic()

type Figures = { readonly [Name in keyof typeof figures]: number | null }

type Row = Awaited<ReturnType<typeof items>>[number]

const asItem = ({ lengthMm, acrossMm, boreMm, massMg, contact, bores, ...row }: Row): Item => ({
  bead: beadOf(row, { lengthMm, acrossMm, boreMm, massMg, contact, bores }),
  // Last: in Node 20 each property that is written after a spread takes two microseconds.
  ...row,
})

function beadOf(
  { kind, size, maker }: Pick<Item, 'kind' | 'size' | 'maker'>,
  { lengthMm, acrossMm, boreMm, massMg, contact, bores }: Figures,
): Item['bead'] {
  if (!(lengthMm && acrossMm && boreMm && massMg && contact)) return null
  return { kind, size, lengthMm, acrossMm, boreMm, massMg, contact, bores: bores === 2 ? 2 : 1, maker }
}

const inOrder = [item.category, item.kind, item.size, maker.name, item.colourName, item.id]

const itemsById = preparedQuery((db) =>
  items(db)
    .where(sql`${item.id} = any(${sql.placeholder('ids')})`)
    .orderBy(...inOrder)
    .prepare('items_by_id'),
)

export async function listItems(db: Session, ids: readonly number[]): Promise<Item[]> {
  if (ids.length === 0) return []
  const rows = await itemsById(db).execute({ ids })
  return rows.map(asItem)
}

/** So many at once: a shelf may be long. */
const part = 250

/** Every item in the same order, part after part. */
export async function* allItems(db: Session): AsyncGenerator<Item[]> {
  const rows = await db
    .select({ id: item.id })
    .from(item)
    .innerJoin(maker, eq(maker.id, item.makerId))
    .orderBy(...inOrder)
  for (let at = 0; at < rows.length; at += part)
    yield listItems(
      db,
      rows.slice(at, at + part).map(({ id }) => id),
    )
}

/** Every bead that is kept, once for each maker, kind and size. */
export async function beadRecords(db: Session): Promise<NonNullable<Item['bead']>[]> {
  const rows = await db
    .selectDistinctOn([maker.name, item.kind, item.size], {
      maker: maker.name,
      kind: item.kind,
      size: item.size,
      ...figures,
    })
    .from(item)
    .innerJoin(maker, eq(maker.id, item.makerId))
    .where(eq(item.category, 'bead'))
    .orderBy(maker.name, item.kind, item.size, item.id)
  return rows.flatMap((row) => {
    const bead = beadOf(row, row)
    return bead ? [bead] : []
  })
}

/** Of some lots, what lies in bags that have not been issued yet: on hand by the ledger, and not in the tube. */
export async function inBagsOf(db: Session, lotIds: readonly number[]): Promise<Map<number, number>> {
  if (lotIds.length === 0) return new Map()
  const rows = await db
    .select({ lotId: bag.lotId, quantity: sql<string>`sum(${bag.filled})` })
    .from(bag)
    .innerJoin(batch, eq(batch.id, bag.batchId))
    .where(and(inArray(bag.lotId, [...lotIds]), isNotNull(bag.filled), inArray(batch.state, ['packing', 'packed'])))
    .groupBy(bag.lotId)
  return new Map(rows.map(({ lotId, quantity }) => [lotId ?? 0, Number(quantity)]))
}

/** Lots of some items with what is free in each, oldest first; locked against other takers where `lock` is set. */
export async function freeLots(db: Session, itemIds: readonly number[], lock: boolean) {
  if (itemIds.length === 0) return []
  const query = db
    .select({
      lotId: lot.id,
      itemId: lot.itemId,
      onHand: balance.onHand,
      reserved: balance.reserved,
      receivedOn: lot.receivedOn,
      mgPerBead: lot.mgPerBead,
    })
    .from(balance)
    .innerJoin(lot, eq(lot.id, balance.lotId))
    .where(inArray(lot.itemId, [...itemIds]))
    // One order for everybody, so that two batches wait for one another and never for each other.
    .orderBy(asc(balance.lotId))
  const rows = await (lock ? query.for('update', { of: balance }) : query)
  return rows
    .map((row) => ({ ...row, free: row.onHand - row.reserved }))
    .sort((a, b) => a.receivedOn.localeCompare(b.receivedOn) || a.lotId - b.lotId)
}
