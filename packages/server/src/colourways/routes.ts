import { Router } from 'express'
import { mount } from '../http/mount'
import type { Shop } from '../shop'
import { beginColourway, changeColourway } from './commands'
import { findColourway, listColourways, withoutVersionId } from './store'

export function colourwayRoutes({ db }: Shop): Router {
  const router = Router()
  mount(router, 'GET /api/patterns/:id/colourways', ({ params }) => listColourways(db, params.id))
  mount(router, 'POST /api/patterns/:id/colourways', ({ params, body, caller }) =>
    beginColourway(db, params.id, body, caller),
  )
  mount(router, 'PUT /api/colourways/:id', ({ params, body, caller }) => changeColourway(db, params.id, body, caller))
  mount(router, 'GET /api/colourways/:id/versions/:number', async ({ params }) =>
    withoutVersionId(await findColourway(db, params.id, params.number)),
  )
  return router
}
