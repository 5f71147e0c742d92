/**
 * The box that a piece lies in: its sizes are those of the smallest one, measured to the surfaces of its beads, so that they do not hang on how
 * the piece came to lie.
 */
import { hull } from '../measure/hull'
import type { Mm } from '../measure/units'
import { centreOf, type Piece, shapeOfBead } from './piece'
import { support } from './reach'
import { add, minus, scaled, type Turn, type Vector } from './vector'

const degree = Math.PI / 180
const golden = (Math.sqrt(5) - 1) / 2
/** Boxes about middles that are larger than the smallest by this share may still be the smallest about surfaces. */
const nearlySmallest = 1.08
/** Of what is as narrow as so many beads, middles tell little. */
const narrow = 5
/** A box is smaller than another when it is smaller by this share. */
const smaller = 0.999
/** Of boxes that are as small as this, the narrowest: a triangle with blunt corners has two, and stands on its side in one. */
const asSmall = 1.05
/** Of two sides of a box that are as near to each other as this, neither is the thinner by its nature. */
const nearlyAlike = 0.8

/**
 * Turns a piece about the way to the eye until its box is smallest, its longer side across. Where it is as thick as it is wide, and keeps no face, it is
 * turned about its other ways too, and lies with its thinnest to the eye.
 */
export function smallestBox(piece: Piece, { turn, middle }: { turn: Turn; middle: Vector }, keepsFace: boolean): Turn {
  const reaches = reachesOf(piece, middle)
  let [x, y, z] = turn
  const turnAbout: Record<'x' | 'y' | 'z', () => void> = {
    x() {
      ;[y, z] = turned(reaches, y, z)
    },
    y() {
      ;[x, z] = turned(reaches, x, z)
    },
    z() {
      ;[x, y] = turned(reaches, x, y)
    },
  }
  turnAbout.z()
  const [across, up, deep] = [x, y, z].map((way) => extent(reaches, way)) as [Mm, Mm, Mm]
  // What is as thick as it is long has no front, whatever lies over what.
  const isAlikeAllRound = !piece.work.hasTwoFaces && deep >= nearlyAlike * across
  if (deep >= nearlyAlike * up && !keepsFace) turnAbout.x()
  // Each turn may have made another way longer.
  if (isAlikeAllRound) for (const way of ['y', 'z', 'x'] as const) turnAbout[way]()
  return [x, y, z]
}

interface Reaches {
  readonly piece: Piece
  /** x, y, z of each bead's middle. */
  readonly centres: Float64Array
  /** No bead reaches farther from its middle. */
  readonly most: Mm
}

function reachesOf(piece: Piece, middle: Vector): Reaches {
  const centres = new Float64Array(3 * piece.work.beads)
  let most = 0
  for (let bead = 0; bead < piece.work.beads; bead++) {
    centres.set(minus(centreOf(piece, bead), middle), 3 * bead)
    const { bead: record, frame } = shapeOfBead(piece, bead)
    most = Math.max(most, Math.hypot(record.lengthMm, record.acrossMm, frame?.wideMm ?? record.acrossMm) / 2)
  }
  return { piece, centres, most }
}

/** How far along a way the middle of each bead lies. */
function alongWay(centres: Float64Array, [x, y, z]: Vector): Float64Array {
  const along = new Float64Array(centres.length / 3)
  for (let bead = 0; bead < along.length; bead++)
    along[bead] =
      (centres[3 * bead] as number) * x + (centres[3 * bead + 1] as number) * y + (centres[3 * bead + 2] as number) * z
  return along
}

