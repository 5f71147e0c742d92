/**
 * Which lots a batch's kits are filled from. Every kit takes all it needs of an item from one lot; older lots go first.
 */

export interface FreeLot {
  readonly lotId: number
  readonly itemId: number
  /** On hand less reserved, in the item's unit. */
  readonly free: number
  /** The day it comes, where it is not here yet ("2026-11-30"). */
  readonly from?: string
}

/** So many kits, each taking `quantity` of the item. */
export interface Demand {
  readonly line: number
  readonly itemId: number
  readonly quantity: number
  readonly kits: number
  /** The day its kits are due: what comes later is no help. */
  readonly on?: string
}

export interface Take {
  readonly line: number
  readonly itemId: number
  readonly lotId: number
  readonly kits: number
  readonly quantity: number
}

export interface Shortage {
  readonly itemId: number
  /** What the unfilled kits would take, in the item's unit. */
  readonly missing: number
  /** The first kit of the line that goes without, from 1. */
  readonly fromKit: number
  readonly line: number
}

export interface Allocation {
  readonly takes: readonly Take[]
  readonly shortages: readonly Shortage[]
}

/**
 * @param lots oldest first within an item
 * @param demands in order of who comes first
 */
export function allocate(demands: readonly Demand[], lots: readonly FreeLot[]): Allocation {
  const left = new Map(lots.map((lot) => [lot.lotId, lot.free]))
  const takes: Take[] = []
  const shortages: Shortage[] = []
  for (const { line, itemId, quantity, kits, on } of demands) {
    let toFill = kits
    for (const lot of lots) {
      if (toFill === 0) break
      if (lot.itemId !== itemId || (lot.from !== undefined && on !== undefined && lot.from > on)) continue
      const free = left.get(lot.lotId) ?? 0
      const filled = Math.min(toFill, kitsFrom(free, quantity))
      if (filled === 0) continue
      takes.push({ line, itemId, lotId: lot.lotId, kits: filled, quantity: filled * quantity })
      left.set(lot.lotId, free - filled * quantity)
      toFill -= filled
    }
    if (toFill > 0) shortages.push({ itemId, line, missing: toFill * quantity, fromKit: kits - toFill + 1 })
  }
  return { takes, shortages }
}

const kitsFrom = (free: number, quantity: number) =>
  quantity > 0 ? Math.max(0, Math.floor(free / quantity)) : Infinity

/** How many kits of one bill the free lots would fill, and the items that stop at that number. */
export function mostKits(
  bill: readonly { readonly itemId: number; readonly quantity: number }[],
  lots: readonly FreeLot[],
): { kits: number; limitedBy: number[] } {
  let most = Infinity
  let limitedBy: number[] = []
  for (const { itemId, quantity } of bill) {
    const kits = lots.filter((lot) => lot.itemId === itemId).reduce((sum, lot) => sum + kitsFrom(lot.free, quantity), 0)
    if (kits < most) [most, limitedBy] = [kits, [itemId]]
    else if (kits === most) limitedBy.push(itemId)
  }
  return Number.isFinite(most) ? { kits: most, limitedBy } : { kits: 0, limitedBy: [] }
}
