/**
 * The piece as the computation of its shape holds it: points, rods, threads, in typed arrays that are made once and then only moved.
 *
 * A bore is a rod between two points, at one length. A bead has one rod or two that are held together. Thread ties the end that it comes
 * out of to the end that it goes into. Point `2 * rod` is the bore's first end, `2 * rod + 1` its second; coordinates lie three by three.
 */
import type { Bead } from '../catalogue/bead'
import type { Mm } from '../measure/units'
import { beadOf, entryOf, exitOf, type Hole } from '../stitch/hole'
import type { Work } from '../stitch/work'
import { gapShare } from '../thread/stitch-gap'
import { type Shape, shapeOf } from './shape'
import type { Solid } from './solid'
import type { Vector } from './vector'

export interface Piece {
  readonly work: Work
  readonly shapes: readonly Shape[]
  /** By bead. */
  readonly shapeOf: Uint16Array
  /** A bead's first rod; one more at the end. */
  readonly rodOf: Int32Array
  readonly rods: number
  /** By rod. */
  readonly lengths: Float64Array
  /** x, y, z by point. */
  readonly at: Float64Array
  /** Threads between ends, two points each, every way once. */
  readonly threads: Int32Array
  /** By thread: what it keeps when beads lie close, by stitch and by whether it turns back; the line that laid it first; how often it was laid. */
  readonly natural: Float64Array
  readonly laidBy: Int32Array
  /** By thread: what of the tension comes through to it. */
  readonly pulls: Float64Array
  /** By thread: 1 where it goes from one bore to the other of one bead, which nothing can draw closer. */
  readonly within: Uint8Array
  /** Of each pass: its thread, or -1 at the beginning of a length. */
  readonly threadOf: Int32Array
  /** A point held to the middle of two others. */
  readonly ties: Int32Array
  /** Ends that meet, two points each: of beads that thread draws together, and of a bead with those it stands on. */
  readonly bends: Int32Array
  /** By bend: how wide the flat ends are that meet there, from the middle. */
  readonly rims: Float64Array
  /** Stones and rings. */
  solids: Solid[]
}

/** Thread closes to within this. */
export const slackMm: Mm = 0.05

/** The point at an end of a bore. */
export const pointAt = (piece: Pick<Piece, 'rodOf'>, end: number): number => {
  const rod = (piece.rodOf[beadOf(end)] as number) + ((end >> 1) & 1)
  return 2 * rod + (end & 1)
}

/** The middle of a bead. */
export function centreOf({ at, rodOf }: Pick<Piece, 'at' | 'rodOf'>, bead: number): Vector {
  const [from, to] = [2 * (rodOf[bead] as number), 2 * (rodOf[bead + 1] as number)]
  let [x, y, z] = [0, 0, 0]
  for (let p = from; p < to; p++) {
    x += at[3 * p] as number
    y += at[3 * p + 1] as number
    z += at[3 * p + 2] as number
  }
  const points = to - from
  return [x / points, y / points, z / points]
}

export const meanOf = (piece: Pick<Piece, 'at' | 'rodOf'>, beads: readonly number[]): Vector => {
  const sum = [0, 0, 0]
  for (const bead of beads) for (const [k, v] of centreOf(piece, bead).entries()) sum[k] = (sum[k] as number) + v
  return sum.map((each) => each / Math.max(1, beads.length)) as unknown as Vector
}

/** From its back to its front. */
export function depthOf({ at }: Pick<Piece, 'at'>): Mm {
  let [low, high] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY]
  for (let p = 2; p < at.length; p += 3) {
    low = Math.min(low, at[p] as number)
    high = Math.max(high, at[p] as number)
  }
  return high - low
}

export const shapeOfBead = ({ shapes, shapeOf }: Pick<Piece, 'shapes' | 'shapeOf'>, bead: number): Shape =>
  shapes[shapeOf[bead] as number] as Shape

/**
 * @param beadOfRole the bead of a role's number
 * @throws NoShape when a catalogue record cannot be a bead's
 */
