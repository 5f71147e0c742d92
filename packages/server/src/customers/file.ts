/** Customers as a table, out and in again: all of it or, with a single fault, nothing. */
import { saveCustomer } from '@tessellum/contract/customers'
import type { RecordFileOutcome } from '@tessellum/contract/record-file'
import { asc, eq } from 'drizzle-orm'
import type { z } from 'zod'
import { logActivity } from '../audit/log'
import type { Actor } from '../context'
import type { Session } from '../database/connect'
import { customer } from '../schema/customers'
import { changesOf, numberColumn, textColumn, writeRecords, yesColumn } from '../stock/record-table'

type SaveCustomer = z.output<typeof saveCustomer>

const columns = [
  textColumn<SaveCustomer>('name', 'name'),
  textColumn<SaveCustomer>('contact', 'contact'),
  numberColumn<SaveCustomer>('wrist mm', 'wristMm'),
  numberColumn<SaveCustomer>('neck mm', 'neckMm'),
  numberColumn<SaveCustomer>('finger mm', 'fingerMm'),
  yesColumn<SaveCustomer>('left-handed', 'leftHanded'),
  textColumn<SaveCustomer>('allergies', 'allergies'),
  textColumn<SaveCustomer>('note', 'note'),
]

export const customerRows = async (db: Session): Promise<string[][]> =>
  writeRecords(columns, await db.select().from(customer).orderBy(asc(customer.name), asc(customer.id)))

const keyOf = ({ name, contact }: Pick<SaveCustomer, 'name' | 'contact'>) =>
  `${name.toLowerCase()}\n${contact.toLowerCase()}`

/** The same name with the same contact is the same customer. @param act undefined to look only */
export async function takeCustomers(
  tx: Session,
  rows: readonly (readonly string[])[],
  act: Actor | undefined,
): Promise<RecordFileOutcome> {
  const { changes, outcome } = changesOf(rows, {
    columns,
    schema: saveCustomer,
    keyOf,
    kept: await tx.select().from(customer),
  })
  if (!act || outcome.faults.length > 0) return outcome
  for (const change of changes)
    if (change.type === 'add') await tx.insert(customer).values({ ...change.given, addedBy: act.personId })
    else await tx.update(customer).set(change.given).where(eq(customer.id, change.row.id))
  await logActivity(tx, act.personId, `took in a file of ${outcome.rows} customers`, '/customers')
  return { ...outcome, done: true }
}
