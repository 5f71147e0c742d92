import type { Mm } from '../measure/units'

/**
 * The gap between one pass and the next, by stitch, as a share of the beads' width `d` (the mean of the two beads it joins).
 * Used until the computed shape gives the true gaps.
 */
export const gapShare = {
  ring: 0.1,
  peyote: 0.5,
  'right angle': 0.4,
  brick: 1,
  netting: 0.2,
  'fringe turn': 1,
  travel: 0.2,
} as const

export type StitchGap = keyof typeof gapShare

/** Index by number, so that a pass can keep its gap in a byte. */
export const stitchGaps: readonly StitchGap[] = Object.keys(gapShare) as StitchGap[]
export const stitchGapNumber: Readonly<Record<StitchGap, number>> = Object.fromEntries(
  stitchGaps.map((stitchGap, i) => [stitchGap, i]),
) as Record<StitchGap, number>

/** The shares, by number. */
export const gapShares: readonly number[] = stitchGaps.map((stitchGap) => gapShare[stitchGap])

/** @param share of the beads' width */
export const gapLength = (share: number, acrossBefore: Mm, acrossAfter: Mm): Mm =>
  (share * (acrossBefore + acrossAfter)) / 2

export const stitchGapLength = (stitchGap: StitchGap, acrossBefore: Mm, acrossAfter: Mm): Mm =>
  gapLength(gapShare[stitchGap], acrossBefore, acrossAfter)
