/** Stones and rings that beads lie against: solids that push out. */
import type { Stone, StoneProfile } from '../catalogue/stone'
import type { Mm } from '../measure/units'
import { outlineOf } from '../sizing/outline'

export interface Solid {
  /** Its middle, the way toward its front, and the way to its right; moved as the piece settles. */
  readonly at: Float64Array
  readonly front: Float64Array
  readonly right: Float64Array
  /** Points of the piece that rest on it, and where: x, y, z of each in its own directions. */
  rests: Int32Array
  places: Float64Array
  /** What it is, in full: two that say the same are the same. */
  readonly described: string
  /** It has no top of its own. */
  readonly round: boolean
  /** Nothing of it lies farther than this from its middle. */
  readonly reachMm: Mm
  readonly wideMm: Mm
  /** From its middle to its outline where that is nearest. */
  readonly narrowMm: Mm
  readonly frontMm: Mm
  readonly backMm: Mm
  /**
   * How far outside a point lies (negative inside), with the way out in `normal`. Coordinates from the solid's middle. Near the
   * surface it is the distance to first order, which is where it is used.
   */
  distance(x: Mm, y: Mm, z: Mm, normal: Float64Array): Mm
  /** How far it reaches in a direction of length 1, to its right, up and to its front. */
  reaches(x: number, y: number, z: number): Mm
}

/** How a stone rises from its widest line: the share of its height on either side, and the exponent of its curve. */
const profiles = {
  flat: { front: { share: 0.5, power: 5 }, back: { share: 0.5, power: 5 } },
  domed: { front: { share: 0.75, power: 2 }, back: { share: 0.25, power: 5 } },
  pointed: { front: { share: 0.4, power: 3 }, back: { share: 0.6, power: 1.4 } },
  bead: { front: { share: 0.5, power: 2 }, back: { share: 0.5, power: 2 } },
} as const

export const stoneFaces = (stone: Stone): { readonly front: Mm; readonly back: Mm } => ({
  front: stone.heightMm * profiles[stone.profile].front.share,
  back: stone.heightMm * profiles[stone.profile].back.share,
})

/**
 * How much of its outline a stone keeps, from its widest line (0) to its front face (1) or its back (-1).
 *
 * @param level -1 to 1, a share of the height on that side
 */
export function outlineShare(profile: StoneProfile, level: number): number {
  const { power } = profiles[profile][level >= 0 ? 'front' : 'back']
  return (1 - Math.min(1, Math.abs(level)) ** power) ** (1 / power)
}

/** The same at a height above its widest line, or below it; 0 beyond its faces. */
export function stoneShareAt(stone: Stone, height: Mm): number {
  const faces = stoneFaces(stone)
  return outlineShare(stone.profile, height / (height >= 0 ? faces.front : faces.back))
}

const directions = 1440

/** Radius of a stone's outline by direction, counted anticlockwise from the right; 1,440 steps. */
export function radiiOf(stone: Stone): Float64Array {
  const outline = outlineOf(stone.outline)
  const radii = new Float64Array(directions)
  const steps = directions * 4
  const step = (2 * Math.PI) / directions
  const place = (i: number) => {
    const { x, y } = outline(i / steps)
    return { angle: Math.atan2(y, x), radius: Math.hypot(x, y) }
  }
  let last = place(0)
  for (let i = 1; i <= steps; i++) {
    const next = place(i % steps)
    const by = Math.atan2(Math.sin(next.angle - last.angle), Math.cos(next.angle - last.angle))
    const [from, to] = by >= 0 ? [last, next] : [next, last]
    // Every direction between the two.
    for (let k = Math.ceil(from.angle / step); k * step <= from.angle + Math.abs(by); k++) {
      const share = by === 0 ? 0 : (k * step - from.angle) / Math.abs(by)
      radii[((k % directions) + directions) % directions] = from.radius * (1 - share) + to.radius * share
    }
    last = next
  }
  return radii
}

/** Smoothly between the directions known (Catmull-Rom), so that nothing that slides along an outline catches on a step of it. */
export const radiusToward = (radii: Float64Array, x: number, y: number): Mm => between(radii, directionOf(x, y))

/** In steps, from 0. */
const directionOf = (x: number, y: number): number => ((Math.atan2(y, x) + 2 * Math.PI) / (2 * Math.PI)) * directions

