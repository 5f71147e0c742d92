/** What a kit's things cost, by the packs the shop buys. */
import type { BillLine } from './bill'

/** A pack an item is bought in: so much of its unit, at a price in minor units of money (pence, cents). */
export interface Pack {
  readonly amount: number
  readonly price: number
}

/** The least a unit of an item costs, in minor units; undefined where no pack is known. */
export const unitCost = (packs: readonly Pack[]): number | undefined =>
  packs.length === 0 ? undefined : Math.min(...packs.map(({ price, amount }) => price / amount))

export interface KitCost {
  /** In minor units, rounded to a whole one. */
  readonly cost: number
  /** Items without a known price, which the cost leaves out. */
  readonly unpriced: readonly number[]
}

/** @param unitCosts by item */
export function costOfKit(lines: readonly BillLine[], unitCosts: ReadonlyMap<number, number | undefined>): KitCost {
  let cost = 0
  const unpriced: number[] = []
  for (const { itemId, quantity } of lines) {
    const each = unitCosts.get(itemId)
    if (each === undefined) unpriced.push(itemId)
    else cost += quantity * each
  }
  return { cost: Math.round(cost), unpriced }
}
