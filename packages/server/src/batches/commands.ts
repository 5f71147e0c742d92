import type { newBatch } from '@tessellum/contract/batches'
import { eq } from 'drizzle-orm'
import type { z } from 'zod'
import type { Caller } from '../context'
import { runOnce } from '../idempotency/run-once'
import { billsFor } from '../planning/bills'
import { linesOf } from '../planning/lines'
import { HttpProblem, notFound } from '../problem'
import { batch } from '../schema/batches'
import type { Shop } from '../shop'
import { resolveLines } from './lines'
import { lockBatch } from './lock'
import { planAgain, release } from './release'
import { fillingFor, reserve } from './reserve'
import { planBatch, retrying, reviseBatch, type Turn, turnBatch } from './revise'
import { type Substitution, substituted } from './substitute'

/** @returns its id */
export async function beginBatch(
  { db }: Shop,
  { lines, ...wanted }: z.output<typeof newBatch>,
  caller: Caller,
): Promise<number> {
  const planned = await resolveLines(db, lines)
  const { id } = await runOnce(db, caller, 'new batch', async (tx) => ({
    id: await planBatch(tx, wanted, planned, caller.id),
  }))
  return id
}

export const changeTurn = ({ db }: Shop, id: number, turn: Turn, caller: Caller) =>
  runOnce(db, caller, `turn ${id}`, async (tx) => {
    await turnBatch(tx, id, turn, caller.id)
    return { id }
  })

/** @param number of the line as people count them, from 1 */
export async function substituteInLine(
  shop: Shop,
  id: number,
  number: number,
  { kits, choices }: Omit<Substitution, 'lineId'>,
  caller: Caller,
): Promise<string[]> {
  const lineId = (await linesOf(shop.db, id))[number - 1]?.id
  if (lineId === undefined) throw notFound('line')
  return substitute(shop, id, [{ lineId, kits, choices }], caller)
}

/** @returns names of bags to be emptied */
export async function substitute(
  shop: Shop,
  id: number,
  substitutions: readonly Substitution[],
  caller: Caller,
): Promise<string[]> {
  const lines = await substituted(shop.db, await linesOf(shop.db, id), substitutions)
  return reviseBatch(shop, id, lines, caller)
}

/** Promises a batch everything that its lines need, or nothing. */
export async function reserveBatch(shop: Shop, id: number, caller: Caller): Promise<void> {
  const { db } = shop
  const [row] = await db.select({ revision: batch.revision }).from(batch).where(eq(batch.id, id))
  if (!row) throw notFound('batch')
  const lines = await linesOf(db, id)
  const bills = await billsFor(shop, lines)
  await retrying(async () => {
    const filling = await fillingFor(db, shop.workers, lines, bills)
    await runOnce(db, caller, `reserve ${id}`, async (tx, actor) => {
      // The bills were worked out before the batch was locked: they must still be of its lines.
      const { revision } = await lockBatch(tx, id)
      if (revision !== row.revision) {
        throw new HttpProblem(409, 'crossed', 'Somebody changed this batch at the same moment.', {
          hint: 'Nothing has been reserved. Look at it and try again.',
        })
      }
      await reserve(tx, lines, filling, { batchId: id, ...actor })
      return { id }
    })
  })
}

/** Gives back all that a batch holds; it is a draft again, or called off. */
export const giveBack = ({ db }: Shop, id: number, to: 'draft' | 'cancelled', caller: Caller) =>
  runOnce(db, caller, `${to === 'draft' ? 'release' : 'cancel'} ${id}`, async (tx, actor) => {
    await release(tx, { batchId: id, ...actor }, to)
    return { id }
  })

export const planBatchAgain = ({ db }: Shop, id: number, caller: Caller) =>
  runOnce(db, caller, `plan again ${id}`, async (tx, actor) => {
    await planAgain(tx, { batchId: id, ...actor })
    return { id }
  })
