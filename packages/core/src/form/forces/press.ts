/** Beads and stones that push each other apart where they are nearer than they reach. Among beads that is in the kernel. */
import type { Mm } from '../../measure/units'
import type { Columns, Kernel } from '../kernel/kernel'
import type { Piece } from '../piece'
import { type Frame, pointsOfFrame, reachSteps, type Shape } from '../shape'
import type { Solid } from '../solid'
import { type Centres, centresOf, type Grid, gridOf, pairColumns } from './pairs'

/** A step for differences. */
const tiny: Mm = 1e-6

/** Two beads that are nearer than they reach. */
export interface Press {
  readonly a: number
  readonly b: number
  readonly overMm: Mm
}

/** Where beads may touch. */
export interface Contact {
  readonly centres: Centres
  readonly grid: Grid
}

export function contactOf(piece: Piece): Contact {
  const centres = centresOf(piece)
  return { centres, grid: gridOf(centres) }
}

/** What contact needs in the kernel's memory. */
export function contactColumns({ shapes, shapeOf }: Piece, { centres, grid }: Contact): Columns {
  const { count, bead, lobe } = centres
  const shapeOfCentre = Int32Array.from(bead, (each) => shapeOf[each] as number)
  const lobes = new Float64Array(6 * count)
  for (let i = 0; i < count; i++) {
    const found = shapes[shapeOfCentre[i] as number]?.frame?.lobes[lobe[i] as number]
    if (!found) continue
    const { along, wide, halfLength, halfWide, halfThick, contact } = found
    lobes.set([along, wide, halfLength, halfWide, halfThick, contact], 6 * i)
  }
  const column = 3 * count
  return {
    ...shapeColumns(shapes),
    centreRod: centres.rod,
    centreShare: centres.share,
    centreBead: bead,
    shapeOfCentre,
    farthest: centres.farthest,
    lobes,
    ...{ centre: column, push: column, hole: column, turn: column, wide: column, wideTurn: column },
    ...{ given: 6, left: 4 },
    ...pairColumns(centres, grid),
  }
}

/** Numbers of a shape's table of reaches. */
const tableSize = (reachSteps + 2) * 2

function shapeColumns(shapes: readonly Shape[]): Columns {
  const framed = Uint8Array.from(shapes, ({ frame }) => (frame ? 1 : 0))
  const crosses = Uint8Array.from(shapes, ({ crossing }) => (crossing ? 1 : 0))
  const numbers = (each: number) => new Float64Array(each * shapes.length)
  const [reachTable, crossingTable] = [numbers(tableSize), numbers(tableSize)]
  const [framePoints, toAlong, toWide] = [numbers(2 * pointsOfFrame), numbers(pointsOfFrame), numbers(pointsOfFrame)]
  for (const [k, { frame, reach, crossing }] of shapes.entries()) {
    reachTable.set(reach, tableSize * k)
    if (crossing) crossingTable.set(crossing, tableSize * k)
    if (!frame) continue
    const carrier = carrierOf(frame)
    framePoints.set(frame.points, 2 * pointsOfFrame * k)
    toAlong.set(carrier.toAlong, pointsOfFrame * k)
    toWide.set(carrier.toWide, pointsOfFrame * k)
  }
  return { framed, crosses, reachTable, crossingTable, framePoints, toAlong, toWide }
}

export class Presses {
  private readonly centres: Centres
  /** The way out of a solid. */
  private readonly normal = new Float64Array(3)

  /** @param kernel with the columns of contact, and of points */
  constructor(
    private readonly kernel: Kernel,
    private readonly piece: Piece,
    { centres, grid }: Contact,
  ) {
    this.centres = centres
    kernel.loops.layGrid(grid.buckets, grid.cellMm, grid.large.length, grid.marginMm)
  }

  /**
   * Adds the slope to the points and to `onSolids` and answers the energy.
   *
   * @param stiffness how hard beads are, in millimetres of thread for a square millimetre of press
   */
  evaluate(stiffness: number, onSolids: Float64Array): number {
    const { kernel, centres } = this
    const { loops } = kernel
    loops.followCentres(centres.count)
    for (const each of ['push', 'turn', 'wideTurn']) kernel.floats(each).fill(0)
    const energy = (loops.pressBeads(stiffness) * stiffness) / 2 + this.pressSolids(stiffness, onSolids)
    loops.pushPoints(centres.count)
    return energy
  }

  /**
   * Beads that are nearer than they reach, and by how much.
   *
   * @param nearMm those that come so near, too; they are over by less than nought
   */
  pressed(nearMm: Mm): Press[] {
    const { kernel } = this
    const { bead, count } = this.centres
    kernel.loops.followCentres(count)
    const pairs = kernel.pairs()
    const found: Press[] = []
    for (let k = 0; k < pairs.length; k += 2) {
      const overMm = kernel.loops.overOf(k / 2)
      if (overMm > -nearMm)
        found.push({ a: bead[pairs[k] as number] as number, b: bead[pairs[k + 1] as number] as number, overMm })
    }
    return found
  }

  /** Stones and rings push beads out, and are pushed. */
  private pressSolids(stiffness: number, onSolids: Float64Array): number {
    const { normal, kernel } = this
    const { count, farthest } = this.centres
    if (this.piece.solids.length === 0) return 0
    const [middle, push, turns] = [kernel.floats('centre'), kernel.floats('push'), kernel.floats('turn')]
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
        const turn = stiffness * over * kernel.loops.slopeOfReach()
        turns[n] = (turns[n] as number) + turn * (p * rx + q * vx + s * fx)
        turns[n + 1] = (turns[n + 1] as number) + turn * (p * ry + q * vy + s * fy)
        turns[n + 2] = (turns[n + 2] as number) + turn * (p * rz + q * vz + s * fz)
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
    const { normal, kernel } = this
    const { front, right } = solid
    const away = solid.distance(x, y, z, normal)
    const [p, q, s] = [normal[0] as number, normal[1] as number, normal[2] as number]
    const [fx, fy, fz] = [front[0] as number, front[1] as number, front[2] as number]
    const [rx, ry, rz] = [right[0] as number, right[1] as number, right[2] as number]
    const nx = p * rx + q * (fy * rz - fz * ry) + s * fx
    const ny = p * ry + q * (fz * rx - fx * rz) + s * fy
    const nz = p * rz + q * (fx * ry - fy * rx) + s * fz
    return kernel.loops.reachToward(i, nx, ny, nz) - away
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
