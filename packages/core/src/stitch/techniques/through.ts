import { LineFault } from '../../notation/fault'
import { readTarget, type TargetWords } from '../../notation/parse-target'
import { findTold } from '../target'
import type { Technique } from '../technique'

/** `through bail`, `through new[2]`, `through arm.middle, <B`: passes beads that are there, `<` the other way. */
export const throughTechnique: Technique<readonly { target: TargetWords; back: boolean }[]> = {
  word: 'through',
  read(cursor) {
    const list = []
    do {
      const back = cursor.take('Mark', '<') !== undefined
      list.push({ target: readTarget(cursor), back })
    } while (cursor.take('Comma') ?? !cursor.done)
    return list
  },
  work(list, machine, span) {
    const { work } = machine
    machine.needle('through', span)
    const from = work.passes
    const targets = []
    for (const { target, back } of list) {
      const { holes, told } = findTold(target, machine)
      targets.push({ ...told, back })
      if (holes.length > 1 && 'role' in target.base && target.steps.length === 0) {
        throw new LineFault(
          target.span,
          `There are ${holes.length} of ${target.base.role}; which is meant?`,
          `Mark one, or say ${target.base.role} in NAME, or a number: NAME[2].`,
        )
      }
      machine.makeRoom(0, holes.length, span)
      for (const h of back ? [...holes].reverse() : holes) {
        work.pass(back ? h ^ 1 : machine.facing(h), 'travel', machine.statement)
      }
    }
    machine.trail = { what: 'run', from, to: work.passes }
    return {
      type: 'through',
      passed: work.passes - from,
      targets,
    }
  },
}
