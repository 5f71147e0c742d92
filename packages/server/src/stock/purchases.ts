/** What is ordered and on its way. */
import type { NewPurchase, Purchase, ReceivePurchase } from '@tessellum/contract/buying'
import { todayIn } from '@tessellum/core/measure/today'
import { itemName } from '@tessellum/core/stock/item-name'
import { asc, eq } from 'drizzle-orm'
import { logActivity } from '../audit/log'
import type { Actor } from '../context'
import type { Session } from '../database/connect'
import { HttpProblem, notFound } from '../problem'
import { purchase } from '../schema/ledger'
import { person } from '../schema/people'
import { item } from '../schema/stock'
import { timeZoneOf } from '../settings/days'
import { identityOf } from './identity'
import { receiveLot } from './lots'
import { listItems } from './store'

export async function listPurchases(db: Session): Promise<Purchase[]> {
  const rows = await db
    .select({ purchase, orderedBy: person.fullName })
    .from(purchase)
    .innerJoin(person, eq(person.id, purchase.orderedBy))
    .where(eq(purchase.state, 'ordered'))
    .orderBy(asc(purchase.expectedOn), asc(purchase.id))
  const items = new Map(
    (await listItems(db, [...new Set(rows.map((row) => row.purchase.itemId))])).map((each) => [each.id, each]),
  )
  return rows.flatMap(({ purchase: { id, itemId, supplier, amount, cost, orderedOn, expectedOn }, orderedBy }) => {
    const of = items.get(itemId)
    return of
      ? [
          {
            id,
            itemId,
            name: itemName(of),
            item: identityOf(of),
            unit: of.unit,
            supplier,
            amount,
            cost,
            orderedOn,
            expectedOn,
            orderedBy,
          },
        ]
      : []
  })
}

export async function order(tx: Session, wanted: NewPurchase, { personId }: Actor): Promise<number> {
  const [of] = await tx.select({ name: item.colourName }).from(item).where(eq(item.id, wanted.itemId))
  if (!of) throw notFound('item')
  const [made] = await tx
    .insert(purchase)
    .values({ ...wanted, orderedOn: todayIn(await timeZoneOf(tx)), orderedBy: personId })
    .returning({ id: purchase.id })
  await logActivity(tx, personId, `ordered ${of.name} from ${wanted.supplier}`, '/kits/buy')
  return (made as { id: number }).id
}

async function lockOrdered(tx: Session, id: number) {
  const [row] = await tx.select().from(purchase).where(eq(purchase.id, id)).for('update')
  if (!row) throw notFound('order')
  if (row.state !== 'ordered')
    throw new HttpProblem(409, 'wrong-state', `This order is ${row.state} already.`, { hint: 'Reload the page.' })
  return row
}

/**
 * What came becomes a lot, at what the order cost. Where it is less than was ordered the rest goes on as an order of its own, with its share of the
 * cost, unless it is said that no more will come.
 *
 * @returns the lot's id
 */
export async function receive(tx: Session, id: number, came: ReceivePurchase, actor: Actor): Promise<number> {
  const { itemId, supplier, cost, amount, orderedOn, expectedOn, orderedBy } = await lockOrdered(tx, id)
  const { restComing = true, ...delivery } = came
  const rest = restComing ? Math.max(0, amount - came.quantity) : 0
  const restCost = Math.round((cost * rest) / amount)
  const lotId = await receiveLot(
    tx,
    itemId,
    { ...delivery, reason: 'delivery', supplier, cost: cost - restCost },
    actor,
  )
  await tx
    .update(purchase)
    .set({ state: 'received', lotId, amount: amount - rest, cost: cost - restCost })
    .where(eq(purchase.id, id))
  if (rest > 0)
    await tx
      .insert(purchase)
      .values({ itemId, supplier, amount: rest, cost: restCost, orderedOn, expectedOn, orderedBy })
  return lotId
}

export async function callOff(tx: Session, id: number, { personId }: Actor): Promise<void> {
  const { itemId, supplier } = await lockOrdered(tx, id)
  await tx.update(purchase).set({ state: 'cancelled' }).where(eq(purchase.id, id))
  const [of] = await tx.select({ name: item.colourName }).from(item).where(eq(item.id, itemId))
  await logActivity(tx, personId, `called off the order of ${of?.name} from ${supplier}`, '/kits/buy')
}
