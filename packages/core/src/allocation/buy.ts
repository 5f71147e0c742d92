/** What to buy for a shortage: whole packs at least cost, and of what costs the same the least that is left over. */
import type { Pack } from '../kit/cost'

export interface Purchase {
  /** Of each pack, in the order given. */
  readonly counts: readonly number[]
  readonly amount: number
  readonly cost: number
}

/** Steps of a shortage that are tried one by one, each a common measure of all packs: a bound on what a slip in a number can cost. */
const maxSteps = 200_000

/**
 * Exact, by the best way to each smaller shortage (the unbounded covering knapsack). Of a shortage of very many steps the bulk is bought in the pack
 * that costs least for what it holds; this is exact too as long as the steps that are left are more than the largest pack times the number of steps
 * in that one, since others that add up to a multiple of it never cost less.
 *
 * @param short above 0, in the unit of the packs
 * @returns undefined where nothing is sold
 */
export function packsFor(short: number, packs: readonly Pack[]): Purchase | undefined {
  if (packs.length === 0) return undefined
  const step = packs.map(({ amount }) => amount).reduce(commonMeasure)
  const bulk = bulkOf(Math.ceil(short / step) - maxSteps, packs, step)
  const left = Math.max(0, Math.ceil((short - bulk.count * (packs[bulk.of]?.amount ?? 0)) / step))
  const cost = new Float64Array(left + 1)
  const amount = new Float64Array(left + 1)
  const last = new Uint8Array(left + 1)
  for (let s = 1; s <= left; s++) {
    cost[s] = Number.POSITIVE_INFINITY
    for (const [p, pack] of packs.entries()) {
      const before = Math.max(0, s - pack.amount / step)
      const [costs, holds] = [(cost[before] as number) + pack.price, (amount[before] as number) + pack.amount]
      if (costs > (cost[s] as number) || (costs === cost[s] && holds >= (amount[s] as number))) continue
      cost[s] = costs
      amount[s] = holds
      last[s] = p
    }
  }
  const counts = packs.map((_, p) => (p === bulk.of ? bulk.count : 0))
  for (let s = left; s > 0; s = Math.max(0, s - (packs[last[s] as number] as Pack).amount / step))
    counts[last[s] as number] = (counts[last[s] as number] as number) + 1
  const total = (of: (pack: Pack) => number) =>
    packs.reduce((all, pack, p) => all + of(pack) * (counts[p] as number), 0)
  return { counts, amount: total((pack) => pack.amount), cost: total((pack) => pack.price) }
}

/** How many of the pack that costs least for what it holds are bought without further thought. @param steps beyond those that are tried */
function bulkOf(steps: number, packs: readonly Pack[], step: number): { of: number; count: number } {
  const per = ({ price, amount }: Pack) => price / amount
  const of = packs.reduce((best, pack, p) => (per(pack) < per(packs[best] as Pack) ? p : best), 0)
  return { of, count: steps > 0 ? Math.ceil((steps * step) / (packs[of] as Pack).amount) : 0 }
}

const commonMeasure = (a: number, b: number): number => (b === 0 ? a : commonMeasure(b, a % b))
