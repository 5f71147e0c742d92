import type { Bead } from '../catalogue/bead'
import type { Mm } from '../measure/units'

/** How a ring of beads sits round a stone. */
export type FitVerdict = 'too tight' | 'snug' | 'loose' | 'too big'

export interface RingCandidate {
  readonly count: number
  /** `count * L / target - 1`: below 0 the ring is short of the stone. */
  readonly ease: number
  readonly verdict: FitVerdict
}

export interface RingFit {
  /** The length the ring's thread line should have. */
  readonly targetMm: Mm
  /** `targetMm / L`, not yet a whole number. */
  readonly ideal: number
  readonly multiple: number
  /** Small to large, round about the ideal. */
  readonly candidates: readonly RingCandidate[]
  /** The count of least |ease|; the tighter on a tie. */
  readonly best: number
}

export const verdictWords: Readonly<Record<FitVerdict, string>> = {
  'too tight': 'too tight: will not close over the edge, thread shows',
  snug: 'sits snug',
  loose: 'loose: plan one more row on the deeper face',
  'too big': 'too big: drops out',
}

const tightest = -0.04
const snuggest = 0.01
const loosest = 0.05

export const verdictOf = (ease: number): FitVerdict =>
  ease < tightest ? 'too tight' : ease <= snuggest ? 'snug' : ease <= loosest ? 'loose' : 'too big'

/**
 * Which counts of a bead go round a stone.
 *
 * The ring's thread line runs about a quarter of a bead's width outside the girth, because the edge sits between two rows;
 * offsetting a convex outline by x lengthens it by 2 pi x, so `target = girth + pi d / 2`.
 *
 * @param girthMm the stone's girth, above 0
 * @param multiple what the count must divide by, at least 1
 * @throws RangeError when girth, bead or multiple are not positive
 */
export function fitRing(girthMm: Mm, bead: Pick<Bead, 'lengthMm' | 'acrossMm'>, multiple = 2): RingFit {
  if (!(girthMm > 0) || !(bead.lengthMm > 0) || !(bead.acrossMm > 0) || !(multiple >= 1)) {
    throw new RangeError('A ring needs a girth, a bead and a multiple above 0.')
  }
  const targetMm = ringTarget(girthMm, bead.acrossMm)
  const ideal = targetMm / bead.lengthMm
  const below = Math.max(1, Math.floor(ideal / multiple)) * multiple
  const candidates = [below - multiple, below, below + multiple, below + 2 * multiple]
    .filter((count) => count > 0)
    .map((count) => candidate(count, bead.lengthMm, targetMm))
  const best = candidates.reduce((a, b) => (Math.abs(b.ease) < Math.abs(a.ease) - 1e-12 ? b : a))
  return { targetMm, ideal, multiple, candidates, best: best.count }
}

const ringTarget = (girthMm: Mm, acrossMm: Mm): Mm => girthMm + (Math.PI * acrossMm) / 2

function candidate(count: number, lengthMm: Mm, targetMm: Mm): RingCandidate {
  const ease = (count * lengthMm) / targetMm - 1
  return { count, ease, verdict: verdictOf(ease) }
}

/** How a ring of known length sits, whatever it was strung of. */
export function easeOf(ringMm: Mm, girthMm: Mm, acrossMm: Mm): { ease: number; verdict: FitVerdict } {
  const ease = ringMm / ringTarget(girthMm, acrossMm) - 1
  return { ease, verdict: verdictOf(ease) }
}
