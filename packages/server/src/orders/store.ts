import type { Order, SizedOrder, sizeOrder } from '@tessellum/contract/orders'
import { wornLength } from '@tessellum/core/desk/wearer'
import { finishedIn } from '@tessellum/core/form/finished'
import { writeMadeSize } from '@tessellum/core/sizing/made-size'
import { and, asc, desc, eq, gte, lte } from 'drizzle-orm'
import type { z } from 'zod'
import { refuseOld, stillUndoable } from '../audit/undoable'
import { readinessOf } from '../batches/readiness'
import type { Session } from '../database/connect'
import { findVersion } from '../patterns/store'
import { HttpProblem, notFound } from '../problem'
import { batch } from '../schema/batches'
import { colourway, colourwayVersion } from '../schema/colourways'
import { customerOrder } from '../schema/orders'
import { pattern, patternVersion } from '../schema/patterns'
import type { Shop } from '../shop'

const orders = (db: Session) =>
  db
    .select({
      order: customerOrder,
      undoable: stillUndoable(customerOrder.overAt),
      patternId: pattern.id,
      pattern: pattern.title,
      version: patternVersion.number,
      colourwayId: colourway.id,
      colourway: colourway.name,
      batchState: batch.state,
    })
    .from(customerOrder)
    .innerJoin(patternVersion, eq(patternVersion.id, customerOrder.patternVersionId))
    .innerJoin(pattern, eq(pattern.id, patternVersion.patternId))
    .innerJoin(colourwayVersion, eq(colourwayVersion.id, customerOrder.colourwayVersionId))
    .innerJoin(colourway, eq(colourway.id, colourwayVersion.colourwayId))
    .leftJoin(batch, eq(batch.id, customerOrder.batchId))
    .$dynamic()

type Row = Awaited<ReturnType<typeof orders>>[number]

function asOrder({ order: row, batchState, ...names }: Row, short: ReadonlyMap<number, string>): Order {
  const { id, customer, worn, measureMm, size, kits, wantedOn, price, promised, state, batchId } = row
  return {
    id,
    customer,
    worn,
    measureMm,
    ...names,
    size,
    kits,
    wantedOn,
    price,
    promised,
    state,
    batchId,
    readiness: state === 'taken' ? readinessOf(batchState, short.has(batchId ?? 0)) : 'over',
  }
}

export async function listOrders(
  db: Session,
  short: ReadonlyMap<number, string>,
  span?: { readonly from: string; readonly to: string },
): Promise<Order[]> {
  const rows = span
    ? await orders(db)
        .where(and(gte(customerOrder.wantedOn, span.from), lte(customerOrder.wantedOn, span.to)))
        .orderBy(asc(customerOrder.wantedOn))
    : await orders(db).orderBy(desc(customerOrder.wantedOn), desc(customerOrder.id)).limit(200)
  return rows.map((row) => asOrder(row, short))
}

/** An order that is over, locked to be opened again. */
export async function lockOver(tx: Session, id: number) {
  const [row] = await tx
    .select({
      customer: customerOrder.customer,
      batchId: customerOrder.batchId,
      undoable: stillUndoable(customerOrder.overAt),
    })
    .from(customerOrder)
    .where(eq(customerOrder.id, id))
    .for('update')
  if (!row) throw notFound('order')
  refuseOld(row)
  return row
}

export async function lockOrder(tx: Session, id: number) {
  const [row] = await tx.select().from(customerOrder).where(eq(customerOrder.id, id)).for('update')
  if (!row) throw notFound('order')
  if (row.state !== 'taken')
    throw new HttpProblem(
      409,
      'wrong-state',
      `This order is ${row.state === 'done' ? 'handed over' : 'called off'} already.`,
      {
        hint: 'Reload the page.',
      },
    )
  return row
}

/** Each size takes a form to settle: more are not tried. */
const mostSizes = 6

/** How a pattern is made to a customer's measure. */
export async function sizeFor(
  shop: Shop,
  { patternId, version, worn, measureMm, ease }: z.output<typeof sizeOrder>,
): Promise<SizedOrder> {
  const { source } = await findVersion(shop.db, patternId, version)
  const formed = async (size: string) =>
    (await shop.workers.run('form', { source, choices: size ? { size } : {} })).report
  const usual = await formed('')
  const thick = finishedIn(usual)?.depthMm ?? 0
  let wantedMm: number
  try {
    wantedMm = wornLength(worn, measureMm, ease, Math.min(thick, 30))
  } catch (error) {
    if (!(error instanceof RangeError)) throw error
    throw new HttpProblem(422, 'no-such-measure', error.message, {
      path: 'measureMm',
      hint: 'Measure again, or change the unit.',
    })
  }
  const { measures } = await shop.workers.run('sizes', { source })
  const made = measures.includes('length') ? [writeMadeSize({ name: usual.size, measures: { length: wantedMm } })] : []
  const sizes = usual.sizes.length > 0 ? usual.sizes.slice(0, mostSizes) : ['']
  const ways = await Promise.all(
    [...made, ...sizes].map(async (size) => {
      const report = await formed(size)
      const finished = finishedIn(report)
      const fault = report.diagnostics.find(({ severity }) => severity === 'error')
      return {
        size,
        made: made.includes(size),
        finishedMm: finished
          ? Math.round(Math.max(finished.widthMm, finished.heightMm, finished.depthMm) * 10) / 10
          : null,
        trouble: fault ? `Line ${fault.line}: ${fault.message}` : null,
      }
    }),
  )
  const off = ({ finishedMm, trouble }: SizedOrder['ways'][number]) =>
    trouble !== null || finishedMm === null ? Number.POSITIVE_INFINITY : Math.abs(finishedMm - wantedMm)
  return { wantedMm, ways: ways.sort((a, b) => Number(b.made) - Number(a.made) || off(a) - off(b)) }
}
