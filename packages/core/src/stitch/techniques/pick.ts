import { asMoves, type BeadList, pickedRoles, readBeadList, rolesIn } from '../../notation/bead-list'
import type { MoveTold } from '../action'
import { doMoves } from '../do-moves'
import { type Mark, readMark } from '../mark'
import { runsOf } from '../runs'
import type { Technique } from '../technique'

/** `pick C G C as arm`: picks beads up onto the needle, passing others on the way where the list says so. */
export const pickTechnique: Technique<{ list: BeadList; name: Mark | undefined }> = {
  word: 'pick',
  read: (cursor) => ({ list: readBeadList(cursor, 'pick'), name: readMark(cursor) }),
  work({ list, name }, machine, span) {
    const { work } = machine
    machine.threadUp(span)
    for (const { role, span: at } of rolesIn(list)) machine.roles.numberOf(role, at)
    const moves = asMoves(list, machine)
    machine.makeRoom(moves.length, moves.length, span)
    const { needle } = work
    const from = work.passes
    const told: MoveTold[] = []
    const group = doMoves(moves, machine, needle === undefined ? 'ring' : 'netting', undefined, told)
    machine.marks.add(name, group.holes)
    machine.trail = { what: 'run', from, to: work.passes }
    machine.along = 0
    machine.standWhereNeedleIs()
    return { type: 'pick', beads: runsOf(pickedRoles(moves)), name, moves: told.length > 1 ? told : [] }
  },
}
