/** A batch begun, and given other lines later, whether it holds anything yet or not. */
import { eq } from 'drizzle-orm'
import { logActivity } from '../audit/log'
import type { Caller } from '../context'
import type { Session } from '../database/connect'
import { previousResult, runOnce } from '../idempotency/run-once'
import { holding } from '../planning/holdings'
import { linesOf } from '../planning/lines'
import { HttpProblem, notFound } from '../problem'
import { batch } from '../schema/batches'
import type { Shop } from '../shop'
import { bagName } from './bags'
import { applyReallocation, planReallocation } from './change'
import { type WantedLine, writeLines } from './lines'
import { lockBatch } from './lock'
import { TakenMeanwhile } from './reserve'
import { refuseShort } from './short'

/** How often something is worked out anew because somebody else was faster. */
const maxTries = 5

/** @throws HttpProblem when others are faster again and again */
export async function retrying<T>(attempt: () => Promise<T>): Promise<T> {
  for (let tries = 1; ; tries++) {
    try {
      return await attempt()
    } catch (error) {
      if (!(error instanceof TakenMeanwhile)) throw error
      if (tries === maxTries)
        throw new HttpProblem(409, 'busy-shelf', 'Others are taking from the same lots at this moment.', {
          hint: 'Nothing has been changed. Try again in a moment.',
        })
    }
  }
}

/** @returns its id */
export async function planBatch(
  tx: Session,
  wanted: { readonly name: string; readonly dueOn: string; readonly priority: number; readonly kept?: boolean },
  lines: readonly WantedLine[],
  by: number,
): Promise<number> {
  const [made] = await tx
    .insert(batch)
    .values({ ...wanted, madeBy: by })
    .returning({ id: batch.id })
  const { id } = made as { id: number }
  await writeLines(tx, lines, { batchId: id, personId: by })
  await logActivity(tx, by, `planned ${wanted.name}`, `/kits/${id}`)
  return id
}

export interface Turn {
  readonly name?: string | undefined
  readonly dueOn?: string | undefined
  readonly priority?: number | undefined
}

const priorityWords: Readonly<Record<number, string>> = { 1: 'to go first', 2: 'in its turn', 3: 'to go last' }

/** Gives a batch another name, another day or another turn among those that compete. */
export async function turnBatch(tx: Session, id: number, turn: Turn, by: number): Promise<void> {
  const row = await lockBatch(tx, id)
  const { name = row.name, dueOn = row.dueOn, priority = row.priority } = turn
  await tx.update(batch).set({ name, dueOn, priority }).where(eq(batch.id, id))
  if (name !== row.name) await logActivity(tx, by, `renamed ${row.name} to ${name}`, `/kits/${id}`)
  if (dueOn !== row.dueOn || priority !== row.priority)
    await logActivity(tx, by, `moved ${name} to ${dueOn}, ${priorityWords[priority]}`, `/kits/${id}`)
}

/**
 * Gives a batch other lines.
 *
 * @param turn its name and day, changed with them or not at all
 * @returns names of bags to be emptied
 */
export async function reviseBatch(
  shop: Shop,
  id: number,
  lines: readonly WantedLine[],
  caller: Caller,
  turn: Turn = {},
): Promise<string[]> {
  const { db } = shop
  // Done already, it is not worked out again: the batch may since have come to where it could not be done.
  const before = await previousResult<{ toEmpty: string[] }>(db, caller, `change ${id}`)
  if (before) return before.toEmpty
  const { toEmpty } = await retrying(async () => {
    const [row] = await db.select({ state: batch.state }).from(batch).where(eq(batch.id, id))
    if (!row) throw notFound('batch')
    if (row.state === 'draft')
      return runOnce(db, caller, `change ${id}`, async (tx, actor) => {
        const { name, state } = await lockBatch(tx, id)
        if (state !== 'draft') throw new TakenMeanwhile()
        await writeLines(tx, lines, { batchId: id, ...actor })
        await logActivity(tx, caller.id, `changed ${name}`, `/kits/${id}`)
        await turnBatch(tx, id, turn, caller.id)
        return { toEmpty: [] as string[] }
      })
    if (!(holding as readonly string[]).includes(row.state))
      throw new HttpProblem(409, 'wrong-state', `This batch is ${row.state}; its lines are fixed.`, {
        hint: 'Plan another batch.',
      })
    const lined = await linesOf(db, id)
    const reallocation = await planReallocation(shop, id, lines)
    await refuseShort(db, reallocation)
    return runOnce(db, caller, `change ${id}`, async (tx, actor) => {
      const emptied = await applyReallocation(tx, reallocation, { batchId: id, ...actor })
      await turnBatch(tx, id, turn, caller.id)
      const toEmpty: string[] = []
      for (const each of emptied) toEmpty.push(await bagName(tx, each, lined))
      return { toEmpty }
    })
  })
  return toEmpty
}

/**
 * Lays a batch's bags out as far as the shelf goes: after a loss, and again once there is more.
 *
 * @param key where this is a part of what the request does
 */
export async function layOutAgain(shop: Shop, id: number, caller: Caller, key = caller.idempotency.key): Promise<void> {
  await retrying(async () => {
    const [row] = await shop.db.select({ state: batch.state }).from(batch).where(eq(batch.id, id))
    if (!row) throw notFound('batch')
    const { state } = row
    if (!(holding as readonly string[]).includes(state))
      throw new HttpProblem(409, 'wrong-state', `This batch is ${state}; nothing is laid out for it.`, {
        hint: 'Reload the page.',
      })
    const reallocation = await planReallocation(shop, id, await linesOf(shop.db, id))
    await runOnce(
      shop.db,
      caller,
      `lay out ${id}`,
      async (tx, actor) => {
        await applyReallocation(tx, reallocation, { batchId: id, ...actor })
        return { id }
      },
      key,
    )
  })
}
