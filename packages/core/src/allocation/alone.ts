/** A lot and what is free of it: on hand less reserved, in the item's unit. */
interface FreeLot {
  readonly itemId: number
  readonly free: number
}

/** How many kits of one bill the free lots would fill by themselves, each from one lot of every item, and the items that stop at that number. */
export function maxAlone(
  bill: readonly { readonly itemId: number; readonly quantity: number }[],
  lots: readonly FreeLot[],
): { kits: number; limitedBy: number[] } {
  let most = Number.POSITIVE_INFINITY
  let limitedBy: number[] = []
  for (const { itemId, quantity } of bill) {
    const kits = lots
      .filter((lot) => lot.itemId === itemId)
      .reduce((sum, { free }) => sum + Math.max(0, Math.floor(free / quantity)), 0)
    if (kits < most) [most, limitedBy] = [kits, [itemId]]
    else if (kits === most) limitedBy.push(itemId)
  }
  return Number.isFinite(most) ? { kits: most, limitedBy } : { kits: 0, limitedBy: [] }
}
