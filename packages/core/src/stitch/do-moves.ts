import type { Move } from '../notation/bead-list'
import { LineFault } from '../notation/fault'
import type { StitchGap } from '../thread/stitch-gap'
import type { MoveTold } from './action'
import { type Seat, strung } from './course'
import { beadOf, type Hole } from './hole'
import type { Group } from './rail'
import type { Run } from './runs'
import type { StitchMachine } from './stitch-machine'
import { findTold } from './target'

/**
 * Does the moves of one group: picks up, passes on the way, goes back through its own beads.
 *
 * @param stitchGap the gap before the group's first bead; within it beads follow each other as they are strung
 * @param seatOf where the k-th bead sits of so many that stand in the row; the others lie where the thread lays them, as do all beads
 *   of a group that passes others on the way or goes back
 * @param told is added what was done, as it is told
 */
export function doMoves(
  moves: readonly Move[],
  machine: StitchMachine,
  stitchGap: StitchGap,
  seatOf?: (k: number, of: number) => Seat,
  told?: MoveTold[],
): Group {
  const { work } = machine
  const holes: Hole[] = []
  const stands: Hole[] = []
  const inRow = seatOf && moves.every((move) => move.type === 'pick') ? seatOf : undefined
  const marked = moves.some((move) => move.type === 'pick' && move.stands)
  const seated = moves.filter((move) => move.type === 'pick' && (move.stands || !marked)).length
  let sat = 0
  let next: StitchGap = stitchGap
  for (const move of moves) {
    switch (move.type) {
      case 'pick': {
        const role = machine.roles.numberOf(move.role, move.span)
        if (move.bore === 1 && machine.roles.boresOf(role) === 1) {
          throw new LineFault(move.span, `${move.role} has one bore only.`, 'Only two-hole beads have a second.')
        }
        const seat = inRow && (move.stands || !marked) ? inRow(sat++, seated) : strung
        const h = work.pick(role, next, machine.statement, seat, move.bore)
        holes.push(h)
        if (told) tellPick(told, move.role)
        if (move.stands) stands.push(h)
        break
      }
      case 'pass': {
        const { holes: passed, told: target } = findTold(move.target, machine)
        told?.push({ type: 'pass', target })
        for (const h of passed) {
          machine.makeRoom(0, 1, move.span)
          work.pass(machine.facing(h), next, machine.statement)
          next = 'ring'
        }
        break
      }
      case 'back': {
        const own = move.role === undefined ? holes : holes.filter((h) => machine.letterOfBead(beadOf(h)) === move.role)
        if (own.length < move.count) {
          throw new LineFault(
            move.span,
            `There are only ${own.length} beads of this group to go back through.`,
            'Give a smaller number.',
          )
        }
        told?.push({ type: 'back', count: move.count, role: move.role })
        for (const h of own.slice(-move.count).reverse()) work.pass(h ^ 1, next, machine.statement)
        break
      }
    }
    next = 'ring'
  }
  return { holes, stands: stands.length > 0 ? stands : holes }
}

function tellPick(told: MoveTold[], role: string): void {
  const last = told[told.length - 1]
  if (last?.type === 'pick') told[told.length - 1] = { type: 'pick', beads: withOneMore(last.beads, role) }
  else told.push({ type: 'pick', beads: [{ role, count: 1 }] })
}

const withOneMore = (beads: readonly Run[], role: string): Run[] => {
  const last = beads[beads.length - 1]
  return last?.role === role ? [...beads.slice(0, -1), { role, count: last.count + 1 }] : [...beads, { role, count: 1 }]
}
