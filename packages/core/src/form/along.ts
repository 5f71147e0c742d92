/** What is measured along a piece and not across it: a band's opening, and the length of a chain or rope laid straight. */
import type { Mm } from '../measure/units'
import type { Along } from '../report/measures'
import { centreOf, type Piece } from './piece'
import { planeOf } from './plane'
import { support } from './reach'
import { type Run, stepsAlong } from './run'
import { graphOfPiece } from './start'
import { dot, minus, scaled, size, unit, type Vector } from './vector'
import { Ways } from './ways'

const fewestOfBand = 6

/** The most between the ends of a closed run, in repeats: as it lies, and along its thread. */
const closes = 2.6

/** A chain is so many times as long as it is thick. */
const slender = 2.5

export function alongOf(piece: Piece, runs: readonly Run[]): Along | undefined {
  const lengths = runs.map((run) => ({ run, mm: stepsAlong(run).reduce((sum, step) => sum + step.mm, 0) }))
  const longest = lengths.reduce<(typeof lengths)[number] | undefined>((a, b) => (a && a.mm >= b.mm ? a : b), undefined)
  if (!longest) return undefined
  const { run, mm } = longest
  const { places } = run
  const gap = size(minus(places[0] as Vector, places[places.length - 1] as Vector))
  const near = (closes * mm) / (places.length - 1)
  return places.length >= fewestOfBand && gap < near && isJoined(piece, run, near)
    ? bandOf(piece, places, mm + gap)
    : chainOf(piece, run, mm)
}

/** Whether thread leads from the last repeat to the first over no more than this: a chain may lie in a ring that nothing closes. */
function isJoined(piece: Piece, { ends: [first, last] }: Run, near: Mm): boolean {
  const walk = new Ways(graphOfPiece(piece))
  const wanted = new Set(first.flatMap((bead) => pointsOf(piece, bead)))
  return last
    .flatMap((bead) => pointsOf(piece, bead))
    .some((point) => {
      walk.from(point, near)
      return walk.reached.some((each) => wanted.has(each))
    })
}

const pointsOf = ({ rodOf }: Piece, bead: number): number[] => {
  const [from, to] = [2 * (rodOf[bead] as number), 2 * (rodOf[bead + 1] as number)]
  return Array.from({ length: to - from }, (_, i) => from + i)
}

function bandOf(piece: Piece, places: readonly Vector[], roundMm: Mm): Along {
  const plane = planeOf(places)
  const flat = (v: Vector): Vector => {
    const off = minus(v, plane.middle)
    return minus(off, scaled(plane.normal, dot(off, plane.normal)))
  }
  const ring = places.map(flat)
  // What of the band lies farthest in, by repeat.
  const inward = new Float64Array(places.length)
  for (let bead = 0; bead < piece.work.beads; bead++) {
    const at = flat(centreOf(piece, bead))
    const nearest = nearestOf(at, ring)
    const out = unit(ring[nearest] as Vector, [1, 0, 0])
    const reach = dot(minus(ring[nearest] as Vector, at), out) + support(piece, bead, out)
    inward[nearest] = Math.max(inward[nearest] as number, reach)
  }
  const half = inward.reduce((sum, each) => sum + each, 0) / places.length
  // A line this far inside a convex one is shorter by a full turn of it.
  const innerRoundMm = Math.max(0, roundMm - 2 * Math.PI * half)
  return { type: 'band', innerRoundMm, innerAcrossMm: innerRoundMm / Math.PI }
}

function chainOf(piece: Piece, run: Run, mm: Mm): Along | undefined {
  const { places } = run
  const steps = stepsAlong(run)
  const ends = [
    scaled((steps[0] as { way: Vector }).way, -1),
    (steps[steps.length - 1] as { way: Vector }).way,
  ] as const
  const beyond: [Mm, Mm] = [0, 0]
  let thick = 0
  for (let bead = 0; bead < piece.work.beads; bead++) {
    const at = centreOf(piece, bead)
    const nearest = nearestOf(at, places)
    const off = minus(at, places[nearest] as Vector)
    for (const [k, end] of [0, places.length - 1].entries()) {
      const way = ends[k] as Vector
      if (nearest === end) beyond[k] = Math.max(beyond[k] as number, dot(off, way) + support(piece, bead, way))
    }
    if (nearest === 0 || nearest === places.length - 1) continue
    thick = Math.max(thick, 2 * size(off))
  }
  const straightMm = mm + beyond[0] + beyond[1]
  return straightMm >= slender * thick ? { type: 'chain', straightMm } : undefined
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
