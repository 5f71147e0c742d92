import type { Order } from '@tessellum/contract/orders'
import { and, asc, desc, eq, gte, lte, sql } from 'drizzle-orm'
import { refuseOld, stillUndoable } from '../audit/undoable'
import { readinessOf } from '../batches/readiness'
import { type Drawn, drawnIn } from '../colourways/drawn-in'
import type { Session } from '../database/connect'
import { HttpProblem, notFound } from '../problem'
import { batch } from '../schema/batches'
import { colourway, colourwayVersion } from '../schema/colourways'
import { customerOrder, handover } from '../schema/orders'
import { pattern, patternVersion } from '../schema/patterns'

/** When it was called off, or last handed over from. */
const lastDone = sql`coalesce(${customerOrder.overAt}, (select max(${handover.at}) from ${handover} where ${handover.orderId} = ${customerOrder.id}))`
const handed = sql<number>`(select coalesce(sum(${handover.kits}), 0)::int from ${handover} where ${handover.orderId} = ${customerOrder.id})`

const orders = (db: Session) =>
  db
    .select({
      order: customerOrder,
      handed,
      undoable: stillUndoable(lastDone),
      patternId: pattern.id,
      pattern: pattern.title,
      version: patternVersion.number,
      colourwayId: colourway.id,
      colourway: colourway.name,
      batchState: batch.state,
      drawn: sql<Drawn | null>`(
        select json_build_object('patternId', drawn.pattern_id, 'digest', drawn.digest, 'roles', drawn.figures -> 'roles',
          'colourwayVersionId', ${customerOrder.colourwayVersionId}, 'size', ${customerOrder.size})
        from pattern_drawing drawn where drawn.pattern_id = ${pattern.id} and drawn.view is not null)`,
    })
    .from(customerOrder)
    .innerJoin(patternVersion, eq(patternVersion.id, customerOrder.patternVersionId))
    .innerJoin(pattern, eq(pattern.id, patternVersion.patternId))
    .innerJoin(colourwayVersion, eq(colourwayVersion.id, customerOrder.colourwayVersionId))
    .innerJoin(colourway, eq(colourway.id, colourwayVersion.colourwayId))
    .leftJoin(batch, eq(batch.id, customerOrder.batchId))
    .$dynamic()

type Row = Awaited<ReturnType<typeof orders>>[number]

function asOrder(
  { order: row, batchState, drawn: _, ...names }: Row,
  drawing: Order['drawing'],
  short: ReadonlyMap<number, string>,
  packBy: (wantedOn: string) => string,
): Order {
  const { id, customer, customerId, worn, measureMm, size, kits, wantedOn, price, paid, promised, state, batchId } = row
  const readiness = state === 'taken' ? readinessOf(batchState, short.has(batchId ?? 0)) : 'over'
  return {
    id,
    customer,
    customerId,
    worn,
    measureMm,
    ...names,
    size,
    kits,
    wantedOn,
    price,
    paid,
    promised,
    state,
    batchId,
    readiness,
    buyBy: readiness === 'short' ? (short.get(batchId ?? 0) ?? null) : null,
    packBy: readiness === 'ready' || readiness === 'over' ? null : packBy(wantedOn),
    drawing,
  }
}

export async function listOrders(
  db: Session,
  short: ReadonlyMap<number, string>,
  /** The day on which packing has to begin for a day. */
  packBy: (wantedOn: string) => string,
  span?: { readonly from: string; readonly to: string },
): Promise<Order[]> {
  const rows = span
    ? await orders(db)
        .where(and(gte(customerOrder.wantedOn, span.from), lte(customerOrder.wantedOn, span.to)))
        .orderBy(asc(customerOrder.wantedOn))
    : await orders(db)
        // Of those that are over only the latest; an open one is never left out for them.
        .orderBy(desc(eq(customerOrder.state, 'taken')), desc(customerOrder.wantedOn), desc(customerOrder.id))
        .limit(200)
  const drawings = await drawnIn(
    db,
    rows.map(({ drawn }) => drawn),
  )
  return rows.map((row, i) => asOrder(row, drawings[i] ?? null, short, packBy))
}

/** @returns how many of its kits the customer has got */
export async function handedOf(tx: Session, orderId: number): Promise<number> {
  const [sum] = await tx
    .select({ kits: sql<number>`coalesce(sum(${handover.kits}), 0)::int` })
    .from(handover)
    .where(eq(handover.orderId, orderId))
  return sum?.kits ?? 0
}

/** An order that is over or partly handed over, locked so that the last of it can be undone. */
export async function lockOver(tx: Session, id: number) {
  const [row] = await tx
    .select({
      customer: customerOrder.customer,
      batchId: customerOrder.batchId,
      state: customerOrder.state,
      undoable: stillUndoable(lastDone),
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
