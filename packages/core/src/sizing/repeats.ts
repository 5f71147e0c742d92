import type { Mm } from '../measure/units'

export interface RepeatCandidate {
  readonly count: number
  /** The length the piece then has, ends included. */
  readonly lengthMm: Mm
}

export interface RepeatFit {
  readonly ideal: number
  readonly best: number
  /** The counts either side of the target; one where the target is met. */
  readonly candidates: readonly RepeatCandidate[]
}

/**
 * Repeats for a length: `n = (target - ends) / pitch`, then to the nearest that keeps the rule; the shorter on a tie.
 *
 * @throws RangeError when target or pitch are not above 0, or no repeat fits between the ends
 */
export function fitLength(targetMm: Mm, pitchMm: Mm, endsMm: Mm = 0, multiple = 1): RepeatFit {
  if (!(targetMm > 0) || !(pitchMm > 0) || !(endsMm >= 0) || !(multiple >= 1))
    throw new RangeError('Give a length and a pitch above 0.')
  const ideal = (targetMm - endsMm) / pitchMm
  if (ideal < 0) throw new RangeError('The ends alone are longer than the piece.')
  const below = Math.floor(ideal / multiple + 1e-9) * multiple
  const counts = Math.abs(below - ideal) < 1e-9 ? [below] : [below, below + multiple]
  const candidates = counts.filter((count) => count > 0).map((count) => ({ count, lengthMm: endsMm + count * pitchMm }))
  const off = (candidate: RepeatCandidate) => Math.abs(candidate.lengthMm - targetMm)
  const best = candidates.reduce(
    (a, b) => (off(b) < off(a) - 1e-9 ? b : a),
    candidates[0] ?? { count: multiple, lengthMm: endsMm + multiple * pitchMm },
  )
  return { ideal, best: best.count, candidates }
}
