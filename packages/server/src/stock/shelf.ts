/** The shelf, page by page: found by any part of anything it is known by, and paged by where the last page ended. */
import type { ShelfPage, ShelfWanted } from '@tessellum/contract/stock'
import { and, asc, eq, type SQL, sql } from 'drizzle-orm'
import type { PgColumn } from 'drizzle-orm/pg-core'
import type { Session } from '../database/connect'
import { beyond, likeAnywhere, wordsIn } from '../database/paging'
import { item } from '../schema/stock'
import { listItems } from './store'

const categories = { beads: 'bead', stones: 'stone', thread: 'thread', kits: 'kit' } as const

/** What each order goes by, before the id. */
const orders: Readonly<Record<ShelfWanted['by'], PgColumn[]>> = {
  colour: [item.colourName],
  code: [item.code],
  kind: [item.kind, item.size],
  place: [item.place],
}

/** More are not counted: nobody reads through them. */
const maxCounted = 2000

export async function shelfPage(db: Session, { find, show, by, after, limit }: ShelfWanted): Promise<ShelfPage> {
  const wanted: (SQL | undefined)[] = wordsIn(find).map((word) => sql`${item.words} like ${likeAnywhere(word)}`)
  if (show === 'low') wanted.push(sql`${item.id} in (select item_id from item_total where low)`)
  else if (show !== 'all') wanted.push(eq(item.category, categories[show]))
  const listed = pageOf(db, wanted, orders[by], after, limit)
  if (after !== undefined) return listed
  const [page, counted] = await Promise.all([listed, count(db, wanted)])
  return { ...page, ...counted }
}

async function pageOf(
  db: Session,
  wanted: readonly (SQL | undefined)[],
  columns: readonly PgColumn[],
  after: string | undefined,
  limit: number,
): Promise<Pick<ShelfPage, 'items' | 'next'>> {
  const ids = await db
    .select({ id: item.id, at: sql<string[]>`array[${sql.join([...columns], sql`, `)}]` })
    .from(item)
    .where(and(...wanted, after === undefined ? undefined : beyond([...columns, item.id], after)))
    .orderBy(...columns.map((column) => asc(column)), asc(item.id))
    .limit(limit + 1)
  const page = ids.slice(0, limit)
  const last = page[page.length - 1]
  const listed = await listItems(
    db,
    page.map(({ id }) => id),
  )
  const found = new Map(listed.map((each) => [each.id, each]))
  return {
    items: page.flatMap(({ id }) => found.get(id) ?? []),
    next: ids.length > limit && last ? JSON.stringify([...last.at, last.id]) : null,
  }
}

async function count(db: Session, wanted: readonly (SQL | undefined)[]) {
  const { rows } = await db.execute<{ total: number; low: number }>(sql`select
    (select count(*)::int from (select from ${item} where ${and(sql`true`, ...wanted)} limit ${maxCounted}) as found) as total,
    (select count(*)::int from item_total where low) as low`)
  return { ...rows[0], more: rows[0]?.total === maxCounted }
}
