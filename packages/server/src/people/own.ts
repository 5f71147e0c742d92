/** What everybody may do with their own way in. */
import { eq, sql } from 'drizzle-orm'
import { logActivity } from '../audit/log'
import type { Caller } from '../context'
import type { Database } from '../database/connect'
import { runOnce } from '../idempotency/run-once'
import { HttpProblem } from '../problem'
import { person } from '../schema/people'
import { hashPassword, passwordFits } from './passwords'
import { lockPerson } from './people'
import { keepSession } from './sessions'

/**
 * Their other sessions end; the seal that is answered keeps the one that asks.
 *
 * @throws HttpProblem when the present password is wrong
 */
export async function changeOwnPassword(
  db: Database,
  caller: Caller,
  sid: string,
  { current, password }: { readonly current: string; readonly password: string },
): Promise<{ id: number; seal: string }> {
  const passwordHash = await hashPassword(password)
  return runOnce(db, caller, 'changed their password', async (tx) => {
    const { passwordHash: stored } = await lockPerson(tx, caller.id)
    if (!(await passwordFits(stored, current)))
      throw new HttpProblem(422, 'wrong-password', 'That is not your password.', {
        path: 'current',
        hint: 'Give the one you sign in with now.',
      })
    const [now] = await tx.update(person).set({ passwordHash }).where(eq(person.id, caller.id)).returning()
    await keepSession(tx, sid, now?.seal ?? '')
    await logActivity(tx, caller.id, 'changed their password')
    return { id: caller.id, seal: now?.seal ?? '' }
  })
}

/** Their sessions in other browsers end; the seal that is answered keeps the one that asks. */
export const signOutElsewhere = (db: Database, caller: Caller, sid: string): Promise<{ id: number; seal: string }> =>
  runOnce(db, caller, 'signed out elsewhere', async (tx) => {
    const [now] = await tx
      .update(person)
      .set({ seal: sql`gen_random_uuid()::text` })
      .where(eq(person.id, caller.id))
      .returning()
    await keepSession(tx, sid, now?.seal ?? '')
    await tx.execute(sql`select pg_notify('ended', ${`person ${caller.id}`})`)
    return { id: caller.id, seal: now?.seal ?? '' }
  })
