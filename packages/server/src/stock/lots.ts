/** Lots: delivered, moved from place to place, weighed. */
import type { NewLot, newLot } from '@tessellum/contract/buying'
import type { ChangeLot, TransferLot, WeighLot } from '@tessellum/contract/stock'
import { counted } from '@tessellum/core/measure/counted'
import { effectOf, freeOf } from '@tessellum/core/stock/moves'
import { and, eq } from 'drizzle-orm'
import type { z } from 'zod'
import { logActivity } from '../audit/log'
import type { Actor } from '../context'
import type { Session } from '../database/connect'
import { brokenConstraint } from '../database/errors'
import { HttpProblem, notFound } from '../problem'
import { balance, move } from '../schema/ledger'
import { item, lot } from '../schema/stock'
import { shortOfLot } from './short-of-lot'

/** A delivery: a lot of its own. @returns its id */
export async function receiveLot(
  tx: Session,
  itemId: number,
  { code, receivedOn, quantity, reason, place, supplier, cost }: z.output<typeof newLot>,
  actor: Actor,
): Promise<number> {
  const [of] = await tx.select({ place: item.place, name: item.colourName }).from(item).where(eq(item.id, itemId))
  if (!of) throw notFound('item')
  const [known] = await tx
    .select({ id: lot.id })
    .from(lot)
    .where(and(eq(lot.itemId, itemId), eq(lot.code, code)))
  if (known) throw codeTaken(code)
  const [made] = await tx
    .insert(lot)
    .values({
      itemId,
      code,
      receivedOn,
      place: place ?? of.place,
      supplier,
      unitCost: cost === undefined ? null : cost / quantity,
    })
    .returning({ id: lot.id })
  const { id } = made as { id: number }
  await tx.insert(move).values({ lotId: id, kind: 'receive', ...effectOf('receive', quantity), reason, ...actor })
  await logActivity(tx, actor.personId, `received lot ${code} of ${of.name}`, `/stock/${itemId}`)
  return id
}

const codeTaken = (code: string) =>
  new HttpProblem(409, 'code-taken', `There is a lot "${code}" of this item already.`, {
    path: 'code',
    hint: 'Give this delivery a code of its own, so that dye lots stay apart.',
  })

/** Two deliveries with one code at the same moment: the second is told as if it had come later. */
export const explainLot = (error: unknown, code: NewLot['code']): unknown =>
  brokenConstraint(error) === 'lot_code_place' ? codeTaken(code) : error

async function lockLot(tx: Session, id: number) {
  const [found] = await tx
    .select({ lot, onHand: balance.onHand, reserved: balance.reserved, unit: item.unit, name: item.colourName })
    .from(lot)
    .innerJoin(balance, eq(balance.lotId, lot.id))
    .innerJoin(item, eq(item.id, lot.itemId))
    .where(eq(lot.id, id))
    .for('update', { of: [balance, lot] })
  if (!found) throw notFound('lot')
  return found
}

/** Part of a lot goes to another place under its code; the whole tube takes its promises along. */
export async function transferLot(
  tx: Session,
  id: number,
  { place, quantity }: TransferLot,
  actor: Actor,
): Promise<void> {
  const held = await lockLot(tx, id)
  const { itemId, code } = held.lot
  const from = held.lot.place
  if (from === place)
    throw new HttpProblem(409, 'there-already', `Lot ${code} lies in "${place}" already.`, {
      path: 'place',
      hint: 'Choose another place.',
    })
  const page = `/stock/${itemId}`
  const atPlace = () =>
    tx
      .select({ id: lot.id })
      .from(lot)
      .where(and(eq(lot.itemId, itemId), eq(lot.code, code), eq(lot.place, place)))
  if (quantity === undefined) {
    const partIsThere = new HttpProblem(409, 'part-is-there', `Part of lot ${code} lies in "${place}" already.`, {
      path: 'quantity',
      hint: 'Move what is free of this tube by its quantity.',
    })
    if ((await atPlace()).length > 0) throw partIsThere
    await tx
      .update(lot)
      .set({ place })
      .where(eq(lot.id, id))
      // Somebody else has moved another tube of the lot there meanwhile.
      .catch((error: unknown) => {
        throw brokenConstraint(error) === 'lot_code_place' ? partIsThere : error
      })
    const reason = `the whole tube, from ${from || 'no place'} to ${place}`
    await tx.insert(move).values({ lotId: id, kind: 'transfer', onHand: 0, reserved: 0, reason, ...actor })
    await logActivity(tx, actor.personId, `moved the tube of lot ${code} from ${from || 'no place'} to ${place}`, page)
    return
  }
  if (quantity > freeOf(held))
    throw await shortOfLot(tx, held, 'Move less, or the whole tube with what is reserved of it.')
  const { receivedOn, supplier, unitCost, mgPerBead, measuredBeads } = held.lot
  await tx
    .insert(lot)
    .values({ itemId, code, place, receivedOn, supplier, unitCost, mgPerBead, measuredBeads })
    .onConflictDoNothing({ target: [lot.itemId, lot.code, lot.place] })
  const [made] = await atPlace()
  const { id: to } = made as { id: number }
  await tx.insert(move).values([
    { lotId: id, kind: 'transfer', onHand: -quantity, reserved: 0, reason: `to ${place}`, ...actor },
    { lotId: to, kind: 'transfer', onHand: quantity, reserved: 0, reason: `from ${from || 'no place'}`, ...actor },
  ])
  await logActivity(tx, actor.personId, `moved part of lot ${code} from ${from || 'no place'} to ${place}`, page)
}

/** What a bead of this lot weighs, from so many of them on the scale: its bags are weighed by it from now on. */
export async function weighLot(tx: Session, id: number, { beads, mg }: WeighLot, actor: Actor): Promise<void> {
  const held = await lockLot(tx, id)
  if (held.unit !== 'mg')
    throw new HttpProblem(422, 'not-weighed', 'This item is counted, not weighed.', {
      hint: 'Only beads kept by weight have a mass of one bead.',
    })
  const each = Number((mg / beads).toFixed(4))
  if (each < 0.01)
    throw new HttpProblem(422, 'too-light', `That makes a bead of ${each} mg, which is lighter than any bead.`, {
      path: 'mg',
      hint: 'Check how many beads lie on the scale, and what it shows.',
    })
  await tx.update(lot).set({ mgPerBead: each, measuredBeads: beads }).where(eq(lot.id, id))
  await logActivity(
    tx,
    actor.personId,
    `weighed ${counted(beads, 'bead')} of lot ${held.lot.code}: ${each} mg each`,
    `/stock/${held.lot.itemId}`,
  )
}

export async function changeLot(
  tx: Session,
  id: number,
  { supplier, unitCost }: ChangeLot,
  actor: Actor,
): Promise<void> {
  const held = await lockLot(tx, id)
  await tx.update(lot).set({ supplier, unitCost }).where(eq(lot.id, id))
  await logActivity(tx, actor.personId, `changed the cost of lot ${held.lot.code}`, `/stock/${held.lot.itemId}`)
}
