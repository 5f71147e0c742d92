/** Beads and stones that push each other apart where they are nearer than they reach. */
import type { Mm } from '../../measure/units'
import type { Piece } from '../piece'
import { type Frame, type Lobe, pointsOfFrame, reachSteps, type Shape } from '../shape'
import type { Solid } from '../solid'
import { type Centres, centresOf, Pairs } from './pairs'

/** A step for differences. */
const tiny: Mm = 1e-6

/** Given: a direction; how far the other bead lies across, 0 along and 1 at a right angle; one over how far apart; and a force. */
const wayX = 0
const wayY = 1
const wayZ = 2
const acrossOther = 3
const overApart = 4
const pushing = 5

/** Left: the reach, how it changes with the cosines to the hole and across the bores, and what it gains toward a bead that lies quite across. */
const reached = 0
const slopeAlong = 1
const slopeWide = 2
const gain = 3

/** Two beads that are nearer than they reach. */
export interface Press {
  readonly a: number
  readonly b: number
  readonly overMm: Mm
}

export class Presses {
  private readonly centres: Centres
  private readonly pairs: Pairs
  /** x, y, z of each contact centre, and what pushes it. */
  private readonly middle: Float64Array
  private readonly push: Float64Array
  /** The way of the hole at each centre, and what turns it. */
  private readonly along: Float64Array
  private readonly turn: Float64Array
  /** The same of the wide way across, of beads with a frame. */
  private readonly wide: Float64Array
  private readonly wideTurn: Float64Array
  private readonly framed: Uint8Array
  private readonly shapes: readonly Shape[]
  private readonly lobes: readonly (Lobe | undefined)[]
  private readonly carriers: ReadonlyMap<Frame, Carrier>
  /** The way out of a solid. */
  private readonly normal = new Float64Array(3)
  /**
   * What `reach` and `lean` are given and what `reach` leaves, by the names above: a figure that is handed to a function or answered by it is
   * put on the heap, millions of times a piece.
   */
  private readonly given = new Float64Array(6)
  private readonly left = new Float64Array(4)

  constructor(private readonly piece: Piece) {
    this.centres = centresOf(piece)
    this.pairs = new Pairs(this.centres)
    const { count, bead } = this.centres
    const column = () => new Float64Array(count * 3)
    this.middle = column()
    this.push = column()
    this.along = column()
    this.turn = column()
    this.wide = column()
    this.wideTurn = column()
    this.shapes = Array.from(bead, (each) => piece.shapes[piece.shapeOf[each] as number] as Shape)
    this.framed = Uint8Array.from(this.shapes, ({ frame }) => (frame ? 1 : 0))
    this.lobes = this.shapes.map(({ frame }, i) => frame?.lobes[this.centres.lobe[i] as number])
    this.carriers = new Map(piece.shapes.flatMap(({ frame }) => (frame ? [[frame, carrierOf(frame)] as const] : [])))
  }

  /**
   * Adds the slope to `onPoints` and `onSolids` and answers the energy.
   *
   * @param stiffness how hard beads are, in millimetres of thread for a square millimetre of press
   */
  evaluate(stiffness: number, onPoints: Float64Array, onSolids: Float64Array): number {
    this.follow()
    this.push.fill(0)
    this.turn.fill(0)
    this.wideTurn.fill(0)
    const energy = this.pressBeads(stiffness) + this.pressSolids(stiffness, onSolids)
    this.toPoints(onPoints)
    return energy
  }

