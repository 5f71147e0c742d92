/** What lies against a stone or a wire ring: its first row, the rounds in the gaps of that, and the rows that stand on it. */
import type { Stone } from '../catalogue/stone'
import type { Mm } from '../measure/units'
import type { Piece } from './piece'
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

export function seatsOf(piece: Piece, stoneOf: (letter: string) => Stone | undefined): Seat[] {
  const { work, rodOf, shapes, shapeOf, lengths } = piece
  const profile = profileOf(work, (bead) => shapes[shapeOf[bead] as number] as Shape, stoneOf)
  return work.courses.flatMap((course, root): Seat[] => {
    if (work.firstOf(root) !== root) return []
    const letter = work.cores.get(root)
    const stone = letter === undefined ? undefined : stoneOf(letter)
    if (!stone && course.kind !== 'standing') return []
    const points: number[] = []
    const places: number[] = []
    const first: number[] = []
    for (let bead = 0; bead < work.beads; bead++) {
      const { course: own } = work.seat(bead)
      if (own < 0 || work.firstOf(own) !== root || work.courses[own]?.kind === 'arcs') continue
      const { centre, axis } = profile(bead)
      const rod = rodOf[bead] as number
      const half = (lengths[rod] as number) / 2
      for (const end of [0, 1] as const) {
        const by = half * (2 * end - 1)
        points.push(2 * rod + end)
        if (own === root) first.push(2 * rod + end)
        places.push(centre[0] + axis[0] * by, centre[1] + axis[1] * by, centre[2] + axis[2] * by)
      }
    }
    if (points.length < 6) return []
    const solid = stone
      ? stoneSolid(stone)
      : course.kind === 'standing' && course.radiusMm > wireMm
        ? ringSolid(course.radiusMm, wireMm)
        : undefined
    if (solid) Object.assign(solid, { rests: Int32Array.from(points), places: Float64Array.from(places) })
    return [
      {
        course: root,
        stone: letter,
        solid,
        first,
        points: Int32Array.from(points),
        places: Float64Array.from(places),
      },
    ]
  })
}
