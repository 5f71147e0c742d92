/** Moves that somebody posts by hand, and takes back by another. */
import type { HandMove, ReverseMove } from '@tessellum/contract/stock'
import type { StockUnit } from '@tessellum/core/kit/bill'
import { effectOf, handMoves } from '@tessellum/core/stock/moves'
import { sayQuantity } from '@tessellum/core/stock/quantity'
import { eq } from 'drizzle-orm'
import { logActivity } from '../audit/log'
import type { Caller } from '../context'
import type { Database } from '../database/connect'
import { brokenConstraint } from '../database/errors'
import { previousResult, runOnce } from '../idempotency/run-once'
import { HttpProblem, notFound } from '../problem'
import { balance, move } from '../schema/ledger'
import { item, lot } from '../schema/stock'
import type { Shop } from '../shop'
import { insertMove } from './insert-moves'
import { shortOfLot } from './short-of-lot'

export async function postMove(
  { db, writer }: Pick<Shop, 'db' | 'writer'>,
  lotId: number,
  { kind, quantity, reason }: HandMove,
  caller: Caller,
): Promise<{ moveId: number; itemId: number }> {
  if (handMoves[kind] !== 'either' && quantity < 0) {
    throw new HttpProblem(400, 'bad-input', `A ${kind} needs a quantity above 0.`, {
      path: 'quantity',
      hint: 'Use a correction to go either way.',
    })
  }
  try {
    return await postOnce(writer, lotId, { kind, quantity, reason }, caller)
  } catch (error) {
    if (!brokenConstraint(error)?.startsWith('balance_')) throw error
    const [held] = await db
      .select({ onHand: balance.onHand, reserved: balance.reserved, unit: item.unit })
      .from(balance)
      .innerJoin(lot, eq(lot.id, balance.lotId))
      .innerJoin(item, eq(item.id, lot.itemId))
      .where(eq(balance.lotId, lotId))
    if (!held) throw notFound('lot')
    throw await shortOfLot(db, held, 'Take less, take from another lot, or release a batch.')
  }
}

async function postOnce(
  db: Database,
  lotId: number,
  { kind, quantity, reason }: HandMove,
  caller: Caller,
): Promise<{ moveId: number; itemId: number }> {
  const { key, digest } = caller.idempotency
  const { onHand, reserved } = effectOf(kind, quantity)
  const says = (unit: StockUnit) => `posted a ${kind} of ${sayQuantity(Math.abs(quantity), unit)} of `
  const posted = await insertMove(db, {
    key,
    digest,
    personId: caller.id,
    lotId,
    kind,
    onHand,
    reserved,
    reason,
    request: `move ${lotId}`,
    says: { mg: says('mg'), mm: says('mm'), piece: says('piece') },
  })
  if (!posted) throw notFound('lot')
  // The key was there: the move has been posted before.
  if (!posted.result) return (await previousResult(db, caller, `move ${lotId}`)) as { moveId: number; itemId: number }
  caller.idempotency.commit()
  return posted.result
}

export async function reverseMove(
  db: Database,
  id: number,
  { reason }: ReverseMove,
  caller: Caller,
): Promise<{ moveId: number }> {
  try {
    return await runOnce(db, caller, `reverse ${id}`, async (tx, actor) => {
      const [wrong] = await tx.select().from(move).where(eq(move.id, id))
      if (!wrong) throw notFound('move')
      if (!Object.hasOwn(handMoves, wrong.kind))
        throw new HttpProblem(409, 'not-by-hand', 'Only what was posted by hand is reversed.', {
          hint: 'What a batch holds is given back by the batch itself.',
        })
      if (wrong.saleLineId !== null)
        throw new HttpProblem(409, 'sold-at-the-counter', 'This was sold over the counter.', {
          hint: 'Take it back there, so that the money is right too.',
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
          ...actor,
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
        { hint: 'Give back a batch, or post a correction for what is left.' },
      )
    throw error
  }
}
