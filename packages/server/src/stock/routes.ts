import { newLot } from '@tessellum/contract/buying'
import type { RouteKey } from '@tessellum/contract/rights'
import {
  changeLot as changeLotInput,
  handMove,
  reverseMove,
  saveItem,
  shelfWanted,
  transferLot as transferLotInput,
  weighLot as weighLotInput,
} from '@tessellum/contract/stock'
import { beginStocktake as beginStocktakeInput, countLot as countLotInput } from '@tessellum/contract/stocktake'
import { effectOf, freeOf, handMoves } from '@tessellum/core/stock/moves'
import { sayQuantity } from '@tessellum/core/stock/quantity'
import { eq } from 'drizzle-orm'
import { type Request, Router } from 'express'
import type { z } from 'zod'
import { logActivity } from '../audit/log'
import type { Caller } from '../context'
import type { Session } from '../database/connect'
import { brokenConstraint } from '../database/errors'
import { mount } from '../http/mount'
import { readId, readInput } from '../http/read-input'
import { sendParts } from '../http/send-parts'
import { idempotencyKeyOf, idempotencyKeyOrNew } from '../idempotency/request-key'
import { runOnce } from '../idempotency/run-once'
import { HttpProblem, notFound } from '../problem'
import { balance, move } from '../schema/ledger'
import { item, lot } from '../schema/stock'
import type { Shop } from '../shop'
import { addItems, changeItem, explainItem } from './items'
import { changeLot, explainLot, receiveLot, transferLot, weighLot } from './lots'
import { shelfPage } from './shelf'
import {
  abandonStocktake,
  beginStocktake,
  countLot,
  listPlaces,
  listStocktakes,
  postStocktake,
  stocktakeOf,
} from './stocktake'
import { allItems, itemStory, movesOf } from './store'

