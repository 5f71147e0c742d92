import { perSpoken, sayQuantity, spokenUnit } from '@tessellum/core/stock/quantity'
import { plainCells } from '@tessellum/core/stock/stock-spreadsheet'
import { Router } from 'express'
import { mount, sent } from '../http/mount'
import { buyList } from '../planning/buy-list'
import type { Addresses } from '../settings/device-addresses'
import type { Shop } from '../shop'
import { listPurchases } from '../stock/purchases'
import { cancelOrder, placeOrder, receiveOrder, takeSupplierPrices } from './commands'
import { quotesFor } from './quotes'

export function buyingRoutes(shop: Shop, addresses: () => Promise<Addresses>): Router {
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

  mount(router, 'POST /api/quotes', async ({ body }) => quotesFor(db, (await addresses()).supplier, body.itemIds))

  mount(router, 'PUT /api/items/:id/packs', async ({ params: { id }, body, caller }) =>
    takeSupplierPrices(shop, (await addresses()).supplier, id, body.packs, caller),
  )
  mount(router, 'POST /api/purchases', ({ body, caller }) => placeOrder(shop, body, caller))
  mount(router, 'POST /api/purchases/:id/receive', ({ params: { id }, body, caller }) =>
    receiveOrder(shop, id, body, caller),
  )
  mount(router, 'POST /api/purchases/:id/cancel', ({ params: { id }, caller }) => cancelOrder(shop, id, caller))

  return router
}
