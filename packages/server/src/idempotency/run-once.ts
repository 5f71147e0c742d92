import { eq } from 'drizzle-orm'
import type { Idempotency } from '../context'
import { RequestAborted, requestContext } from '../context'
import type { Database, Session } from '../database/connect'
import { HttpProblem } from '../problem'
import { idempotentRequest } from '../schema/idempotency'

/** Who does something, and the key of the request: written down with every move. */
export interface Actor {
  readonly personId: number
  readonly idempotencyKey: string
}

/** Who asks, and with which request. */
interface Requester {
  readonly id: number
  readonly idempotency: Pick<Idempotency, 'digest' | 'key' | 'commit'>
}

/**
 * What a request with this key has led to before, if it has been carried out.
 *
 * @param kind what it may have been; several where the same request does one thing or another
 * @throws HttpProblem when the key was used for something else
 */
export async function previousResult<T extends object>(
  db: Session,
  key: string,
  kind: string | readonly string[],
  { id, idempotency }: Requester,
): Promise<T | undefined> {
  const [done] = await db.select().from(idempotentRequest).where(eq(idempotentRequest.key, key))
  if (!done) return undefined
  if (
    ![kind].flat().includes(done.kind) ||
    done.personId !== id ||
    (done.digest !== null && done.digest !== idempotency.digest)
  ) {
    throw new HttpProblem(409, 'key-used', 'That idempotency-key has been used for something else.', {
      hint: 'Send a new one.',
    })
  }
  if (key === idempotency.key) idempotency.commit()
  return done.result as T
}

/**
 * Does something in one transaction, and only once for a key: a repeat waits for the first, then gets its result.
 * A refusal undoes everything, the key too, so that the person can mend and try again.
 */
export async function runOnce<T extends object>(
  db: Database,
  key: string,
  kind: string,
  caller: Requester,
  act: (tx: Session) => Promise<T>,
): Promise<T> {
  const { id: personId, idempotency } = caller
  const result = await db.transaction(async (tx) => {
    const values = { key, kind, personId, digest: idempotency.digest }
    const begun = await tx.insert(idempotentRequest).values(values).onConflictDoNothing().returning()
    if (begun.length === 0) return (await previousResult<T>(tx, key, kind, caller)) as T
    const result = await act(tx)
    // Whoever hung up may be asking again already, and is told what then stands: nothing is done behind them.
    if (requestContext.getStore()?.signal.aborted) throw new RequestAborted()
    await tx.update(idempotentRequest).set({ result }).where(eq(idempotentRequest.key, key))
    return result
  })
  if (key === idempotency.key) idempotency.commit()
  return result
}
