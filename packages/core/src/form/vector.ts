/** Three numbers, for laying out; the iteration itself works on columns. */
export type Vector = readonly [x: number, y: number, z: number]

export const add = (a: Vector, b: Vector, times = 1): Vector => [
  a[0] + b[0] * times,
  a[1] + b[1] * times,
  a[2] + b[2] * times,
]
export const minus = (a: Vector, b: Vector): Vector => add(a, b, -1)
export const scaled = (a: Vector, by: number): Vector => [a[0] * by, a[1] * by, a[2] * by]
export const dot = (a: Vector, b: Vector): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2]
export const size = (a: Vector): number => Math.hypot(a[0], a[1], a[2])
export const cross = (a: Vector, b: Vector): Vector => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
]

/** At length one; `otherwise` for a vector too short to have a direction. */
export const unit = (a: Vector, otherwise: Vector): Vector => {
  const length = size(a)
  return length > 1e-6 ? scaled(a, 1 / length) : otherwise
}

/** What of `a` is square to the unit vector `n`. */
export const square = (a: Vector, n: Vector): Vector => add(a, n, -dot(a, n))

/** Some unit vector square to a unit vector, near the page's plane. */
export const aside = (n: Vector): Vector => unit(square([0, 0, 1], n), unit(square([0, 1, 0], n), [1, 0, 0]))

export const vectorOf = (v: Float64Array): Vector => [v[0] as number, v[1] as number, v[2] as number]

/** Rows: the ways that come to lie across, up and toward the eye. A determinant of -1 mirrors. */
export type Turn = readonly [Vector, Vector, Vector]
