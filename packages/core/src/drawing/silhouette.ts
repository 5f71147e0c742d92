/** A body as it is seen: its outline and the lines on it, flat on the page, the hole to the right. */
import type { Mm } from '../measure/units'
import type { Body, FlatBody, TurnedBody } from './body'

type Point = readonly [x: Mm, y: Mm]
type Way = readonly [x: number, y: number, near: number]

export interface Silhouette {
  /** Closed. */
  readonly outline: readonly Point[]
  readonly lines: readonly (readonly Point[])[]
  /** Mouths of its holes that are turned toward the eye. */
  readonly mouths: readonly { readonly at: Point; readonly rx: Mm; readonly ry: Mm }[]
}

const round = 24

/**
 * @param along the way of the hole as seen: to the right, up, toward the eye; length 1
 * @param wide the way across the holes, square to it; of a turned body any
 */
export function silhouetteOf(body: Body, boreMm: Mm, along: Way, wide: Way): Silhouette {
  return body.type === 'turned' ? turnedSeen(body, boreMm, along) : flatSeen(body, boreMm, along, wide)
}

function turnedSeen({ profile, edges, facets }: TurnedBody, boreMm: Mm, [ax, ay, near]: Way): Silhouette {
  const flat = Math.hypot(ax, ay)
  // Across on the page, and toward the eye; both square to the hole.
  const [dx, dy] = flat > 1e-6 ? [ax / flat, ay / flat] : [1, 0]
  const at = (x: Mm, r: Mm, angle: number): Point => {
    const out = r * Math.sin(angle)
    const [right, up] = [x * flat - out * near, r * Math.cos(angle)]
    return [right * dx - up * dy, right * dy + up * dx]
  }
  const points = profile.flatMap(([x, r]) =>
    Array.from({ length: round }, (_, k) => at(x, r, (2 * Math.PI * k) / round)),
  )
  /** Whether the surface faces the eye where it goes on from one place of the profile to the next. */
  const faces = (i: number, angle: number): boolean => {
    const [from, to] = [profile[i], profile[i + 1]]
    if (!from || !to) return false
    const [rise, run] = [to[1] - from[1], to[0] - from[0]]
    return -rise * near + run * Math.sin(angle) * flat > 1e-9
  }
  const lines: Point[][] = []
  for (const edge of edges) {
    const [x, r] = profile[edge] as readonly [Mm, Mm]
    let line: Point[] = []
    for (let k = 0; k <= 2 * round; k++) {
      const angle = (Math.PI * k) / round - Math.PI / 2
      if (faces(edge - 1, angle) || faces(edge, angle)) line.push(at(x, r, angle))
      else {
        if (line.length > 1) lines.push(line)
        line = []
      }
    }
    if (line.length > 1) lines.push(line)
  }
  for (let k = 0; k < facets; k++) {
    const angle = (2 * Math.PI * (k + 0.5)) / facets
    for (let i = 0; i + 1 < profile.length; i++) {
      if (!faces(i, angle)) continue
      const [from, to] = [profile[i], profile[i + 1]] as [readonly [Mm, Mm], readonly [Mm, Mm]]
      lines.push([at(from[0], from[1], angle), at(to[0], to[1], angle)])
    }
  }
  const end = profile[profile.length - 1] as readonly [Mm, Mm]
  const mouths =
    Math.abs(near) > 0.35
      ? [{ at: at(Math.sign(near) * end[0], 0, 0), rx: (Math.abs(near) * boreMm) / 2, ry: boreMm / 2 }]
      : []
  return { outline: hull(points), lines, mouths }
}

function flatSeen({ outline, thick, sharp, holes }: FlatBody, boreMm: Mm, along: Way, wide: Way): Silhouette {
  const through: Way = [
    along[1] * wide[2] - along[2] * wide[1],
    along[2] * wide[0] - along[0] * wide[2],
    along[0] * wide[1] - along[1] * wide[0],
  ]
  const toward = through[2] < 0 ? -1 : 1
  const at = (a: Mm, w: Mm, t: Mm): Point => [
    a * along[0] + w * wide[0] + t * through[0],
    a * along[1] + w * wide[1] + t * through[1],
  ]
  // A soft edge is rounded over: its faces are smaller than its middle.
  const face = sharp ? 1 : 0.72
  const levels: readonly (readonly [Mm, number])[] = sharp
    ? [
        [-thick / 2, 1],
        [thick / 2, 1],
      ]
    : [
        [-thick / 2, face],
        [0, 1],
        [thick / 2, face],
      ]
  const points = levels.flatMap(([t, share]) => outline.map(([a, w]) => at(a * share, w * share, t)))
  const lines: Point[][] = []
  if (sharp && Math.abs(through[2]) < 0.97) {
    const rim = outline.map(([a, w]) => at(a, w, (toward * thick) / 2))
    lines.push([...rim, rim[0] as Point])
  }
  const length = Math.max(...outline.map(([a]) => a))
  const ahead = along[2] < 0 ? -1 : 1
  if (Math.abs(along[2]) < 0.6) {
    // Seen from the side, a hole shows as a short line at each end of it.
    const [from, to, up] = sharp ? [0.62, 0.9, thick / 2] : [0.35, 0.6, thick / 4]
    if (holes.length > 1)
      for (const w of holes)
        for (const end of [-1, 1])
          lines.push([at(end * length * from, w, toward * up), at(end * length * to, w, toward * up)])
    return { outline: hull(points), lines, mouths: [] }
  }
  const mouths = holes.map((w) => ({ at: at(ahead * length, w, 0), rx: boreMm / 2, ry: boreMm / 2 }))
  return { outline: hull(points), lines, mouths }
}

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
