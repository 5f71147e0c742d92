/** What may stand in for a colourway's choices where the shelf is short: every way of making its kits, the plan first. */
import { readMadeSize } from '../sizing/made-size'
import type { Choice } from './choice'

export interface Alternative {
  /** One for each role and size: what is chosen, or what stands in for it. */
  readonly choices: readonly Choice[]
  /** Roles that something stands in for. */
  readonly substitutes: readonly { readonly role: string; readonly itemId: number; readonly insteadOf: number }[]
}

/** More than these are no help to anyone at a bench, and each is a variant of every kit for the solver. */
const most = 8

/** @param choices with alternatives by rank: 0 is what is chosen */
export function alternativesOf(choices: readonly Choice[], size: string): Alternative[] {
  const plan = choices.filter(({ rank = 0 }) => rank === 0)
  const { name } = readMadeSize(size)
  const replaceable = plan.flatMap((chosen) => {
    if (chosen.size !== '' && chosen.size !== name) return []
    const others = choices
      .filter((each) => each.role === chosen.role && each.size === chosen.size && (each.rank ?? 0) > 0)
      .sort((a, b) => (a.rank ?? 0) - (b.rank ?? 0))
    return others.length > 0 ? [{ chosen, others }] : []
  })
  const ways: Alternative[] = []
  // The nearest one for each letter first, and few stand-ins before many: of many letters there are more ways than anybody could wait for.
  const nearest = replaceable.map(({ chosen, others }) => ({ chosen, others: others.slice(0, 1) }))
  const further = replaceable.map(({ chosen, others }) => ({ chosen, others: others.slice(1) }))
  const inTurn = function* () {
    for (let standing = 0; standing <= replaceable.length; standing++) {
      yield* swapsOf(standing === 1 ? nearest : replaceable, standing)
      if (standing === 1) yield* swapsOf(further, 1)
    }
  }
  for (const swaps of inTurn()) {
    ways.push({
      choices: plan.map((each) => {
        const other = swaps.get(each)
        return other ? { ...other, rank: 0 } : each
      }),
      substitutes: [...swaps].map(([{ role, itemId: insteadOf }, { itemId }]) => ({ role, itemId, insteadOf })),
    })
    if (ways.length === most) return ways
  }
  return ways
}

interface Replaceable {
  readonly chosen: Choice
  /** Nearest first. */
  readonly others: readonly Choice[]
}

/** Every way to let so many of the choices be stood in for, each by one of its others; one after the other, so that nobody makes them all. */
function* swapsOf(
  [first, ...rest]: readonly Replaceable[],
  standing: number,
): Generator<ReadonlyMap<Choice, Choice>, void> {
  if (standing === 0) yield new Map()
  else if (first && rest.length + 1 >= standing) {
    for (const other of first.others)
      for (const swaps of swapsOf(rest, standing - 1)) yield new Map([[first.chosen, other], ...swaps])
    yield* swapsOf(rest, standing)
  }
}
