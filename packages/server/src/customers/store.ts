import type { Customer, CustomerCard } from '@tessellum/contract/customers'
import { and, asc, desc, eq, sql } from 'drizzle-orm'
import type { Session } from '../database/connect'
import { beyond, likeAnywhere, wordsIn } from '../database/paging'
import { HttpProblem, notFound } from '../problem'
import { booking, classTable } from '../schema/classes'
import { colourway, colourwayVersion } from '../schema/colourways'
import { customer } from '../schema/customers'
import { customerOrder } from '../schema/orders'
import { pattern, patternVersion } from '../schema/patterns'
import { sale, saleLine, saleReturn } from '../schema/sales'

type Row = typeof customer.$inferSelect

const asCustomer = ({ addedAt, addedBy: _, ...row }: Row): Customer => ({
  ...row,
  addedAt: addedAt.toISOString(),
})

const words = sql`lower(concat_ws(' ', ${customer.name}, ${customer.contact}, ${customer.note}))`

interface Wanted {
  readonly find: string
  readonly after?: string | undefined
  readonly limit: number
}

/** By name, page by page. */
export async function customersPage(db: Session, { find, after, limit }: Wanted) {
  const rows = await db
    .select()
    .from(customer)
    .where(
      and(
        ...wordsIn(find).map((word) => sql`${words} like ${likeAnywhere(word)}`),
        after === undefined ? undefined : beyond([customer.name, customer.id], after),
      ),
    )
    .orderBy(asc(customer.name), asc(customer.id))
    .limit(limit + 1)
  const page = rows.slice(0, limit)
  const last = page[page.length - 1]
  return {
    customers: page.map(asCustomer),
    next: rows.length > limit && last ? JSON.stringify([last.name, last.id]) : null,
  }
}

/** @throws HttpProblem where the customer is not on record, or not any more */
export async function demandCustomer(db: Session, id: number | null): Promise<void> {
  if (id === null) return
  const [found] = await db.select({ id: customer.id }).from(customer).where(eq(customer.id, id)).for('key share')
  if (!found)
    throw new HttpProblem(422, 'no-customer', 'This customer is not on record any more.', {
      path: 'customerId',
      hint: 'Choose another, or type a name alone.',
    })
}

export async function findCustomer(db: Session, id: number): Promise<CustomerCard> {
  const [row] = await db.select().from(customer).where(eq(customer.id, id))
  if (!row) throw notFound('customer')
  const orders = await db
    .select({
      id: customerOrder.id,
      pattern: pattern.title,
      size: customerOrder.size,
      colourway: colourway.name,
      kits: customerOrder.kits,
      wantedOn: customerOrder.wantedOn,
      state: customerOrder.state,
      price: customerOrder.price,
      paid: customerOrder.paid,
    })
    .from(customerOrder)
    .innerJoin(patternVersion, eq(patternVersion.id, customerOrder.patternVersionId))
    .innerJoin(pattern, eq(pattern.id, patternVersion.patternId))
    .innerJoin(colourwayVersion, eq(colourwayVersion.id, customerOrder.colourwayVersionId))
    .innerJoin(colourway, eq(colourway.id, colourwayVersion.colourwayId))
    .where(eq(customerOrder.customerId, id))
    .orderBy(desc(customerOrder.wantedOn), desc(customerOrder.id))
  const sales = await db
    .select({
      id: sale.id,
      at: sale.at,
      name: saleLine.name,
      price: saleLine.price,
      refunded: sql<number>`coalesce((select sum(${saleReturn.refund}) from ${saleReturn} where ${saleReturn.lineId} = ${saleLine.id}), 0)::float8`,
    })
    .from(sale)
    .innerJoin(saleLine, eq(saleLine.saleId, sale.id))
    .where(eq(sale.customerId, id))
    .orderBy(desc(sale.id), saleLine.id)
  const seats = await db
    .select({
      id: classTable.id,
      title: classTable.title,
      heldOn: classTable.heldOn,
      state: classTable.state,
      price: classTable.price,
      paid: booking.paid,
      absent: booking.absent,
    })
    .from(booking)
    .innerJoin(classTable, eq(classTable.id, booking.classId))
    .where(eq(booking.customerId, id))
    .orderBy(desc(classTable.heldOn), desc(classTable.id))
  const bought = new Map<number, CustomerCard['sales'][number]>()
  for (const { id: saleId, at, name, price, refunded } of sales) {
    const known = bought.get(saleId) ?? { id: saleId, at: at.toISOString(), what: [], total: 0 }
    bought.set(saleId, { ...known, what: [...known.what, name], total: known.total + price - refunded })
  }
  const open = [...orders, ...seats].filter(({ state }) => state !== 'cancelled')
  return {
    ...asCustomer(row),
    orders: orders.map(({ pattern: title, size, colourway: way, kits, ...order }) => ({
      ...order,
      what: `${kits > 1 ? `${kits} x ` : ''}${title}${size ? `, ${size}` : ''}, in ${way}`,
    })),
    sales: [...bought.values()],
    classes: seats,
    owed: open.reduce((sum, { price, paid }) => sum + Math.max(0, price - paid), 0),
  }
}
