/**
 * Which lots a batch's kits are filled from, as an integer programme: whole kits, each from one lot of every item it needs.
 * In this order: most kits by priority; substitutes only where needed and the nearest first; fewest lots in a line; oldest and smallest lots first.
 */

/** What one kit takes of an item. */
export interface Need {
  readonly itemId: number
  readonly quantity: number
  /** From lots whose beads weigh otherwise than the item's do, as weighed; Infinity from a lot that comes too late for it. */
  readonly byLot?: Readonly<Record<number, number>> | undefined
}

/** What one kit takes when it is filled from this lot. */
export const takenFrom = ({ quantity, byLot }: Omit<Need, 'itemId'>, lotId: number): number =>
  byLot?.[lotId] ?? quantity

/** One way of making a line's kits: what each takes. */
export interface Variant {
  readonly bill: readonly Need[]
  /** How far it is from what was planned; 0 for the plan itself. */
  readonly distance: number
}

export interface AllocationLine {
  readonly line: number
  readonly wanted: number
  /** Lower goes first; lines of one priority are served together. */
  readonly priority: number
  /** The plan, then what may stand in for it. */
  readonly variants: readonly Variant[]
}

export interface AllocationLot {
  readonly lotId: number
  readonly itemId: number
  readonly free: number
  /** 0 for the one to be used up first: the oldest, and of those the smallest. */
  readonly rank: number
}

/** So many kits of a line as planned, which take `quantity` of one item each. */
export interface Demand {
  readonly line: number
  /** 0 where it is not said: the plan itself. */
  readonly variant?: number
  readonly quantity: number
  readonly byLot?: Need['byLot']
  readonly kits: number
}

export interface Take {
  readonly line: number
  readonly variant: number
  readonly itemId: number
  readonly lotId: number
  readonly kits: number
  readonly quantity: number
}

export interface LineAnswer {
  readonly line: number
  readonly kits: number
  /** Kits by variant. */
  readonly variants: readonly number[]
  /** Items of the plan of which one kit more could not be filled. */
  readonly limitedBy: readonly { readonly itemId: number; readonly missing: number }[]
}

export interface Allocation {
  readonly takes: readonly Take[]
  readonly lines: readonly LineAnswer[]
  /** Proven the best there is; otherwise by how much, at the most, it may fall short (a share of the kits). */
  readonly proven: boolean
  readonly gap: number
}

/** A linear programme in the LP format, and how it came out. */
export interface Solved {
  readonly status: 'optimal' | 'infeasible' | 'limit'
  readonly objective: number
  /** (bound - objective) / objective where the limit was reached. */
  readonly gap: number
  /** Empty where nothing was found. */
  readonly values: Readonly<Record<string, number>>
}
export type Solve = (programme: string) => Solved
