/**
 * Long pieces begin as a few of their repeats lie: what is worked again and again along a piece lies there as it does at its middle, each
 * repeat turned and moved on from the one before.
 */

import { Matrix } from 'ml-matrix'
import type { Mm } from '../measure/units'
import type { EvaluatedPattern } from '../report/evaluated-pattern'
import { regularIn } from '../stitch/regular'
import { laidThread, widestGap } from './gaping'
import { depthOf, type Piece } from './piece'
import { carried, type Fit, fitOf } from './unfold'

export interface Shortened {
  /** The same with most of its repeats left out. */
  readonly few: EvaluatedPattern
  /** How many of them are left out, and the beads of one. */
  readonly left: number
  readonly beads: number
  /** Where the repeats that stay begin, and where the last of them ends. */
  readonly stays: readonly { readonly bead: number; readonly pass: number }[]
  /** Of them, the one before which repeats are left out. */
  readonly at: number
}

/** Shorter pieces are soon at rest by themselves. */
const fewestBeads = 250
/** It is worth it where so much of the piece is left out. */
const minShare = 0.35
/** Repeats that stay at least: enough for the middle not to feel the ends. */
const stay = (beads: number) => Math.max(10, Math.ceil(160 / beads))
/** A unit of right-angle weave lies turned over to the one before: every second one lies alike. */
const alike = 2
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
  return short && short.left * short.beads >= minShare * evaluated.work.beads ? short : undefined
}

/** The same with half as many repeats, or nearly; undefined where it has few, or lies on stones and rings. */
export const halved = (evaluated: EvaluatedPattern): EvaluatedPattern | undefined =>
  withFewer(
    evaluated,
    () => 1,
    (_, turns) => Math.ceil(turns / 2),
  )?.few

/**
 * @param worth of so many beads, so many repeats are kept for a stretch to be worth it
 * @param staying repeats that stay at least, by the beads of one and how many there are
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
  const turns = (found.to - found.from) / found.passes
  const left = Math.floor((turns - staying(found.beads, turns)) / alike)
  if (left < 1) return undefined
  const passes = alike * found.passes
  const beads = alike * found.beads
  const stays = turns - alike * left
  const before = Math.floor(stays / 2)
  const first = found.from + before * found.passes
  let low = 0
  for (let pass = 0; pass < found.from; pass++) if (work.isNew(pass)) low++
  const few = work.without(first, first + left * passes, low)
  if (!few) return undefined
  // Counted from where they are left out.
  const at = Math.floor(before / alike)
  return {
    few: { ...evaluated, work: few },
    left,
    beads,
    at,
    stays: Array.from({ length: at + Math.floor((stays - before) / alike) + 1 }, (_, k) => ({
      bead: low + before * found.beads + (k - at) * beads,
      pass: first + (k - at) * passes,
    })),
  }
}

const widestBead = ({ shapes }: Piece) => shapes.reduce((most, { bead }) => Math.max(most, bead.acrossMm), 0.1)

/** Where a long piece begins, as a few of its repeats lie. */
export interface Lengthened {
  /** x, y, z by point: as it lies if every repeat lies to the one before as one of those about the middle does. */
  readonly layouts: readonly Float64Array[]
  /** The thread that it takes at rest if it lies as they do. */
  readonly threadMm: Mm
}

/**
 * Lays out a long piece by the few of it that have come to rest.
 *
 * @returns no layout where none comes out so, as in a piece that is closed into a ring
 */
export function lengthen(piece: Piece, few: Piece, short: Shortened): Lengthened {
  const { stays, at, beads, left } = short
  const points = stays.map(({ bead }) => 2 * (few.rodOf[bead] as number))
  const turns = Math.min(Math.ceil(window / beads), at, stays.length - 1 - at)
  const aside = Math.max(1, Math.floor(stays.length / 4))
  const [first, last] = [Math.max(0, at - aside), Math.min(stays.length - 1, at + aside)]
  const layouts: Float64Array[] = []
  for (let k = Math.max(turns, first); k <= Math.min(stays.length - 1 - turns, last); k++) {
    const [low, high] = [points[k - turns] as number, points[k + turns - 1] as number]
    const [from, to] = [points[k - 1] as number, points[k] as number]
    // One repeat on: these points to those.
    const onward = Int32Array.from({ length: high - low }, (_, i) => low + i + to - from)
    const fit = fitOf(few.at, { points: onward, places: few.at.slice(3 * low, 3 * high) })
    for (const each of [fit, straightened(fit)]) {
      const laid = new Float64Array(piece.at.length)
      layOn(laid, few, { fit: each, from, to, left })
      if (widestGap({ at: laid, threads: piece.threads }) < widest) layouts.push(laid)
    }
  }
  const repeat = laidThread(few, stays[first]?.pass, stays[last]?.pass) / (last - first)
  return { layouts, threadMm: laidThread(few) + left * repeat }
}

/** The same, turned about the way that it goes and no other: what is bent a little by chance would come round in a ring. */
function straightened(fit: Fit): Fit {
  const { from, to, turn } = fit
  const way = from.map((mm, c) => (to[c] as Mm) - mm)
  const far = Math.hypot(...way)
  const w = Math.sqrt(Math.max(0, 1 + turn.trace())) / 2
  if (far < 1e-9 || w < 1e-6) return fit
  const [x, y, z] = way.map((mm) => mm / far) as [number, number, number]
  const about = [turn.get(2, 1) - turn.get(1, 2), turn.get(0, 2) - turn.get(2, 0), turn.get(1, 0) - turn.get(0, 1)]
  const angle =
    2 * Math.atan2((about[0] as number) * x + (about[1] as number) * y + (about[2] as number) * z, 4 * w * w)
  const [c, s, rest] = [Math.cos(angle), Math.sin(angle), 1 - Math.cos(angle)]
  return {
    from,
    to,
    turn: new Matrix([
      [c + x * x * rest, x * y * rest - z * s, x * z * rest + y * s],
      [y * x * rest + z * s, c + y * y * rest, y * z * rest - x * s],
      [z * x * rest - y * s, z * y * rest + x * s, c + z * z * rest],
    ]),
  }
}

/** A repeat of the few, from one point to another, and how the next one lies to it. */
interface Repeated {
  readonly fit: Fit
  readonly from: number
  readonly to: number
  /** How many are left out. */
  readonly left: number
}

/** Lays out a piece as few of its repeats lie, and after one of them as many as are left out, each alike to the one before. */
function layOn(laid: Float64Array, few: Piece, { fit, from, to, left }: Repeated): void {
  const next = to - from
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
  laid.set(few.at.subarray(0, 3 * to))
  for (let point = to; point < to + left * next; point++) laid.set(on(placeOf(laid, point - next)), 3 * point)
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
  for (let point = to; point < few.at.length / 3; point++) {
    const v = placeOf(few.at, point)
    const far = [0, 1, 2].map((c) =>
      axes.reduce(
        (sum, axis, k) => sum + (v[k] as number) * ((axis[c] as number) - (origin[c] as number)),
        origin[c] as number,
      ),
    )
    laid.set(far, 3 * (point + left * next))
  }
}

const placeOf = (of: Float64Array, point: number): Mm[] => [0, 1, 2].map((c) => of[3 * point + c] as number)
