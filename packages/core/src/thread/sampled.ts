/** What stitched samples show of a plan: the median of what they took against what was computed, once there are enough. */

/** So many samples at least correct a plan. */
export const minSamples = 3
/** A ratio beyond these is a slip in the log rather than a way of stitching. */
const [least, most] = [0.6, 1.8]

export interface Spread {
  readonly count: number
  readonly median: number
  readonly least: number
  readonly most: number
}

/** @returns undefined where there is nothing to speak of */
export function spreadOf(ratios: readonly number[]): Spread | undefined {
  const sorted = ratios.filter((ratio) => Number.isFinite(ratio) && ratio > 0).sort((a, b) => a - b)
  const [first] = sorted
  const last = sorted[sorted.length - 1]
  if (first === undefined || last === undefined) return undefined
  const middle = sorted.length / 2
  const low = sorted[Math.ceil(middle) - 1] as number
  const high = sorted[Math.floor(middle)] as number
  return { count: sorted.length, median: (low + high) / 2, least: first, most: last }
}

/**
 * What corrects a plan: the piece's own samples where there are enough of them, or those of its technique; nothing otherwise.
 *
 * @param own,technique actual / computed thread of each sample
 */
export function correctionFrom(own: readonly number[], technique: readonly number[]): { ratio: number; count: number } {
  for (const ratios of [own, technique]) {
    const spread = spreadOf(ratios.filter((ratio) => ratio >= least && ratio <= most))
    if (spread && spread.count >= minSamples) return { ratio: spread.median, count: spread.count }
  }
  return { ratio: 1, count: 0 }
}
