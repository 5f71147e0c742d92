import { buyWanted, newPurchase, receivePurchase } from '@tessellum/contract/buying'
import { Router } from 'express'
import { actionKey, once } from '../actions/once'
import { readId, readInput } from '../http/refusal'
import { mount, type Shop } from '../http/route'
import { explainLot } from '../stock/lots'
import { callOff, listPurchases, order, receive } from '../stock/purchases'
import { buyList } from './plan'

export function buyingRoutes(shop: Shop): Router {
  const { db } = shop
  const router = Router()
  mount(router, 'GET /api/buy-list', (request) => buyList(shop, readInput(buyWanted, request.query).until))
  mount(router, 'GET /api/purchases', () => listPurchases(db))

  mount(router, 'POST /api/purchases', async (request, _, caller) => {
    const wanted = readInput(newPurchase, request.body)
    const key = actionKey(request)
    return once(db, key, 'order', caller, async (tx) => ({
      purchaseId: await order(tx, wanted, { personId: caller.id, actionKey: key }),
    }))
  })

  mount(router, 'POST /api/purchases/:id/receive', async (request, _, caller) => {
    const id = readId(request.params.id, 'order')
    const came = readInput(receivePurchase, request.body)
    const key = actionKey(request)
    try {
      return await once(db, key, `receive order ${id}`, caller, async (tx) => ({
        lotId: await receive(tx, id, came, { personId: caller.id, actionKey: key }),
      }))
    } catch (error) {
      throw explainLot(error, came.code)
    }
  })

  mount(router, 'POST /api/purchases/:id/cancel', async (request, _, caller) => {
    const id = readId(request.params.id, 'order')
    const key = actionKey(request)
    return once(db, key, `cancel order ${id}`, caller, async (tx) => {
      await callOff(tx, id, { personId: caller.id, actionKey: key })
      return { purchaseId: id }
    })
  })

  return router
}
