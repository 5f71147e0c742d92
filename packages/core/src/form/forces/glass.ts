import type { Mm } from '../../measure/units'
import type { Piece } from '../piece'

/** So soon does thread rub on glass. */
const rubMm: Mm = 0.2

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
