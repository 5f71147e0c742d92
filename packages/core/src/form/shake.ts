/** What is done to a piece at rest to see whether it comes back: it is drawn out of its shape, and each of its points is shaken. */
import type { Mm } from '../measure/units'
import type { Vector } from './vector'

/** Each point is shaken by up to so much, then by twice that, toward the eye by as much less as the piece is thin. */
const shakenMm: Mm = 0.45

/**
 * How a piece is drawn before it is shaken: as it is, long and pressed flat, or wide, and askew. What gives way as a whole, as a sheet does that can
 * be pulled out of square, is not found by shaking each point for itself.
 */
const drawnAs: readonly {
  readonly across: number
  readonly up: number
  readonly askew: number
  readonly deep: number
}[] = [
  { across: 1, up: 1, askew: 0, deep: 1 },
  { across: 1.2, up: 0.85, askew: 0.15, deep: 0.2 },
  { across: 0.85, up: 1.2, askew: -0.15, deep: 1 },
]

/** Drawn out of its shape. */
export function draw(at: Float64Array, time: number): void {
  const { across, up, askew, deep } = drawnAs[time % drawnAs.length] as (typeof drawnAs)[number]
  for (let p = 0; p < at.length; p += 3) {
    const [x, y] = [at[p] as number, at[p + 1] as number]
    at[p] = across * x + askew * y
    at[p + 1] = up * y
    at[p + 2] = deep * (at[p + 2] as number)
  }
}

/** How deep a piece is for how narrow it is: 1 of a chain or a rope, little of what lies flat. */
export const thinness = ([wide, high, deep]: Vector): number => Math.min(1, deep / Math.min(wide, high))

/**
 * The same each time.
 *
 * @param toEye how far toward the eye, as a share of how far along the mat
 */
export function shake(at: Float64Array, time: number, toEye: number): void {
  // At first only along the mat: what lies flat by its symmetry alone would fold.
  const thin = time === 0 ? 0 : toEye
  for (let i = 0; i < at.length; i++) {
    const chance = ((Math.imul(i + 1 + time * at.length, 2654435761) >>> 8) % 1000) / 500 - 1
    at[i] = (at[i] as number) + Math.min(2, 1 + time) * shakenMm * chance * (i % 3 === 2 ? thin : 1)
  }
}
