import { LineFault } from '../../notation/fault'
import { beadOf, boreOf, hole, wayOf } from '../hole'
import type { Technique } from '../technique'

/**
 * `turn`: goes over into the other bore of the bead the needle is in, back the other way. `turn over`: the work is turned over, and goes on
 * on its other face.
 */
export const turnTechnique: Technique<{ over: boolean }> = {
  word: 'turn',
  read: (cursor) => ({ over: cursor.take('Word', 'over') !== undefined }),
  work({ over }, machine, span) {
    if (over) {
      machine.work.turnOver()
      return { type: 'turn over', face: machine.work.faceInHand }
    }
    const needle = machine.needle('turn', span)
    const bead = beadOf(needle)
    if (machine.boresOf(bead) === 1) {
      const letter = machine.roles.letterOf(machine.work.role(bead))
      throw new LineFault(
        span,
        `The needle is in ${letter}, which has one bore only.`,
        'Only two-hole beads can be turned in.',
      )
    }
    machine.makeRoom(0, 1, span)
    machine.work.pass(
      hole(bead, boreOf(needle) === 0 ? 1 : 0, wayOf(needle) === 1 ? -1 : 1),
      'fringe turn',
      machine.statement,
    )
    return { type: 'turn' }
  },
}

/** `under thread`: catches the bridge of thread between beads before going on. */
export const underTechnique: Technique<null> = {
  word: 'under',
  read(cursor) {
    cursor.expect('Word', '"thread"', 'Write: under thread.')
    return null
  },
  work(_, machine, span) {
    machine.needle('under', span)
    machine.work.nextGap = 'brick'
    return { type: 'under' }
  },
}
