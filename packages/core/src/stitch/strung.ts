import { counted } from '../measure/counted'
import { asRun, type BeadList, rolesIn } from '../notation/bead-list'
import { LineFault } from '../notation/fault'
import type { Hole } from './hole'
import { plainGroup, type Rail } from './rail'
import type { StitchMachine } from './stitch-machine'

interface Strung {
  readonly course: number
  /** The letters, in order. */
  readonly run: readonly string[]
  readonly holes: readonly Hole[]
}

/**
 * Strings a list of beads on the thread, as the first row of something.
 *
 * @param least fewer beads than this do not make it
 */
export function string(list: BeadList, machine: StitchMachine, kind: 'ring' | 'row', least = 1): Strung {
  for (const { role, span } of rolesIn(list)) machine.roles.numberOf(role, span)
  const run = machine.roles.asWritten(() => asRun(list, machine))
  if (run.length < least) {
    throw new LineFault(
      list.span,
      `A ring of ${counted(run.length, 'bead')} does not close.`,
      `A ring has ${least} beads or more.`,
    )
  }
  machine.makeRoom(run.length, 0, list.span)
  machine.threadUp(list.span)
  const course = machine.work.begin({ kind })
  const lengths = run.map((letter) => machine.roles.lengthOf(machine.roles.numberOf(letter, list.span)))
  const total = lengths.reduce((sum, each) => sum + each, 0)
  let before = 0
  const holes = run.map((letter, i) => {
    const length = lengths[i] as number
    const turn = (before + length / 2) / total
    before += length
    return machine.work.pick(machine.roles.numberOf(letter, list.span), 'ring', machine.statement, {
      course,
      turn,
      lift: 0,
    })
  })
  return { course, run, holes }
}

/** The rail of what has just been strung: its front edge, on which nothing has been stitched. */
export const freshRail = ({ course, holes }: Strung, closed: boolean): Rail => ({
  closed,
  course,
  groups: holes.map((h) => plainGroup([h])),
  fresh: true,
  ringCount: holes.length,
  perRingBead: 1,
  side: 1,
})
