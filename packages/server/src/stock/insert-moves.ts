/** Moves by hand, put into the ledger. They are the most frequent writes of all: those that come together are posted by one statement. */
import type { StockUnit } from '@tessellum/core/kit/bill'
import type { MoveKind } from '@tessellum/core/stock/moves'
import DataLoader from 'dataloader'
import { type SQL, sql } from 'drizzle-orm'
import { RequestAborted, requestContext } from '../context'
import type { Database } from '../database/connect'
import { prepared } from '../database/prepared'
import { auditEntry } from '../schema/audit'
import { idempotentRequest } from '../schema/idempotency'
import { balance, move } from '../schema/ledger'
import { item, lot } from '../schema/stock'

export interface NewMove {
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
  readonly says: Readonly<Record<StockUnit, string>>
}

interface Inserted {
  readonly place: number
  /** Whether its lot could be locked. */
  readonly locked: boolean
  /** Null where its key had been used before, or its lot could not be locked. */
  readonly result: { readonly moveId: number; readonly itemId: number } | null
}

/**
 * What `runOnce` does, for many requests in one statement: each key with its result, its audit entry and its move, or nothing at all of any of them.
 * A lot that is not there has no row in the answer.
 *
 * @param locking the clause that locks their balances, in the order in which everybody locks them
 */
const insertMoves = (name: string, locking: SQL) =>
  prepared<{ moves: string }, Inserted>(
    name,
    sql`
    with asked as materialized (
      select given.*, ${item.id} as item_id, ${item.unit} as unit, ${item.colourName} as name,
        nextval(pg_get_serial_sequence('move', 'id')) as id
      from jsonb_to_recordset(${sql.placeholder('moves')}::jsonb) as given(place int, key text, digest text, "personId" int,
        "lotId" int, kind text, "onHand" bigint, reserved bigint, reason text, request text, says jsonb)
      join ${lot} on ${lot.id} = given."lotId" join ${item} on ${item.id} = ${lot.itemId}
    ), locked as materialized (
      select ${balance.lotId} from ${balance} where ${balance.lotId} in (select "lotId" from asked) order by 1 ${locking}
    ), begun as (
      insert into ${idempotentRequest} (key, kind, person_id, digest, result)
      select key, request, "personId", digest, jsonb_build_object('moveId', id, 'itemId', item_id)
      from asked where "lotId" in (select * from locked) on conflict do nothing returning result
    ), posted as (
      select asked.*, result from begun join asked on id = (result->>'moveId')::bigint
    ), told as (
      insert into ${auditEntry} (person_id, what, page)
      select "personId", (says->>unit) || name || ': ' || reason, '/stock/' || item_id from posted order by place
    ), moved as (
      insert into ${move} (id, lot_id, kind, on_hand, reserved, reason, person_id, idempotency_key) overriding system value
      select id, "lotId", kind, "onHand", reserved, reason, "personId", key from posted order by "lotId"
    )
    select asked.place, asked."lotId" in (select * from locked) as locked, posted.result
    from asked left join posted on posted.id = asked.id`,
  )

const insertWaiting = insertMoves('insert_moves', sql`for update`)
/** Passes over a lot that another holds, so that nobody waits for a lot that is not theirs. */
const insertFree = insertMoves('insert_free_moves', sql`for update skip locked`)

const given = (moves: readonly (NewMove & { place: number })[]) => ({ moves: JSON.stringify(moves) })

interface Ask {
  readonly move: NewMove
  /** Whoever hung up may be asking again already: nothing is done behind them. */
  readonly signal: AbortSignal | undefined
}

/** Of a move that was not posted with the others, and is to be tried by itself: its lot is held, or one of them was refused. */
const alone = Symbol('to be tried alone')

/** One statement at a time for each database: what comes while it is under way is gathered for the next. */
function gatherMoves(db: Database) {
  let last: Promise<unknown> = Promise.resolve()
  const insertTogether = async (asks: readonly Ask[]) => {
    const isGone = asks.map(({ signal }) => signal?.aborted)
    const moves = asks.flatMap(({ move }, place) => (isGone[place] ? [] : [{ ...move, place }]))
    // Which of them is at fault, and why, is told by each alone.
    const inserting = insertFree(db, given(moves)).catch(() => undefined)
    last = inserting
    const inserted = await inserting
    const byPlace = new Map(inserted?.map((each) => [each.place, each]))
    return asks.map((_, place) => {
      if (isGone[place]) return new RequestAborted()
      const each = byPlace.get(place)
      return !inserted || each?.locked === false ? alone : each
    })
  }
  return new DataLoader(insertTogether, {
    cache: false,
    maxBatchSize: 64,
    batchScheduleFn: (dispatch) => void last.then(() => setImmediate(dispatch)),
  })
}

const gathered = new WeakMap<Database, ReturnType<typeof gatherMoves>>()

/**
 * Posts a move.
 *
 * @returns undefined where there is no such lot
 * @throws the database's error where it refuses the move
 */
export async function insertMove(db: Database, move: NewMove): Promise<Inserted | undefined> {
  const moves = gathered.get(db) ?? gatherMoves(db)
  gathered.set(db, moves)
  const signal = requestContext.getStore()?.signal
  const inserted = await moves.load({ move, signal })
  if (inserted !== alone) return inserted
  if (signal?.aborted) throw new RequestAborted()
  const [each] = await insertWaiting(db, given([{ ...move, place: 0 }]))
  return each
}
