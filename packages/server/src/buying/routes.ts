import { buyWanted } from '@tessellum/contract/buying'
import { Router } from 'express'
import { readInput } from '../http/refusal'
import { mount, type Shop } from '../http/route'
import { buyList } from './plan'

export function buyingRoutes(shop: Shop): Router {
  const router = Router()
  mount(router, 'GET /api/buy-list', (request) => buyList(shop, readInput(buyWanted, request.query).until))
  return router
}