function between(known: Float64Array, direction: number): number {
  const low = Math.floor(direction)
  const t = direction - low
  const a = known[(low + directions - 1) % directions] as number
  const b = known[low % directions] as number
  const c = known[(low + 1) % directions] as number
  const d = known[(low + 2) % directions] as number
  return b + (t / 2) * (c - a + t * (2 * a - 5 * b + 4 * c - d + t * (3 * (b - c) + d - a)))
}

const placed = () => ({
  at: new Float64Array(3),
  front: Float64Array.of(0, 0, 1),
  right: Float64Array.of(1, 0, 0),
  rests: new Int32Array(0),
  places: new Float64Array(0),
})

/** A stone that lies with its widest line at its middle's height. */
export function stoneSolid(stone: Stone): Solid {
  const radii = radiiOf(stone)
  const profile = profiles[stone.profile]
  const faces = stoneFaces(stone)
  const step = (2 * Math.PI) / directions
  const slopes = radii.map(
    (_, at) =>
      ((radii[(at + 1) % directions] as number) - (radii[(at + directions - 1) % directions] as number)) / (2 * step),
  )
  const widest = radii.reduce((most, each) => Math.max(most, each), 0)
  const reachMm = Math.max(widest, stone.heightMm)
  const round = stone.outline.shape === 'round'
  return {
    ...placed(),
    described: JSON.stringify(stone),
    round,
    reachMm,
    wideMm: 2 * widest,
    narrowMm: radii.reduce((least, each) => Math.min(least, each), widest),
    frontMm: faces.front,
    backMm: faces.back,
    distance(px, py, pz, normal) {
      const r = Math.max(Math.sqrt(px * px + py * py), 1e-9)
      const direction = round ? 0 : directionOf(px, py)
      const radius = round ? widest : between(radii, direction)
      const slope = round ? 0 : between(slopes, direction)
      const { power } = pz >= 0 ? profile.front : profile.back
      const half = pz >= 0 ? faces.front : faces.back
      const g = Math.max(r / radius, 1e-6)
      const h = Math.abs(pz) / half
      // Powers are dear, and these are all that it takes.
      const gToPower = g ** power
      const hToPower = h ** power
      const sum = gToPower + hToPower
      const f = sum ** (1 / power)
      const cos = px / r
      const sin = py / r
      const lateral = ((f / sum) * gToPower) / g / radius
      const bend = slope / radius
      const nx = lateral * (cos + bend * sin)
      const ny = lateral * (sin - bend * cos)
      const nz = h > 0 ? (((f / sum) * hToPower) / h / half) * Math.sign(pz) : 0
      const steep = Math.sqrt(nx * nx + ny * ny + nz * nz)
      normal[0] = nx / steep
      normal[1] = ny / steep
      normal[2] = nz / steep
      return (f - 1) / steep
    },
    reaches(x, y, z) {
      const lateral = radii.reduce(
        (most, radius, k) => Math.max(most, radius * (x * Math.cos(k * step) + y * Math.sin(k * step))),
        0,
      )
      const { power } = z >= 0 ? profile.front : profile.back
      const dual = power / (power - 1)
      return (lateral ** dual + (Math.abs(z) * (z >= 0 ? faces.front : faces.back)) ** dual) ** (1 / dual)
    },
  }
}

/** A wire ring of this outer radius, flat in the piece's plane. */
export function ringSolid(outerMm: Mm, wireMm: Mm): Solid {
  const wire = wireMm / 2
  const radius = outerMm - wire
  return {
    ...placed(),
    described: `ring ${outerMm} ${wireMm}`,
    round: true,
    reachMm: outerMm,
    wideMm: 2 * outerMm,
    narrowMm: outerMm,
    frontMm: wire,
    backMm: wire,
    distance(px, py, pz, normal) {
      const r = Math.max(Math.hypot(px, py), 1e-9)
      const away = Math.max(Math.hypot(r - radius, pz), 1e-9)
      normal[0] = ((r - radius) / away) * (px / r)
      normal[1] = ((r - radius) / away) * (py / r)
      normal[2] = pz / away
      return away - wire
    },
    reaches: (x, y) => radius * Math.hypot(x, y) + wire,
  }
}
