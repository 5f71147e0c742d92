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
  work({ over }, bench, span) {
    if (over) {
      bench.work.turnOver()
      return { type: 'turn over', face: bench.work.faceInHand }
    }
    const needle = bench.needle('turn', span)
    const bead = beadOf(needle)
    if (bench.boresOf(bead) === 1) {
      const letter = bench.letterOf(bench.work.role(bead))
      throw new LineFault(
        span,
        `The needle is in ${letter}, which has one bore only.`,
        'Only two-hole beads can be turned in.',
      )
    }
    bench.makeRoom(0, 1, span)
    bench.work.pass(
      hole(bead, boreOf(needle) === 0 ? 1 : 0, wayOf(needle) === 1 ? -1 : 1),
      'fringe turn',
      bench.statement,
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
  work(_, bench, span) {
    bench.needle('under', span)
    bench.work.nextJog = 'brick'
    return { type: 'under' }
  },
}
