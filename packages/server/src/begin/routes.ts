import { type Request, Router } from 'express'
import type { Config } from '../config'
import type { Database } from '../database/connect'
import { mount } from '../http/mount'
import { meOf } from '../people/me'
import { beginSession } from '../people/sessions'
import type { signInLimit } from '../people/sign-in-limit'
import { shopSettings } from '../settings/store'
import { begin, isEmpty } from './begin'

export function beginRoutes(
  db: Database,
  { BEGIN_TOKEN }: Config,
  limit: ReturnType<typeof signInLimit>,
  csrfToken: (request: Request) => string,
): Router {
  const router = Router()

  mount(router, 'GET /api/shop', async () => {
    const [{ profile }, empty] = await Promise.all([shopSettings(db), isEmpty(db)])
    return { name: profile.name, empty }
  })

  mount(router, 'POST /api/begin', async ({ body, request }) => {
    await limit.count('begin', request.ip ?? '')
    const owner = await begin(db, body, BEGIN_TOKEN)
    await limit.right('begin', request.ip ?? '')
    await beginSession(request, owner)
    return meOf(owner, csrfToken(request))
  })

  return router
}
