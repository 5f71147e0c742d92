import type { Bead } from '../catalogue/bead'
import type { Mm } from '../measure/units'

export interface Cover {
  readonly runMm: Mm
  /** The counts either side of the exact one, with how much longer (or, below 0, shorter) they are than the run. */
  readonly candidates: readonly { readonly count: number; readonly misfitMm: Mm }[]
  readonly best: number
}

/** How many of one bead are as long as a run of another: `k L = k' L'`, to whole beads. @throws RangeError without a run */
export function coverRun(under: Pick<Bead, 'lengthMm'>, count: number, over: Pick<Bead, 'lengthMm'>): Cover {
  if (!(count >= 1) || !(under.lengthMm > 0) || !(over.lengthMm > 0))
    throw new RangeError('A run has a bead at least, and beads have a length.')
  const runMm = count * under.lengthMm
  const below = Math.floor(runMm / over.lengthMm + 1e-9)
  const counts = [...new Set([below, below + 1])].filter((each) => each > 0)
  const candidates = counts.map((each) => ({ count: each, misfitMm: each * over.lengthMm - runMm }))
  const best = candidates.reduce((a, b) => (Math.abs(b.misfitMm) < Math.abs(a.misfitMm) ? b : a))
  return { runMm, candidates, best: best.count }
}
