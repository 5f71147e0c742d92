import { Router } from 'express'
import { mount } from '../http/mount'
import { shortBatches } from '../planning/buy-list'
import { workingDaysBefore } from '../settings/days'
import { settingsNow } from '../settings/store'
import type { Shop } from '../shop'
import { callOffOrder, changeOrder, handOverOrder, planKit, reopenOrder, takeOrder } from './commands'
import { sizeFor } from './size-for'
import { listOrders } from './store'

export function orderRoutes(shop: Shop): Router {
  const { db } = shop
  const router = Router()
  const all = async () => {
    const [short, { kits, days }] = await Promise.all([shortBatches(shop), settingsNow(shop)])
    return listOrders(db, short, (day) => workingDaysBefore(day, kits.packingDays, days))
  }

  mount(router, 'GET /api/orders', all)
  mount(router, 'POST /api/orders/size', ({ body }) => sizeFor(shop, body))
  mount(router, 'POST /api/orders', async ({ body, caller }) => {
    await takeOrder(shop, body, caller)
    return all()
  })
  mount(router, 'PUT /api/orders/:id', async ({ params, body, caller }) => {
    await changeOrder(shop, params.id, body, caller)
    return all()
  })
  mount(router, 'POST /api/orders/:id/kits', async ({ params, caller }) => {
    await planKit(shop, params.id, caller)
    return all()
  })
  mount(router, 'POST /api/orders/:id/hand-over', async ({ params, body, caller }) => {
    await handOverOrder(shop, params.id, body, caller)
    return all()
  })
  mount(router, 'POST /api/orders/:id/cancel', async ({ params, caller }) => {
    await callOffOrder(shop, params.id, caller)
    return all()
  })
  mount(router, 'POST /api/orders/:id/reopen', async ({ params, caller }) => {
    await reopenOrder(shop, params.id, caller)
    return all()
  })

  return router
}
