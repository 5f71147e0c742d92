/** Who may sign in. */
import type { Person } from '@tessellum/contract/people'
import { and, asc, eq, isNull, ne, sql } from 'drizzle-orm'
import { logActivity } from '../audit/log'
import type { Caller } from '../context'
import type { Database, Session } from '../database/connect'
import { runOnce } from '../idempotency/run-once'
import { HttpProblem, notFound } from '../problem'
import { person, session } from '../schema/people'

export async function listPeople(db: Database): Promise<Person[]> {
  const open = sql<number>`(select count(*)::int from ${session} where expire > now() and sess #>> '{begun,seal}' = ${person.seal})`
  const rows = await db
    .select({
      id: person.id,
      name: person.name,
      fullName: person.fullName,
      role: person.role,
      disabledAt: person.disabledAt,
      sessions: open,
    })
    .from(person)
    .orderBy(asc(person.fullName))
  return rows.map(({ disabledAt, ...row }) => ({ ...row, disabled: disabledAt !== null }))
}

async function lockPerson(tx: Session, id: number) {
  const [found] = await tx.select().from(person).where(eq(person.id, id)).for('update')
  if (!found) throw notFound('person')
  return found
}

/** Ends their sessions and lets them in no more. The last owner stays. */
export const disablePerson = (db: Database, id: number, caller: Caller): Promise<{ id: number }> =>
  runOnce(db, caller, `disabled person ${id}`, async (tx) => {
    const { role, fullName } = await lockPerson(tx, id)
    const others = await tx
      .select({ id: person.id })
      .from(person)
      .where(and(eq(person.role, 'owner'), isNull(person.disabledAt), ne(person.id, id)))
      .for('update')
    if (role === 'owner' && others.length === 0)
      throw new HttpProblem(409, 'last-owner', `${fullName} is the only owner who can sign in.`, {
        hint: 'Let another owner in first.',
      })
    await tx.update(person).set({ disabledAt: new Date() }).where(eq(person.id, id))
    await logActivity(tx, caller.id, `disabled ${fullName}`)
    return { id }
  })

export const enablePerson = (db: Database, id: number, caller: Caller): Promise<{ id: number }> =>
  runOnce(db, caller, `let in person ${id}`, async (tx) => {
    const { fullName } = await lockPerson(tx, id)
    await tx.update(person).set({ disabledAt: null }).where(eq(person.id, id))
    await logActivity(tx, caller.id, `let in ${fullName}`)
    return { id }
  })

export const listTeachers = (db: Database): Promise<{ id: number; name: string }[]> =>
  db.select({ id: person.id, name: person.fullName }).from(person).orderBy(asc(person.fullName))
