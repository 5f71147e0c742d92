/** A body as it is seen: its outline and the lines on it, flat on the page, the hole to the right. */
import { hull } from '../measure/hull'
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
  if (body.type === 'flat') return flatSeen(body, boreMm, along, wide)
  if (body.about === 'hole') {
    const { outline, lines } = turnedSeen(body, along)
    const holes = body.crossed ? [along, wide] : [along]
    return {
      outline,
      lines: body.crossed ? [...lines, ...holes.flatMap((way) => endsOf(body, way))] : lines,
      mouths: holes.flatMap((way) => mouthsOf(body, boreMm, way)),
    }
  }
  const seen = turnedSeen(body, wide)
  return { ...seen, ...holeAcross(body, boreMm, along, wide) }
}

/** A short line at each end of a hole right through that is seen from the side. */
function endsOf({ profile }: TurnedBody, [x, y, near]: Way): Point[][] {
  if (Math.abs(near) > 0.6) return []
  const half = (profile[profile.length - 1] as readonly [Mm, Mm])[0]
  return [-1, 1].map((end) => [0.6, 0.9].map((share): Point => [end * share * half * x, end * share * half * y]))
}

/** The hole of a body that is turned across it: its mouth, or a line at each end of it where it is seen from the side. */
function holeAcross(
  { profile, holeAt = 0 }: TurnedBody,
  boreMm: Mm,
  along: Way,
  wide: Way,
): Pick<Silhouette, 'lines' | 'mouths'> {
  const next = Math.max(
    1,
    profile.findIndex(([at]) => at >= holeAt),
  )
  const [from, to] = [profile[next - 1], profile[next]] as [readonly [Mm, Mm], readonly [Mm, Mm]]
  const half = from[1] + ((to[1] - from[1]) * (holeAt - from[0])) / (to[0] - from[0])
  const at = (out: Mm): Point => [out * along[0] + holeAt * wide[0], out * along[1] + holeAt * wide[1]]
  if (Math.abs(along[2]) < 0.6)
    return { lines: [-1, 1].map((end) => [at(end * half * 0.55), at(end * half * 0.9)]), mouths: [] }
  const toward = along[2] < 0 ? -1 : 1
  return { lines: [], mouths: [{ at: at(toward * half * 0.9), rx: boreMm / 2, ry: boreMm / 2 }] }
}

/** The mouths of a hole right through, where it is turned toward the eye. */
function mouthsOf({ profile }: TurnedBody, boreMm: Mm, [x, y, near]: Way): Silhouette['mouths'] {
  if (Math.abs(near) <= 0.35) return []
  const end = (profile[profile.length - 1] as readonly [Mm, Mm])[0] * Math.sign(near)
  return [{ at: [end * x, end * y], rx: (Math.abs(near) * boreMm) / 2, ry: boreMm / 2 }]
}

function turnedSeen({ profile, edges, facets }: TurnedBody, [ax, ay, near]: Way): Omit<Silhouette, 'mouths'> {
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
  return { outline: hull(points), lines }
}

function flatSeen({ outline, parts, thick, sharp, holes }: FlatBody, boreMm: Mm, along: Way, wide: Way): Silhouette {
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
  /** From one end of a hole, -1, to the other, 1. */
  const inHole = ({ wide, halfLength }: FlatBody['holes'][number], share: number, t: Mm) =>
    at(share * halfLength, wide, t)
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
  const solid = (of: FlatBody['outline']) =>
    hull(levels.flatMap(([t, share]) => of.map(([a, w]) => at(a * share, w * share, t))))
  const seen = parts ? around(parts.map(solid)) : solid(outline)
  const lines: Point[][] = []
  if (sharp && Math.abs(through[2]) < 0.97) {
    const rim = outline.map(([a, w]) => at(a, w, (toward * thick) / 2))
    lines.push([...rim, rim[0] as Point])
  }
  const ahead = along[2] < 0 ? -1 : 1
  if (Math.abs(along[2]) < 0.6) {
    // Seen from the side, a hole shows as a short line at each end of it.
    const [from, to, up] = sharp ? [0.62, 0.9, thick / 2] : [0.35, 0.6, thick / 4]
    if (holes.length > 1 || parts)
      for (const hole of holes)
        for (const end of [-1, 1])
          lines.push([inHole(hole, end * from, toward * up), inHole(hole, end * to, toward * up)])
    return { outline: seen, lines, mouths: [] }
  }
  const mouths = holes.map((hole) => ({ at: inHole(hole, ahead, 0), rx: boreMm / 2, ry: boreMm / 2 }))
  return { outline: seen, lines, mouths }
}

/** The outline of convex parts together, which all of it can be seen from the middle of: their corners that lie on it, one way round. */
function around(parts: readonly (readonly Point[])[]): Point[] {
  const farthest = (x: number, y: number) => parts.reduce((most, part) => Math.max(most, leaves(part, x, y)), 0)
  return parts
    .flat()
    .filter(([x, y]) => farthest(x, y) <= 1 + 1e-6)
    .map((point) => ({ point, angle: Math.atan2(point[1], point[0]) }))
    .sort((a, b) => a.angle - b.angle)
    .map(({ point }) => point)
}

/** Where a ray from the middle leaves a convex outline, as a share of x, y; 0 where it does not meet it. */
function leaves(outline: readonly Point[], x: number, y: number): number {
  let farthest = 0
  for (const [i, [ax, ay]] of outline.entries()) {
    const [bx, by] = outline[(i + 1) % outline.length] as Point
    const [ex, ey] = [bx - ax, by - ay]
    const across = x * ey - y * ex
    if (Math.abs(across) < 1e-12) continue
    const out = (ax * ey - ay * ex) / across
    const share = (ax * y - ay * x) / across
    if (share >= -1e-9 && share <= 1 + 1e-9) farthest = Math.max(farthest, out)
  }
  return farthest
}
