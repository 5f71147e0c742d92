/** Items as they are kept: begun and changed, by hand or from a file. */
import type { SaveItem } from '@tessellum/contract/stock'
import { eq, sql } from 'drizzle-orm'
import type { Session } from '../database/connect'
import { brokenConstraint } from '../database/trouble'
import { notFound, Refusal } from '../http/refusal'
import { item, lot, maker, move, pack } from './schema'

async function makerId(tx: Session, name: string): Promise<number> {
  const [known] = await tx.select({ id: maker.id }).from(maker).where(eq(maker.name, name))
  if (known) return known.id
  const [made] = await tx
    .insert(maker)
    .values({ name })
    .onConflictDoUpdate({ target: maker.name, set: { name } })
    .returning({ id: maker.id })
  return (made as { id: number }).id
}

const valuesOf = async (tx: Session, { maker: name, figures, packs: _, ...rest }: SaveItem) => ({
  ...rest,
  makerId: await makerId(tx, name),
  ...(figures ?? { lengthMm: null, acrossMm: null, boreMm: null, massMg: null, contact: null, bores: null }),
})

/** @returns its id */
export async function addItem(tx: Session, wanted: SaveItem): Promise<number> {
  const [made] = await tx
    .insert(item)
    .values(await valuesOf(tx, wanted))
    .returning({ id: item.id })
  const { id } = made as { id: number }
  await keepPacks(tx, id, wanted.packs)
  return id
}

export async function changeItem(tx: Session, id: number, wanted: SaveItem): Promise<void> {
  const [before] = await tx
    .select({ unit: item.unit, category: item.category })
    .from(item)
    .where(eq(item.id, id))
    .for('update')
  if (!before) throw notFound('item')
  if (before.category === 'kit')
    throw new Refusal(409, 'kit', 'A kit is what its batch made it.', {
      hint: 'Change the pattern or the colourway instead.',
    })
  if (before.unit !== wanted.unit) {
    const [moved] = await tx
      .select({ any: sql<number>`1` })
      .from(move)
      .innerJoin(lot, eq(lot.id, move.lotId))
      .where(eq(lot.itemId, id))
      .limit(1)
    if (moved)
      throw new Refusal(409, 'unit-in-use', 'Its moves are in the unit that it has: that cannot change any more.', {
        path: 'unit',
        hint: 'Begin another item in the other unit.',
      })
  }
  await tx
    .update(item)
    .set(await valuesOf(tx, wanted))
    .where(eq(item.id, id))
  await tx.delete(pack).where(eq(pack.itemId, id))
  await keepPacks(tx, id, wanted.packs)
}

const keepPacks = async (tx: Session, itemId: number, packs: SaveItem['packs']) => {
  if (packs.length > 0) await tx.insert(pack).values(packs.map((each) => ({ ...each, itemId })))
}

/** Turns the database's word for a wrong item into the stockroom's. */
export function explainItem(error: unknown, { code, barcode }: Pick<SaveItem, 'code' | 'barcode'>): unknown {
  const constraint = brokenConstraint(error)
  if (constraint === 'item_code_unique')
    return new Refusal(409, 'code-taken', `There is an item "${code}" already.`, {
      path: 'code',
      hint: 'Give it another code.',
    })
  if (constraint === 'item_barcode_unique')
    return new Refusal(409, 'barcode-taken', `The barcode ${barcode} is another item's.`, {
      path: 'barcode',
      hint: 'Scan it again, or look it up.',
    })
  if (constraint === 'pack_amount')
    return new Refusal(422, 'pack-twice', 'It has two packs of the same size.', {
      path: 'packs',
      hint: 'Keep one of them.',
    })
  return error
}
