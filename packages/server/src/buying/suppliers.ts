/** Who sells to the shop. What they sell, and what was bought of them, is told by their name. */
import type { RecordFileOutcome } from '@tessellum/contract/record-file'
import { type Supplier, type SupplierCard, saveSupplier } from '@tessellum/contract/suppliers'
import { itemName } from '@tessellum/core/stock/item-name'
import { asc, desc, eq, inArray, sql } from 'drizzle-orm'
import type { z } from 'zod'
import { logActivity } from '../audit/log'
import type { Actor, Caller } from '../context'
import type { Database, Session } from '../database/connect'
import { brokenConstraint } from '../database/errors'
import { runOnce } from '../idempotency/run-once'
import { HttpProblem, notFound } from '../problem'
import { purchase } from '../schema/ledger'
import { item, lot, maker, pack, supplier } from '../schema/stock'
import { makerId } from '../stock/items'
import { changesOf, moneyColumn, numberColumn, textColumn, writeRecords } from '../stock/record-table'
import { listItems } from '../stock/store'

type SaveSupplier = z.output<typeof saveSupplier>

const suppliers = (db: Session) =>
  db
    .select({
      id: supplier.id,
      name: supplier.name,
      contact: supplier.contact,
      leadDays: supplier.leadDays,
      minOrder: supplier.minOrder,
      note: supplier.note,
      // Named in full: where one table is asked, a column alone would be taken for the inner one's.
      items: sql<number>`(select count(*)::int from item join maker on maker.id = item.maker_id where maker.name = supplier.name and item.category <> 'kit')`,
      onItsWay: sql<number>`(select coalesce(sum(purchase.cost), 0)::int from purchase where purchase.supplier = supplier.name and purchase.state = 'ordered')`,
    })
    .from(supplier)
    .orderBy(asc(supplier.name))
    .$dynamic()

export const listSuppliers = async (db: Session): Promise<Supplier[]> => suppliers(db)

/** The newest so many of what was bought are told. */
const maxBought = 200

export async function findSupplier(db: Session, id: number): Promise<SupplierCard> {
  const [found] = await suppliers(db).where(eq(supplier.id, id))
  if (!found) throw notFound('supplier')
  const sold = await db
    .select({ id: item.id })
    .from(item)
    .innerJoin(maker, eq(maker.id, item.makerId))
    .where(sql`${maker.name} = ${found.name} and ${item.category} <> 'kit'`)
  const bought = await db
    .select()
    .from(purchase)
    .where(eq(purchase.supplier, found.name))
    .orderBy(desc(purchase.id))
    .limit(maxBought)
  const ids = [...new Set([...sold.map((each) => each.id), ...bought.map(({ itemId }) => itemId)])]
  const items = new Map((await listItems(db, ids)).map((each) => [each.id, each]))
  const packs = ids.length > 0 ? await db.select().from(pack).where(inArray(pack.itemId, ids)).orderBy(pack.amount) : []
  return {
    ...found,
    prices: sold
      .flatMap(({ id: itemId }) => {
        const of = items.get(itemId)
        if (!of) return []
        const own = packs.filter((each) => each.itemId === itemId)
        return [
          {
            itemId,
            name: itemName(of),
            unit: of.unit,
            packs: own.map(({ amount, price, leadDays, pricedOn }) => ({ amount, price, leadDays, pricedOn })),
          },
        ]
      })
      .sort((a, b) => a.name.localeCompare(b.name)),
    bought: bought.flatMap(({ id: purchaseId, itemId, amount, cost, orderedOn, state }) => {
      const of = items.get(itemId)
      return of ? [{ id: purchaseId, itemId, name: itemName(of), unit: of.unit, amount, cost, orderedOn, state }] : []
    }),
  }
}

const nameTaken = (name: string) =>
  new HttpProblem(409, 'name-taken', `There is a supplier "${name}" already.`, {
    path: 'name',
    hint: 'Change that one instead.',
  })

const explain = (name: string) => (error: unknown) => {
  throw brokenConstraint(error) === 'supplier_name_unique' ? nameTaken(name) : error
}

export const addSupplier = (db: Database, wanted: SaveSupplier, caller: Caller) =>
  runOnce(db, caller, 'new supplier', async (tx) => {
    const [made] = await tx.insert(supplier).values(wanted).returning({ id: supplier.id })
    const { id } = made as { id: number }
    await logActivity(tx, caller.id, `added the supplier ${wanted.name}`, `/suppliers/${id}`)
    return findSupplier(tx, id)
  }).catch(explain(wanted.name))

export const changeSupplier = (db: Database, id: number, wanted: SaveSupplier, caller: Caller) =>
  runOnce(db, caller, `supplier ${id}`, async (tx) => {
    const [before] = await tx.select().from(supplier).where(eq(supplier.id, id)).for('update')
    if (!before) throw notFound('supplier')
    await rewrite(tx, before, wanted)
    await logActivity(tx, caller.id, `changed the supplier ${wanted.name}`, `/suppliers/${id}`)
    return findSupplier(tx, id)
  }).catch(explain(wanted.name))

/** With another name, what they sell and what was bought of them goes along. */
async function rewrite(
  tx: Session,
  before: { readonly id: number; readonly name: string },
  wanted: SaveSupplier,
): Promise<void> {
  await tx.update(supplier).set(wanted).where(eq(supplier.id, before.id))
  if (wanted.name === before.name) return
  const to = await makerId(tx, wanted.name)
  await tx
    .update(item)
    .set({ makerId: to })
    .where(sql`${item.makerId} = (select id from maker where name = ${before.name}) and ${item.category} <> 'kit'`)
  await tx.update(purchase).set({ supplier: wanted.name }).where(eq(purchase.supplier, before.name))
  await tx.update(lot).set({ supplier: wanted.name }).where(eq(lot.supplier, before.name))
}

/** Orders and lots keep the name: it is a firm's, and the books need it. */
export const removeSupplier = (db: Database, id: number, caller: Caller) =>
  runOnce(db, caller, `remove supplier ${id}`, async (tx) => {
    const removed = await tx.delete(supplier).where(eq(supplier.id, id)).returning({ name: supplier.name })
    const [gone] = removed
    if (!gone) throw notFound('supplier')
    await logActivity(tx, caller.id, `removed the supplier ${gone.name}`)
    return { ok: true }
  })

const columns = [
  textColumn<SaveSupplier>('name', 'name'),
  textColumn<SaveSupplier>('contact', 'contact'),
  numberColumn<SaveSupplier>('lead days', 'leadDays'),
  moneyColumn<SaveSupplier>('minimum order', 'minOrder'),
  textColumn<SaveSupplier>('note', 'note'),
]

export const supplierRows = async (db: Session): Promise<string[][]> =>
  writeRecords(columns, await db.select().from(supplier).orderBy(asc(supplier.name)))

/** @param act undefined to look only */
export async function takeSuppliers(
  tx: Session,
  rows: readonly (readonly string[])[],
  act: Actor | undefined,
): Promise<RecordFileOutcome> {
  const { changes, outcome } = changesOf(rows, {
    columns,
    schema: saveSupplier,
    keyOf: ({ name }) => name.toLowerCase(),
    kept: await tx.select().from(supplier),
  })
  if (!act || outcome.faults.length > 0) return outcome
  for (const change of changes)
    if (change.type === 'add') await tx.insert(supplier).values(change.given)
    else await rewrite(tx, change.row, change.given)
  await logActivity(tx, act.personId, `took in a file of ${outcome.rows} suppliers`, '/suppliers')
  return { ...outcome, done: true }
}
