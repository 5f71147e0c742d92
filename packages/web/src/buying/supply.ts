/** How far an item goes, in one bar: what is free, what comes, and what is to be bought, against what drafts take and the level it is kept above. */
import type { BuyLine } from '@tessellum/contract/buying'

type Supplied = Pick<BuyLine, 'free' | 'coming' | 'amount' | 'planned' | 'reorderBelow'>

export interface SupplyBar {
  /** Shares of the bar, from its left; one after the other. */
  readonly parts: readonly { readonly of: 'free' | 'coming' | 'bought'; readonly from: number; readonly to: number }[]
  /** Where what the drafts take ends; undefined where they take none. */
  readonly planned: number | undefined
  /** Where there is enough to stay above the reorder level as well; undefined where none is kept. */
  readonly kept: number | undefined
}

export function supplyBar({ free, coming, amount, planned, reorderBelow }: Supplied): SupplyBar {
  // More may be promised than there is, after a spill.
  const held = Math.max(0, free)
  const ends = [held, held + coming, held + coming + amount] as const
  const whole = Math.max(1, ends[2], planned + reorderBelow) * 1.04
  const parts = [
    { of: 'free' as const, from: 0, to: ends[0] / whole },
    { of: 'coming' as const, from: ends[0] / whole, to: ends[1] / whole },
    { of: 'bought' as const, from: ends[1] / whole, to: ends[2] / whole },
  ]
  return {
    parts: parts.filter(({ from, to }) => to > from),
    planned: planned > 0 ? planned / whole : undefined,
    kept: reorderBelow > 0 ? (planned + reorderBelow) / whole : undefined,
  }
}
