/**
 * Beads and stones as rigid bodies: where the middle of each lies and how it is turned. The points of a piece (ends of bores) follow from
 * them, and a push on points is gathered into a push and a turn of their body.
 */
import type { Piece } from './piece'
import { pointsOfFrame, type Shape } from './shape'

/** Six numbers a body move it: three of its middle, three of its turn, the turn in mm at its ends. */
export const freedoms = 6

export class Bodies {
  readonly count: number
  /** x, y, z of the middle; the way of the hole (of a stone: toward its front); the way from the first bore to the second (of a stone: across). */
  readonly middle: Float64Array
  readonly along: Float64Array
  readonly across: Float64Array
  /** From the middle to what turns: a turn in mm is this times its angle. */
  readonly arm: Float64Array

  constructor(private readonly piece: Piece) {
    const { work, solids, lengths, rodOf, shapes, shapeOf } = piece
    this.count = work.beads + solids.length
    this.middle = new Float64Array(this.count * 3)
    this.along = new Float64Array(this.count * 3)
    this.across = new Float64Array(this.count * 3)
    this.arm = new Float64Array(this.count)
    for (let bead = 0; bead < work.beads; bead++) {
      const rod = rodOf[bead] as number
      const points = (shapes[shapeOf[bead] as number] as Shape).frame?.points
      this.arm[bead] = points ? Math.hypot(points[0] as number, points[1] as number) : (lengths[rod] as number) / 2
    }
    for (const [k, solid] of solids.entries()) this.arm[work.beads + k] = solid.reachMm
    this.read()
  }

  /** From where the points lie: bodies that fit them. */
  read(): void {
    const { at, rodOf, shapes, shapeOf, work, solids } = this.piece
    for (let bead = 0; bead < work.beads; bead++) {
      const p = 6 * (rodOf[bead] as number)
      const points = (shapes[shapeOf[bead] as number] as Shape).frame?.points
      for (let c = 0; c < 3; c++) {
        const i = 3 * bead + c
        if (!points) {
          const [a, b] = [at[p + c] as number, at[p + 3 + c] as number]
          this.middle[i] = (a + b + a + b) / 4
          this.along[i] = b - a + (b - a)
          this.across[i] = 0
          continue
        }
        let [middle, along, across] = [0, 0, 0]
        for (let k = 0; k < pointsOfFrame; k++) {
          const x = at[p + 3 * k + c] as number
          middle += x
          along += x * (points[2 * k] as number)
          across += x * (points[2 * k + 1] as number)
        }
        this.middle[i] = middle / pointsOfFrame
        this.along[i] = along
        this.across[i] = across
      }
      this.square(bead)
    }
    for (const [k, solid] of solids.entries()) {
      const i = 3 * (work.beads + k)
      for (let c = 0; c < 3; c++) {
        this.middle[i + c] = solid.at[c] as number
        this.along[i + c] = solid.front[c] as number
        this.across[i + c] = solid.right[c] as number
      }
      this.square(work.beads + k)
    }
    this.write()
  }

  /** To the points and the solids. */
  write(): void {
    const { at, rodOf, lengths, shapes, shapeOf, work, solids } = this.piece
    const { middle, along, across } = this
    for (let bead = 0; bead < work.beads; bead++) {
      const rod = rodOf[bead] as number
      const half = (lengths[rod] as number) / 2
      const p = 6 * rod
      const points = (shapes[shapeOf[bead] as number] as Shape).frame?.points
      for (let c = 0; c < 3; c++) {
        const m = middle[3 * bead + c] as number
        const a = along[3 * bead + c] as number
        if (!points) {
          at[p + c] = m - a * half
          at[p + 3 + c] = m + a * half
          continue
        }
        const w = across[3 * bead + c] as number
        for (let k = 0; k < pointsOfFrame; k++)
          at[p + 3 * k + c] = m + a * (points[2 * k] as number) + w * (points[2 * k + 1] as number)
      }
    }
    for (const [k, solid] of solids.entries()) {
      const i = 3 * (work.beads + k)
      for (let c = 0; c < 3; c++) {
        solid.at[c] = middle[i + c] as number
        solid.front[c] = along[i + c] as number
        solid.right[c] = across[i + c] as number
      }
    }
  }

