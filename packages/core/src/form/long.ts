/**
 * Long pieces begin as a few of their repeats lie: what is worked again and again along a piece lies there as it does at its middle, each
 * repeat turned and moved on from the one before.
 */

import type { Mm } from '../measure/units'
import type { EvaluatedPattern } from '../report/evaluated-pattern'
import { type Regular, regularIn } from '../stitch/regular'
import { widestGap } from './gaping'
import { depthOf, type Piece } from './piece'
import { carried, fitOf } from './unfold'

export interface Shortened {
  /** The same with most of its repeats left out. */
  readonly few: EvaluatedPattern
  /** The bead at which they are left out, how many of them, and of how many beads each. */
  readonly at: number
  readonly left: number
  readonly each: number
}

/** Shorter pieces are soon at rest by themselves. */
const fewestBeads = 250
/** It is worth it where so much of the piece is left out. */
const minShare = 0.35
/** Repeats that stay: enough for the middle not to feel the ends. */
const stay = (beads: number) => Math.max(10, Math.ceil(160 / beads))
/** How one repeat lies to the next is told from so many beads to either side. */
const window = 40
/** A gap that closes by itself as the piece draws up; one across a ring is as wide as that. */
const widest: Mm = 5
/** In widths of its widest bead: work no deeper than this is flat. */
const flattest = 1.5
/** Below so many degrees a repeat is not turned against the one before. */
const minTurn = 2

/** @returns undefined where a piece has no long stretch that repeats itself, or lies on stones and rings */
export function shortened(evaluated: EvaluatedPattern): Shortened | undefined {
  if (evaluated.work.beads < fewestBeads) return undefined
  const short = withFewer(evaluated, stay, stay)
  return short && short.left * short.each >= minShare * evaluated.work.beads ? short : undefined
}

/** The same with half as many repeats, or nearly; undefined where it has few, or lies on stones and rings. */
export const halved = (evaluated: EvaluatedPattern): EvaluatedPattern | undefined =>
  withFewer(
    evaluated,
    () => 1,
    // What is written as one repeat may be two: an even number is left out.
    (_, turns) => turns - 2 * Math.floor(turns / 4),
  )?.few

/**
 * @param worth of so many beads, so many repeats are kept for a stretch to be worth it
 * @param staying repeats that stay, by the beads of one and how many there are
 */
function withFewer(
  evaluated: EvaluatedPattern,
  worth: (beads: number) => number,
  staying: (beads: number, turns: number) => number,
): Shortened | undefined {
  const { work } = evaluated
  if (work.cores.size > 0 || work.ties.length > 0) return undefined
  const found = regularIn(work, worth)
  if (!found) return undefined
  const { from, passes, beads } = found
  const stays = staying(beads, turnsOf(found))
  const left = turnsOf(found) - stays
  if (left < 1) return undefined
  const first = from + Math.floor(stays / 2) * passes
  let [low, at] = [0, 0]
  for (let pass = 0; pass < first; pass++) {
    if (!work.isNew(pass)) continue
    at++
    if (pass < from) low++
  }
  const few = work.without(first, first + left * passes, low)
  return few && { few: { ...evaluated, work: few }, at, left, each: beads }
}

const widestBead = ({ shapes }: Piece) => shapes.reduce((most, { bead }) => Math.max(most, bead.acrossMm), 0.1)

const turnsOf = ({ from, to, passes }: Regular) => (to - from) / passes

/**
 * Lays out a long piece by the few of it that have come to rest.
 *
 * @returns false where it does not come out so, as in a piece that is closed into a ring
 */
export function lengthen(piece: Piece, few: Piece, { at, left, each }: Shortened): boolean {
  const pointsOf = (bead: number) => 2 * (few.rodOf[bead] as number)
  const turns = Math.ceil(window / each)
  const [from, to] = [pointsOf(at - turns * each), pointsOf(at + (turns - 1) * each)]
  const [begin, end] = [pointsOf(at - each), pointsOf(at)]
  const next = end - begin
  // One repeat on: these points to those.
  const points = Int32Array.from({ length: to - from }, (_, k) => from + k + next)
  const places = few.at.slice(3 * from, 3 * to)
  const fit = fitOf(few.at, { points, places })
  const { turn } = fit
  const flat = depthOf(few) < flattest * widestBead(few)
  const angle = flat
    ? Math.abs(Math.atan2(turn.get(1, 0) - turn.get(0, 1), turn.get(0, 0) + turn.get(1, 1)))
    : Math.acos(Math.max(-1, Math.min(1, (turn.get(0, 0) + turn.get(1, 1) + turn.get(2, 2) - 1) / 2)))
  const turned = angle >= (minTurn * Math.PI) / 180
  const on = (v: readonly Mm[]): Mm[] => {
    const next = turned ? carried(fit, v) : v.map((each, c) => each + (fit.to[c] as number) - (fit.from[c] as number))
    // What lies flat goes on flat, however little it may bend.
    return flat ? [next[0] as Mm, next[1] as Mm, v[2] as Mm] : next
  }
  const place = (of: Float64Array, point: number) => [0, 1, 2].map((c) => of[3 * point + c] as number)
  piece.at.set(few.at.subarray(0, 3 * end))
  for (let repeat = 0; repeat < left; repeat++)
    for (let k = 0; k < next; k++) {
      const point = end + repeat * next + k
      piece.at.set(on(place(piece.at, point - next)), 3 * point)
    }
  // What comes after goes on as it lay after the last of the few.
  const frame = [
    [0, 0, 0],
    [1, 0, 0],
    [0, 1, 0],
    [0, 0, 1],
  ] as const
  let corners: Mm[][] = frame.map((corner) => [...corner])
  for (let repeat = 0; repeat < left; repeat++) corners = corners.map(on)
  const [origin, ...axes] = corners as [Mm[], Mm[], Mm[], Mm[]]
  for (let point = end; point < few.at.length / 3; point++) {
    const v = place(few.at, point)
    const far = [0, 1, 2].map((c) =>
      axes.reduce(
        (sum, axis, k) => sum + (v[k] as number) * ((axis[c] as number) - (origin[c] as number)),
        origin[c] as number,
      ),
    )
    piece.at.set(far, 3 * (point + left * next))
  }
  return widestGap(piece) < widest
}