export function pieceOf(work: Work, beadOfRole: (role: number) => Bead): Piece {
  const shapes: Shape[] = []
  const byRole = new Map<number, number>()
  const shapeIndex = new Uint16Array(work.beads)
  const rodOf = new Int32Array(work.beads + 1)
  let rods = 0
  for (let bead = 0; bead < work.beads; bead++) {
    const role = work.role(bead)
    let index = byRole.get(role)
    if (index === undefined) {
      index = shapes.push(shapeOf(beadOfRole(role))) - 1
      byRole.set(role, index)
    }
    shapeIndex[bead] = index
    rodOf[bead] = rods
    rods += (shapes[index] as Shape).frame ? 2 : 1
  }
  rodOf[work.beads] = rods
  const recordOf = (bead: number) => (shapes[shapeIndex[bead] as number] as Shape).bead
  const lengths = new Float64Array(rods)
  const rims = new Float64Array(rods)
  for (let bead = 0; bead < work.beads; bead++) {
    const record = recordOf(bead)
    lengths.fill(record.lengthMm, rodOf[bead], rodOf[bead + 1])
    rims.fill(rimOf(record), rodOf[bead], rodOf[bead + 1])
  }
  const laid = threadsOf(work, rodOf, recordOf)
  const ties = Int32Array.from(work.ties, (end) => pointAt({ rodOf }, end))
  return {
    work,
    shapes,
    shapeOf: shapeIndex,
    rodOf,
    rods,
    lengths,
    at: new Float64Array(rods * 6),
    ...laid,
    ties,
    ...bendsOf(laid, ties, (point) => rims[point >> 1] as number),
    solids: [],
  }
}

/** What of the tension comes through where thread turns back about another: e^(-mu pi), with a friction of 0.29 of thread on thread. */
const throughTurn = 0.4

/** Where beads meet at an angle their shoulders keep the ends apart by up to so much of their width, whatever the stitch. */
const corner = 0.5

/** Cylinders and what is cut like them have flat ends; any other bead ends in the rim of its hole. */
const rimOf = ({ contact, acrossMm, boreMm }: Bead): Mm => (contact >= 4 ? 0.4 * acrossMm : boreMm / 2 + 0.1)

function bendsOf(
  { threads, within }: Pick<Piece, 'threads' | 'within'>,
  ties: Int32Array,
  rimAt: (point: number) => Mm,
): Pick<Piece, 'bends' | 'rims'> {
  const bends: number[] = []
  for (let t = 0; t < within.length; t++)
    if (!within[t]) bends.push(threads[2 * t] as number, threads[2 * t + 1] as number)
  for (let t = 0; t < ties.length; t += 3)
    for (const under of [ties[t + 1] as number, ties[t + 2] as number]) bends.push(under, ties[t] as number)
  const rims = new Float64Array(bends.length / 2)
  for (let k = 0; k < rims.length; k++)
    rims[k] = (rimAt(bends[2 * k] as number) + rimAt(bends[2 * k + 1] as number)) / 2
  return { bends: Int32Array.from(bends), rims }
}

/** From top to top of two beads of a row that stands, where as many stand as there is room for; 0 of any others. */
function topsOf(work: Work, before: Hole, next: Hole): Mm {
  const { course } = work.seat(beadOf(before))
  const row = work.courses[course]
  return row?.kind === 'standing' && work.seat(beadOf(next)).course === course ? row.topsMm : 0
}

function threadsOf(work: Work, rodOf: Int32Array, recordOf: (bead: number) => Bead) {
  const threadOf = new Int32Array(work.passes).fill(-1)
  const known = new Map<number, number>()
  const points = 2 * (rodOf[work.beads] as number)
  const pairs: number[] = []
  const natural: number[] = []
  const laidBy: number[] = []
  const pulls: number[] = []
  const within: number[] = []
  for (let pass = 1; pass < work.passes; pass++) {
    const [before, next] = [work.beforePass(pass), work.holeAt(pass)]
    if (before === undefined) continue
    const a = pointAt({ rodOf }, exitOf(before))
    const b = pointAt({ rodOf }, entryOf(next))
    if (a === b) continue
    const key = Math.min(a, b) * points + Math.max(a, b)
    const share = Math.max(gapShare[work.gapAt(pass)], corner)
    const across = (recordOf(beadOf(before)).acrossMm + recordOf(beadOf(next)).acrossMm) / 2
    const keeps = Math.max(share * across, topsOf(work, before, next))
    const found = known.get(key)
    if (found !== undefined) {
      threadOf[pass] = found
      natural[found] = Math.min(natural[found] as number, keeps)
      continue
    }
    const thread = natural.push(keeps) - 1
    known.set(key, thread)
    threadOf[pass] = thread
    pairs.push(a, b)
    within.push(beadOf(before) === beadOf(next) ? 1 : 0)
    laidBy.push(work.statementAt(pass))
    pulls.push(work.gapAt(pass) === 'brick' ? throughTurn : 1)
  }
  return {
    threads: Int32Array.from(pairs),
    natural: Float64Array.from(natural),
    laidBy: Int32Array.from(laidBy),
    pulls: Float64Array.from(pulls),
    within: Uint8Array.from(within),
    threadOf,
  }
}
