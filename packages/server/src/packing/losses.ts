/** What goes wrong at the bench: a tube that is spilt or holds less than was thought, and another tube taken instead. */

import type { LoseBeads, SwapLot } from '@tessellum/contract/packing'
import { sparesOf } from '@tessellum/contract/usual-settings'
import { bandOf, weighedOut } from '@tessellum/core/kit/packing'
import { effectOf } from '@tessellum/core/stock/moves'
import { and, desc, eq, inArray, isNull, ne } from 'drizzle-orm'
import { logActivity } from '../audit/log'
import type { BatchActor } from '../batches/batch-actor'
import type { Session } from '../database/connect'
import { HttpProblem, notFound } from '../problem'
import { bag } from '../schema/bags'
import { batch } from '../schema/batches'
import { move } from '../schema/ledger'
import { lot } from '../schema/stock'
import { shopSettings } from '../settings/store'
import { shopUnits } from '../settings/units'
import { freeLots, listItems } from '../stock/store'
import { lockForPacking } from './store'

/** Bags of a batch that are to be filled from a lot, and are not yet: the last first. */
const waiting = (tx: Session, batchId: number, lotId: number) =>
  tx
    .select()
    .from(bag)
    .where(and(eq(bag.batchId, batchId), eq(bag.lotId, lotId), isNull(bag.filled)))
    .orderBy(desc(bag.lineId), desc(bag.kit))

const sameBag = ({ lineId, kit, itemId }: typeof bag.$inferSelect) =>
  and(eq(bag.lineId, lineId), eq(bag.kit, kit), eq(bag.itemId, itemId))

/**
 * Takes what was lost out of the ledger. Where the lot then holds less than is promised, the last bags of this batch lose their promise, and are to
 * be laid out anew.
 */
export async function lose(tx: Session, { itemId, lotId, how, quantity }: LoseBeads, actor: BatchActor): Promise<void> {
  const { name } = await lockForPacking(tx, actor.batchId)
  const held = (await freeLots(tx, [itemId], true)).find((each) => each.lotId === lotId)
  const [of] = await listItems(tx, [itemId])
  if (!held || !of) throw notFound('lot')
  let free = held.onHand - held.reserved
  const given: (typeof bag.$inferSelect)[] = []
  for (const row of await waiting(tx, actor.batchId, lotId)) {
    if (free >= quantity) break
    given.push(row)
    free += row.target
  }
  if (free < quantity) {
    const others = await tx
      .selectDistinctOn([batch.id], { name: batch.name })
      .from(bag)
      .innerJoin(batch, eq(batch.id, bag.batchId))
      .where(
        and(
          eq(bag.lotId, lotId),
          ne(bag.batchId, actor.batchId),
          inArray(batch.state, ['reserved', 'packing', 'packed']),
        ),
      )
    throw new HttpProblem(
      409,
      'short-of-stock',
      `Only ${(await shopUnits(tx)).exactly(free, of.unit)} of this lot can be lost here: the ledger has no more.`,
      {
        path: 'quantity',
        hint:
          others.length > 0
            ? `The rest is promised to ${others.map((each) => each.name).join(', ')}: give that back first.`
            : 'Check the quantity, or count the tube in a stocktake.',
      },
    )
  }
  const back = given.reduce((sum, { target }) => sum + target, 0)
  if (back > 0) await tx.insert(move).values({ lotId, kind: 'release', ...effectOf('release', back), ...actor })
  for (const row of given) await tx.update(bag).set({ lotId: null }).where(sameBag(row))
  await tx.insert(move).values({
    lotId,
    ...(how === 'spilt'
      ? { kind: 'scrap' as const, ...effectOf('scrap', quantity), reason: 'spilt while packing' }
      : { kind: 'correction' as const, ...effectOf('correction', -quantity), reason: 'the tube held less' }),
    ...actor,
  })
  const [tube] = await tx.select({ code: lot.code }).from(lot).where(eq(lot.id, lotId))
  const what = how === 'spilt' ? 'spilt beads' : 'found beads missing'
  await logActivity(
    tx,
    actor.personId,
    `${what} of lot ${tube?.code} while packing ${name}`,
    `/kits/${actor.batchId}/pack`,
  )
}

/** Fills the bags that are still empty from another lot: all of them, or none. */
export async function swap(tx: Session, { itemId, fromLotId, toLotId }: SwapLot, actor: BatchActor): Promise<void> {
  const { name } = await lockForPacking(tx, actor.batchId)
  const lots = await freeLots(tx, [itemId], true)
  const to = lots.find(({ lotId }) => lotId === toLotId)
  if (!to || fromLotId === toLotId)
    throw new HttpProblem(422, 'no-such-lot', 'That is not another lot of the same bead.', {
      path: 'toLotId',
      hint: 'Choose one of its other lots.',
    })
  const [item] = await listItems(tx, [itemId])
  const rows = await waiting(tx, actor.batchId, fromLotId)
  if (rows.length === 0)
    throw new HttpProblem(409, 'nothing-to-swap', 'No bag is waiting for that lot.', { hint: 'Reload the page.' })
  // Beads of another weight need another target; the count in the bag stays.
  const [before] = lots.filter(({ lotId }) => lotId === fromLotId)
  const nominal = item?.bead?.massMg ?? 0
  const [was, is] = [before?.mgPerBead ?? nominal, to.mgPerBead ?? nominal]
  const spares = sparesOf(await shopSettings(tx))
  const changed = rows.map((row) => {
    if (item?.unit !== 'mg' || was === is)
      return { row, band: { least: row.least, target: row.target, most: row.most } }
    const exact = Math.round(row.least / was)
    const count = { exact, spare: Math.floor(row.target / was) - exact, step: spares.scaleStepMg }
    const target = weighedOut(count, is)
    const entry = { ...count, itemId, roles: [], unit: item.unit, quantity: target, standsFor: exact + count.spare }
    const band = bandOf(entry, is, spares)
    return { row, band: { ...band, most: Math.floor(band.most) } }
  })
  const wanted = changed.reduce((sum, { band }) => sum + band.target, 0)
  if (to.onHand - to.reserved < wanted) {
    const units = await shopUnits(tx)
    const say = (quantity: number) => units.exactly(quantity, item?.unit ?? 'piece')
    throw new HttpProblem(
      409,
      'short-of-stock',
      `That lot is too small: free ${say(to.onHand - to.reserved)}, needed ${say(wanted)}.`,
      {
        path: 'toLotId',
        hint: 'Choose a lot that holds them all, or change the batch.',
      },
    )
  }
  const given = rows.reduce((sum, { target }) => sum + target, 0)
  await tx.insert(move).values([
    { lotId: fromLotId, kind: 'release', ...effectOf('release', given), ...actor },
    { lotId: toLotId, kind: 'reserve', ...effectOf('reserve', wanted), ...actor },
  ])
  for (const { row, band } of changed)
    await tx
      .update(bag)
      .set({ lotId: toLotId, ...band })
      .where(sameBag(row))
  await logActivity(
    tx,
    actor.personId,
    `swapped a lot of ${item?.colourName ?? 'a bead'} for ${name}`,
    `/kits/${actor.batchId}/pack`,
  )
}
