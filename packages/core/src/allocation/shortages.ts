/**
 * What must be bought for the kits that an allocation could not make. Once it is known how many kits there are of each way of making a line, the
 * items part: of each, the lots are filled so that as little as possible is wanting, whatever else those kits are short of.
 */
import {
  type Allocation,
  type AllocationLine,
  type AllocationLot,
  type Need,
  type Solve,
  type Take,
  takenFrom,
} from './allocation'
import { type Goal, inOrder } from './in-order'
import type { Row, Term } from './programme'

export interface Shortage {
  readonly itemId: number
  readonly line: number
  /** That go without, as planned. */
  readonly kits: number
  /** What they would take, in the item's unit. */
  readonly missing: number
}

interface ItemDemand {
  readonly line: number
  readonly variant: number
  readonly priority: number
  readonly need: Omit<Need, 'itemId'>
  readonly kits: number
}

/** @returns none exactly where the allocation makes all that is wanted */
export function shortagesOf(
  lines: readonly AllocationLine[],
  lots: readonly AllocationLot[],
  { lines: answers, takes }: Pick<Allocation, 'lines' | 'takes'>,
  solve: Solve,
): Shortage[] {
  const demands = new Map<number, ItemDemand[]>()
  for (const { line, wanted, priority, variants } of lines) {
    const made = answers.find((answer) => answer.line === line)
    for (const [variant, { bill }] of variants.entries()) {
      // What stands in is used where it makes a kit; what cannot be made is bought as planned.
      const kits = (made?.variants[variant] ?? 0) + (variant === 0 ? wanted - (made?.kits ?? 0) : 0)
      if (kits > 0)
        for (const { itemId, ...need } of bill)
          demands.set(itemId, [...(demands.get(itemId) ?? []), { line, variant, priority, need, kits }])
    }
  }
  return [...demands].flatMap(([itemId, of]) => {
    const own = takes.filter((take) => take.itemId === itemId)
    const allocated = of.map(({ line, variant }) => kitsIn(own, line, variant))
    const filled = of.every(({ kits }, d) => kits === allocated[d])
      ? allocated
      : fullest(
          of,
          lots.filter((lot) => lot.itemId === itemId),
          allocated,
          solve,
        )
    return of.flatMap(({ line, kits, need }, d) => {
      const without = kits - (filled[d] ?? 0)
      return without > 0 ? [{ itemId, line, kits: without, missing: without * need.quantity }] : []
    })
  })
}

const kitsIn = (takes: readonly Take[], line: number, variant: number): number =>
  takes.reduce((sum, take) => sum + (take.line === line && take.variant === variant ? take.kits : 0), 0)

/**
 * Kits of each demand, so that the least is wanting, and of that the most urgent have theirs.
 *
 * @param known a filling that can be done, for where the solver's limit comes first
 */
function fullest(
  demands: readonly ItemDemand[],
  lots: readonly AllocationLot[],
  known: readonly number[],
  solve: Solve,
): readonly number[] {
  const whole = new Map<string, number>()
  const rows: Row[] = []
  const ofDemand = demands.map((): Term[] => [])
  for (const [i, { lotId, free }] of lots.entries()) {
    const inLot: Term[] = []
    for (const [d, { need, kits }] of demands.entries()) {
      const times = takenFrom(need, lotId)
      const most = Math.min(kits, Math.floor(free / times))
      if (most <= 0) continue
      const name = `x${d}_${i}`
      whole.set(name, most)
      inLot.push({ times, name })
      ofDemand[d]?.push({ times: 1, name })
    }
    rows.push({ terms: inLot, sign: '<=', of: free })
  }
  for (const [d, { kits }] of demands.entries()) rows.push({ terms: ofDemand[d] ?? [], sign: '<=', of: kits })
  const weighed = (of: (demand: ItemDemand) => number): Goal => ({
    goal: 'max',
    objective: demands.flatMap((demand, d) =>
      of(demand) > 0 ? (ofDemand[d] ?? []).map(({ name }) => ({ times: of(demand), name })) : [],
    ),
  })
  const priorities = [...new Set(demands.map(({ priority }) => priority))].sort((a, b) => a - b)
  const goals = [
    weighed(({ need }) => need.quantity),
    // The last has what the others leave.
    ...priorities.slice(0, -1).map((priority) => weighed((demand) => (demand.priority === priority ? 1 : 0))),
  ]
  const values = inOrder(goals, { rows, whole, binary: new Set() }, solve, { proven: true, gap: 0 })
  const solved = ofDemand.map((terms) => terms.reduce((sum, { name }) => sum + Math.round(values[name] ?? 0), 0))
  const held = (kits: readonly number[]) =>
    demands.reduce((sum, { need }, d) => sum + need.quantity * (kits[d] ?? 0), 0)
  return held(solved) >= held(known) ? solved : known
}
