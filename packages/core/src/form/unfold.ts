/**
 * Where the points of a piece lie, found from nothing but how far apart they are along bores and threads: classical scaling on the ways
 * from points far from each other, then stress majorization by stochastic steps. A fixed order of its own, no chance: the same graph gives
 * the same places to the bit.
 *
 * Sources: classical scaling on pivots (Brandes and Pich 2007); stress by stochastic gradient descent on pairs (Zheng, Pawar, Goodman 2019).
 */
import { determinant, EigenvalueDecomposition, Matrix, SingularValueDecomposition } from 'ml-matrix'
import type { Mm } from '../measure/units'
import { Kernel } from './kernel/kernel'
import { type Graph, Ways } from './ways'

const pivots = 60
const sweeps = 40
/** So many directions of classical scaling are looked at. */
const kept = 12
/** Pairs of points this near along the thread are all kept apart as the thread says. */
const nearMm: Mm = 4

/**
 * Round a tube or along a bent sheet the way is longer than the line: points that are far along the thread may lie nearer, so they are
 * driven apart by this much less than they are drawn together.
 */
const slack = 0.03

/** No two points are wanted nearer to each other. */
const least: Mm = 1e-3

/** Points that keep their places to each other, such as the rounds on a stone. */
export interface Held {
  readonly points: Int32Array
  /** x, y, z of each among themselves. */
  readonly places: Float64Array
}

/** Where a piece may begin. */
export interface Beginning {
  /** x, y, z by point. */
  readonly at: Float64Array
  /** It was unfolded in the plane: what lies beside each other in flat work does so from the first. */
  readonly isFlat: boolean
}

/** What unfolding does, in this order. */
export type UnfoldingStage = 'ways' | 'scaling' | 'stress'

/**
 * @param graph all of whose points hang together
 * @param held each set is turned and moved as a whole; it is never mirrored, the rest of the piece is
 * @param beginnings how many are wanted; the likeliest is first. Of more than one, the last is flat
 * @param done is told after each stage
 */
export function unfold(
  graph: Graph,
  held: readonly Held[] = [],
  beginnings = 1,
  done: (stage: UnfoldingStage) => void = () => {},
): Beginning[] {
  const far = pivotsOf(graph)
  const terms = termsOf(graph, far)
  done('ways')
  const isFlat = held.length === 0 && beginnings > 1
  const spatial = scaled(graph.points, far, terms, beginnings - (isFlat ? 1 : 0))
  done('scaling')
  const flat = isFlat ? [flattened(spatial[0] as Float64Array)] : []
  const majorized = [...spatial, ...flat].map((at) => {
    majorize(at, terms)
    if (held.length === 0) return at
    const [first] = held as [Held]
    if (mirrored(at, first)) for (let i = 2; i < at.length; i += 3) at[i] = -(at[i] as number)
    for (const each of held) lay(at, each)
    // What hangs on them finds its place about them.
    majorize(at, terms, held)
    return at
  })
  done('stress')
  return majorized.map((at, i) => ({ at, isFlat: isFlat && i === majorized.length - 1 }))
}

const flattened = (at: Float64Array): Float64Array => at.map((each, i) => (i % 3 === 2 ? 0 : each))

interface Pivot {
  readonly from: number
  readonly ways: Float64Array
}

/** Points as far from each other as can be, each with its ways to all. */
function pivotsOf(graph: Graph): Pivot[] {
  const walk = new Ways(graph)
  const nearest = new Float64Array(graph.points).fill(Number.POSITIVE_INFINITY)
  const found: Pivot[] = []
  for (let from = 0; found.length < Math.min(pivots, graph.points); ) {
    walk.from(from)
    const ways = Float64Array.from(walk.mm)
    found.push({ from, ways })
    let next = 0
    for (let i = 0; i < ways.length; i++) {
      nearest[i] = Math.min(nearest[i] as number, ways[i] as number)
      if ((nearest[i] as number) > (nearest[next] as number)) next = i
    }
    from = next
  }
  return found
}

/**
 * Round a ring the ways are longer than the lines, and what that bends may be stronger than the width of what is worked on the ring. So the
 * third direction is not always the next strongest: those come first that leave near points most alike to what the thread says.
 */
function scaled(points: number, far: readonly Pivot[], terms: Terms, beginnings: number): Float64Array[] {
  const dimensions = Math.min(kept, far.length)
  const wide = classicalScaling(points, far, dimensions)
  const thirds = Array.from({ length: Math.max(1, dimensions - 2) }, (_, i) => i + 2)
    .map((third) => ({ third, stress: third < dimensions ? nearStress(wide, dimensions, third, terms) : 0 }))
    .sort((a, b) => a.stress - b.stress || a.third - b.third)
    .slice(0, beginnings)
  return thirds.map(({ third }) => {
    const at = new Float64Array(points * 3)
    for (let i = 0; i < points; i++)
      for (const [c, from] of [0, 1, third].entries())
        if (from < dimensions) at[3 * i + c] = wide[i * dimensions + from] as number
    return scaledToWays(at, far)
  })
}

