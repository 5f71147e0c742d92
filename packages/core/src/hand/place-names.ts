/** How a bead that is there can be named, so that a line goes into that bead and no other. */
import { beadOf, boreOf, type Hole, hole } from '../stitch/hole'
import type { StitchMachine } from '../stitch/stitch-machine'

export interface PlaceName {
  readonly text: string
  /** The hole that the name stands for. */
  readonly hole: Hole
}

/**
 * Names of a bead, the plainest first: a mark of its own, its place in a mark or an edge, its number among the beads of its letter. Of a two-hole bead
 * by the bore that is meant.
 */
export function namesOf(h: Hole, machine: StitchMachine): PlaceName[] {
  const bead = beadOf(h)
  const bore = boreOf(h)
  const found: PlaceName[] = []
  for (const name of [...machine.marks.names().reverse(), 'new']) {
    const holes = machine.marks.get(name) ?? []
    const at = holes.findIndex((each) => beadOf(each) === bead)
    if (at < 0) continue
    const own = holes[at] as Hole
    const text = holes.length === 1 ? name : `${name}${placeIn(at, holes.length)}`
    const other = boreOf(own) === bore ? own : hole(bead, bore, (own & 1) === 0 ? 1 : -1)
    if (boreOf(own) === bore || bore === 1)
      found.push({ text: boreOf(own) === bore ? text : `${text}:${bore + 1}`, hole: other })
  }
  const role = machine.work.role(bead)
  const letter = machine.roles.letterOf(role)
  const all = machine.beadsOf(role)
  found.push({
    text: `${letter}[${counted(all.indexOf(bead), all.length)}]${bore === 1 ? ':2' : ''}`,
    hole: hole(bead, bore),
  })
  return found
}

const placeIn = (at: number, of: number): string =>
  at === 0 ? '.first' : at === of - 1 ? '.last' : `[${counted(at, of)}]`

/** Counted from the end where that is near: `A[-1]` for the last. */
const counted = (at: number, of: number): number => (of - at < at && of - at <= nearEnd ? at - of : at + 1)

const nearEnd = 4
