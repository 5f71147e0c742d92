/** Runs: what is repeated along a piece, and how long one of it is. */

import type { Mm } from '../measure/units'
import type { EvaluatedPattern } from '../report/evaluated-pattern'
import type { Pitch } from '../report/measures'
import { beadsIn } from '../stitch/runs'
import type { Work } from '../stitch/work'
import { meanOf, type Piece } from './piece'
import { add, dot, minus, scaled, unit, type Vector } from './vector'

/** Repeats that add the same each time, or the units of a strip. */
export interface Run {
  readonly statement: number
  /** Of its first repeat, and of its last. */
  readonly ends: readonly [first: readonly number[], last: readonly number[]]
  /** The middle of each repeat, in order. */
  readonly places: readonly Vector[]
}

const fewest = 3

/** Of the mean step. */
const minStep = 0.3

/** @param whole where repeats have been left out of the piece, the work it is a part of */
export function runsOf({ report }: EvaluatedPattern, piece: Piece, whole: Work = piece.work): Run[] {
  const { work } = piece
  return report.statements.flatMap(({ action }, statement): Run[] => {
    if (action.type === 'weave') {
      const own = (of: number) => of === statement
      const each = beadsIn(action.beads)
      const before = addedBy(whole, own).length - action.units * each
      return runOf(piece, statement, addedBy(work, own).slice(before), each)
    }
    if (action.type !== 'repeat' || action.at) return []
    const inside = (of: number) => of > statement && of <= statement + action.held
    // A run that grows from turn to turn has no pitch.
    if (report.statements.some(({ turns }, of) => inside(of) && turns.length > 0)) return []
    return runOf(piece, statement, addedBy(work, inside), addedBy(whole, inside).length / action.times)
  })
}

const addedBy = (work: Work, wanted: (statement: number) => boolean): number[] => {
  const beads: number[] = []
  for (let bead = 0; bead < work.beads; bead++) if (wanted(work.statementOfBead(bead))) beads.push(bead)
  return beads
}

/** @param each beads of one repeat */
function runOf(piece: Piece, statement: number, beads: readonly number[], each: number): Run[] {
  const repeats = beads.length / each
  if (repeats < fewest || !Number.isInteger(each) || !Number.isInteger(repeats)) return []
  const beadsOf = (repeat: number) => beads.slice(repeat * each, (repeat + 1) * each)
  const places = Array.from({ length: repeats }, (_, i) => meanOf(piece, beadsOf(i)))
  const run: Run = { statement, ends: [beadsOf(0), beadsOf(repeats - 1)], places }
  // Where one does not go on from the one before, they are not repeated along the piece.
  const steps = stepsAlong(run)
  const mean = steps.reduce((sum, { mm }) => sum + mm, 0) / steps.length
  return steps.every(({ mm }) => mm > minStep * mean) ? [run] : []
}

/** So many repeats to either side say which way the piece goes at one: a spiral's own turn, or a net's to and fro, is no part of that. */
const reachOf = ({ places }: Run): number => Math.max(1, Math.min(6, Math.floor(places.length / 8)))

/** From each repeat to the next, along the piece; and which way that is. */
export function stepsAlong(run: Run): { readonly mm: Mm; readonly way: Vector }[] {
  const { places } = run
  const reach = reachOf(run)
  const steps = places.slice(1).map((place, i) => minus(place, places[i] as Vector))
  return steps.map((step, i) => {
    const near = steps.slice(Math.max(0, i - reach), i + reach + 1)
    // The outermost count half, so that what goes to and fro from step to step cancels.
    const outermost = [steps[i - reach], steps[i + reach]].map((one) => scaled(one ?? [0, 0, 0], -0.5))
    const way = unit(
      [...near, ...outermost].reduce((sum, one) => add(sum, one), [0, 0, 0] as Vector),
      step,
    )
    return { mm: dot(step, way), way }
  })
}

/** From one repeat to the next in the middle of a run; undefined for a run of few. */
export function pitchOf(run: Run): Pitch | undefined {
  const repeats = run.places.length
  const steps = stepsAlong(run)
  const ends = Math.max(1, Math.floor(steps.length / 4), reachOf(run))
  const middle = steps.slice(ends, steps.length - ends)
  if (repeats < 4 || middle.length === 0) return undefined
  return { statement: run.statement, repeats, pitchMm: middle.reduce((sum, { mm }) => sum + mm, 0) / middle.length }
}