/** How unevenly near points are stretched or drawn together, in two directions and a third. */
function nearStress(wide: Float64Array, dimensions: number, third: number, { pairs, mm }: Terms): number {
  let [count, sum, squares] = [0, 0, 0]
  for (let t = 0; t < mm.length; t++) {
    const wanted = mm[t] as number
    if (wanted > nearMm || wanted <= least) continue
    const a = (pairs[2 * t] as number) * dimensions
    const b = (pairs[2 * t + 1] as number) * dimensions
    let squared = 0
    for (const c of [0, 1, third]) squared += ((wide[a + c] as number) - (wide[b + c] as number)) ** 2
    const share = Math.sqrt(squared) / wanted
    count++
    sum += share
    squares += share * share
  }
  return count > 0 ? (squares * count) / Math.max(sum * sum, 1e-12) : 0
}

/** Squared ways, doubly centred, along their strongest directions; by point. */
function classicalScaling(points: number, far: readonly Pivot[], dimensions: number): Float64Array {
  const k = far.length
  const m = new Float64Array(points * k)
  const column = new Float64Array(k)
  const row = new Float64Array(points)
  let all = 0
  for (const [j, { ways }] of far.entries())
    for (let i = 0; i < points; i++) {
      const squared = (ways[i] as number) ** 2
      m[i * k + j] = squared
      column[j] = (column[j] as number) + squared / points
      row[i] = (row[i] as number) + squared / k
      all += squared / points / k
    }
  for (let i = 0; i < points; i++)
    for (let j = 0; j < k; j++)
      m[i * k + j] = -0.5 * ((m[i * k + j] as number) - (column[j] as number) - (row[i] as number) + all)
  const products = Matrix.zeros(k, k)
  for (let a = 0; a < k; a++)
    for (let b = a; b < k; b++) {
      let sum = 0
      for (let i = 0; i < points; i++) sum += (m[i * k + a] as number) * (m[i * k + b] as number)
      products.set(a, b, sum)
      products.set(b, a, sum)
    }
  const at = new Float64Array(points * dimensions)
  for (const [c, { direction, strength }] of strongest(products, dimensions).entries()) {
    // Columns of pivots stand for all points: as long as the ways are, not as their squares.
    const by = (points / k) ** 0.25 / Math.max(strength, 1e-12) ** 0.25
    for (let i = 0; i < points; i++) {
      let sum = 0
      for (let j = 0; j < k; j++) sum += (m[i * k + j] as number) * (direction[j] as number)
      at[i * dimensions + c] = sum * by
    }
  }
  return at
}

/** The directions in which a symmetric matrix is strongest. */
function strongest(
  matrix: Matrix,
  count: number,
): readonly { readonly direction: readonly number[]; readonly strength: number }[] {
  const { realEigenvalues, eigenvectorMatrix } = new EigenvalueDecomposition(matrix, { assumeSymmetric: true })
  return realEigenvalues
    .map((value, i) => ({ value, i }))
    .sort((a, b) => b.value - a.value)
    .slice(0, count)
    .map(({ value, i }) => ({ direction: eigenvectorMatrix.getColumn(i), strength: value }))
}

/** As large as the ways say, on the whole. */
function scaledToWays(at: Float64Array, far: readonly Pivot[]): Float64Array {
  let [wanted, found] = [0, 0]
  for (const { from, ways } of far)
    for (let i = 0; i < ways.length; i++) {
      wanted += ways[i] as number
      found += apart(at, from, i)
    }
  const by = found > 1e-9 ? wanted / found : 1
  for (let i = 0; i < at.length; i++) at[i] = (at[i] as number) * by
  return at
}

const apart = (at: Float64Array, a: number, b: number): Mm =>
  Math.sqrt(
    ((at[3 * a] as number) - (at[3 * b] as number)) ** 2 +
      ((at[3 * a + 1] as number) - (at[3 * b + 1] as number)) ** 2 +
      ((at[3 * a + 2] as number) - (at[3 * b + 2] as number)) ** 2,
  )

interface Terms {
  /** Two points each, and how far apart they ought to be. */
  readonly pairs: Int32Array
  readonly mm: Float64Array
}

/** Each point with what is near it, and each pivot with all, in an order that mixes them. */
function termsOf(graph: Graph, far: readonly Pivot[]): Terms {
  const pairs: number[] = []
  const mm: number[] = []
  const walk = new Ways(graph)
  for (let i = 0; i < graph.points; i++) {
    walk.from(i, nearMm)
    for (const j of walk.reached)
      if (j > i) {
        pairs.push(i, j)
        mm.push(walk.mm[j] as number)
      }
  }
  for (const { from, ways } of far)
    for (let j = 0; j < ways.length; j++)
      if (j !== from) {
        pairs.push(from, j)
        mm.push(ways[j] as number)
      }
  const terms = { pairs: Int32Array.from(pairs), mm: Float64Array.from(mm, (each) => Math.max(each, least)) }
  mix(terms)
  return terms
}