  /**
   * Beads that are nearer than they reach, and by how much.
   *
   * @param nearMm those that come so near, too; they are over by less than nought
   */
  pressed(nearMm: Mm): Press[] {
    const { pairs, middle, along, given, left } = this
    const { bead } = this.centres
    this.follow()
    const found: Press[] = []
    for (let k = 0; k < pairs.count; k++) {
      const i = pairs.list[2 * k] as number
      const j = pairs.list[2 * k + 1] as number
      const dx = (middle[3 * j] as number) - (middle[3 * i] as number)
      const dy = (middle[3 * j + 1] as number) - (middle[3 * i + 1] as number)
      const dz = (middle[3 * j + 2] as number) - (middle[3 * i + 2] as number)
      const apart = Math.max(Math.sqrt(dx * dx + dy * dy + dz * dz), 1e-9)
      const dot = dotAt(along, 3 * i, 3 * j)
      given[wayX] = dx / apart
      given[wayY] = dy / apart
      given[wayZ] = dz / apart
      given[acrossOther] = 1 - dot * dot
      this.reach(i)
      const first = left[reached] as Mm
      this.reach(j)
      const overMm = first + (left[reached] as Mm) - apart
      if (overMm > -nearMm) found.push({ a: bead[i] as number, b: bead[j] as number, overMm })
    }
    return found
  }

  /** The contact centres, from the points. */
  private follow(): void {
    const { middle, along, wide, framed, centres, shapes } = this
    const { at, lengths } = this.piece
    for (let i = 0; i < centres.count; i++) {
      const rod = centres.rod[i] as number
      const p = 6 * rod
      const n = 3 * i
      const by = 1 / (lengths[rod] as number)
      if (framed[i]) {
        const frame = (shapes[i] as Shape).frame as Frame
        const lobe = this.lobes[i] as Lobe
        const { toAlong, toWide } = this.carriers.get(frame) as Carrier
        for (let c = 0; c < 3; c++) {
          let [middleAt, alongAt, wideAt] = [0, 0, 0]
          for (let k = 0; k < pointsOfFrame; k++) {
            const x = at[p + 3 * k + c] as number
            middleAt += x
            alongAt += (toAlong[k] as number) * x
            wideAt += (toWide[k] as number) * x
          }
          middle[n + c] = middleAt / pointsOfFrame + lobe.along * alongAt + lobe.wide * wideAt
          along[n + c] = alongAt
          wide[n + c] = wideAt
        }
        continue
      }
      const t = centres.share[i] as number
      for (let c = 0; c < 3; c++) {
        const a = at[p + c] as number
        const b = at[p + 3 + c] as number
        middle[n + c] = a + (b - a) * t
        along[n + c] = (b - a) * by
      }
    }
    this.pairs.follow(middle)
  }

  private pressBeads(stiffness: number): number {
    const { middle, push, pairs, along, turn, given, left } = this
    const { farthest } = this.centres
    const { list, count } = pairs
    let energy = 0
    for (let k = 0; k < count; k++) {
      const i = list[2 * k] as number
      const j = list[2 * k + 1] as number
      const a = 3 * i
      const b = 3 * j
      const dx = (middle[b] as number) - (middle[a] as number)
      const dy = (middle[b + 1] as number) - (middle[a + 1] as number)
      const dz = (middle[b + 2] as number) - (middle[a + 2] as number)
      const squared = dx * dx + dy * dy + dz * dz
      const most = (farthest[i] as number) + (farthest[j] as number)
      if (squared >= most * most) continue
      const apart = Math.sqrt(squared)
      const by = apart > 1e-9 ? 1 / apart : 0
      const ux = dx * by
      const uy = dy * by
      const uz = by > 0 ? dz * by : 1
      const dot = dotAt(along, a, b)
      given[wayX] = ux
      given[wayY] = uy
      given[wayZ] = uz
      given[acrossOther] = 1 - dot * dot
      this.reach(i)
      const first = left[reached] as Mm
      const firstAlong = left[slopeAlong] as number
      const firstWide = left[slopeWide] as number
      const firstGain = left[gain] as number
      this.reach(j)
      const over = first + (left[reached] as Mm) - apart
      if (over <= 0) continue
      energy += over * over
      const force = stiffness * over
      given[overApart] = by
      given[pushing] = force * firstAlong
      if (firstAlong !== 0) this.lean(along, turn, a, a, b)
      given[pushing] = force * firstWide
      if (firstWide !== 0) this.lean(this.wide, this.wideTurn, a, a, b)
      given[pushing] = force * (left[slopeAlong] as number)
      if (left[slopeAlong] !== 0) this.lean(along, turn, b, a, b)
      given[pushing] = force * (left[slopeWide] as number)
      if (left[slopeWide] !== 0) this.lean(this.wide, this.wideTurn, b, a, b)
      const twist = -2 * dot * force * (firstGain + (left[gain] as number))
      if (twist !== 0)
        for (let c = 0; c < 3; c++) {
          turn[a + c] = (turn[a + c] as number) + twist * (along[b + c] as number)
          turn[b + c] = (turn[b + c] as number) + twist * (along[a + c] as number)
        }
      push[a] = (push[a] as number) + ux * force
      push[a + 1] = (push[a + 1] as number) + uy * force
      push[a + 2] = (push[a + 2] as number) + uz * force
      push[b] = (push[b] as number) - ux * force
      push[b + 1] = (push[b + 1] as number) - uy * force
      push[b + 2] = (push[b + 2] as number) - uz * force
    }
    return (energy * stiffness) / 2
  }

