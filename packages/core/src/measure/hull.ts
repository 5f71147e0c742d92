import type { Mm } from './units'

type Point = readonly [x: Mm, y: Mm]

/** The convex outline of points, by a monotone chain. */
export function hull(points: readonly Point[]): Point[] {
  const sorted = [...points].sort((a, b) => a[0] - b[0] || a[1] - b[1])
  const half = (all: readonly Point[]) => {
    const chain: Point[] = []
    for (const point of all) {
      for (;;) {
        const [a, b] = [chain[chain.length - 2], chain[chain.length - 1]]
        if (!a || !b || (b[0] - a[0]) * (point[1] - a[1]) - (b[1] - a[1]) * (point[0] - a[0]) > 1e-4) break
        chain.pop()
      }
      chain.push(point)
    }
    return chain.slice(0, -1)
  }
  return [...half(sorted), ...half([...sorted].reverse())]
}
