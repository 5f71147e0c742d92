import { sayMoney } from '@tessellum/core/measure/money'
import { perSpoken, sayQuantity, spokenUnit } from '@tessellum/core/stock/quantity'
import { plainCells } from '@tessellum/core/stock/stock-spreadsheet'
import { Router } from 'express'
import { logActivity } from '../audit/log'
import type { SignedIn } from '../context'
import type { Session } from '../database/connect'
import { mount, sent } from '../http/mount'
import { runOnce } from '../idempotency/run-once'
import { buyList } from '../planning/buy-list'
import { HttpProblem } from '../problem'
import type { Addresses } from '../settings/device-addresses'
import { shopSettings } from '../settings/store'
import type { Shop } from '../shop'
import { takePacks } from '../stock/items'
import { explainLot } from '../stock/lots'
import { callOff, listPurchases, order, receive } from '../stock/purchases'
import { quotesFor } from './quotes'

/** What the shop has settled to be for its owner. */
async function refuseAboveLimit(tx: Session, cost: number, { roles }: SignedIn): Promise<void> {
  const { orderLimit, currency } = (await shopSettings(tx)).money
  if (orderLimit === 0 || cost <= orderLimit || roles.includes('owner')) return
  throw new HttpProblem(
    403,
    'above-limit',
    `Orders above ${sayMoney(orderLimit, currency)} are for the owner to place.`,
    {
      path: 'cost',
      hint: 'Ask the owner, or order less.',
    },
  )
}

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

  mount(router, 'PUT /api/items/:id/packs', ({ params: { id: itemId }, body, caller }) =>
    runOnce(db, caller, `packs ${itemId}`, async (tx) => {
      await takePacks(tx, itemId, body.packs)
      await logActivity(tx, caller.id, 'took over a supplier’s prices', `/stock/${itemId}`)
      return { itemId }
    }),
  )
  mount(router, 'POST /api/purchases', ({ body, caller }) =>
    runOnce(db, caller, 'order', async (tx, actor) => {
      await refuseAboveLimit(tx, body.cost, caller)
      return { purchaseId: await order(tx, body, actor) }
    }),
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
