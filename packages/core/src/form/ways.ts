/** How far apart the points of a piece are along its bores and threads: a weighted graph and shortest ways in it. */
import FlatQueue from 'flatqueue'
import type { Mm } from '../measure/units'

/** Neighbours of point `i` are `to[starts[i] .. starts[i + 1]]`, `mm` away. */
export interface Graph {
  readonly points: number
  readonly starts: Int32Array
  readonly to: Int32Array
  readonly mm: Float64Array
}

/** @param edges point, point, mm: three numbers each */
export function graphOf(points: number, edges: readonly number[]): Graph {
  const starts = new Int32Array(points + 1)
  for (let e = 0; e < edges.length; e += 3)
    for (const end of [edges[e] as number, edges[e + 1] as number]) starts[end + 1] = (starts[end + 1] as number) + 1
  for (let i = 0; i < points; i++) starts[i + 1] = (starts[i + 1] as number) + (starts[i] as number)
  const next = Int32Array.from(starts)
  const to = new Int32Array((edges.length / 3) * 2)
  const mm = new Float64Array(to.length)
  for (let e = 0; e < edges.length; e += 3) {
    const [a, b, length] = [edges[e] as number, edges[e + 1] as number, edges[e + 2] as number]
    for (const [from, other] of [
      [a, b],
      [b, a],
    ] as const) {
      const at = next[from] as number
      next[from] = at + 1
      to[at] = other
      mm[at] = length
    }
  }
  return { points, starts, to, mm }
}

/** Shortest ways, one start after the other; the columns it works on are made once. */
export class Ways {
  /** By point, from the last start: Infinity where the walk has not come. */
  readonly mm: Float64Array
  /** The points that the last walk has come to, nearest first. */
  readonly reached: number[] = []
  private readonly queue = new FlatQueue<number>()

  constructor(private readonly graph: Graph) {
    this.mm = new Float64Array(graph.points).fill(Number.POSITIVE_INFINITY)
  }

  /** Dijkstra's walk, as far as `most`. */
  from(start: number, most: Mm = Number.POSITIVE_INFINITY): void {
    const { graph, mm, queue, reached } = this
    for (const point of reached) mm[point] = Number.POSITIVE_INFINITY
    reached.length = 0
    mm[start] = 0
    queue.push(start, 0)
    while (queue.length > 0) {
      const way = queue.peekValue() as number
      const point = queue.pop() as number
      if (way > (mm[point] as number)) continue
      reached.push(point)
      for (let e = graph.starts[point] as number; e < (graph.starts[point + 1] as number); e++) {
        const other = graph.to[e] as number
        const further = way + (graph.mm[e] as number)
        if (further >= (mm[other] as number) || further > most) continue
        mm[other] = further
        queue.push(other, further)
      }
    }
  }
}

/** Points that hang together, each set in order. */
export function components(graph: Graph): number[][] {
  const seen = new Uint8Array(graph.points)
  const found: number[][] = []
  for (let first = 0; first < graph.points; first++) {
    if (seen[first]) continue
    const set = [first]
    seen[first] = 1
    for (let k = 0; k < set.length; k++) {
      const point = set[k] as number
      for (let e = graph.starts[point] as number; e < (graph.starts[point + 1] as number); e++) {
        const other = graph.to[e] as number
        if (seen[other]) continue
        seen[other] = 1
        set.push(other)
      }
    }
    found.push(set.sort((a, b) => a - b))
  }
  return found
}
