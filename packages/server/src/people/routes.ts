import { promisify } from 'node:util'
import type { Me } from '@tessellum/contract/people'
import { eq, sql } from 'drizzle-orm'
import { type Request, Router } from 'express'
import type { SignedIn } from '../context'
import type { Database } from '../database/connect'
import { mount } from '../http/mount'
import { HttpProblem } from '../problem'
import { person } from '../schema/people'
import { passwordFits } from './passwords'
import { disablePerson, enablePerson, listPeople } from './people'
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

  mount(router, 'POST /api/sign-in', async ({ body: { name: given, password }, request }) => {
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

  mount(router, 'GET /api/me', ({ caller, request }) => me(caller, request))

  mount(router, 'POST /api/sign-out', async ({ request, response }) => {
    const { sessionID } = request
    await endSession(request)
    response.clearCookie('tessellum')
    // Wherever its pages are still told of changes, that ends too.
    await db.execute(sql`select pg_notify('ended', ${`session ${sessionID}`})`)
    return {}
  })

  mount(router, 'GET /api/people', () => listPeople(db))
  mount(router, 'POST /api/people/:id/disable', ({ params, caller }) => disablePerson(db, params.id, caller))
  mount(router, 'POST /api/people/:id/enable', ({ params, caller }) => enablePerson(db, params.id, caller))

  return router
}
