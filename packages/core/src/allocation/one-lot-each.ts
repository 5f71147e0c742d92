/**
 * Fills each line from one lot, the lots that are to be used up first as full as they go: exactly, and without a solver, where it comes to a bound
 * that no filling can better.
 */
import type { AllocationLot, Demand } from './allocation'

/** Steps of the largest lot, times lines: beyond this the solver is asked. */
const maxWork = 20_000_000

/** @returns kits by demand and lot; undefined where it cannot be shown to be the best */
export function fillOneLotEach(demands: readonly Demand[], lots: readonly AllocationLot[]): number[][] | undefined {
  // What weighs otherwise from another lot has no one size.
  if (demands.some(({ byLot }) => byLot && lots.some(({ lotId }) => byLot[lotId] !== undefined))) return undefined
  const sizes = demands.map(({ quantity, kits }) => quantity * kits)
  const step = sizes.reduce(greatestDivisor, 0)
  if (step === 0) return demands.map(() => lots.map(() => 0))
  const room = lots.map(({ free }) => Math.floor(free / step))
  if (Math.max(0, ...room) * demands.length * lots.length > maxWork) return undefined
  const steps = sizes.map((size) => size / step)
  const order = lots.map((_, i) => i).sort((a, b) => (lots[a]?.rank ?? 0) - (lots[b]?.rank ?? 0))
  const filled = demands.map(() => lots.map(() => 0))
  let left = steps.map((_, d) => d)
  /** What is in the lots so far, and the most that could be in them in any filling of this kind. */
  let [laid, most] = [0, 0]
  const all = steps.reduce((sum, each) => sum + each, 0)
  for (const i of order) {
    if (left.length === 0) break
    const chosen = fullest(
      left.map((d) => steps[d] as number),
      room[i] as number,
    )
    const best = fullest(steps, room[i] as number)
    most = Math.min(all, most + sum(best.map((d) => steps[d] as number)))
    for (const n of chosen) {
      const d = left[n] as number
      ;(filled[d] as number[])[i] = demands[d]?.kits ?? 0
      laid += steps[d] as number
    }
    const taken = new Set(chosen)
    left = left.filter((_, n) => !taken.has(n))
    // The lots so far could perhaps hold more, which a solver may find.
    if (laid < most) return undefined
  }
  return left.length === 0 ? filled : undefined
}

const sum = (numbers: readonly number[]) => numbers.reduce((total, each) => total + each, 0)

const greatestDivisor = (a: number, b: number): number => (b === 0 ? a : greatestDivisor(b, a % b))

/** Which of the sizes fill so much room the fullest: every sum that can be reached, and what was added to reach it. */
function fullest(sizes: readonly number[], room: number): number[] {
  if (sum(sizes) <= room) return sizes.map((_, n) => n)
  /** By sum: the last size added, from 1; 0 where it cannot be reached. */
  const added = new Int32Array(room + 1)
  added[0] = -1
  for (const [n, size] of sizes.entries())
    for (let at = room; at >= size; at--) if (added[at] === 0 && added[at - size] !== 0 && size > 0) added[at] = n + 1
  let at = room
  while (added[at] === 0) at--
  const chosen: number[] = []
  while (at > 0) {
    const n = (added[at] as number) - 1
    chosen.push(n)
    at -= sizes[n] as number
  }
  return chosen
}
