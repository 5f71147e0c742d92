import { LineFault } from '../../notation/fault'
import { readTarget, type TargetWords } from '../../notation/parse-target'
import { beadOf } from '../hole'
import { findTold } from '../target'
import type { Technique } from '../technique'

/** `hangs from bail`: how the piece is worn; it is shown with that place at its top. */
export const hangsTechnique: Technique<TargetWords> = {
  word: 'hangs',
  read(cursor) {
    const example = 'For example: hangs from bail.'
    if (!cursor.take('Word', 'from'))
      throw new LineFault(cursor.peek() ?? cursor.end, 'What does the piece hang from?', example)
    return readTarget(cursor)
  },
  work(target, machine) {
    const { holes, told } = findTold(target, machine)
    machine.work.hangsFrom.push(...holes.map(beadOf))
    return { type: 'hangs', target: told }
  },
}
