import { Router } from 'express'
import { mount } from '../http/mount'
import { sendParts } from '../http/send-parts'
import { runOnce } from '../idempotency/run-once'
import type { Shop } from '../shop'
import { postMove, reverseMove } from './hand-moves'
import { itemStory, movesOf } from './item-story'
import { saveItem } from './items'
import { changeLot, explainLot, receiveLot, transferLot, weighLot } from './lots'
import { shelfPage } from './shelf'
import {
  abandonStocktake,
  addFound,
  beginStocktake,
  countLot,
  listPlaces,
  listStocktakes,
  postStocktake,
  stocktakeOf,
} from './stocktake'
import { allItems } from './store'

export function stockRoutes(shop: Shop): Router {
  const { db } = shop
  const router = Router()

  mount(router, 'GET /api/items', ({ response }) => sendParts('GET /api/items', response, allItems(db)))
  mount(router, 'GET /api/shelf', ({ query }) => shelfPage(db, query))
  mount(router, 'GET /api/items/:id', ({ params }) => itemStory(db, params.id))
  mount(router, 'GET /api/items/:id/moves', ({ params, query }) => movesOf(db, params.id, query.before))

  mount(router, 'POST /api/items', async ({ body, caller }) =>
    itemStory(db, await saveItem(db, undefined, body, caller)),
  )
  mount(router, 'PUT /api/items/:id', async ({ params, body, caller }) =>
    itemStory(db, await saveItem(db, params.id, body, caller)),
  )

  mount(router, 'POST /api/items/:id/lots', ({ params, body, caller }) =>
    runOnce(db, caller, `new lot of ${params.id}`, async (tx, actor) => ({
      lotId: await receiveLot(tx, params.id, body, actor),
    })).catch((error: unknown) => {
      throw explainLot(error, body.code)
    }),
  )
  mount(router, 'POST /api/lots/:id/transfer', ({ params: { id: lotId }, body, caller }) =>
    runOnce(db, caller, `transfer ${lotId}`, async (tx, actor) => {
      await transferLot(tx, lotId, body, actor)
      return { lotId }
    }),
  )
  mount(router, 'POST /api/lots/:id/weighing', ({ params: { id: lotId }, body, caller }) =>
    runOnce(db, caller, `weigh ${lotId}`, async (tx, actor) => {
      await weighLot(tx, lotId, body, actor)
      return { lotId }
    }),
  )
  mount(router, 'PUT /api/lots/:id', ({ params: { id: lotId }, body, caller }) =>
    runOnce(db, caller, `lot ${lotId}`, async (tx, actor) => {
      await changeLot(tx, lotId, body, actor)
      return { lotId }
    }),
  )
  mount(router, 'POST /api/lots/:id/moves', ({ params, body, caller }) => postMove(shop, params.id, body, caller))
  mount(router, 'POST /api/moves/:id/reverse', ({ params, body, caller }) => reverseMove(db, params.id, body, caller))

  mount(router, 'GET /api/places', () => listPlaces(db))
  mount(router, 'GET /api/stocktakes', () => listStocktakes(db))
  mount(router, 'GET /api/stocktakes/:id', ({ params }) => stocktakeOf(db, params.id))

  mount(router, 'POST /api/stocktakes', async ({ body, caller }) => {
    const { id } = await runOnce(db, caller, 'begin stocktake', async (tx, actor) => ({
      id: await beginStocktake(tx, body.place, actor),
    }))
    return stocktakeOf(db, id)
  })

  // Counting again what was counted is no harm: the last count stands.
  mount(router, 'PUT /api/stocktakes/:id/lots/:lotId', async ({ params: { id, lotId }, body, caller }) => {
    await runOnce(db, caller, `count ${lotId}`, async (tx) => {
      await countLot(tx, id, lotId, body.counted, caller.id)
      return { id }
    })
    return stocktakeOf(db, id)
  })
  mount(router, 'POST /api/stocktakes/:id/found', async ({ params: { id }, body, caller }) => {
    await runOnce(db, caller, `found in ${id}`, async (tx, actor) => {
      await addFound(tx, id, body, actor)
      return { id }
    })
    return stocktakeOf(db, id)
  })
  mount(router, 'POST /api/stocktakes/:id/post', async ({ params: { id }, caller }) => {
    await runOnce(db, caller, `post stocktake ${id}`, async (tx, actor) => {
      await postStocktake(tx, id, actor)
      return { id }
    })
    return stocktakeOf(db, id)
  })
  mount(router, 'POST /api/stocktakes/:id/abandon', async ({ params: { id }, caller }) => {
    await runOnce(db, caller, `abandon stocktake ${id}`, async (tx, actor) => {
      await abandonStocktake(tx, id, actor)
      return { id }
    })
    return stocktakeOf(db, id)
  })

  return router
}
