import { type Expression, evaluateCount, readExpression } from '../../notation/expression'
import { LineFault } from '../../notation/fault'
import type { Technique } from '../technique'

/** `go 2`: steps on along the loop, ring or run just made. `go back 2`: retraces the way the thread came. */
export const goTechnique: Technique<{ beads: Expression; back: boolean }> = {
  word: 'go',
  read(cursor) {
    const back = cursor.take('Word', 'back') !== undefined
    return { beads: readExpression(cursor), back }
  },
  work({ beads, back }, machine, span) {
    const { work, trail } = machine
    machine.needle('go', span)
    const count = evaluateCount(beads, machine, 'The number of beads', 1)
    if (back) {
      const laid = work.passes - (work.threads[work.threads.length - 1] ?? 0)
      if (count >= laid)
        throw new LineFault(beads.span, `The thread has passed only ${laid} beads so far.`, `At most ${laid - 1}.`)
      machine.makeRoom(0, count, span)
      const end = work.passes - 1
      for (let i = 1; i <= count; i++) work.pass(work.holeAt(end - i) ^ 1, 'travel', machine.statement)
      machine.standWhereNeedleIs()
      return { type: 'go', beads: count, back }
    }
    if (!trail)
      throw machine.missing(span, 'There is nothing yet to go along.', 'Put it after a loop, a ring or a round.')
    machine.makeRoom(0, count, span)
    const length = trail.to - trail.from
    for (let i = 0; i < count; i++)
      work.pass(work.holeAt(trail.from + ((machine.along + i) % length)), 'travel', machine.statement)
    machine.along = (machine.along + count) % length
    machine.standWhereNeedleIs()
    return { type: 'go', beads: count, back }
  },
}