  /** A reach that changes with its direction turns its bead, whose centre is at n, and moves both middles, at a and b, sideways. */
  private lean(ways: Float64Array, turns: Float64Array, n: number, a: number, b: number): void {
    const { push, given } = this
    const ux = given[wayX] as number
    const uy = given[wayY] as number
    const uz = given[wayZ] as number
    const force = given[pushing] as number
    const ax = ways[n] as number
    const ay = ways[n + 1] as number
    const az = ways[n + 2] as number
    const c = ux * ax + uy * ay + uz * az
    turns[n] = (turns[n] as number) + force * ux
    turns[n + 1] = (turns[n + 1] as number) + force * uy
    turns[n + 2] = (turns[n + 2] as number) + force * uz
    const g = force * (given[overApart] as number)
    const sx = g * (ax - c * ux)
    const sy = g * (ay - c * uy)
    const sz = g * (az - c * uz)
    push[b] = (push[b] as number) + sx
    push[b + 1] = (push[b + 1] as number) + sy
    push[b + 2] = (push[b + 2] as number) + sz
    push[a] = (push[a] as number) - sx
    push[a + 1] = (push[a + 1] as number) - sy
    push[a + 2] = (push[a + 2] as number) - sz
  }

  /** How far a bead reaches from a contact centre in the direction that is given; what it finds is in `left`. */
  private reach(i: number): void {
    const { along, given, left } = this
    const n = 3 * i
    const c =
      (given[wayX] as number) * (along[n] as number) +
      (given[wayY] as number) * (along[n + 1] as number) +
      (given[wayZ] as number) * (along[n + 2] as number)
    if (this.framed[i]) {
      left[slopeAlong] = c
      this.reachOfLobe(i)
      return
    }
    const across = given[acrossOther] as number
    const { reach: table, crossing } = this.shapes[i] as Shape
    const step = Math.min(1, c * c) * reachSteps
    const low = step | 0
    const t = step - low
    // Hermite's cubic, so that the slope has no steps either.
    const from = table[2 * low] as number
    const rise = (table[2 * low + 2] as number) - from
    const first = table[2 * low + 1] as number
    const last = table[2 * low + 3] as number
    const second = 3 * rise - 2 * first - last
    const third = first + last - 2 * rise
    const beside = from + t * (first + t * (second + t * third))
    const slope = first + t * (2 * second + 3 * t * third)
    left[slopeWide] = 0
    if (across === 0 || crossing === undefined) {
      left[slopeAlong] = 2 * c * reachSteps * slope
      left[gain] = 0
      left[reached] = beside
      return
    }
    const from2 = crossing[2 * low] as number
    const rise2 = (crossing[2 * low + 2] as number) - from2
    const first2 = crossing[2 * low + 1] as number
    const last2 = crossing[2 * low + 3] as number
    const second2 = 3 * rise2 - 2 * first2 - last2
    const third2 = first2 + last2 - 2 * rise2
    const slope2 = first2 + t * (2 * second2 + 3 * t * third2)
    const more = from2 + t * (first2 + t * (second2 + t * third2)) - beside
    left[gain] = more
    left[slopeAlong] = 2 * c * reachSteps * (slope + (slope2 - slope) * across)
    left[reached] = beside + more * across
  }

