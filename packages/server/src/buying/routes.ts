import { perSpoken, sayQuantity, spokenUnit } from '@tessellum/core/stock/quantity'
import { plainCells } from '@tessellum/core/stock/stock-spreadsheet'
import { Router } from 'express'
import { logActivity } from '../audit/log'
import type { Config } from '../config'
import { mount, sent } from '../http/mount'
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
  mount(router, 'GET /api/buy-list', ({ query }) => buyList(shop, query.until))
  mount(router, 'GET /api/buy-list/file', async ({ query: { format }, response }) => {
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
    return sent
  })
  mount(router, 'GET /api/purchases', () => listPurchases(db))

  mount(router, 'POST /api/quotes', ({ body }) => quotesFor(db, SUPPLIER, body.itemIds))

  mount(router, 'PUT /api/items/:id/packs', ({ params: { id: itemId }, body, caller }) =>
    runOnce(db, caller, `packs ${itemId}`, async (tx) => {
      await takePacks(tx, itemId, body.packs)
      await logActivity(tx, caller.id, 'took over a supplier’s prices', `/stock/${itemId}`)
      return { itemId }
    }),
  )
  mount(router, 'POST /api/purchases', ({ body, caller }) =>
    runOnce(db, caller, 'order', async (tx, actor) => ({ purchaseId: await order(tx, body, actor) })),
  )
  mount(router, 'POST /api/purchases/:id/receive', ({ params: { id }, body, caller }) =>
    runOnce(db, caller, `receive order ${id}`, async (tx, actor) => ({
      lotId: await receive(tx, id, body, actor),
    })).catch((error: unknown) => {
      throw explainLot(error, body.code)
    }),
  )
  mount(router, 'POST /api/purchases/:id/cancel', ({ params: { id: purchaseId }, caller }) =>
    runOnce(db, caller, `cancel order ${purchaseId}`, async (tx, actor) => {
      await callOff(tx, purchaseId, actor)
      return { purchaseId }
    }),
  )

  return router
}
