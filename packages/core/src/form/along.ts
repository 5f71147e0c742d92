/** What is measured along a piece and not across it: a band's opening, and the length of a chain or rope laid straight. */
import type { Mm } from '../measure/units'
import type { Along } from '../report/measures'
import { centreOf, type Piece } from './piece'
import { planeOf } from './plane'
import { support } from './reach'
import { type Run, stepsAlong } from './run'
import { graphOfPiece } from './start'
import { cross, dot, minus, scaled, size, square, unit, type Vector } from './vector'
import { Ways } from './ways'

const fewestOfBand = 6

/** The ends of a closed run lie no farther apart than so many of its repeats, or than so much of its width: a seam of other rows may lie between. */
const closes = 2.6
const seam = 0.5

/** From one end of it to the other the thread leads over no more than this share of its length: in an open one nearly all of it. */
const joined = 1 / 3

/** A chain is so many times as long as it is thick. */
const slender = 2.5

export function alongOf(piece: Piece, runs: readonly Run[]): Along | undefined {
  const lengths = runs.map((run) => ({ run, mm: stepsAlong(run).reduce((sum, step) => sum + step.mm, 0) }))
  const longest = lengths.reduce<(typeof lengths)[number] | undefined>((a, b) => (a && a.mm >= b.mm ? a : b), undefined)
  if (!longest) return undefined
  const { run, mm } = longest
  const { places } = run
  const gap = size(minus(places[0] as Vector, places[places.length - 1] as Vector))
  const besides = besidesOf(piece, places)
  const near = Math.max((closes * mm) / (places.length - 1), seam * thickOf(besides, places.length - 1))
  return places.length >= fewestOfBand && gap < near && isJoined(piece, run, joined * mm)
    ? bandOf(piece, places, mm + gap)
    : chainOf(piece, run, mm, besides)
}

/** Whether thread leads from the last repeat to the first over no more than this: a chain may lie in a ring that nothing closes. */
function isJoined(piece: Piece, { ends: [first, last] }: Run, most: Mm): boolean {
  const walk = new Ways(graphOfPiece(piece))
  const wanted = new Set(first.flatMap((bead) => pointsOf(piece, bead)))
  return last
    .flatMap((bead) => pointsOf(piece, bead))
    .some((point) => {
      walk.from(point, most)
      return walk.reached.some((each) => wanted.has(each))
    })
}

const pointsOf = ({ rodOf }: Piece, bead: number): number[] => {
  const [from, to] = [2 * (rodOf[bead] as number), 2 * (rodOf[bead + 1] as number)]
  return Array.from({ length: to - from }, (_, i) => from + i)
}

function bandOf(piece: Piece, places: readonly Vector[], roundMm: Mm): Along {
  const { middle, normal } = planeOf(places)
  const flat = (place: Vector): Vector => square(minus(place, middle), normal)
  const ring = places.map(flat)
  const outward = outwardOf(ring, normal)
  // What of the band lies farthest in, by repeat.
  const inward = new Float64Array(places.length)
  for (let bead = 0; bead < piece.work.beads; bead++) {
    const at = flat(centreOf(piece, bead))
    const nearest = nearestOf(at, ring)
    const out = outward[nearest] as Vector
    const reach = dot(minus(ring[nearest] as Vector, at), out) + support(piece, bead, out)
    inward[nearest] = Math.max(inward[nearest] as number, reach)
  }
  const half = inward.reduce((sum, each) => sum + each, 0) / places.length
  // A line this far inside a convex one is shorter by a full turn of it.
  const innerRoundMm = Math.max(0, roundMm - 2 * Math.PI * half)
  return { type: 'band', innerRoundMm, innerAcrossMm: innerRoundMm / Math.PI }
}

/** Square to the band at each of its places, away from what it goes round: a band need not lie in a circle. */
function outwardOf(ring: readonly Vector[], normal: Vector): Vector[] {
  // From the place before to the one after, so that what goes to and fro from one to the next cancels.
  const rights = ring.map((_, i) => {
    const [before, after] = [ring.at(i - 1), ring[(i + 1) % ring.length]] as [Vector, Vector]
    return unit(cross(minus(after, before), normal), [1, 0, 0])
  })
  const side = rights.reduce((sum, right, i) => sum + dot(right, ring[i] as Vector), 0) < 0 ? -1 : 1
  return rights.map((right) => scaled(right, side))
}

/** A bead beside the repeat that it is nearest to, and how far its middle is from that one's. */
interface Beside {
  readonly bead: number
  readonly nearest: number
  readonly off: Vector
}

const besidesOf = (piece: Piece, places: readonly Vector[]): Beside[] =>
  Array.from({ length: piece.work.beads }, (_, bead) => {
    const at = centreOf(piece, bead)
    const nearest = nearestOf(at, places)
    return { bead, nearest, off: minus(at, places[nearest] as Vector) }
  })

/** How thick a run is: what goes on beyond its ends is no part of that. */
const thickOf = (besides: readonly Beside[], last: number): Mm =>
  besides.reduce(
    (thick, { nearest, off }) => (nearest > 0 && nearest < last ? Math.max(thick, 2 * size(off)) : thick),
    0,
  )

function chainOf(piece: Piece, run: Run, mm: Mm, besides: readonly Beside[]): Along | undefined {
  const last = run.places.length - 1
  const steps = stepsAlong(run)
  const ends = [
    scaled((steps[0] as { way: Vector }).way, -1),
    (steps[steps.length - 1] as { way: Vector }).way,
  ] as const
  const beyond: [Mm, Mm] = [0, 0]
  for (const { bead, nearest, off } of besides)
    for (const [k, end] of [0, last].entries()) {
      const way = ends[k] as Vector
      if (nearest === end) beyond[k] = Math.max(beyond[k] as number, dot(off, way) + support(piece, bead, way))
    }
  const straightMm = mm + beyond[0] + beyond[1]
  return straightMm >= slender * thickOf(besides, last) ? { type: 'chain', straightMm } : undefined
}

function nearestOf(at: Vector, places: readonly Vector[]): number {
  let nearest = 0
  let least = Number.POSITIVE_INFINITY
  for (const [i, place] of places.entries()) {
    const off = size(minus(at, place))
    if (off >= least) continue
    least = off
    nearest = i
  }
  return nearest
}
