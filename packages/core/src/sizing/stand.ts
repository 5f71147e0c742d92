import type { Bead } from '../catalogue/bead'
import type { Mm } from '../measure/units'

export interface StandFit {
  readonly count: number
  /** What is left over when the beads touch. */
  readonly gapMm: Mm
  /** The gap would nearly take another: offer one more, else spread them. */
  readonly oneMore: boolean
  /** Of the row when it stands. */
  readonly outerRadiusMm: Mm
}

/**
 * How many beads stand side by side round a core, their holes pointing outward: `n = 2 pi (r + thread + s) / d`, with s = L/2 for
 * round beads, which touch half-way up, and 0 for cylinders, which touch at the foot.
 *
 * @throws RangeError when the core or the bead is not above 0
 */
export function fitStand(
  coreRadiusMm: Mm,
  bead: Pick<Bead, 'lengthMm' | 'acrossMm' | 'contact'>,
  threadMm: Mm,
): StandFit {
  if (!(coreRadiusMm > 0) || !(bead.acrossMm > 0) || !(bead.lengthMm > 0))
    throw new RangeError('Give a core and a bead larger than 0.')
  const touch = bead.contact <= 2.5 ? bead.lengthMm / 2 : 0
  const around = 2 * Math.PI * (coreRadiusMm + threadMm + touch)
  const count = Math.floor(around / bead.acrossMm + 1e-9)
  const gapMm = around - count * bead.acrossMm
  return { count, gapMm, oneMore: gapMm >= 0.6 * bead.acrossMm, outerRadiusMm: coreRadiusMm + threadMm + bead.lengthMm }
}

/** A metal ring lies round a row when its inner radius is within these of the row's outer radius. */
export const ringFits = (innerRadiusMm: Mm, outerRadiusMm: Mm): boolean =>
  innerRadiusMm >= outerRadiusMm - 0.4 && innerRadiusMm <= outerRadiusMm + 0.6

/** Where `more` increases go among `count` beads: as evenly as whole numbers allow, never at the first or the last. */
export function spreadIncreases(count: number, more: number): number[] {
  if (more <= 0 || count < 3) return []
  return Array.from(
    { length: Math.min(more, count - 2) },
    (_, i) => 1 + Math.floor(((i + 0.5) * (count - 2)) / Math.min(more, count - 2)),
  )
}
