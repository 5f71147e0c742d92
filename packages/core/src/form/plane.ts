import { cross, minus, scaled, size, unit, type Vector } from './vector'

export interface Plane {
  readonly middle: Vector
  readonly normal: Vector
}

/** The plane that fits a set of points best: through their mean, square to the way in which they spread least. */
export function planeOf(points: readonly Vector[]): Plane {
  const sum: [number, number, number] = [0, 0, 0]
  for (const point of points) for (const k of [0, 1, 2] as const) sum[k] += point[k]
  const middle = scaled(sum, 1 / Math.max(1, points.length))
  const spread = [0, 0, 0, 0, 0, 0] as [number, number, number, number, number, number]
  for (const point of points) {
    const [x, y, z] = minus(point, middle)
    spread[0] += x * x
    spread[1] += x * y
    spread[2] += x * z
    spread[3] += y * y
    spread[4] += y * z
    spread[5] += z * z
  }
  return { middle, normal: minSpread(spread) }
}

/** The eigenvector of the smallest eigenvalue of a symmetric matrix, by its characteristic equation. */
function minSpread([xx, xy, xz, yy, yz, zz]: readonly [number, number, number, number, number, number]): Vector {
  const mean = (xx + yy + zz) / 3
  const [a, b, c] = [xx - mean, yy - mean, zz - mean]
  const p = Math.sqrt((a * a + b * b + c * c + 2 * (xy * xy + xz * xz + yz * yz)) / 6)
  if (p < 1e-12) return [0, 0, 1]
  const half = (a * (b * c - yz * yz) - xy * (xy * c - yz * xz) + xz * (xy * yz - b * xz)) / (2 * p ** 3)
  const angle = Math.acos(Math.max(-1, Math.min(1, half))) / 3
  const least = mean + 2 * p * Math.cos(angle + (2 * Math.PI) / 3)
  const rows: Vector[] = [
    [xx - least, xy, xz],
    [xy, yy - least, yz],
    [xz, yz, zz - least],
  ]
  let best: Vector = [0, 0, 0]
  for (const [i, j] of [
    [0, 1],
    [0, 2],
    [1, 2],
  ] as const) {
    const normal = cross(rows[i] as Vector, rows[j] as Vector)
    if (size(normal) > size(best)) best = normal
  }
  return unit(best, [0, 0, 1])
}
