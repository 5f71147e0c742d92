/** Moves that somebody posts by hand, and takes back by another. */
import type { HandMove, ReverseMove } from '@tessellum/contract/stock'
import { effectOf, freeOf, handMoves } from '@tessellum/core/stock/moves'
import { sayQuantity } from '@tessellum/core/stock/quantity'
import { eq } from 'drizzle-orm'
import { logActivity } from '../audit/log'
import type { Caller } from '../context'
import type { Database } from '../database/connect'
import { brokenConstraint } from '../database/errors'
import { runOnce } from '../idempotency/run-once'
import { HttpProblem, notFound } from '../problem'
import { balance, move } from '../schema/ledger'
import { item, lot } from '../schema/stock'

export async function postMove(
  db: Database,
  lotId: number,
  { kind, quantity, reason }: HandMove,
  caller: Caller,
): Promise<{ moveId: number; itemId: number }> {
  if (handMoves[kind] !== 'either' && quantity < 0) {
    throw new HttpProblem(400, 'bad-input', `A ${kind} has a quantity above nought.`, {
      path: 'quantity',
      hint: 'Use a correction to go either way.',
    })
  }
  try {
    return await runOnce(db, caller, `move ${lotId}`, async (tx, actor) => {
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
        .values({ lotId, kind, ...effectOf(kind, quantity), reason, ...actor })
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
