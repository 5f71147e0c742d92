import { type Expression, evaluateCount, readExpression } from '../../notation/expression'
import type { Technique } from '../technique'

/** `reinforce`, `reinforce 2`: goes once or more along what was last made, for strength. */
export const reinforceTechnique: Technique<{ times: Expression | undefined }> = {
  word: 'reinforce',
  read: (cursor) => ({ times: cursor.done ? undefined : readExpression(cursor) }),
  work({ times: written }, machine, span) {
    const { work } = machine
    machine.needle('reinforce', span)
    const times = written ? evaluateCount(written, machine, 'The number of times', 1) : 1
    const trail = machine.trail
    if (!trail)
      throw machine.missing(span, 'There is nothing yet to reinforce.', 'Put it after a ring, a round or a loop.')
    const length = trail.to - trail.from
    machine.makeRoom(0, length * times, span)
    for (let turn = 0; turn < times; turn++) {
      for (let pass = trail.from; pass < trail.to; pass++)
        work.pass(work.holeAt(pass), work.gapAt(pass), machine.statement)
    }
    return { type: 'reinforce', times, what: trail.what, passed: length * times }
  },
}

/** `again`: the same beads once more. */
export const againTechnique: Technique<{ times: Expression | undefined }> = {
  ...reinforceTechnique,
  word: 'again',
  read: () => ({ times: undefined }),
}
