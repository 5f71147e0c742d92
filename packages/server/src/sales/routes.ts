import { plainCells } from '@tessellum/core/stock/stock-spreadsheet'
import { Router } from 'express'
import { mount, sent } from '../http/mount'
import { notFound } from '../problem'
import { shopSettings } from '../settings/store'
import type { Shop } from '../shop'
import { sell, takeBackSold } from './commands'
import { priceRows, pricesPage, saveSellingPrice } from './prices'
import { bookkeeping, findSale, salesOf, sellingPriceOf } from './store'

export function salesRoutes(shop: Shop): Router {
  const { db, workers } = shop
  const router = Router()

  mount(router, 'GET /api/sales', ({ query }) => salesOf(db, query))
  mount(router, 'POST /api/sales', ({ body, caller }) => sell(shop, body, caller))
  mount(router, 'GET /api/sales.csv', async ({ query, response }) => {
    const { currency } = (await shopSettings(db)).money
    const rows = await bookkeeping(db, query, currency)
    const bytes = await workers.run('writeTable', { rows, format: 'csv', name: 'Sales' })
    response.attachment(`sales-${query.from}-${query.to}.csv`).type('text/csv').send(Buffer.from(bytes))
    return sent
  })
  mount(router, 'GET /api/sales/:id', async ({ params }) => {
    const found = await findSale(db, params.id)
    if (!found) throw notFound('sale')
    return found
  })
  mount(router, 'POST /api/sales/:id/returns', ({ params, body, caller }) =>
    takeBackSold(shop, params.id, body, caller),
  )
  mount(router, 'GET /api/prices', ({ query }) => pricesPage(db, query))
  mount(router, 'GET /api/prices.csv', async ({ response }) => {
    const rows = await priceRows(db, (await shopSettings(db)).money.currency)
    const bytes = await workers.run('writeTable', { rows: plainCells(rows), format: 'csv', name: 'Prices' })
    response.attachment('prices.csv').type('text/csv').send(Buffer.from(bytes))
    return sent
  })
  mount(router, 'PUT /api/items/:id/selling-price', ({ params, body, caller }) =>
    saveSellingPrice(db, params.id, body.price, caller),
  )
  mount(router, 'GET /api/items/:id/selling-price', ({ params }) => sellingPriceOf(db, params.id))

  return router
}
