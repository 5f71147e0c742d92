/** What surrounds a piece: the mat it lies on, the glass it rubs on, and the room that its beads give each other while it unfolds. */
import type { Mm } from '../../measure/units'
import type { Piece } from '../piece'

const matMm: Mm = 0.5
/** So soon does thread rub on glass. */
const rubMm: Mm = 0.2
/** So many beads are kept away from by all. */
const keptAwayFrom = 30

/**
 * Work lies on a mat.
 *
 * @param weight what a bead is drawn down by, as a share of the thread's tension
 */
export function lieOnMat({ at, rods }: Piece, weight: number, onPoints: Float64Array): number {
  const square = matMm * matMm
  let middle = 0
  for (let p = 2; p < at.length; p += 3) middle += at[p] as number
  middle /= 2 * rods
  let energy = 0
  let all = 0
  for (let p = 2; p < at.length; p += 3) {
    const off = (at[p] as number) - middle
    const length = Math.sqrt(off * off + square)
    energy += length - matMm
    const by = (weight / 2) * (off / length)
    all += by
    onPoints[p] = (onPoints[p] as number) + by
  }
  const each = all / (2 * rods)
  for (let p = 2; p < at.length; p += 3) onPoints[p] = (onPoints[p] as number) - each
  return (energy * weight) / 2
}

/**
 * Beads keep away from each other from afar, so that a tube comes out round and a sheet even.
 *
 * @param strength what a bead is pushed with, a millimetre away, by all the others together
 */
export function giveRoom({ at, rods }: Piece, strength: number, onPoints: Float64Array): number {
  const step = Math.max(1, Math.floor(rods / keptAwayFrom))
  const by = strength / Math.ceil(rods / step)
  let energy = 0
  for (let k = 0; k < rods; k += step) {
    const p = 6 * k
    const x = at[p] as number
    const y = at[p + 1] as number
    const z = at[p + 2] as number
    let px = 0
    let py = 0
    let pz = 0
    // One logarithm of a product is cheaper than one of each factor.
    let product = 1
    for (let i = 0; i < rods; i++) {
      if (i === k) continue
      const q = 6 * i
      const dx = (at[q] as number) - x
      const dy = (at[q + 1] as number) - y
      const dz = (at[q + 2] as number) - z
      const squared = dx * dx + dy * dy + dz * dz + 1
      product *= squared
      if (product > 1e200) {
        energy -= by * 0.5 * Math.log(product)
        product = 1
      }
      const f = by / squared
      onPoints[q] = (onPoints[q] as number) - f * dx
      onPoints[q + 1] = (onPoints[q + 1] as number) - f * dy
      onPoints[q + 2] = (onPoints[q + 2] as number) - f * dz
      px += f * dx
      py += f * dy
      pz += f * dz
    }
    energy -= by * 0.5 * Math.log(product)
    onPoints[p] = (onPoints[p] as number) + px
    onPoints[p + 1] = (onPoints[p + 1] as number) + py
    onPoints[p + 2] = (onPoints[p + 2] as number) + pz
  }
  return energy
}

/**
 * What lies against a stone stays where it lies: thread and glass rub, and a girdle in a snug ring does not turn over.
 *
 * @param most what an end of a bore is held by at the most, as a share of the thread's tension
 */
export function rubOnGlass(
  { at, solids }: Piece,
  most: number,
  onPoints: Float64Array,
  onSolids: Float64Array,
): number {
  let energy = 0
  for (const [k, solid] of solids.entries()) {
    const { at: middle, front, right, rests, places } = solid
    const [fx, fy, fz] = [front[0] as number, front[1] as number, front[2] as number]
    const [rx, ry, rz] = [right[0] as number, right[1] as number, right[2] as number]
    const [vx, vy, vz] = [fy * rz - fz * ry, fz * rx - fx * rz, fx * ry - fy * rx]
    const o = 6 * k
    for (let i = 0; i < rests.length; i++) {
      const p = 3 * (rests[i] as number)
      const dx = (at[p] as number) - (middle[0] as number)
      const dy = (at[p + 1] as number) - (middle[1] as number)
      const dz = (at[p + 2] as number) - (middle[2] as number)
      const x = dx * rx + dy * ry + dz * rz - (places[3 * i] as number)
      const y = dx * vx + dy * vy + dz * vz - (places[3 * i + 1] as number)
      const z = dx * fx + dy * fy + dz * fz - (places[3 * i + 2] as number)
      const length = Math.sqrt(x * x + y * y + z * z + rubMm * rubMm)
      energy += length - rubMm
      const by = most / length
      const gx = by * (x * rx + y * vx + z * fx)
      const gy = by * (x * ry + y * vy + z * fy)
      const gz = by * (x * rz + y * vz + z * fz)
      onPoints[p] = (onPoints[p] as number) + gx
      onPoints[p + 1] = (onPoints[p + 1] as number) + gy
      onPoints[p + 2] = (onPoints[p + 2] as number) + gz
      onSolids[o] = (onSolids[o] as number) - gx
      onSolids[o + 1] = (onSolids[o + 1] as number) - gy
      onSolids[o + 2] = (onSolids[o + 2] as number) - gz
      // Its directions turn with it.
      onSolids[o + 3] = (onSolids[o + 3] as number) - (dy * gz - dz * gy)
      onSolids[o + 4] = (onSolids[o + 4] as number) - (dz * gx - dx * gz)
      onSolids[o + 5] = (onSolids[o + 5] as number) - (dx * gy - dy * gx)
    }
  }
  return energy * most
}
