import { promisify } from 'node:util'
import { type Me, signIn } from '@tessellum/contract/people'
import { eq } from 'drizzle-orm'
import { type Request, Router } from 'express'
import type { Database } from '../database/connect'
import { Refusal, readInput } from '../http/refusal'
import { mount, type SignedIn } from '../http/route'
import { passwordFits } from './passwords'
import { person } from './schema'
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
    const { name, password } = readInput(signIn, request.body)
    const key = `${name.toLowerCase()} ${request.ip ?? ''}`
    await limit.check(key)
    const [found] = await db.select().from(person).where(eq(person.name, name.toLowerCase()))
    if (!(await passwordFits(found?.passwordHash, password)) || !found) {
      await limit.wrong(key)
      throw new Refusal(401, 'wrong-password', 'Name and password do not fit together.', {
        path: 'password',
        hint: 'Check both and try again.',
      })
    }
    await limit.right(key)
    // A new session id, so that one planted before the sign-in is worth nothing.
    await promisify(request.session.regenerate.bind(request.session))()
    const caller: SignedIn = { id: found.id, name: found.name, fullName: found.fullName, role: found.role }
    request.session.caller = caller
    return me(caller, request)
  })

  mount(router, 'GET /api/me', (request, _, caller) => me(caller, request))

  mount(router, 'POST /api/sign-out', async (request, response) => {
    await promisify(request.session.destroy.bind(request.session))()
    response.clearCookie('tessellum')
    return {}
  })

  return router
}
