/** Selling over the counter, and taking back what was sold. */
import type { newSale, returnSold } from '@tessellum/contract/sales'
import { taxIn } from '@tessellum/core/kit/price'
import { counted } from '@tessellum/core/measure/counted'
import { itemName } from '@tessellum/core/stock/item-name'
import { effectOf } from '@tessellum/core/stock/moves'
import { sayQuantity } from '@tessellum/core/stock/quantity'
import { and, desc, eq, sql } from 'drizzle-orm'
import type { z } from 'zod'
import { logActivity } from '../audit/log'
import type { Actor, Caller } from '../context'
import { demandCustomer } from '../customers/store'
import type { Session } from '../database/connect'
import { runOnce } from '../idempotency/run-once'
import { findPattern, findVersion } from '../patterns/store'
import { HttpProblem, notFound } from '../problem'
import { move } from '../schema/ledger'
import { sale, saleLine, saleReturn } from '../schema/sales'
import { shopSettings } from '../settings/store'
import { shopUnits } from '../settings/units'
import type { Shop } from '../shop'
import { freeLots, listItems } from '../stock/store'
import { findSale } from './store'

const page = '/counter'

export const sell = ({ db }: Shop, { customer, customerId, lines }: z.output<typeof newSale>, caller: Caller) =>
  runOnce(db, caller, 'sale', async (tx, actor) => {
    await demandCustomer(tx, customerId)
    const [made] = await tx.insert(sale).values({ customer, customerId, madeBy: caller.id }).returning({ id: sale.id })
    const { id } = made as { id: number }
    const { money: rates } = await shopSettings(tx)
    const ids = [...new Set(lines.flatMap((line) => (line.what === 'item' ? [line.itemId] : [])))]
    const items = new Map((await listItems(tx, ids)).map((item) => [item.id, item]))
    // All that is wanted is locked at once, in one order for everybody.
    const lots = (await freeLots(tx, ids, true)).map(({ lotId, itemId, free }) => ({ lotId, itemId, free }))
    for (const [i, line] of lines.entries()) {
      const { quantity, price } = line
      if (line.what === 'pattern') {
        const { title } = await findPattern(tx, line.patternId)
        const { id: patternVersionId, number } = await findVersion(tx, line.patternId, line.version)
        const name = `${title}, version ${number}`
        await tx.insert(saleLine).values({
          saleId: id,
          patternVersionId,
          name,
          unit: 'piece',
          quantity,
          price,
          tax: taxIn(price, rates.taxPatterns),
        })
        continue
      }
      const item = items.get(line.itemId)
      if (!item) throw notFound('item')
      const { unit } = item
      const [kept] = await tx
        .insert(saleLine)
        .values({
          saleId: id,
          itemId: item.id,
          name: itemName(item),
          unit,
          quantity,
          price,
          tax: taxIn(price, item.category === 'kit' ? rates.taxKits : rates.taxGoods),
        })
        .returning({ id: saleLine.id })
      const taken = takeFrom(
        lots.filter((each) => each.itemId === item.id),
        quantity,
      )
      if (!taken) {
        const free = lots.reduce((sum, each) => sum + (each.itemId === item.id ? each.free : 0), 0)
        throw new HttpProblem(
          409,
          'short-of-stock',
          `Only ${(await shopUnits(tx)).exactly(free, unit)} of ${itemName(item)} can be sold; the rest is reserved.`,
          { path: `lines.${i}.quantity`, hint: 'Sell less of it. Nothing has been sold yet.' },
        )
      }
      const sold = { kind: 'sale' as const, reason: `sale ${id}`, saleLineId: (kept as { id: number }).id, ...actor }
      await tx.insert(move).values(taken.map(({ lotId, amount }) => ({ lotId, ...effectOf('sale', amount), ...sold })))
    }
    await logActivity(tx, caller.id, `sold ${counted(lines.length, 'thing')} over the counter, sale ${id}`, page)
    return (await findSale(tx, id)) as NonNullable<Awaited<ReturnType<typeof findSale>>>
  })

interface FreeLot {
  readonly lotId: number
  free: number
}

/** The oldest first; what is taken is free no more. @returns undefined where they do not have so much */
function takeFrom(lots: readonly FreeLot[], quantity: number): { lotId: number; amount: number }[] | undefined {
  if (lots.reduce((sum, { free }) => sum + Math.max(0, free), 0) < quantity) return undefined
  let left = quantity
  return lots.flatMap((lot) => {
    const amount = Math.min(left, Math.max(0, lot.free))
    left -= amount
    lot.free -= amount
    return amount > 0 ? [{ lotId: lot.lotId, amount }] : []
  })
}

/** What comes back goes into the lots that it was taken from, the last one first. */
export const takeBackSold = ({ db }: Shop, id: number, { lines }: z.output<typeof returnSold>, caller: Caller) =>
  runOnce(db, caller, `return sale ${id}`, async (tx, actor) => {
    const [row] = await tx.select().from(sale).where(eq(sale.id, id)).for('update')
    const found = row && (await findSale(tx, id))
    if (!found) throw notFound('sale')
    for (const [i, { lineId, quantity, refund }] of lines.entries()) {
      const line = found.lines.find((each) => each.id === lineId)
      if (!line) throw notFound('line')
      const [left, paid] = [line.quantity - line.returned, line.price - line.refunded]
      if (quantity > left)
        throw new HttpProblem(
          409,
          'more-than-sold',
          `Only ${sayQuantity(left, line.unit)} of ${line.name} were sold.`,
          {
            path: `lines.${i}.quantity`,
            hint: 'Take back no more than these.',
          },
        )
      if (refund > paid)
        throw new HttpProblem(409, 'more-than-paid', `Less than that was paid for ${line.name}.`, {
          path: `lines.${i}.refund`,
          hint: 'Give back no more than what was paid.',
        })
      await tx.insert(saleReturn).values({ lineId, quantity, refund, madeBy: caller.id })
      if (line.itemId !== null) await shelve(tx, id, lineId, quantity, actor)
    }
    await logActivity(tx, caller.id, `took back some of sale ${id}`, page)
    return (await findSale(tx, id)) as typeof found
  })

async function shelve(tx: Session, saleId: number, saleLineId: number, quantity: number, actor: Actor): Promise<void> {
  const out = await tx
    .select({ lotId: move.lotId, amount: sql<number>`-sum(${move.onHand})::float8` })
    .from(move)
    .where(and(eq(move.saleLineId, saleLineId)))
    .groupBy(move.lotId)
    .orderBy(desc(move.lotId))
  let left = quantity
  const back = out.flatMap(({ lotId, amount }) => {
    const some = Math.min(left, amount)
    left -= some
    return some > 0 ? [{ lotId, onHand: some }] : []
  })
  await tx.insert(move).values(
    back.map((each) => ({
      ...each,
      kind: 'return' as const,
      reserved: 0,
      reason: `back from sale ${saleId}`,
      saleLineId,
      ...actor,
    })),
  )
}
