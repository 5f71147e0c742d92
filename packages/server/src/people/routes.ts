import { promisify } from 'node:util'
import { type Me, type Person, signIn } from '@tessellum/contract/people'
import { and, asc, eq, isNull, ne, sql } from 'drizzle-orm'
import { type Request, Router } from 'express'
import { logActivity } from '../audit/log'
import type { Caller, SignedIn } from '../context'
import type { Database } from '../database/connect'
import { mount } from '../http/mount'
import { readId, readInput } from '../http/read-input'
import { idempotencyKeyOf } from '../idempotency/request-key'
import { runOnce } from '../idempotency/run-once'
import { HttpProblem, notFound } from '../problem'
import { person, session } from '../schema/people'
import { passwordFits } from './passwords'
import { endSession } from './sessions'
import type { signInLimit } from './sign-in-limit'

export function peopleRoutes(
  db: Database,
  limit: ReturnType<typeof signInLimit>,
  csrfToken: (request: Request) => string,
): Router {
  const router = Router()
  const me = ({ id, name, fullName, role }: SignedIn, request: Request): Me => ({
    id,
    name,
    fullName,
    role,
    csrfToken: csrfToken(request),
  })

  mount(router, 'POST /api/sign-in', async (request) => {
    const { name: given, password } = readInput(signIn, request.body)
    const name = given.toLowerCase()
    const address = request.ip ?? ''
    await limit.count(name, address)
    const [found] = await db.select().from(person).where(eq(person.name, name))
    if (!(await passwordFits(found?.passwordHash, password)) || !found)
      throw new HttpProblem(401, 'wrong-password', 'Wrong name or password.', {
        path: 'password',
        hint: 'Check both and try again.',
      })
    await limit.right(name, address)
    if (found.disabledAt)
      throw new HttpProblem(403, 'disabled', 'You cannot sign in any more.', {
        hint: 'Ask the owner to let you in again.',
      })
    // A new session id, so that one planted before the sign-in is worth nothing.
    await promisify(request.session.regenerate.bind(request.session))()
    request.session.begun = { personId: found.id, seal: found.seal, at: Date.now() }
    return me(found, request)
  })

  mount(router, 'GET /api/me', (request, _, caller) => me(caller, request))

  mount(router, 'POST /api/sign-out', async (request, response) => {
    const { sessionID } = request
    await endSession(request)
    response.clearCookie('tessellum')
    // Wherever its pages are still told of changes, that ends too.
    await db.execute(sql`select pg_notify('ended', ${`session ${sessionID}`})`)
    return {}
  })

  mount(router, 'GET /api/people', async (): Promise<Person[]> => {
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
  })

  const change = (what: 'disabled' | 'let in') => async (request: Request, _: unknown, caller: Caller) => {
    const id = readId(request.params.id, 'person')
    return runOnce(db, idempotencyKeyOf(request), `${what} person ${id}`, caller, async (tx) => {
      const [found] = await tx.select().from(person).where(eq(person.id, id)).for('update')
      if (!found) throw notFound('person')
      const others = await tx
        .select({ id: person.id })
        .from(person)
        .where(and(eq(person.role, 'owner'), isNull(person.disabledAt), ne(person.id, id)))
        .for('update')
      if (what === 'disabled' && found.role === 'owner' && others.length === 0)
        throw new HttpProblem(409, 'last-owner', `${found.fullName} is the only owner who can sign in.`, {
          hint: 'Let another owner in first.',
        })
      await tx
        .update(person)
        .set({ disabledAt: what === 'disabled' ? new Date() : null })
        .where(eq(person.id, id))
      await logActivity(tx, caller.id, `${what} ${found.fullName}`)
      return { id }
    })
  }
  mount(router, 'POST /api/people/:id/disable', change('disabled'))
  mount(router, 'POST /api/people/:id/enable', change('let in'))

  return router
}
