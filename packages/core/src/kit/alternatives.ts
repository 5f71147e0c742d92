/** What may stand in for a colourway's choices where the shelf is short: every way of making its kits, the plan first. */
import { readMadeSize } from '../sizing/made-size'
import type { Choice } from './choice'

export interface Alternative {
  /** One for each role and size: what is chosen, or what stands in for it. */
  readonly choices: readonly Choice[]
  /** Roles that something stands in for. */
  readonly standIns: readonly { readonly role: string; readonly itemId: number; readonly insteadOf: number }[]
}

/** More than these are no help to anyone at a bench, and each is a variant of every kit for the solver. */
const most = 8

/** @param choices with alternatives by rank: 0 is what is chosen */
export function alternativesOf(choices: readonly Choice[], size: string): Alternative[] {
  const plan = choices.filter(({ rank = 0 }) => rank === 0)
  let ways: Alternative[] = [{ choices: plan, standIns: [] }]
  const { name } = readMadeSize(size)
  for (const chosen of plan) {
    if (chosen.size !== '' && chosen.size !== name) continue
    const others = choices
      .filter((each) => each.role === chosen.role && each.size === chosen.size && (each.rank ?? 0) > 0)
      .sort((a, b) => (a.rank ?? 0) - (b.rank ?? 0))
    ways = ways.flatMap((way) => [
      way,
      ...others.map((other) => ({
        choices: way.choices.map((each) => (each === chosen ? { ...other, rank: 0 } : each)),
        standIns: [...way.standIns, { role: chosen.role, itemId: other.itemId, insteadOf: chosen.itemId }],
      })),
    ])
  }
  return ways.sort((a, b) => a.standIns.length - b.standIns.length).slice(0, most)
}
