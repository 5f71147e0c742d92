import { Router } from 'express'
import { mount } from '../http/mount'
import type { Shop } from '../shop'
import { logSample } from './log-sample'
import { samplesOf } from './samples'
import { findPattern } from './store'

export function sampleRoutes(shop: Shop): Router {
  const { db } = shop
  const router = Router()
  mount(router, 'GET /api/patterns/:id/samples', async ({ params }) => {
    const { id } = await findPattern(db, params.id)
    return samplesOf(db, id)
  })
  mount(router, 'POST /api/patterns/:id/samples', ({ params, body, caller }) =>
    logSample(shop, params.id, body, caller),
  )
  return router
}