  /** The same of a bead with a frame; the cosine to its hole is in `left` for its slope. */
  private reachOfLobe(i: number): void {
    const { wide, given, left } = this
    const { halfLength, halfWide, halfThick, contact: p } = this.lobes[i] as Lobe
    const n = 3 * i
    const c = left[slopeAlong] as number
    const w =
      (given[wayX] as number) * (wide[n] as number) +
      (given[wayY] as number) * (wide[n + 1] as number) +
      (given[wayZ] as number) * (wide[n + 2] as number)
    const t = Math.sqrt(Math.max(0, 1 - c * c - w * w))
    const fc = (Math.abs(c) / halfLength) ** p
    const fw = (Math.abs(w) / halfWide) ** p
    const ft = (t / halfThick) ** p
    const f = fc + fw + ft
    const reach = f ** (-1 / p)
    const share = -reach / f
    const thick = t > 1e-6 ? ft / (t * t) : 0
    left[reached] = reach
    left[gain] = 0
    left[slopeAlong] = share * ((Math.abs(c) > 1e-9 ? fc / c : 0) - thick * c)
    left[slopeWide] = share * ((Math.abs(w) > 1e-9 ? fw / w : 0) - thick * w)
  }

  /** Stones and rings push beads out, and are pushed. */
  private pressSolids(stiffness: number, onSolids: Float64Array): number {
    const { middle, push, normal, left } = this
    const { count, farthest } = this.centres
    let energy = 0
    for (const [k, solid] of this.piece.solids.entries()) {
      const { at, front, right } = solid
      const [fx, fy, fz] = [front[0] as number, front[1] as number, front[2] as number]
      const [rx, ry, rz] = [right[0] as number, right[1] as number, right[2] as number]
      const [vx, vy, vz] = [fy * rz - fz * ry, fz * rx - fx * rz, fx * ry - fy * rx]
      for (let i = 0; i < count; i++) {
        const n = 3 * i
        const dx = (middle[n] as number) - (at[0] as number)
        const dy = (middle[n + 1] as number) - (at[1] as number)
        const dz = (middle[n + 2] as number) - (at[2] as number)
        const far = 2 * (solid.reachMm + (farthest[i] as number))
        if (dx * dx + dy * dy + dz * dz > far * far) continue
        const x = dx * rx + dy * ry + dz * rz
        const y = dx * vx + dy * vy + dz * vz
        const z = dx * fx + dy * fy + dz * fz
        const over = this.overSolid(solid, i, x, y, z)
        if (over <= 0) continue
        const p = normal[0] as number
        const q = normal[1] as number
        const s = normal[2] as number
        const turn = stiffness * over * (left[slopeAlong] as number)
        this.turn[n] = (this.turn[n] as number) + turn * (p * rx + q * vx + s * fx)
        this.turn[n + 1] = (this.turn[n + 1] as number) + turn * (p * ry + q * vy + s * fy)
        this.turn[n + 2] = (this.turn[n + 2] as number) + turn * (p * rz + q * vz + s * fz)
        // How the press grows with the place is taken by differences, so that it is right for every outline.
        const gx = (over - this.overSolid(solid, i, x + tiny, y, z)) / tiny
        const gy = (over - this.overSolid(solid, i, x, y + tiny, z)) / tiny
        const gz = (over - this.overSolid(solid, i, x, y, z + tiny)) / tiny
        const force = stiffness * over
        energy += over * over
        const nx = force * (gx * rx + gy * vx + gz * fx)
        const ny = force * (gx * ry + gy * vy + gz * fy)
        const nz = force * (gx * rz + gy * vz + gz * fz)
        push[n] = (push[n] as number) - nx
        push[n + 1] = (push[n + 1] as number) - ny
        push[n + 2] = (push[n + 2] as number) - nz
        const o = 6 * k
        onSolids[o] = (onSolids[o] as number) + nx
        onSolids[o + 1] = (onSolids[o + 1] as number) + ny
        onSolids[o + 2] = (onSolids[o + 2] as number) + nz
        onSolids[o + 3] = (onSolids[o + 3] as number) + (dy * nz - dz * ny)
        onSolids[o + 4] = (onSolids[o + 4] as number) + (dz * nx - dx * nz)
        onSolids[o + 5] = (onSolids[o + 5] as number) + (dx * ny - dy * nx)
      }
    }
    return (energy * stiffness) / 2
  }

