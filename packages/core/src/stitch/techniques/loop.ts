import { asRun, type BeadList, readBeadList, rolesIn } from '../../notation/bead-list'
import { type Expression, evaluateCount, readExpression } from '../../notation/expression'
import { LineFault } from '../../notation/fault'
import { strung } from '../course'
import { beadOf } from '../hole'
import { type Mark, readMark } from '../mark'
import { runsOf } from '../runs'
import type { Technique } from '../technique'

interface LoopWords {
  readonly list: BeadList
  readonly over: Expression | undefined
  readonly back: boolean
  readonly name: Mark | undefined
}

/**
 * `loop 9C as bail`, `loop 4A over 2`, `loop 12C back`: picks up beads and passes again, the same way, through the bead just left, or
 * through the last few; `back` goes down again the bead it left.
 */
export const loopTechnique: Technique<LoopWords> = {
  word: 'loop',
  read(cursor) {
    const list = readBeadList(cursor, 'loop')
    let over: Expression | undefined
    let back = false
    let name: Mark | undefined
    for (let word = cursor.peek(); word?.kind === 'Word'; word = cursor.peek()) {
      if (cursor.take('Word', 'over')) over = readExpression(cursor)
      else if (cursor.take('Word', 'back')) back = true
      else {
        const mark = readMark(cursor)
        if (mark === undefined) break
        name = mark
      }
    }
    return { list, over, back, name }
  },
  work({ list, over, back, name }, machine, span) {
    const { work } = machine
    const from = machine.needle('loop', span)
    for (const { role, span: at } of rolesIn(list)) machine.roles.numberOf(role, at)
    const run = asRun(list, machine)
    const beads = over ? evaluateCount(over, machine, 'The number of beads', 1) : 1
    const begins = work.passes - (work.threads[work.threads.length - 1] ?? 0)
    // A tail hangs out of a bead that it has passed.
    const laid = Math.max(1, begins)
    if (beads > laid)
      throw new LineFault(over?.span ?? span, `The thread has passed only ${laid} beads so far.`, `At most ${laid}.`)
    machine.makeRoom(run.length, beads, span)
    const begun = work.passes
    const left = begins === 0 ? [from] : Array.from({ length: beads }, (_, i) => work.holeAt(begun - beads + i))
    const holes = run.map((letter, i) =>
      work.pick(machine.roles.numberOf(letter, list.span), i === 0 ? 'right angle' : 'ring', machine.statement, strung),
    )
    if (back) for (const h of left.reverse()) work.pass(h ^ 1, 'right angle', machine.statement)
    else for (const [i, h] of left.entries()) work.pass(h, i === 0 ? 'right angle' : 'ring', machine.statement)
    machine.marks.add(name, holes)
    machine.trail = { what: 'loop', from: begun, to: work.passes }
    machine.along = 0
    machine.standWhereNeedleIs()
    return {
      type: 'loop',
      beads: runsOf(run),
      over: beads,
      back,
      name,
      through: machine.letterOfBead(beadOf(from)),
    }
  },
}
