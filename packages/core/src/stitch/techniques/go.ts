import { type Expression, readExpression, reckonCount } from '../../notation/expression'
import { LineFault } from '../../notation/fault'
import type { Technique } from '../technique'

/** `go 2`: steps on along the loop, ring or run just made. */
export const goTechnique: Technique<{ beads: Expression }> = {
  word: 'go',
  read: (cursor) => ({ beads: readExpression(cursor) }),
  work({ beads }, bench, span) {
    const { work, trail } = bench
    bench.needle('go', span)
    const count = reckonCount(beads, bench, 'The number of beads', 1)
    if (!trail)
      throw new LineFault(span, 'There is nothing yet to go along.', 'Put it after a loop, a ring or a round.')
    bench.makeRoom(0, count, span)
    const length = trail.to - trail.from
    for (let i = 0; i < count; i++)
      work.pass(work.holeAt(trail.from + ((bench.along + i) % length)), 'travel', bench.statement)
    bench.along = (bench.along + count) % length
    return { type: 'go', beads: count }
  },
}