function mix({ pairs, mm }: Terms): void {
  let seed = 1
  for (let i = mm.length - 1; i > 0; i--) {
    seed = (Math.imul(seed, 1664525) + 1013904223) >>> 0
    const j = Math.floor((seed / 4294967296) * (i + 1))
    for (const [column, a, b] of [
      [mm, i, j],
      [pairs, 2 * i, 2 * j],
      [pairs, 2 * i + 1, 2 * j + 1],
    ] as const) {
      const kept = column[a] as number
      column[a] = column[b] as number
      column[b] = kept
    }
  }
}

/** Each pair of points is drawn together or driven apart, one after the other, again and again. */
function majorize(at: Float64Array, { pairs, mm }: Terms, held: readonly Held[] = []): void {
  const weights = mm.map((wanted) => 1 / wanted ** 2)
  const heaviest = weights.reduce((most, weight) => Math.max(most, weight), 0)
  // No farther than what is near, so that what is laid out well is not thrown about.
  const first = (nearMm / 2) ** 2
  const last = 0.1 / heaviest
  const kernel = new Kernel({ at, terms: pairs, wanted: mm, termWeights: weights })
  for (let sweep = 0; sweep < sweeps; sweep++) {
    kernel.loops.sweep(mm.length, first * (last / first) ** (sweep / (sweeps - 1)), nearMm, slack)
    for (const each of held) lay(kernel.floats('at'), each)
  }
  at.set(kernel.floats('at'))
  kernel.release()
}

/** Moves and turns the held points, as they lie to each other, to where they have come to lie on the whole. */
function lay(at: Float64Array, held: Held): void {
  const { from, to, turn } = fitOf(at, held)
  for (const [k, point] of held.points.entries()) {
    const local = [0, 1, 2].map((c) => (held.places[3 * k + c] as number) - (from[c] as number))
    for (let c = 0; c < 3; c++) at[3 * point + c] = (to[c] as number) + dotRow(turn, c, local)
  }
}

const dotRow = (turn: Matrix, row: number, v: readonly number[]) =>
  turn.get(row, 0) * (v[0] as number) + turn.get(row, 1) * (v[1] as number) + turn.get(row, 2) * (v[2] as number)

export interface Fit {
  /** The middles before and after. */
  readonly from: readonly number[]
  readonly to: readonly number[]
  readonly turn: Matrix
}

/** Where a point comes to lie by a fit. */
export const carried = ({ from, to, turn }: Fit, v: readonly number[]): number[] =>
  [0, 1, 2].map(
    (c) =>
      (to[c] as number) +
      dotRow(
        turn,
        c,
        v.map((each, k) => each - (from[k] as number)),
      ),
  )

/** Which way something points by a fit. */
export const turnedBy = ({ turn }: Fit, v: readonly number[]): number[] => [0, 1, 2].map((c) => dotRow(turn, c, v))

/** The turn that lays a held set over where its points lie now, best in the least squares (Kabsch 1976). */
export function fitOf(at: Float64Array, held: Held): Fit {
  const { covariance, from, to } = covarianceOf(at, held)
  return { from, to, turn: rotationOf(covariance) }
}

function covarianceOf(at: Float64Array, { points, places }: Held) {
  const from = [0, 0, 0]
  const to = [0, 0, 0]
  for (const [k, point] of points.entries())
    for (let c = 0; c < 3; c++) {
      from[c] = (from[c] as number) + (places[3 * k + c] as number) / points.length
      to[c] = (to[c] as number) + (at[3 * point + c] as number) / points.length
    }
  const covariance = Matrix.zeros(3, 3)
  for (const [k, point] of points.entries())
    for (let a = 0; a < 3; a++)
      for (let b = 0; b < 3; b++)
        covariance.set(
          a,
          b,
          covariance.get(a, b) +
            ((at[3 * point + a] as number) - (to[a] as number)) * ((places[3 * k + b] as number) - (from[b] as number)),
        )
  return { covariance, from, to }
}

function rotationOf(covariance: Matrix): Matrix {
  const { leftSingularVectors: u, rightSingularVectors: v } = new SingularValueDecomposition(covariance)
  const turn = u.mmul(v.transpose())
  return determinant(turn) > 0 ? turn : u.mmul(Matrix.diag([1, 1, -1])).mmul(v.transpose())
}

/** The points lie as in a mirror to how they are held. */
const mirrored = (at: Float64Array, held: Held): boolean => determinant(covarianceOf(at, held).covariance) < 0
