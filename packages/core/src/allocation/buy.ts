/** What to buy for a shortage: whole packs at least cost, and of what costs the same the least that is left over. */
import type { Pack } from '../kit/cost'
import type { Solve } from './allocation'
import { type Programme, written } from './programme'

export interface Purchase {
  /** Of each pack, in the order given. */
  readonly counts: readonly number[]
  readonly amount: number
  readonly cost: number
}

/** @returns undefined where nothing is sold, or a limit was reached before anything was found */
export function packsFor(short: number, packs: readonly Pack[], solve: Solve): Purchase | undefined {
  if (packs.length === 0) return undefined
  const sum = (of: (pack: Pack) => number) => packs.map((pack, i) => ({ times: of(pack), name: `n${i}` }))
  const amounts = sum(({ amount }) => amount)
  const base: Omit<Programme, 'rows'> = {
    goal: 'min',
    objective: sum(({ price }) => price),
    whole: new Map(packs.map(({ amount }, i) => [`n${i}`, Math.ceil(short / amount)])),
    binary: new Set(),
  }
  const enough = { terms: amounts, sign: '>=' as const, of: short }
  const cheapest = solve(written({ ...base, rows: [enough] }))
  if (Object.keys(cheapest.values).length === 0) return undefined
  const atThatCost = { terms: base.objective, sign: '<=' as const, of: Math.round(cheapest.objective) }
  const least = solve(written({ ...base, objective: amounts, rows: [enough, atThatCost] }))
  const { values } = Object.keys(least.values).length > 0 ? least : cheapest
  const counts = packs.map((_, i) => Math.round(values[`n${i}`] ?? 0))
  const total = (of: (pack: Pack) => number) =>
    packs.reduce((all, pack, i) => all + of(pack) * (counts[i] as number), 0)
  return { counts, amount: total(({ amount }) => amount), cost: total(({ price }) => price) }
}