  /** How far a contact centre that lies here, in the solid's own directions, reaches into it; the way out is left in `normal`. */
  private overSolid(solid: Solid, i: number, x: Mm, y: Mm, z: Mm): Mm {
    const { normal, given } = this
    const { front, right } = solid
    const away = solid.distance(x, y, z, normal)
    const [p, q, s] = [normal[0] as number, normal[1] as number, normal[2] as number]
    const [fx, fy, fz] = [front[0] as number, front[1] as number, front[2] as number]
    const [rx, ry, rz] = [right[0] as number, right[1] as number, right[2] as number]
    const nx = p * rx + q * (fy * rz - fz * ry) + s * fx
    const ny = p * ry + q * (fz * rx - fx * rz) + s * fy
    const nz = p * rz + q * (fx * ry - fy * rx) + s * fz
    given[wayX] = nx
    given[wayY] = ny
    given[wayZ] = nz
    given[acrossOther] = 0
    this.reach(i)
    return (this.left[reached] as Mm) - away
  }

  /** From contact centres to the points they lie between. */
  private toPoints(onPoints: Float64Array): void {
    const { push, turn, wideTurn, framed, centres, shapes } = this
    const { lengths } = this.piece
    for (let i = 0; i < centres.count; i++) {
      const rod = centres.rod[i] as number
      const p = 6 * rod
      const n = 3 * i
      const by = 1 / (lengths[rod] as number)
      if (framed[i]) {
        const frame = (shapes[i] as Shape).frame as Frame
        const lobe = this.lobes[i] as Lobe
        const { toAlong, toWide } = this.carriers.get(frame) as Carrier
        for (let c = 0; c < 3; c++) {
          const f = push[n + c] as number
          const t = (turn[n + c] as number) + lobe.along * f
          const w = (wideTurn[n + c] as number) + lobe.wide * f
          for (let k = 0; k < pointsOfFrame; k++)
            onPoints[p + 3 * k + c] =
              (onPoints[p + 3 * k + c] as number) +
              f / pointsOfFrame +
              t * (toAlong[k] as number) +
              w * (toWide[k] as number)
        }
        continue
      }
      const share = centres.share[i] as number
      for (let c = 0; c < 3; c++) {
        const each = push[n + c] as number
        const t = (turn[n + c] as number) * by
        onPoints[p + c] = (onPoints[p + c] as number) + each * (1 - share) - t
        onPoints[p + 3 + c] = (onPoints[p + 3 + c] as number) + each * share + t
      }
    }
  }
}

/** What each point of a frame counts for in its two ways. */
interface Carrier {
  readonly toAlong: readonly number[]
  readonly toWide: readonly number[]
}

function carrierOf({ points }: Frame): Carrier {
  const column = (of: 0 | 1) => {
    const each = Array.from({ length: pointsOfFrame }, (_, k) => points[2 * k + of] as number)
    const square = each.reduce((sum, v) => sum + v * v, 0)
    return each.map((v) => v / square)
  }
  return { toAlong: column(0), toWide: column(1) }
}

const dotAt = (v: Float64Array, a: number, b: number): number =>
  (v[a] as number) * (v[b] as number) +
  (v[a + 1] as number) * (v[b + 1] as number) +
  (v[a + 2] as number) * (v[b + 2] as number)
