import { askQuotes, buyWanted, newPurchase, receivePurchase, takePrices } from '@tessellum/contract/buying'
import { stockFileWanted } from '@tessellum/contract/stock-file'
import { perSpoken, sayQuantity, spokenUnit } from '@tessellum/core/stock/quantity'
import { plainCells } from '@tessellum/core/stock/sheet'
import { Router } from 'express'
import { logActivity } from '../audit/log'
import type { Config } from '../config'
import { mount } from '../http/mount'
import { readId, readInput } from '../http/read-input'
import { idempotencyKeyOf } from '../idempotency/request-key'
import { runOnce } from '../idempotency/run-once'
import { buyList } from '../planning/buy-list'
import type { Shop } from '../shop'
import { takePacks } from '../stock/items'
import { explainLot } from '../stock/lots'
import { callOff, listPurchases, order, receive } from '../stock/purchases'
import { quotesFor } from './quotes'

export function buyingRoutes(shop: Shop, { SUPPLIER }: Pick<Config, 'SUPPLIER'>): Router {
  const { db } = shop
  const router = Router()
  mount(router, 'GET /api/buy-list', (request) => buyList(shop, readInput(buyWanted, request.query).until))
  mount(router, 'GET /api/buy-list/file', async (request, response) => {
    const { format } = readInput(stockFileWanted, request.query)
    const rows = [
      ['supplier', 'item', 'short', 'low', 'unit', 'packs', 'cost', 'order by', 'needed on', 'for'],
      ...(await buyList(shop, undefined)).map((line) => [
        line.supplier,
        line.name,
        String(line.short / perSpoken[line.unit]),
        String(line.low / perSpoken[line.unit]),
        spokenUnit[line.unit],
        line.packs.map(({ count, amount }) => `${count} x ${sayQuantity(amount, line.unit)}`).join(', '),
        (line.cost / 100).toFixed(2),
        line.orderBy ?? '',
        line.neededOn ?? '',
        line.batches.map(({ name }) => name).join(', '),
      ]),
    ]
    const bytes = await shop.workers.run('writeTable', { rows: plainCells(rows), format, name: 'What to buy' })
    response.attachment(`buy-list.${format}`).send(Buffer.from(bytes))
    return undefined
  })
  mount(router, 'GET /api/purchases', () => listPurchases(db))

  mount(router, 'POST /api/quotes', async (request) =>
    quotesFor(db, SUPPLIER, readInput(askQuotes, request.body).itemIds),
  )

  mount(router, 'PUT /api/items/:id/packs', async (request, _, caller) => {
    const id = readId(request.params.id, 'item')
    const { packs } = readInput(takePrices, request.body)
    return runOnce(db, idempotencyKeyOf(request), `packs ${id}`, caller, async (tx) => {
      await takePacks(tx, id, packs)
      await logActivity(tx, caller.id, 'took over a supplier’s prices', `/stock/${id}`)
      return { itemId: id }
    })
  })

  mount(router, 'POST /api/purchases', async (request, _, caller) => {
    const wanted = readInput(newPurchase, request.body)
    const key = idempotencyKeyOf(request)
    return runOnce(db, key, 'order', caller, async (tx) => ({
      purchaseId: await order(tx, wanted, { personId: caller.id, idempotencyKey: key }),
    }))
  })

  mount(router, 'POST /api/purchases/:id/receive', async (request, _, caller) => {
    const id = readId(request.params.id, 'order')
    const came = readInput(receivePurchase, request.body)
    const key = idempotencyKeyOf(request)
    try {
      return await runOnce(db, key, `receive order ${id}`, caller, async (tx) => ({
        lotId: await receive(tx, id, came, { personId: caller.id, idempotencyKey: key }),
      }))
    } catch (error) {
      throw explainLot(error, came.code)
    }
  })

  mount(router, 'POST /api/purchases/:id/cancel', async (request, _, caller) => {
    const id = readId(request.params.id, 'order')
    const key = idempotencyKeyOf(request)
    return runOnce(db, key, `cancel order ${id}`, caller, async (tx) => {
      await callOff(tx, id, { personId: caller.id, idempotencyKey: key })
      return { purchaseId: id }
    })
  })

  return router
}
