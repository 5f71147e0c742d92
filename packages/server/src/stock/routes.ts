import { newLot } from '@tessellum/contract/buying'
import { handMove, reverseMove } from '@tessellum/contract/stock'
import { effectOf, freeOf, handMoves } from '@tessellum/core/stock/moves'
import { eq } from 'drizzle-orm'
import { Router } from 'express'
import { actionKey, once } from '../actions/once'
import { brokenConstraint } from '../database/trouble'
import { notFound, Refusal, readId, readInput } from '../http/refusal'
import { mount, type Shop } from '../http/route'
import { balance, lot, move } from './schema'
import { itemStory, listItems } from './store'

export function stockRoutes({ db }: Shop): Router {
  const router = Router()

  mount(router, 'GET /api/items', () => listItems(db))

  mount(router, 'GET /api/items/:id', (request) => itemStory(db, readId(request.params.id, 'item')))

  mount(router, 'POST /api/items/:id/lots', async (request, _, caller) => {
    const itemId = readId(request.params.id, 'item')
    const { code, receivedOn, quantity, reason } = readInput(newLot, request.body)
    const key = actionKey(request)
    try {
      return await once(db, key, `new lot of ${itemId}`, caller, async (tx) => {
        const [made] = await tx.insert(lot).values({ itemId, code, receivedOn }).returning({ id: lot.id })
        const { id: lotId } = made as { id: number }
        await tx.insert(move).values({
          lotId,
          kind: 'receive',
          ...effectOf('receive', quantity),
          reason,
          personId: caller.id,
          actionKey: key,
        })
        return { lotId }
      })
    } catch (error) {
      const constraint = brokenConstraint(error)
      if (constraint === 'lot_code_unique')
        throw new Refusal(409, 'code-taken', `There is a lot "${code}" already.`, {
          path: 'code',
          hint: 'Give this delivery a code of its own, so that dye lots stay apart.',
        })
      if (constraint?.includes('item_id')) throw notFound('item')
      throw error
    }
  })

  mount(router, 'POST /api/lots/:id/moves', async (request, _, caller) => {
    const lotId = readId(request.params.id, 'lot')
    const { kind, quantity, reason } = readInput(handMove, request.body)
    if (handMoves[kind] !== 'either' && quantity < 0) {
      throw new Refusal(400, 'bad-input', `A ${kind} has a quantity above nought.`, {
        path: 'quantity',
        hint: 'Use a correction to go either way.',
      })
    }
    const key = actionKey(request)
    return once(db, key, `move ${lotId}`, caller, async (tx) => {
      const [held] = await tx
        .select({ onHand: balance.onHand, reserved: balance.reserved, itemId: lot.itemId })
        .from(balance)
        .innerJoin(lot, eq(lot.id, balance.lotId))
        .where(eq(balance.lotId, lotId))
        .for('update', { of: balance })
      if (!held) throw notFound('lot')
      const effect = effectOf(kind, quantity)
      if (freeOf(held) + effect.onHand < 0) {
        throw new Refusal(
          409,
          'short-of-stock',
          `Only ${freeOf(held)} of this lot are free; ${held.reserved} are promised to batches.`,
          {
            path: 'quantity',
            hint: 'Take less, take from another lot, or release a batch.',
          },
        )
      }
      const [made] = await tx
        .insert(move)
        .values({ lotId, kind, ...effect, reason, personId: caller.id, actionKey: key })
        .returning({ id: move.id })
      return { moveId: (made as { id: number }).id, itemId: held.itemId }
    })
  })

  mount(router, 'POST /api/moves/:id/reverse', async (request, _, caller) => {
    const id = readId(request.params.id, 'move')
    const { reason } = readInput(reverseMove, request.body)
    const key = actionKey(request)
    try {
      return await once(db, key, `reverse ${id}`, caller, async (tx) => {
        const [wrong] = await tx.select().from(move).where(eq(move.id, id))
        if (!wrong) throw notFound('move')
        if (!Object.hasOwn(handMoves, wrong.kind))
          throw new Refusal(409, 'not-by-hand', 'Only what was posted by hand is reversed.', {
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
            actionKey: key,
          })
          .returning({ id: move.id })
        return { moveId: (made as { id: number }).id }
      })
    } catch (error) {
      const constraint = brokenConstraint(error)
      if (constraint === 'move_reverses_unique')
        throw new Refusal(409, 'reversed-already', 'This move has been reversed already.', {
          hint: 'Load the page anew.',
        })
      if (constraint?.startsWith('balance_'))
        throw new Refusal(
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
