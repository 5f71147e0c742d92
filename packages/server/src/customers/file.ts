/** Customers as a table, out and in again: all of it or, with a single fault, nothing. */
import { type RecordFileOutcome, saveCustomer } from '@tessellum/contract/customers'
import { asc, eq } from 'drizzle-orm'
import type { z } from 'zod'
import { logActivity } from '../audit/log'
import type { Actor } from '../context'
import type { Session } from '../database/connect'
import { customer } from '../schema/customers'
import { numberColumn, readRecords, sameRecord, textColumn, writeRecords, yesColumn } from '../stock/record-table'

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
  const { read, faults } = readRecords(columns, saveCustomer, rows)
  const known = new Map((await tx.select().from(customer)).map((row) => [keyOf(row), row]))
  const outcome = { rows: read.length, added: 0, changed: 0, same: 0, faults, done: false }
  for (const given of read) {
    const there = known.get(keyOf(given))
    if (!there) outcome.added++
    else if (sameRecord(columns, there, given)) outcome.same++
    else outcome.changed++
  }
  if (!act || faults.length > 0) return outcome
  for (const given of read) {
    const there = known.get(keyOf(given))
    if (there) await tx.update(customer).set(given).where(eq(customer.id, there.id))
    else {
      const [made] = await tx
        .insert(customer)
        .values({ ...given, addedBy: act.personId })
        .returning()
      if (made) known.set(keyOf(made), made)
    }
  }
  await logActivity(tx, act.personId, `took in a file of ${read.length} customers`, '/customers')
  return { ...outcome, done: true }
}
