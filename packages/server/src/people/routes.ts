import { eq, sql } from 'drizzle-orm'
import { type Request, Router } from 'express'
import type { SignedIn } from '../context'
import type { Database } from '../database/connect'
import { mount } from '../http/mount'
import { HttpProblem } from '../problem'
import { person } from '../schema/people'
import { choosePassword, makeLink, whoseLink } from './links'
import { meOf } from './me'
import { changeOwnPassword, signOutElsewhere } from './own'
import { passwordFits } from './passwords'
import { addPerson, changePerson, disablePerson, enablePerson, listPeople } from './people'
import type { SessionCache } from './session-cache'
import { beginSession, endSession, goOn } from './sessions'
import type { signInLimit } from './sign-in-limit'

export function peopleRoutes(
  db: Database,
  limit: ReturnType<typeof signInLimit>,
  cache: SessionCache,
  csrfToken: (request: Request) => string,
): Router {
  const router = Router()
  /** Whoever asks next is looked up in the records again. */
  const changing = async <Done>(change: Promise<Done>): Promise<Done> => change.finally(() => cache.forgetAll())
  const me = (who: SignedIn, request: Request) => meOf(who, csrfToken(request))

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
    await beginSession(request, found)
    return me(found, request)
  })

  mount(router, 'POST /api/welcome', async ({ body: { token }, request }) => {
    await limit.count('link', request.ip ?? '')
    const { name, fullName } = await whoseLink(db, token)
    await limit.right('link', request.ip ?? '')
    return { name, fullName }
  })

  mount(router, 'POST /api/welcome/password', async ({ body: { token, password }, request }) => {
    await limit.count('link', request.ip ?? '')
    const found = await changing(choosePassword(db, token, password))
    await limit.right('link', request.ip ?? '')
    await beginSession(request, found)
    return me(found, request)
  })

  mount(router, 'POST /api/me/password', async ({ body, caller, request }) => {
    await limit.count(caller.name, request.ip ?? '')
    const { id, seal } = await changing(changeOwnPassword(db, caller, request.sessionID, body))
    await limit.right(caller.name, request.ip ?? '')
    goOn(request, seal)
    return { id }
  })

  mount(router, 'POST /api/me/sign-out-elsewhere', async ({ caller, request }) => {
    const { id, seal } = await changing(signOutElsewhere(db, caller, request.sessionID))
    goOn(request, seal)
    return { id }
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
  mount(router, 'POST /api/people', ({ body, caller }) => addPerson(db, body, caller))
  mount(router, 'PUT /api/people/:id', ({ params, body, caller }) =>
    changing(changePerson(db, params.id, body, caller)),
  )
  mount(router, 'POST /api/people/:id/link', ({ params, caller }) => makeLink(db, params.id, caller.id))
  mount(router, 'POST /api/people/:id/disable', ({ params, caller }) => changing(disablePerson(db, params.id, caller)))
  mount(router, 'POST /api/people/:id/enable', ({ params, caller }) => changing(enablePerson(db, params.id, caller)))

  return router
}
