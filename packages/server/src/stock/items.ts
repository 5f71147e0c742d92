/** Items as they are kept: begun and changed, by hand or from a file. */
import type { SaveItem } from '@tessellum/contract/stock'
import { eq, sql } from 'drizzle-orm'
import { logActivity } from '../audit/log'
import type { Caller } from '../context'
import type { Database, Session } from '../database/connect'
import { brokenConstraint } from '../database/errors'
import { runOnce } from '../idempotency/run-once'
import { HttpProblem, notFound } from '../problem'
import { move } from '../schema/ledger'
import { item, lot, maker, pack } from '../schema/stock'

export async function makerId(tx: Session, name: string): Promise<number> {
  const [known] = await tx.select({ id: maker.id }).from(maker).where(eq(maker.name, name))
  if (known) return known.id
  const [made] = await tx
    .insert(maker)
    .values({ name })
    .onConflictDoUpdate({ target: maker.name, set: { name } })
    .returning({ id: maker.id })
  return (made as { id: number }).id
}

interface Packed {
  readonly packs: readonly SaveItem['packs'][number][]
}

const valuesOf = ({ maker: _, figures, packs: __, ...rest }: Omit<SaveItem, 'packs'> & Packed, makerId: number) => ({
  ...rest,
  makerId,
  ...(figures ?? { lengthMm: null, acrossMm: null, boreMm: null, massMg: null, contact: null, bores: null }),
})

/** So many at once: a statement has at most 65,535 parameters. */
const maxAtOnce = 1000

/** @returns their ids, in the same order */
export async function addItems(tx: Session, wanted: readonly (Omit<SaveItem, 'packs'> & Packed)[]): Promise<number[]> {
  const ids: number[] = []
  const makers = new Map<string, number>()
  for (const { maker: name } of wanted) if (!makers.has(name)) makers.set(name, await makerId(tx, name))
  for (let at = 0; at < wanted.length; at += maxAtOnce) {
    const part = wanted.slice(at, at + maxAtOnce)
    const made = await tx
      .insert(item)
      .values(part.map((each) => valuesOf(each, makers.get(each.maker) as number)))
      .returning({ id: item.id })
    ids.push(...made.map(({ id }) => id))
  }
  const packs = wanted.flatMap((each, i) => each.packs.map((one) => ({ ...one, itemId: ids[i] as number })))
  for (let at = 0; at < packs.length; at += maxAtOnce) await tx.insert(pack).values(packs.slice(at, at + maxAtOnce))
  return ids
}

export async function changeItem(tx: Session, id: number, wanted: SaveItem): Promise<void> {
  const [before] = await tx
    .select({ unit: item.unit, category: item.category })
    .from(item)
    .where(eq(item.id, id))
    .for('update')
  if (!before) throw notFound('item')
  if (before.category === 'kit')
    throw new HttpProblem(409, 'kit', 'A kit is what its batch made it.', {
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
      throw new HttpProblem(409, 'unit-in-use', 'The unit cannot be changed: this item already has stock movements.', {
        path: 'unit',
        hint: 'Begin another item in the other unit.',
      })
  }
  await tx
    .update(item)
    .set(valuesOf(wanted, await makerId(tx, wanted.maker)))
    .where(eq(item.id, id))
  await keepPacks(tx, id, wanted.packs)
}

/** Buys it in these packs from now on. */
export async function takePacks(tx: Session, id: number, packs: SaveItem['packs']): Promise<void> {
  const [found] = await tx.select({ id: item.id }).from(item).where(eq(item.id, id)).for('update')
  if (!found) throw notFound('item')
  await keepPacks(tx, id, packs)
}

/** A pack whose price stays has it for as long as before. */
async function keepPacks(tx: Session, itemId: number, packs: SaveItem['packs']): Promise<void> {
  const before = await tx.delete(pack).where(eq(pack.itemId, itemId)).returning()
  if (packs.length === 0) return
  const since = ({ amount, price }: SaveItem['packs'][number]) => {
    const same = before.find((each) => each.amount === amount && each.price === price)
    return same ? { pricedOn: same.pricedOn } : {}
  }
  await tx.insert(pack).values(packs.map((each) => ({ ...each, ...since(each), itemId })))
}

/** Turns the database's word for a wrong item into the stockroom's. */
function explainItem(error: unknown, { code, barcode }: Pick<SaveItem, 'code' | 'barcode'>): unknown {
  const constraint = brokenConstraint(error)
  if (constraint === 'item_code_unique')
    return new HttpProblem(409, 'code-taken', `There is an item "${code}" already.`, {
      path: 'code',
      hint: 'Give it another code.',
    })
  if (constraint === 'item_barcode_unique')
    return new HttpProblem(409, 'barcode-taken', `The barcode ${barcode} is another item's.`, {
      path: 'barcode',
      hint: 'Scan it again, or look it up.',
    })
  if (constraint === 'pack_amount')
    return new HttpProblem(422, 'pack-twice', 'It has two packs of the same size.', {
      path: 'packs',
      hint: 'Keep one of them.',
    })
  return error
}

/** Begins an item, or changes one. @returns its id */
export async function saveItem(
  db: Database,
  id: number | undefined,
  wanted: SaveItem,
  caller: Caller,
): Promise<number> {
  try {
    const { itemId } = await runOnce(db, caller, `item ${id ?? 'new'}`, async (tx) => {
      const [itemId = 0] = id === undefined ? await addItems(tx, [wanted]) : [id]
      if (id !== undefined) await changeItem(tx, id, wanted)
      const did = id === undefined ? 'began' : 'changed'
      await logActivity(tx, caller.id, `${did} the item ${wanted.colourName}`, `/stock/${itemId}`)
      return { itemId }
    })
    return itemId
  } catch (error) {
    throw explainItem(error, wanted)
  }
}
