import type { ClassAnswer } from '@tessellum/contract/classes'
import { mayDo } from '@tessellum/contract/rights'
import { Router } from 'express'
import type { SignedIn } from '../context'
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
  leaveWaiting,
  markSeat,
  moveWalk,
  offerClass,
  planKits,
  reopenClass,
  waitFor,
} from './commands'
import { ifMoved } from './if-moved'
import { findClass, listClasses } from './store'

export function classRoutes(shop: Shop): Router {
  const { db } = shop
  const router = Router()

  /** How people are reached is told to those only who keep customers. */
  async function told(id: number, { roles }: SignedIn): Promise<ClassAnswer> {
    const found = await findClass(shop, id)
    if (mayDo(roles, 'customers.read')) return found
    const unreached = <Each extends { contact: string }>(each: Each): Each => ({ ...each, contact: '' })
    return { ...found, bookings: found.bookings.map(unreached), waiting: found.waiting.map(unreached) }
  }

  mount(router, 'GET /api/classes', async () => listClasses(db, await shortBatches(shop)))
  mount(router, 'GET /api/teachers', () => listTeachers(db))
  mount(router, 'GET /api/classes/:id', ({ params, caller }) => told(params.id, caller))
  mount(router, 'POST /api/classes', async ({ body, caller }) => told(await offerClass(shop, body, caller), caller))
  mount(router, 'GET /api/classes/:id/move', ({ params: { id }, query }) => ifMoved(shop, id, query.heldOn))
  mount(router, 'PUT /api/classes/:id', async ({ params: { id }, body, caller }) => {
    await changeClass(shop, id, body, caller)
    return told(id, caller)
  })
  mount(router, 'PUT /api/classes/:id/seats/:seat', async ({ params: { id, seat }, body, caller }) => {
    await bookSeat(shop, id, seat, body, caller)
    return told(id, caller)
  })
  mount(router, 'POST /api/classes/:id/seats/:seat/free', async ({ params: { id, seat }, caller }) => {
    await freeSeat(shop, id, seat, caller)
    return told(id, caller)
  })
  mount(router, 'PUT /api/classes/:id/seats/:seat/mark', async ({ params: { id, seat }, body, caller }) => {
    await markSeat(shop, id, seat, body, caller)
    return told(id, caller)
  })
  mount(router, 'POST /api/classes/:id/waiting', async ({ params: { id }, body, caller }) => {
    await waitFor(shop, id, body, caller)
    return told(id, caller)
  })
  mount(router, 'POST /api/classes/:id/waiting/:waitingId/leave', async ({ params: { id, waitingId }, caller }) => {
    await leaveWaiting(shop, id, waitingId, caller)
    return told(id, caller)
  })
  mount(router, 'POST /api/classes/:id/kits', async ({ params: { id }, caller }) => {
    const toEmpty = await planKits(shop, id, caller)
    return { ...(await told(id, caller)), toEmpty }
  })
  mount(router, 'POST /api/classes/:id/taught', async ({ params: { id }, caller }) => {
    await closeTaught(shop, id, caller)
    return told(id, caller)
  })
  mount(router, 'POST /api/classes/:id/cancel', async ({ params: { id }, caller }) => {
    await callOffClass(shop, id, caller)
    return told(id, caller)
  })
  mount(router, 'POST /api/classes/:id/reopen', async ({ params: { id }, caller }) => {
    await reopenClass(shop, id, caller)
    return told(id, caller)
  })
  mount(router, 'PUT /api/classes/:id/walk', ({ params, body }) => moveWalk(db, params.id, body.step))

  return router
}
