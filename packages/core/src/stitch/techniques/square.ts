import { asStitches, type BeadList, pickedRoles, readBeadList, rolesIn } from '../../notation/bead-list'
import { DoesNotDivide, LineFault, whatIsOver } from '../../notation/fault'
import { strung } from '../course'
import type { Hole } from '../hole'
import { type Mark, readMark } from '../mark'
import { gathered, holesOf, plainGroup } from '../rail'
import { runsOf } from '../runs'
import type { Technique } from '../technique'

/**
 * `square A`, `square 2A`, `square A x 3, B`: back along an open row, each stitch on as many beads of it as it picks up: through those the way
 * they lie, and through the new ones again.
 */
export const squareTechnique: Technique<{ list: BeadList; name: Mark | undefined }> = {
  word: 'square',
  read: (cursor) => ({ list: readBeadList(cursor, 'square'), name: readMark(cursor) }),
  work({ list, name }, machine, span) {
    const { work } = machine
    machine.needle('square', span)
    for (const { role, span: at } of rolesIn(list)) machine.roles.numberOf(role, at)
    const rail = machine.rail('square', span)
    if (rail.closed)
      throw new LineFault(
        span,
        'Square stitch goes to and fro along an open row, and this is a ring.',
        'String the first row open, for example: string 12A, then square A.',
      )
    const cycle = asStitches(list, machine).map(({ moves }) => {
      const roles = pickedRoles(moves)
      if (roles.length === 0 || roles.length !== moves.length)
        throw new LineFault(
          list.span,
          'In square stitch every stitch picks up beads, and nothing else.',
          'For example: square 2A.',
        )
      return roles
    })
    const below = [...holesOf(rail)].reverse()
    const each = cycle.reduce((sum, roles) => sum + roles.length, 0)
    if (below.length % each !== 0)
      throw new DoesNotDivide(
        list.span,
        `The row below has ${below.length} beads and the list ${each}${whatIsOver(below.length, each)}.`,
        'A row of square stitch has as many beads as the one below.',
      )
    const turns = below.length / each
    machine.makeRoom(below.length, 3 * below.length, span)
    const begun = work.passes
    const made: Hole[] = []
    const stitches = Array.from({ length: turns }, () => cycle).flat()
    for (const roles of stitches) {
      const under = below.slice(made.length, made.length + roles.length).reverse()
      const picked = roles.map((letter, i) =>
        work.pick(machine.roles.numberOf(letter, list.span), i === 0 ? 'brick' : 'ring', machine.statement, strung),
      )
      for (const [i, h] of under.entries()) work.pass(h, i === 0 ? 'brick' : 'ring', machine.statement)
      for (const [i, h] of picked.entries()) work.pass(h, i === 0 ? 'brick' : 'ring', machine.statement)
      made.push(...picked)
    }
    machine.marks.add(name, made)
    machine.trail = { what: 'run', from: begun, to: work.passes }
    machine.edges.rails[machine.edges.inHand] = {
      ...rail,
      fresh: false,
      course: -1,
      odd: undefined,
      perRingBead: 1,
      groups: gathered(made, 1).map(plainGroup),
    }
    machine.edges.roundsOn[machine.edges.inHand]++
    return {
      type: 'square',
      stitches: stitches.length,
      cycle: cycle.map(runsOf),
      turns,
      round: machine.edges.roundsOn[machine.edges.inHand],
      name,
    }
  },
}
