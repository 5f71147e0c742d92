import { eq, sql } from 'drizzle-orm'
import { type Actor, type Idempotency, RequestAborted, requestContext } from '../context'
import type { Database, Session } from '../database/connect'
import { HttpProblem } from '../problem'
import { idempotentRequest } from '../schema/idempotency'

/** Who asks, and with which request. */
interface Requester {
  readonly id: number
  readonly idempotency: Pick<Idempotency, 'digest' | 'key' | 'commit'>
}

/**
 * What a request with this key has led to before, if it has been carried out.
 *
 * @param kind what it may have been; several where the same request does one thing or another
 * @param key of a part of the request, where it is done in parts
 * @throws HttpProblem when the key was used for something else
 */
export async function previousResult<T extends object>(
  db: Session,
  { id, idempotency }: Requester,
  kind: string | readonly string[],
  key: string = idempotency.key,
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
  // It is done all the same, and told as that and no more.
  if (done.result === null) throw new Error(`The answer to ${key} is not kept any more.`)
  return done.result as T
}

/** Deletes the answers in which one of these texts stands by itself; what was done for them stays done once. */
export async function forgetResults(tx: Session, texts: readonly string[]): Promise<void> {
  for (const text of texts.filter(Boolean))
    await tx
      .update(idempotentRequest)
      .set({ result: null })
      // With its quotes: a short name is a part of many other words.
      .where(sql`position(to_jsonb(${text}::text)::text in ${idempotentRequest.result}::text) > 0`)
}

/** Whether this very request has been carried out before: by the same person, with the same key and body. */
export async function wasDone(db: Session, { id, idempotency }: Requester): Promise<boolean> {
  const [done] = await db
    .select({ personId: idempotentRequest.personId, digest: idempotentRequest.digest })
    .from(idempotentRequest)
    .where(eq(idempotentRequest.key, idempotency.key))
  return done?.personId === id && done.digest === idempotency.digest
}

/**
 * Does something in one transaction, and only once for a key: a repeat waits for the first, then gets its result.
 * A refusal undoes everything, the key too, so that the person can mend and try again.
 *
 * @param key of a part of the request, where it is done in parts
 */
export async function runOnce<T extends object>(
  db: Database,
  caller: Requester,
  kind: string,
  act: (tx: Session, actor: Actor) => Promise<T>,
  key: string = caller.idempotency.key,
): Promise<T> {
  const { id: personId, idempotency } = caller
  const result = await db.transaction(async (tx) => {
    const values = { key, kind, personId, digest: idempotency.digest }
    const begun = await tx.insert(idempotentRequest).values(values).onConflictDoNothing().returning()
    if (begun.length === 0) return (await previousResult<T>(tx, caller, kind, key)) as T
    const result = await act(tx, { personId, idempotencyKey: key })
    // Whoever hung up may be asking again already, and is told what then stands: nothing is done behind them.
    if (requestContext.getStore()?.signal.aborted) throw new RequestAborted()
    await tx.update(idempotentRequest).set({ result }).where(eq(idempotentRequest.key, key))
    return result
  })
  if (key === idempotency.key) idempotency.commit()
  return result
}
