/** Each time that a line was worked, and the beads that it picked up then. */
import { beadOf } from '../stitch/hole'
import type { Work } from '../stitch/work'

export interface Doing {
  readonly statement: number
  /** Passes from..to. */
  readonly from: number
  readonly to: number
  /** In the order in which they were picked up. */
  readonly beads: readonly number[]
}

export function doingsOf(work: Work): Doing[] {
  return work.doings.map((from, i) => {
    const to = work.doings[i + 1] ?? work.passes
    const beads: number[] = []
    for (let pass = from; pass < to; pass++) if (work.isNew(pass)) beads.push(beadOf(work.holeAt(pass)))
    return { statement: work.statementAt(from), from, to, beads }
  })
}
