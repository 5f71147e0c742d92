import type { Move } from '../notation/bead-list'
import { LineFault } from '../notation/fault'
import type { Jog } from '../thread/jog'
import type { Bench } from './bench'
import { type Seat, strung } from './course'
import { beadOf, type Hole } from './hole'
import type { Group } from './rail'
import { find } from './target'

/**
 * Does the moves of one group: picks up, passes on the way, goes back through its own beads.
 *
 * @param jog the gap before the group's first bead; within it beads follow each other as they are strung
 * @param seatOf where the k-th bead sits of so many that stand in the row; the others lie where the thread lays them, as do all beads
 *   of a group that passes others on the way or goes back
 */
export function doMoves(
  moves: readonly Move[],
  bench: Bench,
  jog: Jog,
  seatOf?: (k: number, of: number) => Seat,
): Group {
  const { work } = bench
  const holes: Hole[] = []
  const stands: Hole[] = []
  const inRow = seatOf && moves.every((move) => move.type === 'pick') ? seatOf : undefined
  const marked = moves.some((move) => move.type === 'pick' && move.stands)
  const seated = moves.filter((move) => move.type === 'pick' && (move.stands || !marked)).length
  let sat = 0
  let next: Jog = jog
  for (const move of moves) {
    switch (move.type) {
      case 'pick': {
        const role = bench.beadRole(move.role, move.span)
        if (move.bore === 1 && bench.boresOfRole(role) === 1) {
          throw new LineFault(move.span, `${move.role} has one bore only.`, 'Only two-hole beads have a second.')
        }
        const seat = inRow && (move.stands || !marked) ? inRow(sat++, seated) : strung
        const h = work.pick(role, next, bench.statement, seat, move.bore)
        holes.push(h)
        if (move.stands) stands.push(h)
        break
      }
      case 'pass':
        for (const h of find(move.target, bench)) {
          bench.makeRoom(0, 1, move.span)
          work.pass(bench.facing(h), next, bench.statement)
          next = 'ring'
        }
        break
      case 'back': {
        const own =
          move.role === undefined ? holes : holes.filter((h) => bench.letterOf(work.role(beadOf(h))) === move.role)
        if (own.length < move.count) {
          throw new LineFault(
            move.span,
            `There are only ${own.length} beads of this group to go back through.`,
            'Give a smaller number.',
          )
        }
        for (const h of own.slice(-move.count).reverse()) work.pass(h ^ 1, next, bench.statement)
        break
      }
    }
    next = 'ring'
  }
  return { holes, stands: stands.length > 0 ? stands : holes }
}