  /**
   * What pushes on points do to bodies.
   *
   * @param onPoints x, y, z by point
   * @param onSolids six numbers a solid: a push on its middle, and what turns it (mm times the push)
   * @param out six numbers a body
   */
  gather(onPoints: Float64Array, onSolids: Float64Array, out: Float64Array): void {
    const { at, rodOf, work, solids } = this.piece
    const { middle, arm } = this
    for (let bead = 0; bead < work.beads; bead++) {
      let fx = 0
      let fy = 0
      let fz = 0
      let tx = 0
      let ty = 0
      let tz = 0
      const mx = middle[3 * bead] as number
      const my = middle[3 * bead + 1] as number
      const mz = middle[3 * bead + 2] as number
      const to = 6 * (rodOf[bead + 1] as number)
      for (let p = 6 * (rodOf[bead] as number); p < to; p += 3) {
        const gx = onPoints[p] as number
        const gy = onPoints[p + 1] as number
        const gz = onPoints[p + 2] as number
        const rx = (at[p] as number) - mx
        const ry = (at[p + 1] as number) - my
        const rz = (at[p + 2] as number) - mz
        fx += gx
        fy += gy
        fz += gz
        tx += ry * gz - rz * gy
        ty += rz * gx - rx * gz
        tz += rx * gy - ry * gx
      }
      const o = 6 * bead
      const by = 1 / (arm[bead] as number)
      out[o] = fx
      out[o + 1] = fy
      out[o + 2] = fz
      out[o + 3] = tx * by
      out[o + 4] = ty * by
      out[o + 5] = tz * by
    }
    for (let k = 0; k < solids.length; k++) {
      const o = 6 * (work.beads + k)
      const by = 1 / (arm[work.beads + k] as number)
      for (let c = 0; c < 3; c++) {
        out[o + c] = onSolids[6 * k + c] as number
        out[o + 3 + c] = (onSolids[6 * k + 3 + c] as number) * by
      }
    }
  }

  /** Moves and turns every body by `by` times a step of six numbers each. */
  move(step: Float64Array, by: number): void {
    const { middle, along, across, arm } = this
    for (let i = 0; i < this.count; i++) {
      const o = 6 * i
      const m = 3 * i
      for (let c = 0; c < 3; c++) middle[m + c] = (middle[m + c] as number) + by * (step[o + c] as number)
      const share = by / (arm[i] as number)
      const wx = (step[o + 3] as number) * share
      const wy = (step[o + 4] as number) * share
      const wz = (step[o + 5] as number) * share
      if (wx * wx + wy * wy + wz * wz < 1e-20) continue
      turn(along, m, wx, wy, wz)
      turn(across, m, wx, wy, wz)
      this.square(i)
    }
    this.write()
  }

  /** Brings everything nearer to the plane of x and y. */
  flatten(share: number): void {
    for (let i = 2; i < this.count * 3; i += 3) {
      this.middle[i] = (this.middle[i] as number) * share
      this.along[i] = (this.along[i] as number) * share
      this.across[i] = (this.across[i] as number) * share
    }
    for (let i = 0; i < this.count; i++) this.square(i)
    this.write()
  }

  /** Both ways at length one, the second square to the first. */
  private square(body: number): void {
    const { along, across } = this
    const i = 3 * body
    if (!normalize(along, i)) along[i] = 1
    const dot =
      (across[i] as number) * (along[i] as number) +
      (across[i + 1] as number) * (along[i + 1] as number) +
      (across[i + 2] as number) * (along[i + 2] as number)
    for (let c = 0; c < 3; c++) across[i + c] = (across[i + c] as number) - dot * (along[i + c] as number)
    if (normalize(across, i)) return
    // Whichever lies farthest off the hole.
    const [x, y, z] = [along[i] as number, along[i + 1] as number, along[i + 2] as number]
    const flat = Math.abs(z) < 0.9
    across[i] = flat ? -y : 0
    across[i + 1] = flat ? x : -z
    across[i + 2] = flat ? 0 : y
    normalize(across, i)
  }

  save(): Float64Array {
    const kept = new Float64Array(this.count * 9)
    this.saveTo(kept)
    return kept
  }
  saveTo(kept: Float64Array): void {
    kept.set(this.middle)
    kept.set(this.along, this.count * 3)
    kept.set(this.across, this.count * 6)
  }
  restore(kept: Float64Array): void {
    this.middle.set(kept.subarray(0, this.count * 3))
    this.along.set(kept.subarray(this.count * 3, this.count * 6))
    this.across.set(kept.subarray(this.count * 6))
    this.write()
  }
}

/** By the rotation vector w: exactly, by Rodrigues' formula to second order, which `square` brings back to length one. */
function turn(v: Float64Array, i: number, wx: number, wy: number, wz: number): void {
  const x = v[i] as number
  const y = v[i + 1] as number
  const z = v[i + 2] as number
  const cx = wy * z - wz * y
  const cy = wz * x - wx * z
  const cz = wx * y - wy * x
  v[i] = x + cx + (wy * cz - wz * cy) / 2
  v[i + 1] = y + cy + (wz * cx - wx * cz) / 2
  v[i + 2] = z + cz + (wx * cy - wy * cx) / 2
}

function normalize(v: Float64Array, i: number): boolean {
  const x = v[i] as number
  const y = v[i + 1] as number
  const z = v[i + 2] as number
  const length = Math.sqrt(x * x + y * y + z * z)
  if (length < 1e-9) return false
  v[i] = x / length
  v[i + 1] = y / length
  v[i + 2] = z / length
  return true
}
