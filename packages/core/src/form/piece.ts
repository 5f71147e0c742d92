/**
 * The piece as the computation of its shape holds it: points, rods, threads, in typed arrays that are made once and then only moved.
 *
 * A bore is a rod between two points, at one length. A bead has one rod or two that are held together. Thread ties the end that it comes
 * out of to the end that it goes into. Point `2 * rod` is the bore's first end, `2 * rod + 1` its second; coordinates lie three by three.
 */
import type { Bead } from '../catalogue/bead'
import type { Mm } from '../measure/units'
import { beadOf, entryOf, exitOf } from '../stitch/hole'
import type { Work } from '../stitch/work'
import { jogShare } from '../thread/jog'
import { type Shape, shapeOf } from './shape'
import type { Solid } from './solid'

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
  /** By thread: what it keeps when beads lie close, by stitch; the line that laid it first; how often it was laid. */
  readonly natural: Float64Array
  readonly laidBy: Int32Array
  /** By thread: how far apart its ends may lie without its being drawn at all, for the slack in it and the room in the holes. */
  readonly loose: Float64Array
  /** By thread: 1 where it goes from one bore to the other of one bead, which nothing can draw closer. */
  readonly within: Uint8Array
  /** Of each pass: its thread, or -1 at the beginning of a length. */
  readonly threadOf: Int32Array
  /** A point held to the middle of two others. */
  readonly ties: Int32Array
  /** Rods of each closed row round a stone in the order of its thread, one row after the other, and where each begins; one more at the end. */
  readonly hoops: Int32Array
  /** The length each does not stretch beyond. */
  readonly hoopMm: Float64Array
  readonly hoopAt: Int32Array
  solids: Solid[]
}

/** Thread closes to within this. */
export const slackMm: Mm = 0.05
/** How much of the room beside the thread in each of two holes lets their ends lie apart. */
const roomShare = 0.5

/** The point at an end of a bore. */
export const pointAt = (piece: Pick<Piece, 'rodOf'>, end: number): number => {
  const rod = (piece.rodOf[beadOf(end)] as number) + ((end >> 1) & 1)
  return 2 * rod + (end & 1)
}

/**
 * @param beadOfRole the bead of a role's number
 * @param threadMm across the thread
 * @throws NoShape when a catalogue record cannot be a bead's
 */
export function pieceOf(work: Work, beadOfRole: (role: number) => Bead, threadMm: Mm): Piece {
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
    rods += (shapes[index] as Shape).twin ? 2 : 1
  }
  rodOf[work.beads] = rods
  const lengths = new Float64Array(rods)
  for (let bead = 0; bead < work.beads; bead++) {
    const { lengthMm } = (shapes[shapeIndex[bead] as number] as Shape).bead
    lengths.fill(lengthMm, rodOf[bead], rodOf[bead + 1])
  }
  return {
    work,
    shapes,
    shapeOf: shapeIndex,
    rodOf,
    rods,
    lengths,
    at: new Float64Array(rods * 6),
    ...threadsOf(work, rodOf, (bead) => (shapes[shapeIndex[bead] as number] as Shape).bead, threadMm),
    ties: Int32Array.from(work.ties, (end) => pointAt({ rodOf }, end)),
    ...hoopsOf(work, rodOf, lengths),
    solids: [],
  }
}

/** Rings and rounds in the gaps go once round: what holds a stone is that they do not stretch. */
function hoopsOf(work: Work, rodOf: Int32Array, lengths: Float64Array): Pick<Piece, 'hoops' | 'hoopAt' | 'hoopMm'> {
  const rings = new Map<number, number[]>()
  for (let bead = 0; bead < work.beads; bead++) {
    const { course } = work.seat(bead)
    if (work.courses[course]?.kind !== 'ring') continue
    const ring = rings.get(course)
    if (ring) ring.push(bead)
    else rings.set(course, [bead])
  }
  const hoops: number[] = []
  const hoopAt = [0]
  const hoopMm: number[] = []
  for (const [index, course] of work.courses.entries()) {
    if (!work.cores.has(work.firstOf(index))) continue
    const beads = new Set(rings.get(index))
    if (course.kind === 'gaps' && work.courses[work.firstOf(index)]?.kind === 'ring') {
      for (let pass = course.from; pass < course.to; pass++) {
        const bead = beadOf(work.holeAt(pass))
        if (work.seat(bead).course >= 0) beads.add(bead)
      }
    }
    if (beads.size < 3) continue
    let length = 0
    for (const bead of beads) {
      const rod = rodOf[bead] as number
      hoops.push(rod)
      length += lengths[rod] as number
    }
    hoopAt.push(hoops.length)
    hoopMm.push(length * 1.01 + 0.12 * beads.size)
  }
  return { hoops: Int32Array.from(hoops), hoopAt: Int32Array.from(hoopAt), hoopMm: Float64Array.from(hoopMm) }
}

/** Where beads meet at an angle their shoulders keep the ends apart by up to so much of their width, whatever the stitch. */
const corner = 0.5

function threadsOf(work: Work, rodOf: Int32Array, recordOf: (bead: number) => Bead, threadMm: Mm) {
  const threadOf = new Int32Array(work.passes).fill(-1)
  const known = new Map<number, number>()
  const points = 2 * (rodOf[work.beads] as number)
  const pairs: number[] = []
  const natural: number[] = []
  const laidBy: number[] = []
  const within: number[] = []
  const loose: number[] = []
  const roomIn = (bead: Bead) => Math.max(0, bead.boreMm - threadMm)
  const begins = new Set(work.threads)
  for (let pass = 1; pass < work.passes; pass++) {
    if (begins.has(pass)) continue
    const [before, next] = [work.holeAt(pass - 1), work.holeAt(pass)]
    const a = pointAt({ rodOf }, exitOf(before))
    const b = pointAt({ rodOf }, entryOf(next))
    if (a === b) continue
    const key = Math.min(a, b) * points + Math.max(a, b)
    const share = Math.max(jogShare[work.jogAt(pass)], corner)
    const keeps = (share * (recordOf(beadOf(before)).acrossMm + recordOf(beadOf(next)).acrossMm)) / 2
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
    loose.push(slackMm + roomShare * (roomIn(recordOf(beadOf(before))) + roomIn(recordOf(beadOf(next)))))
    within.push(beadOf(before) === beadOf(next) ? 1 : 0)
    laidBy.push(work.statementAt(pass))
  }
  return {
    threads: Int32Array.from(pairs),
    natural: Float64Array.from(natural),
    laidBy: Int32Array.from(laidBy),
    within: Uint8Array.from(within),
    loose: Float64Array.from(loose),
    threadOf,
  }
}
