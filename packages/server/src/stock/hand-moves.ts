/** Moves that somebody posts by hand, and takes back by another. */
import type { HandMove, ReverseMove } from '@tessellum/contract/stock'
import type { StockUnit } from '@tessellum/core/kit/bill'
import { effectOf, freeOf, handMoves, type MoveKind } from '@tessellum/core/stock/moves'
import { sayQuantity } from '@tessellum/core/stock/quantity'
import { eq, sql } from 'drizzle-orm'
import { logActivity } from '../audit/log'
import { type Caller, RequestAborted, requestContext } from '../context'
import type { Database } from '../database/connect'
import { brokenConstraint } from '../database/errors'
import { prepared } from '../database/prepared'
import { previousResult, runOnce } from '../idempotency/run-once'
import { HttpProblem, notFound } from '../problem'
import { auditEntry } from '../schema/audit'
import { idempotentRequest } from '../schema/idempotency'
import { balance, move } from '../schema/ledger'
import { item, lot } from '../schema/stock'
import type { Shop } from '../shop'

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
    const [held] = await db.select().from(balance).where(eq(balance.lotId, lotId))
    throw new HttpProblem(
      409,
      'short-of-stock',
      `Only ${held ? freeOf(held) : 0} of this lot are free; ${held?.reserved ?? 0} are promised to batches.`,
      { path: 'quantity', hint: 'Take less, take from another lot, or release a batch.' },
    )
  }
}

interface NewMove {
  readonly key: string
  readonly digest: string
  readonly personId: number
  readonly lotId: number
  readonly kind: MoveKind
  readonly onHand: number
  readonly reserved: number
  readonly reason: string
  readonly request: string
  /** What the audit log says before the colour's name, by the unit that it is kept in. */
  readonly milligrams: string
  readonly millimetres: string
  readonly pieces: string
}

const given = (name: keyof NewMove) => sql.placeholder(name)

const insertMove = prepared<NewMove, { result: { moveId: number; itemId: number } | null; there: boolean }>(
  'insert_move',
  sql`
    with tube as (
      select ${item.id} as item_id, ${item.unit} as unit, ${item.colourName} as name
      from ${lot} join ${item} on ${item.id} = ${lot.itemId} where ${lot.id} = ${given('lotId')}::int
    ), numbered as (
      select tube.*, nextval(pg_get_serial_sequence('move', 'id')) as id from tube
    ), begun as (
      insert into ${idempotentRequest} (key, kind, person_id, digest, result)
      select ${given('key')}, ${given('request')}, ${given('personId')}::int, ${given('digest')},
        jsonb_build_object('moveId', id, 'itemId', item_id)
      from numbered on conflict do nothing returning result
    ), told as (
      insert into ${auditEntry} (person_id, what, page)
      select ${given('personId')}::int,
        case unit when 'mg' then ${given('milligrams')} when 'mm' then ${given('millimetres')} else ${given('pieces')} end
          || name || ': ' || ${given('reason')}, '/stock/' || item_id
      from numbered, begun
    ), moved as (
      insert into ${move} (id, lot_id, kind, on_hand, reserved, reason, person_id, idempotency_key) overriding system value
      select id, ${given('lotId')}::int, ${given('kind')}, ${given('onHand')}::bigint, ${given('reserved')}::bigint,
        ${given('reason')}, ${given('personId')}::int, ${given('key')}
      from numbered, begun
    )
    select (select result from begun) as result, exists (select from tube) as there`,
)

/**
 * What `runOnce` does, in one statement and so in one round trip: the request's key with its result, the audit entry and the move, or none of them.
 * Moves by hand are the most frequent writes of all.
 */
async function postOnce(
  db: Database,
  lotId: number,
  { kind, quantity, reason }: HandMove,
  caller: Caller,
): Promise<{ moveId: number; itemId: number }> {
  const { key, digest } = caller.idempotency
  const { onHand, reserved } = effectOf(kind, quantity)
  const says = (unit: StockUnit) => `posted a ${kind} of ${sayQuantity(Math.abs(quantity), unit)} of `
  // Whoever hung up may be asking again already: nothing is done behind them.
  if (requestContext.getStore()?.signal.aborted) throw new RequestAborted()
  const [done] = await insertMove(db, {
    key,
    digest,
    personId: caller.id,
    lotId,
    kind,
    onHand,
    reserved,
    reason,
    request: `move ${lotId}`,
    milligrams: says('mg'),
    millimetres: says('mm'),
    pieces: says('piece'),
  })
  if (!done?.there) throw notFound('lot')
  // The key was there: the move has been posted before.
  if (!done.result) return (await previousResult(db, caller, `move ${lotId}`)) as { moveId: number; itemId: number }
  caller.idempotency.commit()
  return done.result
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
