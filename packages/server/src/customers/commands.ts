import type { saveCustomer } from '@tessellum/contract/customers'
import { eq } from 'drizzle-orm'
import type { z } from 'zod'
import { logActivity } from '../audit/log'
import type { Caller } from '../context'
import type { Database } from '../database/connect'
import { forgetResults, runOnce } from '../idempotency/run-once'
import { deleteResults } from '../jobs/job-records'
import { notFound } from '../problem'
import { booking, waiting } from '../schema/classes'
import { customer } from '../schema/customers'
import { customerOrder } from '../schema/orders'
import { sale } from '../schema/sales'
import { findCustomer } from './store'

type SaveCustomer = z.output<typeof saveCustomer>

const pageOf = (id: number) => `/customers/${id}`

/** The audit log tells of customers by number: what it holds stays when somebody is forgotten. */
export const addCustomer = (db: Database, wanted: SaveCustomer, caller: Caller) =>
  runOnce(db, caller, 'new customer', async (tx) => {
    const [made] = await tx
      .insert(customer)
      .values({ ...wanted, addedBy: caller.id })
      .returning({ id: customer.id })
    const { id } = made as { id: number }
    await logActivity(tx, caller.id, `added customer ${id}`, pageOf(id))
    return findCustomer(tx, id)
  })

export const changeCustomer = (db: Database, id: number, wanted: SaveCustomer, caller: Caller) =>
  runOnce(db, caller, `customer ${id}`, async (tx) => {
    const changed = await tx.update(customer).set(wanted).where(eq(customer.id, id)).returning({ id: customer.id })
    if (changed.length === 0) throw notFound('customer')
    await logActivity(tx, caller.id, `changed customer ${id}`, pageOf(id))
    return findCustomer(tx, id)
  })

/** In place of a name that is not kept any more. */
const nameless = 'a customer'

/**
 * Everything that says who they were is deleted. What was sold, ordered and taught stays, since stock and money hang on it, without a name, a
 * measure or a way to reach them.
 */
export const forgetCustomer = (db: Database, id: number, caller: Caller) =>
  runOnce(db, caller, `forget customer ${id}`, async (tx) => {
    const [found] = await tx.select().from(customer).where(eq(customer.id, id)).for('update')
    if (!found) throw notFound('customer')
    await tx
      .update(customerOrder)
      .set({ customer: nameless, customerId: null, worn: null, measureMm: null, promised: '' })
      .where(eq(customerOrder.customerId, id))
    await tx.update(sale).set({ customer: '', customerId: null }).where(eq(sale.customerId, id))
    await tx
      .update(booking)
      .set({ name: nameless, contact: '', note: '', customerId: null })
      .where(eq(booking.customerId, id))
    await tx.delete(waiting).where(eq(waiting.customerId, id))
    await tx.delete(customer).where(eq(customer.id, id))
    // Patterns that were sold have the buyer's name on each page.
    await deleteResults(tx, ['document'])
    await forgetResults(tx, [found.name, found.contact])
    await logActivity(tx, caller.id, `forgot customer ${id}, who asked for it`)
    return { ok: true }
  })
