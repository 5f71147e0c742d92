import { itemName } from '@tessellum/core/stock/item-name'
import { sayQuantity } from '@tessellum/core/stock/quantity'
import { asc, eq } from 'drizzle-orm'
import type { Session } from '../database/connect'
import type { linesOf } from '../planning/lines'
import { bag } from '../schema/bags'
import { listItems } from '../stock/store'
import type { BagRow, NewBag } from './lay-out'

/** In pieces, since a statement has at most 65,535 parameters. */
export async function insertBags(
  tx: Session,
  batchId: number,
  bags: readonly (NewBag & { lineId: number })[],
): Promise<void> {
  for (let at = 0; at < bags.length; at += 4000)
    await tx.insert(bag).values(bags.slice(at, at + 4000).map((each) => ({ ...each, batchId })))
}

export const bagsIn = (db: Session, batchId: number): Promise<BagRow[]> =>
  db.select().from(bag).where(eq(bag.batchId, batchId)).orderBy(asc(bag.lineId), asc(bag.kit), asc(bag.itemId))

/** "Bag 3, Windlass pendant: 0.4 g of cylinder 11/0 Lantern green..." */
export async function bagName(
  db: Session,
  { lineId, kit, itemId, filled }: Pick<typeof bag.$inferSelect, 'lineId' | 'kit' | 'itemId' | 'filled'>,
  lines: Awaited<ReturnType<typeof linesOf>>,
): Promise<string> {
  const [of] = await listItems(db, [itemId])
  const title = lines.find(({ id }) => id === lineId)?.title ?? ''
  const what = of ? `${sayQuantity(filled ?? 0, of.unit)} of ${itemName(of)}` : ''
  return `Bag ${kit}, ${title}: ${what}`
}
