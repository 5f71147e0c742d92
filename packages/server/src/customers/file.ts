/** Customers as a table, out and in again: all of it or, with a single fault, nothing. */
import { type CustomerFileOutcome, saveCustomer } from '@tessellum/contract/customers'
import { asc, eq } from 'drizzle-orm'
import type { z } from 'zod'
import { logActivity } from '../audit/log'
import type { Actor } from '../context'
import type { Session } from '../database/connect'
import { customer } from '../schema/customers'

type SaveCustomer = z.output<typeof saveCustomer>

const measure = (text: string) => (text === '' ? null : Number(text.replace(',', '.')))

/** By the head of its column: how a cell is written, and how it is read. */
const columns = {
  name: { to: ({ name }) => name, from: (name) => ({ name }) },
  contact: { to: ({ contact }) => contact, from: (contact) => ({ contact }) },
  'wrist mm': { to: ({ wristMm }) => String(wristMm ?? ''), from: (text) => ({ wristMm: measure(text) }) },
  'neck mm': { to: ({ neckMm }) => String(neckMm ?? ''), from: (text) => ({ neckMm: measure(text) }) },
  'finger mm': { to: ({ fingerMm }) => String(fingerMm ?? ''), from: (text) => ({ fingerMm: measure(text) }) },
  'left-handed': {
    to: ({ leftHanded }) => (leftHanded ? 'yes' : 'no'),
    from: (text) => ({ leftHanded: /^(yes|y|true|1|x|ja)$/i.test(text) }),
  },
  allergies: { to: ({ allergies }) => allergies, from: (allergies) => ({ allergies }) },
  note: { to: ({ note }) => note, from: (note) => ({ note }) },
} as const satisfies Record<
  string,
  { to(customer: SaveCustomer): string; from(text: string): Partial<Record<keyof SaveCustomer, unknown>> }
>
const heads = Object.keys(columns) as (keyof typeof columns)[]
const headOf: Readonly<Record<string, string>> = {
  wristMm: 'wrist mm',
  neckMm: 'neck mm',
  fingerMm: 'finger mm',
  leftHanded: 'left-handed',
}

export async function customerRows(db: Session): Promise<string[][]> {
  const all = await db.select().from(customer).orderBy(asc(customer.name), asc(customer.id))
  return [[...heads], ...all.map((row) => heads.map((head) => columns[head].to(row)))]
}

interface ReadRow {
  readonly row: number
  readonly customer: SaveCustomer
}

/** @returns what the rows say, and what is wrong with them; rows are counted as the file has them, the head first */
function readRows([head = [], ...rows]: readonly (readonly string[])[]): {
  read: ReadRow[]
  faults: CustomerFileOutcome['faults']
} {
  const at = new Map(head.map((title, i) => [title.trim().toLowerCase(), i] as const))
  if (!at.has('name'))
    return {
      read: [],
      faults: [{ row: 1, column: 'name', message: 'The first row has the heads; "name" is missing.' }],
    }
  const faults: CustomerFileOutcome['faults'] = []
  const read = rows.flatMap((cells, i): ReadRow[] => {
    if (cells.every((cell) => cell.trim() === '')) return []
    const said = heads.flatMap((title) => {
      const column = at.get(title)
      return column === undefined ? [] : [columns[title].from((cells[column] ?? '').trim())]
    })
    const checked = saveCustomer.safeParse(Object.assign({}, ...said))
    if (checked.success) return [{ row: i + 2, customer: checked.data }]
    for (const { path, message } of checked.error.issues) {
      const [field = ''] = path.map(String)
      faults.push({ row: i + 2, column: headOf[field] ?? field, message })
    }
    return []
  })
  return { read, faults }
}

const keyOf = ({ name, contact }: Pick<SaveCustomer, 'name' | 'contact'>) =>
  `${name.toLowerCase()}\n${contact.toLowerCase()}`

/** The same name with the same contact is the same customer. @param act undefined to look only */
export async function takeCustomers(
  tx: Session,
  rows: readonly (readonly string[])[],
  act: Actor | undefined,
): Promise<CustomerFileOutcome> {
  const { read, faults } = readRows(rows)
  const known = new Map((await tx.select().from(customer)).map((row) => [keyOf(row), row]))
  const outcome = { rows: read.length, added: 0, changed: 0, same: 0, faults, done: false }
  for (const { customer: given } of read) {
    const there = known.get(keyOf(given))
    if (!there) outcome.added++
    else if (heads.every((head) => columns[head].to(there) === columns[head].to(given))) outcome.same++
    else outcome.changed++
  }
  if (!act || faults.length > 0) return outcome
  for (const { customer: given } of read) {
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
