import { packsFor } from '@tessellum/core/allocation/buy'
import { sayMoney } from '@tessellum/core/measure/money'
import { and, desc, eq, isNotNull } from 'drizzle-orm'
import type { SignedIn } from '../context'
import type { Session } from '../database/connect'
import { HttpProblem } from '../problem'
import { lot, pack } from '../schema/stock'
import { shopSettings } from '../settings/store'

/**
 * What so much of an item costs by the shop's own records: its packs at their prices, or else what the last delivery cost.
 *
 * @returns minor units of money; undefined where the shop has no price for it
 */
async function recordedCost(tx: Session, itemId: number, amount: number): Promise<number | undefined> {
  const packs = await tx.select().from(pack).where(eq(pack.itemId, itemId))
  const packed = packsFor(amount, packs)
  if (packed) return packed.cost
  const [last] = await tx
    .select({ unitCost: lot.unitCost })
    .from(lot)
    .where(and(eq(lot.itemId, itemId), isNotNull(lot.unitCost)))
    .orderBy(desc(lot.receivedOn), desc(lot.id))
    .limit(1)
  return last?.unitCost == null ? undefined : Math.round(last.unitCost * amount)
}

/**
 * Orders above the shop's limit are for its owner. The cost is the shop's own figure: the one that was sent can only raise it.
 *
 * @param order what is ordered, and what the person says it costs
 * @throws HttpProblem 403 where it is above the limit, or where nothing is known that it could be held against
 */
export async function refuseAboveLimit(
  tx: Session,
  order: { readonly itemId: number; readonly amount: number; readonly cost: number },
  { roles }: SignedIn,
): Promise<void> {
  const { orderLimit, currency } = (await shopSettings(tx)).money
  if (orderLimit === 0 || roles.includes('owner')) return
  const recorded = await recordedCost(tx, order.itemId, order.amount)
  if (recorded === undefined)
    throw new HttpProblem(
      403,
      'no-price',
      'The shop has no price for this item, so the order limit cannot be checked.',
      {
        path: 'cost',
        hint: 'Add its packs and prices to the item, or ask the owner to order it.',
      },
    )
  const cost = Math.max(recorded, order.cost)
  if (cost <= orderLimit) return
  throw new HttpProblem(
    403,
    'above-limit',
    `This order costs ${sayMoney(cost, currency)}. Orders above ${sayMoney(orderLimit, currency)} are for the owner to place.`,
    { path: 'cost', hint: 'Ask the owner, or order less.' },
  )
}
