import type { Mm } from '../measure/units'
import { add, aside, dot, minus, scaled, size, square, unit, type Vector } from './vector'

/**
 * A run of thread of this length between two points: the arc of a circle that bulges toward `out`, a full circle where the points meet,
 * and straight (stretched evenly) where it is too short to reach.
 */
export function bend(from: Vector, to: Vector, lengthMm: Mm, out: Vector): (at: Mm) => Vector {
  const chord = size(minus(to, from))
  if (chord >= lengthMm * 0.995) return (at) => add(from, minus(to, from), at / lengthMm)
  const outward = unit(out, [0, 1, 0])
  const e1 = chord > 1e-6 ? unit(minus(to, from), [1, 0, 0]) : aside(outward)
  const e2 = unit(square(outward, e1), aside(e1))
  const half = halfAngle(chord / lengthMm)
  const radius = lengthMm / (2 * half)
  const middle = scaled(add(from, to), 0.5)
  const centre = add(middle, e2, -radius * Math.cos(half))
  return (at) => {
    const angle = -half + (2 * half * at) / lengthMm
    return add(add(centre, e1, radius * Math.sin(angle)), e2, radius * Math.cos(angle))
  }
}

/** The angle in (0, pi] whose sine is `share` of it. */
function halfAngle(share: number): number {
  let [low, high] = [1e-4, Math.PI]
  for (let i = 0; i < 50; i++) {
    const middle = (low + high) / 2
    if (Math.sin(middle) / middle > share) low = middle
    else high = middle
  }
  return high
}

/** Rolls flat work up along the way from `start` to `end`, so that what is `gapMm` longer than it closes into a band. */
export function roll(start: Vector, end: Vector, gapMm: Mm): (point: Vector) => Vector {
  const chord = size(minus(end, start))
  const e1 = unit(minus(end, start), [1, 0, 0])
  // The front comes to lie outside.
  const n: Vector = scaled(aside(e1), -1)
  const e3 = unit([e1[1] * n[2] - e1[2] * n[1], e1[2] * n[0] - e1[0] * n[2], e1[0] * n[1] - e1[1] * n[0]], [0, 1, 0])
  const radius = (chord + gapMm) / (2 * Math.PI)
  const centre = add(start, n, radius)
  return (point) => {
    const d = minus(point, start)
    const angle = dot(d, e1) / radius
    const out = radius - dot(d, n)
    return add(add(add(centre, e3, dot(d, e3)), e1, out * Math.sin(angle)), n, -out * Math.cos(angle))
  }
}
