/** What lies against a stone or a wire ring: its first row, the rounds in the gaps of that, and the rows that stand on it. */
import type { Stone } from '../catalogue/stone'
import type { Mm } from '../measure/units'
import { beadOf, entryOf, exitOf, hole } from '../stitch/hole'
import { type Piece, pointAt } from './piece'
import { profileOf } from './profile'
import type { Shape } from './shape'
import { ringSolid, type Solid, stoneSolid } from './solid'
import type { Held } from './unfold'

/** The wire of a ring that beads stand round, where only its width is said. */
export const wireMm: Mm = 1.2

export interface Seat extends Held {
  /** The first row. */
  readonly course: number
  /** The stone's letter; undefined for a wire ring, or a row that stands by itself. */
  readonly stone: string | undefined
  readonly solid: Solid | undefined
  /** Points of the first row. */
  readonly first: readonly number[]
}

/**
 * Rows that stand begin a little uneven: laid out exactly in a plane, nothing would tell them that they have too few beads to lie there, or too
 * many.
 */
const unevenMm: Mm = 0.03

/** -1 to 1, of its own for each point, and the same every time. */
const chance = (point: number): number => ((Math.imul(point + 1, 2654435761) >>> 8) % 1000) / 500 - 1

export function seatsOf(piece: Piece, stoneOf: (letter: string) => Stone | undefined): Seat[] {
  const { work, shapes, shapeOf } = piece
  return work.courses.flatMap((course, root): Seat[] => {
    const letter = work.cores.get(root)
    const stone = letter === undefined ? undefined : stoneOf(letter)
    if (!stone && (course.kind !== 'standing' || course.on !== undefined)) return []
    const place = profileOf(work, { course: root, stone }, (bead) => shapes[shapeOf[bead] as number] as Shape)
    const along = course.kind === 'ring' && course.along ? new Map(course.along.map((h) => [beadOf(h), h])) : undefined
    const points: number[] = []
    const places: number[] = []
    const first: number[] = []
    const rests: number[] = []
    for (let bead = 0; bead < work.beads; bead++) {
      const found = place(bead)
      if (!found) continue
      const h = along?.get(bead) ?? hole(bead)
      const half = (shapes[shapeOf[bead] as number] as Shape).bead.lengthMm / 2
      for (const [end, by] of [
        [entryOf(h), -half],
        [exitOf(h), half],
      ] as const) {
        const point = pointAt(piece, end)
        points.push(point)
        const row = work.seat(bead).course
        if (row === root) first.push(point)
        // What stands on another row does not touch the glass.
        if (row === root || work.courses[row]?.kind !== 'standing') rests.push(points.length - 1)
        for (const c of [0, 1, 2] as const)
          places.push(found.centre[c] + found.axis[c] * by + (c === 2 && !stone ? unevenMm * chance(point) : 0))
      }
    }
    if (points.length < 6) return []
    const solid = stone
      ? stoneSolid(stone)
      : course.kind === 'standing' && course.radiusMm > wireMm
        ? ringSolid(course.radiusMm, wireMm)
        : undefined
    const held = { points: Int32Array.from(points), places: Float64Array.from(places) }
    if (solid) {
      solid.rests = Int32Array.from(rests, (i) => points[i] as number)
      solid.places = Float64Array.from(rests.flatMap((i) => places.slice(3 * i, 3 * i + 3)))
    }
    return [{ course: root, stone: letter, solid, first, ...held }]
  })
}