/** From one side to the other, by the beads' surfaces. */
function extent({ piece, centres, most }: Reaches, way: Vector): Mm {
  if (centres.length === 0) return 0
  const along = alongWay(centres, way)
  let [first, last] = [0, 0]
  for (let bead = 1; bead < along.length; bead++) {
    if ((along[bead] as Mm) < (along[first] as Mm)) first = bead
    if ((along[bead] as Mm) > (along[last] as Mm)) last = bead
  }
  const back = scaled(way, -1)
  // From the outermost middles on, so that most others are seen not to reach as far.
  let to = (along[last] as Mm) + support(piece, last, way)
  let from = (along[first] as Mm) - support(piece, first, back)
  for (let bead = 0; bead < along.length; bead++) {
    const at = along[bead] as Mm
    if (at > to - most) to = Math.max(to, at + support(piece, bead, way))
    if (at < from + most) from = Math.min(from, at - support(piece, bead, back))
  }
  return to - from
}

function ends(values: readonly number[]): [number, number] {
  let [low, high] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY]
  for (const value of values) {
    low = Math.min(low, value)
    high = Math.max(high, value)
  }
  return [low, high]
}

/** Two ways, turned in their plane so that the piece has the least area in it; the longer side is the first. */
function turned(reaches: Reaches, a: Vector, b: Vector): [Vector, Vector] {
  const { centres, most } = reaches
  // Only the outermost of them tell how far all of them reach.
  const [across, up] = [alongWay(centres, a), alongWay(centres, b)]
  const flat = hull(Array.from(across, (u, bead): [Mm, Mm] => [u, up[bead] as Mm]))
  /** About the beads' middles, with as much room as a bead has: quick, and nearly right. */
  const rough = (angle: number) => {
    const [c, s] = [Math.cos(angle), Math.sin(angle)]
    const [left, right] = ends(flat.map(([u, v]) => u * c + v * s))
    const [low, high] = ends(flat.map(([u, v]) => v * c - u * s))
    return (right - left + most) * (high - low + most)
  }
  const ways = (angle: number): [Vector, Vector] => {
    const [c, s] = [Math.cos(angle), Math.sin(angle)]
    return [add(scaled(a, c), scaled(b, s)), add(scaled(a, -s), scaled(b, c))]
  }
  const boxAt = (angle: number) => {
    const [one, other] = ways(angle).map((way) => extent(reaches, way)) as [Mm, Mm]
    return { angle, area: one * other, narrow: Math.min(one, other) }
  }
  const isNarrow = Math.min(extent(reaches, a), extent(reaches, b)) < narrow * most
  const roughly = Array.from({ length: 90 }, (_, k) =>
    isNarrow ? boxAt((k - 45) * degree).area : rough((k - 45) * degree),
  )
  const least = Math.min(...roughly)
  const boxes = roughly.flatMap((each, k) => {
    const beside = [roughly[(k + 89) % 90] as number, roughly[(k + 1) % 90] as number]
    if (each > nearlySmallest * least || beside.some((other) => other < each)) return []
    return [boxAt(leastOf((angle) => boxAt(angle).area, (k - 46) * degree, (k - 44) * degree))]
  })
  const asItLies = boxAt(0)
  const smallest = boxes.reduce((a, b) => (b.area < a.area ? b : a), asItLies)
  const best =
    asItLies.area <= smallest.area / smaller
      ? asItLies
      : boxes
          .filter(({ area }) => area <= asSmall * smallest.area)
          .reduce((a, b) => (b.narrow < smaller * a.narrow ? b : a), smallest)
  const [first, second] = ways(best.angle)
  return extent(reaches, second) > extent(reaches, first) ? [second, scaled(first, -1)] : [first, second]
}

/** Where a function of one figure is least between two, by golden sections: each look leaves 0.62 of what was left. */
function leastOf(of: (at: number) => number, low: number, high: number): number {
  let [from, to] = [low, high]
  let [left, right] = [to - golden * (to - from), from + golden * (to - from)]
  let [atLeft, atRight] = [of(left), of(right)]
  for (let k = 0; k < 9; k++) {
    if (atLeft < atRight) {
      ;[to, right, atRight] = [right, left, atLeft]
      left = to - golden * (to - from)
      atLeft = of(left)
    } else {
      ;[from, left, atLeft] = [left, right, atRight]
      right = from + golden * (to - from)
      atRight = of(right)
    }
  }
  return (from + to) / 2
}
