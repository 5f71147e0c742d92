/**
 * Beads and stones as rigid bodies: where the middle of each lies and how it is turned. The points of a piece (ends of bores) follow from
 * them, and a push on points is gathered into a push and a turn of their body.
 */
import type { Columns, Kernel } from './kernel/kernel'
import type { Piece } from './piece'
import { pointsOfFrame, type Shape } from './shape'

/** Six numbers a body move it: three of its middle, three of its turn, the turn in mm at its ends. */
export const freedoms = 6

/** What bodies need in the kernel's memory, beside their points. */
export function bodyColumns({ work, solids, lengths, rodOf, shapes, shapeOf }: Piece): Columns {
  const count = work.beads + solids.length
  const arm = new Float64Array(count)
  for (let bead = 0; bead < work.beads; bead++) {
    const rod = rodOf[bead] as number
    const points = (shapes[shapeOf[bead] as number] as Shape).frame?.points
    arm[bead] = points ? Math.hypot(points[0] as number, points[1] as number) : (lengths[rod] as number) / 2
  }
  for (const [k, solid] of solids.entries()) arm[work.beads + k] = solid.reachMm
  return { middle: 3 * count, along: 3 * count, across: 3 * count, arm }
}

export class Bodies {
  readonly count: number

  /** @param kernel with the columns of bodies, of points and of shapes */
  constructor(
    private readonly kernel: Kernel,
    private readonly piece: Piece,
  ) {
    this.count = piece.work.beads + piece.solids.length
    this.read()
  }

  /** x, y, z of each middle. */
  get middle(): Float64Array {
    return this.kernel.floats('middle')
  }
  /** The way of the hole; of a stone: toward its front. */
  private get along(): Float64Array {
    return this.kernel.floats('along')
  }
  /** The way from the first bore to the second; of a stone: across. */
  private get across(): Float64Array {
    return this.kernel.floats('across')
  }

  /** From where the points lie: bodies that fit them. */
  read(): void {
    const { at, rodOf, shapes, shapeOf, work, solids } = this.piece
    const { middle, along, across } = this
    for (let bead = 0; bead < work.beads; bead++) {
      const p = 6 * (rodOf[bead] as number)
      const points = (shapes[shapeOf[bead] as number] as Shape).frame?.points
      for (let c = 0; c < 3; c++) {
        const i = 3 * bead + c
        if (!points) {
          const [a, b] = [at[p + c] as number, at[p + 3 + c] as number]
          middle[i] = (a + b + a + b) / 4
          along[i] = b - a + (b - a)
          across[i] = 0
          continue
        }
        let [sum, toAlong, toAcross] = [0, 0, 0]
        for (let k = 0; k < pointsOfFrame; k++) {
          const x = at[p + 3 * k + c] as number
          sum += x
          toAlong += x * (points[2 * k] as number)
          toAcross += x * (points[2 * k + 1] as number)
        }
        middle[i] = sum / pointsOfFrame
        along[i] = toAlong
        across[i] = toAcross
      }
    }
    for (const [k, solid] of solids.entries()) {
      const i = 3 * (work.beads + k)
      for (let c = 0; c < 3; c++) {
        middle[i + c] = solid.at[c] as number
        along[i + c] = solid.front[c] as number
        across[i + c] = solid.right[c] as number
      }
    }
    this.kernel.loops.squareBodies(this.count)
    this.write()
  }

  /** To the points and the solids. */
  write(): void {
    this.kernel.loops.placeBeads(this.piece.work.beads)
    this.follow()
  }

  /** The piece, from where the kernel has placed its points and bodies. */
  private follow(): void {
    const { at, work, solids } = this.piece
    at.set(this.kernel.floats('at'))
    if (solids.length === 0) return
    const { middle, along, across } = this
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
   * @param onSolids six numbers a solid: a push on its middle, and what turns it (mm times the push)
   * @param into the column that takes six numbers a body
   */
  gather(onSolids: Float64Array, into: 'slope' | 'next'): void {
    const { work, solids } = this.piece
    const { kernel } = this
    kernel.loops.gatherBeads(work.beads, kernel.place(into).from)
    if (solids.length === 0) return
    const [out, arm] = [kernel.floats(into), kernel.floats('arm')]
    for (let k = 0; k < solids.length; k++) {
      const o = 6 * (work.beads + k)
      const by = 1 / (arm[work.beads + k] as number)
      for (let c = 0; c < 3; c++) {
        out[o + c] = onSolids[6 * k + c] as number
        out[o + 3 + c] = (onSolids[6 * k + 3 + c] as number) * by
      }
    }
  }

  /** Moves and turns every body by `by` times the step in the kernel, six numbers each. */
  move(by: number): void {
    this.kernel.loops.moveBodies(this.count, this.piece.work.beads, by)
    this.follow()
  }

  /** Brings everything nearer to the plane of x and y. */
  flatten(share: number): void {
    for (const column of [this.middle, this.along, this.across])
      for (let i = 2; i < column.length; i += 3) column[i] = (column[i] as number) * share
    this.kernel.loops.squareBodies(this.count)
    this.write()
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
