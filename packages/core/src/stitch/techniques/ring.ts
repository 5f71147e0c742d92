import { type BeadList, readBeadList } from '../../notation/bead-list'
import { shortestCycle } from '../action'
import { beadOf, type Hole } from '../hole'
import { type Mark, readMark } from '../mark'
import { runsOf } from '../runs'
import { freshRail, string } from '../strung'
import type { Technique } from '../technique'

interface RingWords {
  readonly list: BeadList
  /** Knotted, whatever the shop's way is. */
  readonly knot: boolean
  readonly name: Mark | undefined
}

/** `ring (3A B) x n/4`, `ring A x n as wall`, `ring 36A knot`: strings beads and closes them, by passing through them again where that is the shop's way. */
export const ringTechnique: Technique<RingWords> = {
  word: 'ring',
  read(cursor) {
    const list = readBeadList(cursor, 'ring')
    const name = readMark(cursor)
    const knot = cursor.take('Word', 'knot') !== undefined
    return { list, knot, name: name ?? readMark(cursor) }
  },
  work({ list, knot, name }, machine, span) {
    const { work } = machine
    const from = work.passes
    const strung = string(list, machine, 'ring', 3)
    const { run, holes } = strung
    const closed = work.passes
    const usual = machine.settings.closing
    const closing = knot && usual !== 'knot' ? 'knot and pass again' : usual
    const again = closing === 'pass again' || closing === 'knot and pass again'
    if (again) {
      machine.makeRoom(0, holes.length, span)
      for (const h of holes) work.pass(h, 'ring', machine.statement)
    } else if (closing === 'knot') work.knot(holes[holes.length - 1] as Hole, holes[0] as Hole)
    machine.standOn(freshRail(strung, true))
    const mean = (of: (role: number) => number) =>
      holes.reduce((sum, h) => sum + of(work.role(beadOf(h))), 0) / holes.length
    machine.edges.ring = {
      beads: run.length,
      lengthMm: mean(machine.roles.lengthOf) * run.length,
      acrossMm: mean(machine.roles.acrossOf),
    }
    machine.marks.add(name, holes, true)
    machine.trail = again ? { what: 'ring', from: closed, to: work.passes } : { what: 'ring', from, to: closed }
    const { cycle, repeats } = shortestCycle(run, (a, b) => a === b)
    return { type: 'ring', pattern: runsOf(cycle), repeats, beads: run.length, closing, name }
  },
}