export function stockRoutes({ db }: Shop): Router {
  const router = Router()

  const doing = (caller: Caller, key: string) => ({ personId: caller.id, idempotencyKey: key })

  mount(router, 'GET /api/items', (_, response) => sendParts(response, allItems(db)))

  mount(router, 'GET /api/shelf', (request) => shelfPage(db, readInput(shelfWanted, request.query)))

  mount(router, 'GET /api/items/:id', (request) => itemStory(db, readId(request.params.id, 'item')))

  mount(router, 'GET /api/items/:id/moves', (request) =>
    movesOf(db, readId(request.params.id, 'item'), readId(request.query.before, 'move')),
  )

  /** Begins an item, or changes one. */
  async function keep(request: Request, caller: Caller, id: number | undefined) {
    const wanted = readInput(saveItem, request.body)
    try {
      const kept = await runOnce(db, idempotencyKeyOf(request), `item ${id ?? 'new'}`, caller, async (tx) => {
        const [itemId = 0] = id === undefined ? await addItems(tx, [wanted]) : [id]
        if (id !== undefined) await changeItem(tx, id, wanted)
        await logActivity(
          tx,
          caller.id,
          `${id === undefined ? 'began' : 'changed'} the item ${wanted.colourName}`,
          `/stock/${itemId}`,
        )
        return { itemId }
      })
      return itemStory(db, kept.itemId)
    } catch (error) {
      throw explainItem(error, wanted)
    }
  }
  mount(router, 'POST /api/items', (request, _, caller) => keep(request, caller, undefined))
  mount(router, 'PUT /api/items/:id', (request, _, caller) => keep(request, caller, readId(request.params.id, 'item')))

  mount(router, 'POST /api/items/:id/lots', async (request, _, caller) => {
    const itemId = readId(request.params.id, 'item')
    const came = readInput(newLot, request.body)
    const key = idempotencyKeyOf(request)
    try {
      return await runOnce(db, key, `new lot of ${itemId}`, caller, async (tx) => ({
        lotId: await receiveLot(tx, itemId, came, doing(caller, key)),
      }))
    } catch (error) {
      throw explainLot(error, came.code)
    }
  })

  /** Something done to one lot, once. */
  const lotRoute = <Schema extends z.ZodType>(
    key: RouteKey,
    schema: Schema,
    act: (tx: Session, lotId: number, input: z.output<Schema>, by: ReturnType<typeof doing>) => Promise<void>,
  ) =>
    mount(router, key, async (request, _, caller) => {
      const lotId = readId(request.params.id, 'lot')
      const input = readInput(schema, request.body)
      const by = idempotencyKeyOf(request)
      return runOnce(db, by, `${key} ${lotId}`, caller, async (tx) => {
        await act(tx, lotId, input, doing(caller, by))
        return { lotId }
      })
    })
  lotRoute('POST /api/lots/:id/transfer', transferLotInput, transferLot)
  lotRoute('POST /api/lots/:id/weighing', weighLotInput, weighLot)
  lotRoute('PUT /api/lots/:id', changeLotInput, changeLot)

  mount(router, 'GET /api/places', () => listPlaces(db))
  mount(router, 'GET /api/stocktakes', () => listStocktakes(db))
  mount(router, 'GET /api/stocktakes/:id', (request) => stocktakeOf(db, readId(request.params.id, 'stocktake')))

  mount(router, 'POST /api/stocktakes', async (request, _, caller) => {
    const { place } = readInput(beginStocktakeInput, request.body)
    const key = idempotencyKeyOf(request)
    const { id } = await runOnce(db, key, 'begin stocktake', caller, async (tx) => ({
      id: await beginStocktake(tx, place, doing(caller, key)),
    }))
    return stocktakeOf(db, id)
  })

  // Counting again what was counted is no harm: the last count stands.
  mount(router, 'PUT /api/stocktakes/:id/lots/:lotId', async (request, _, caller) => {
    const id = readId(request.params.id, 'stocktake')
    const lotId = readId(request.params.lotId, 'lot')
    const { counted } = readInput(countLotInput, request.body)
    await runOnce(db, idempotencyKeyOrNew(request), `count ${lotId}`, caller, async (tx) => {
      await countLot(tx, id, lotId, counted, caller.id)
      return { ok: true }
    })
    return stocktakeOf(db, id)
  })

  const endStocktake =
    (act: typeof postStocktake, what: string) => async (request: Request, _: unknown, caller: Caller) => {
      const id = readId(request.params.id, 'stocktake')
      const key = idempotencyKeyOf(request)
      await runOnce(db, key, `${what} stocktake ${id}`, caller, async (tx) => {
        await act(tx, id, doing(caller, key))
        return { id }
      })
      return stocktakeOf(db, id)
    }
  mount(router, 'POST /api/stocktakes/:id/post', endStocktake(postStocktake, 'post'))
  mount(router, 'POST /api/stocktakes/:id/abandon', endStocktake(abandonStocktake, 'abandon'))

  mount(router, 'POST /api/lots/:id/moves', async (request, _, caller) => {
    const lotId = readId(request.params.id, 'lot')
    const { kind, quantity, reason } = readInput(handMove, request.body)
    if (handMoves[kind] !== 'either' && quantity < 0) {
      throw new HttpProblem(400, 'bad-input', `A ${kind} has a quantity above nought.`, {
        path: 'quantity',
        hint: 'Use a correction to go either way.',
      })
    }
    const key = idempotencyKeyOf(request)
    try {
      return await runOnce(db, key, `move ${lotId}`, caller, async (tx) => {
        const [tube] = await tx
          .select({ itemId: lot.itemId, unit: item.unit, name: item.colourName })
          .from(lot)
          .innerJoin(item, eq(item.id, lot.itemId))
          .where(eq(lot.id, lotId))
        if (!tube) throw notFound('lot')
        const what = `posted a ${kind} of ${sayQuantity(Math.abs(quantity), tube.unit)} of ${tube.name}: ${reason}`
        await logActivity(tx, caller.id, what, `/stock/${tube.itemId}`)
        // Last of all, since the balance is held from here to the end: the database itself refuses what is not there.
        const [made] = await tx
          .insert(move)
          .values({ lotId, kind, ...effectOf(kind, quantity), reason, personId: caller.id, idempotencyKey: key })
          .returning({ id: move.id })
        return { moveId: (made as { id: number }).id, itemId: tube.itemId }
      })
    } catch (error) {
      if (!brokenConstraint(error)?.startsWith('balance_')) throw error
      const [held] = await db.select().from(balance).where(eq(balance.lotId, lotId))
      throw new HttpProblem(
        409,
        'short-of-stock',
        `Only ${held ? freeOf(held) : 0} of this lot are free; ${held?.reserved ?? 0} are promised to batches.`,
        { path: 'quantity', hint: 'Take less, take from another lot, or release a batch.' },
      )
    }
  })

  mount(router, 'POST /api/moves/:id/reverse', async (request, _, caller) => {
    const id = readId(request.params.id, 'move')
    const { reason } = readInput(reverseMove, request.body)
    const key = idempotencyKeyOf(request)
    try {
      return await runOnce(db, key, `reverse ${id}`, caller, async (tx) => {
        const [wrong] = await tx.select().from(move).where(eq(move.id, id))
        if (!wrong) throw notFound('move')
        if (!Object.hasOwn(handMoves, wrong.kind))
          throw new HttpProblem(409, 'not-by-hand', 'Only what was posted by hand is reversed.', {
            hint: 'What a batch holds is given back by the batch itself.',
          })
        // Whoever comes second waits here, and is refused by the database: a move is reversed once.
        await tx.select().from(balance).where(eq(balance.lotId, wrong.lotId)).for('update')
        const [made] = await tx
          .insert(move)
          .values({
            lotId: wrong.lotId,
            kind: 'reverse',
            onHand: -wrong.onHand,
            reserved: 0,
            reverses: id,
            reason,
            personId: caller.id,
            idempotencyKey: key,
          })
          .returning({ id: move.id })
        const [of] = await tx.select({ itemId: lot.itemId, code: lot.code }).from(lot).where(eq(lot.id, wrong.lotId))
        await logActivity(
          tx,
          caller.id,
          `took back a ${wrong.kind} of lot ${of?.code}: ${reason}`,
          `/stock/${of?.itemId}`,
        )
        return { moveId: (made as { id: number }).id }
      })
    } catch (error) {
      const constraint = brokenConstraint(error)
      if (constraint === 'move_reverses_unique')
        throw new HttpProblem(409, 'reversed-already', 'This move has been reversed already.', {
          hint: 'Reload the page.',
        })
      if (constraint?.startsWith('balance_'))
        throw new HttpProblem(
          409,
          'short-of-stock',
          'What this move brought is not all there any more, or is promised to batches.',
          {
            hint: 'Give back a batch, or post a correction for what is left.',
          },
        )
      throw error
    }
  })

  return router
}
