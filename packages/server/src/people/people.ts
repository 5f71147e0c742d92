/** Who may sign in. */
import type { ChangePerson, NewPerson, Person } from '@tessellum/contract/people'
import { and, arrayContains, asc, eq, isNotNull, isNull, ne, sql } from 'drizzle-orm'
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
      roles: person.roles,
      disabledAt: person.disabledAt,
      waiting: sql<boolean>`${person.passwordHash} is null`,
      sessions: open,
    })
    .from(person)
    .orderBy(asc(person.fullName))
  return rows.map(({ disabledAt, ...row }) => ({ ...row, disabled: disabledAt !== null }))
}

export async function lockPerson(tx: Session, id: number) {
  const [found] = await tx.select().from(person).where(eq(person.id, id)).for('update')
  if (!found) throw notFound('person')
  return found
}

/** @throws HttpProblem where nobody else could keep the people of the shop */
async function demandOtherOwner(tx: Session, id: number, fullName: string): Promise<void> {
  const others = await tx
    .select({ id: person.id })
    .from(person)
    .where(
      and(
        arrayContains(person.roles, ['owner']),
        isNull(person.disabledAt),
        isNotNull(person.passwordHash),
        ne(person.id, id),
      ),
    )
    .for('update')
  if (others.length === 0)
    throw new HttpProblem(409, 'last-owner', `${fullName} is the only owner who can sign in.`, {
      hint: 'Let another owner in first.',
    })
}

/** They cannot sign in before they have chosen a password. */
export const addPerson = (db: Database, given: NewPerson, caller: Caller): Promise<{ id: number }> =>
  runOnce(db, caller, 'added a person', async (tx) => {
    const [made] = await tx.insert(person).values(given).onConflictDoNothing().returning({ id: person.id })
    if (!made)
      throw new HttpProblem(409, 'name-taken', `Somebody signs in as "${given.name}" already.`, {
        path: 'name',
        hint: 'Choose another sign-in name.',
      })
    await logActivity(tx, caller.id, `added ${given.fullName} as ${given.roles.join(', ')}`)
    return made
  })

/** Other roles end their sessions: they sign in again with what they may do now. */
export const changePerson = (
  db: Database,
  id: number,
  { fullName, roles }: ChangePerson,
  caller: Caller,
): Promise<{ id: number }> =>
  runOnce(db, caller, `changed person ${id}`, async (tx) => {
    const before = await lockPerson(tx, id)
    if (before.roles.includes('owner') && !roles.includes('owner')) await demandOtherOwner(tx, id, before.fullName)
    await tx.update(person).set({ fullName, roles }).where(eq(person.id, id))
    await logActivity(tx, caller.id, `changed ${before.fullName}: ${fullName}, ${roles.join(', ')}`)
    return { id }
  })

/** Ends their sessions and lets them in no more. The last owner stays. */
export const disablePerson = (db: Database, id: number, caller: Caller): Promise<{ id: number }> =>
  runOnce(db, caller, `disabled person ${id}`, async (tx) => {
    const { roles, fullName } = await lockPerson(tx, id)
    if (roles.includes('owner')) await demandOtherOwner(tx, id, fullName)
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
