/** What is bought: ordered, received, called off, and the prices it is bought at. */
import type { NewPurchase, ReceivePurchase, takePrices } from '@tessellum/contract/buying'
import type { z } from 'zod'
import { logActivity } from '../audit/log'
import type { Caller } from '../context'
import { previousResult, runOnce } from '../idempotency/run-once'
import { HttpProblem, notFound } from '../problem'
import type { Shop } from '../shop'
import { takePacks } from '../stock/items'
import { explainLot } from '../stock/lots'
import { callOff, order, receive } from '../stock/purchases'
import { refuseAboveLimit } from './order-limit'
import { quotesFor } from './quotes'

export const placeOrder = ({ db }: Shop, wanted: NewPurchase, caller: Caller) =>
  runOnce(db, caller, 'order', async (tx, actor) => {
    await refuseAboveLimit(tx, wanted, caller)
    return { purchaseId: await order(tx, wanted, actor) }
  })

export const receiveOrder = ({ db }: Shop, id: number, came: ReceivePurchase, caller: Caller) =>
  runOnce(db, caller, `receive order ${id}`, async (tx, actor) => ({
    lotId: await receive(tx, id, came, actor),
  })).catch((error: unknown) => {
    throw explainLot(error, came.code)
  })

export const cancelOrder = ({ db }: Shop, purchaseId: number, caller: Caller) =>
  runOnce(db, caller, `cancel order ${purchaseId}`, async (tx, actor) => {
    await callOff(tx, purchaseId, actor)
    return { purchaseId }
  })

/**
 * Takes over the prices that the supplier asks now. They are asked for again here: the prices that were sent only say what the person has
 * seen.
 *
 * @throws HttpProblem 409 where the supplier asks something else by now, 502 where it does not answer
 */
export async function takeSupplierPrices(
  { db }: Shop,
  supplier: string,
  itemId: number,
  seen: z.output<typeof takePrices>['packs'],
  caller: Caller,
): Promise<{ itemId: number }> {
  const kind = `packs ${itemId}`
  const before = await previousResult<{ itemId: number }>(db, caller, kind)
  if (before) return before
  const [quote] = await quotesFor(db, supplier, [itemId])
  if (!quote) throw notFound('item')
  if (quote.trouble)
    throw new HttpProblem(502, 'no-prices', quote.trouble, {
      hint: 'Try again later, or change the packs of the item by hand.',
    })
  if (!samePacks(quote.packs, seen))
    throw new HttpProblem(409, 'prices-changed', 'The supplier asks other prices by now.', {
      hint: 'Check the prices again.',
    })
  return runOnce(db, caller, kind, async (tx) => {
    await takePacks(tx, itemId, seen)
    await logActivity(tx, caller.id, 'took over a supplier’s prices', `/stock/${itemId}`)
    return { itemId }
  })
}

type Packs = readonly { readonly amount: number; readonly price: number; readonly leadDays: number }[]

const samePacks = (a: Packs, b: Packs): boolean => {
  const spelled = (packs: Packs) =>
    JSON.stringify(packs.map(({ amount, price, leadDays }) => [amount, price, leadDays]).sort())
  return spelled(a) === spelled(b)
}
