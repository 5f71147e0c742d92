import { LineFault } from '../../notation/fault'
import { readTarget, type TargetWords } from '../../notation/parse-target'
import { beadOf } from '../hole'
import { findTold } from '../target'
import type { Technique } from '../technique'
import { wayTo } from '../travel'

/** `to any B`, `to bail.middle`, `to front`: travels to the nearest such bead. */
export const toTechnique: Technique<TargetWords> = {
  word: 'to',
  read: (cursor) => readTarget(cursor),
  work(target, machine, span) {
    const { work } = machine
    const needle = machine.needle('to', span)
    const { holes, told } = findTold(target, machine)
    const wanted = new Set(holes.map(beadOf))
    const way = wanted.has(beadOf(needle)) ? [] : wayTo(machine, needle, target.span, (h) => wanted.has(beadOf(h)))
    if (!way)
      throw new LineFault(target.span, 'No thread leads there from here.', 'Finish here and begin a new part there.')
    machine.makeRoom(0, way.length, span)
    for (const h of way) work.pass(h, 'travel', machine.statement)
    machine.standWhereNeedleIs()
    return { type: 'to', target: told, passed: way.length }
  },
}
