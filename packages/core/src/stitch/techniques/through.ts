import { LineFault } from '../../notation/fault'
import { readTarget, type TargetWords } from '../../notation/parse-target'
import type { PassedPlace } from '../action'
import { findTold } from '../target'
import type { Technique } from '../technique'

const ways: Readonly<Record<string, PassedPlace['way']>> = { '<': 'back', '>': 'straight' }

/**
 * `through bail`, `through new[2]`, `through arm.middle, <B`, `through >A[3]`: passes beads that are there, from the end that the thread leads to;
 * `<` against the way they were first passed, `>` that way, whatever end is nearer.
 */
export const throughTechnique: Technique<readonly { target: TargetWords; way: PassedPlace['way'] }[]> = {
  word: 'through',
  read(cursor) {
    const list = []
    do {
      const mark = cursor.take('Mark', '<') ?? cursor.take('Mark', '>')
      list.push({ target: readTarget(cursor), way: ways[mark?.text ?? ''] ?? 'near' })
    } while (cursor.take('Comma') ?? !cursor.done)
    return list
  },
  work(list, machine, span) {
    const { work } = machine
    machine.needle('through', span)
    const from = work.passes
    const targets: PassedPlace[] = []
    for (const { target, way } of list) {
      const { holes, told } = findTold(target, machine)
      targets.push({ ...told, way })
      if (holes.length > 1 && 'role' in target.base && target.steps.length === 0) {
        throw new LineFault(
          target.span,
          `There are ${holes.length} of ${target.base.role}; which is meant?`,
          `Mark one, or say ${target.base.role} in NAME, or a number: NAME[2].`,
        )
      }
      machine.makeRoom(0, holes.length, span)
      for (const h of way === 'back' ? [...holes].reverse() : holes) {
        const faced = way === 'back' ? h ^ 1 : way === 'straight' ? h : machine.facing(h)
        work.pass(faced, 'travel', machine.statement)
      }
    }
    machine.trail = { what: 'run', from, to: work.passes }
    machine.standWhereNeedleIs()
    return {
      type: 'through',
      passed: work.passes - from,
      targets,
    }
  },
}
