/** Strands or petals whose lengths follow an outline: a fringe that comes to a point, petals that swell to one side. */
import type { Bead } from '../catalogue/bead'
import type { Mm } from '../measure/units'

/** How long each is, between the shortest (0) and the longest (1), at a place along the edge from 0 to 1. */
export const outlines = {
  even: () => 1,
  point: (t: number) => 1 - Math.abs(2 * t - 1),
  curve: (t: number) => Math.sqrt(Math.max(0, 1 - (2 * t - 1) ** 2)),
  slope: (t: number) => t,
} as const
export type Outline = keyof typeof outlines

export interface StrandProfile {
  /** Beads of each, along the edge. */
  readonly counts: readonly number[]
  readonly lengthsMm: readonly Mm[]
  /** Of the whole beads from the outline, at worst. */
  readonly misfitMm: Mm
  /** How much wider a strand is than the edge bead it hangs from; above 0 the strands push each other aside. */
  readonly crowdedMm: Mm
  /** Every so manieth edge bead carries one without their pushing. */
  readonly every: number
}

export interface ProfileQuestion {
  readonly outline: Outline
  readonly strands: number
  readonly shortestMm: Mm
  readonly longestMm: Mm
  readonly bead: Bead
  readonly edge: Bead
  /** A strand ends in this bead, which the thread turns round. */
  readonly end?: Bead
  /** A strand hangs; a petal goes out and comes back, so that twice its length is picked up. */
  readonly hang: 'strand' | 'petal'
}

/** The beads of each strand or petal, to whole beads. @throws RangeError for measures that cannot be, in words */
export function strandProfile(asked: ProfileQuestion): StrandProfile {
  const { outline, strands, shortestMm, longestMm, bead, edge, end, hang } = asked
  if (!Number.isInteger(strands) || strands < 2 || strands > 200)
    throw new RangeError('Between 2 and 200 strands make a profile.')
  if (!(shortestMm > 0) || !(longestMm >= shortestMm && longestMm <= 500))
    throw new RangeError('The shortest must be above 0, and the longest no shorter than it and no longer than 50 cm.')
  const each = bead.lengthMm / (hang === 'petal' ? 2 : 1)
  const fixed = hang === 'strand' ? (end?.lengthMm ?? 0) : 0
  // A loop of fewer than three beads is no petal.
  const least = hang === 'petal' ? 3 : 1
  if (least * each + fixed > longestMm)
    throw new RangeError(
      `Not even ${least} of these beads fit into ${longestMm} mm. Take a smaller bead, or a longer strand.`,
    )
  const wanted = Array.from(
    { length: strands },
    (_, i) => shortestMm + (longestMm - shortestMm) * outlines[outline](i / (strands - 1)),
  )
  const counts = wanted.map((mm) => Math.max(least, Math.round((mm - fixed) / each)))
  const lengthsMm = counts.map((count) => count * each + fixed)
  const width = bead.acrossMm * (hang === 'petal' ? 2 : 1)
  return {
    counts,
    lengthsMm,
    misfitMm: Math.max(...lengthsMm.map((mm, i) => Math.abs(mm - (wanted[i] ?? mm)))),
    crowdedMm: width - edge.lengthMm,
    every: Math.max(1, Math.ceil(width / edge.lengthMm - 1e-9)),
  }
}
