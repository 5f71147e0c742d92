import { Router } from 'express'
import { mount } from '../http/mount'
import { listTeachers } from '../people/people'
import { shortBatches } from '../planning/buy-list'
import type { Shop } from '../shop'
import {
  bookSeat,
  callOffClass,
  changeClass,
  closeTaught,
  freeSeat,
  moveWalk,
  offerClass,
  planKits,
  reopenClass,
} from './commands'
import { findClass, listClasses } from './store'

export function classRoutes(shop: Shop): Router {
  const { db } = shop
  const router = Router()

  mount(router, 'GET /api/classes', async () => listClasses(db, await shortBatches(shop)))
  mount(router, 'GET /api/teachers', () => listTeachers(db))
  mount(router, 'GET /api/classes/:id', ({ params }) => findClass(shop, params.id))
  mount(router, 'POST /api/classes', async ({ body, caller }) => findClass(shop, await offerClass(shop, body, caller)))
  mount(router, 'PUT /api/classes/:id', async ({ params: { id }, body, caller }) => {
    await changeClass(shop, id, body, caller)
    return findClass(shop, id)
  })
  mount(router, 'PUT /api/classes/:id/seats/:seat', async ({ params: { id, seat }, body, caller }) => {
    await bookSeat(shop, id, seat, body, caller)
    return findClass(shop, id)
  })
  mount(router, 'POST /api/classes/:id/seats/:seat/free', async ({ params: { id, seat }, caller }) => {
    await freeSeat(shop, id, seat, caller)
    return findClass(shop, id)
  })
  mount(router, 'POST /api/classes/:id/kits', async ({ params: { id }, caller }) => {
    const toEmpty = await planKits(shop, id, caller)
    return { ...(await findClass(shop, id)), toEmpty }
  })
  mount(router, 'POST /api/classes/:id/taught', async ({ params: { id }, caller }) => {
    await closeTaught(shop, id, caller)
    return findClass(shop, id)
  })
  mount(router, 'POST /api/classes/:id/cancel', async ({ params: { id }, caller }) => {
    await callOffClass(shop, id, caller)
    return findClass(shop, id)
  })
  mount(router, 'POST /api/classes/:id/reopen', async ({ params: { id }, caller }) => {
    await reopenClass(shop, id, caller)
    return findClass(shop, id)
  })
  mount(router, 'PUT /api/classes/:id/walk', ({ params, body }) => moveWalk(db, params.id, body.step))

  return router
}
