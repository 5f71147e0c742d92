/** Where the rows of a piece begin: each a little out or in of the row beneath and a little above or below it. */
import type { Stone } from '../catalogue/stone'
import type { Mm } from '../measure/units'
import { girth } from '../sizing/girth'
import { type Outline, outlineOf } from '../sizing/outline'
import type { Course } from '../stitch/course'
import { beadOf } from '../stitch/hole'
import type { Work } from '../stitch/work'
import type { Shape } from './shape'
import { stoneShareAt } from './solid'
import type { Vector } from './vector'

/** A row: its distance outward from the first row's line and its height toward the front. Flat rows use the height only. */
interface Level {
  readonly out: Mm
  readonly height: Mm
}

export interface Place {
  readonly centre: Vector
  readonly axis: Vector
  /** Away from the middle of the piece. */
  readonly outward: Vector
}

/** Gives every seat its place, about the middle of its own first row. */
export type Profile = (bead: number) => Place

/**
 * @param shapeOf a bead's shape
 * @param stoneOf a stone by its letter
 */
export function profileOf(
  work: Work,
  shapeOf: (bead: number) => Shape,
  stoneOf: (letter: string) => Stone | undefined,
): Profile {
  const beads = (course: number) => rows[course] ?? []
  const rows: number[][] = []
  for (let bead = 0; bead < work.beads; bead++) {
    const { course } = work.seat(bead)
    if (course < 0) continue
    const row = rows[course]
    if (row) row.push(bead)
    else rows[course] = [bead]
  }
  const lengthOf = (bead: number) => shapeOf(bead).bead.lengthMm
  const acrossOf = (bead: number) => shapeOf(bead).bead.acrossMm
  const totals = work.courses.map((_, course) => ({
    length: sum(beads(course).map(lengthOf)),
    across: sum(beads(course).map(acrossOf)),
  }))
  const meanLength = (course: number) => (totals[course] as { length: Mm }).length / Math.max(1, beads(course).length)
  const meanAcross = (course: number) =>
    beads(course).length > 0 ? (totals[course] as { across: Mm }).across / beads(course).length : 2
  const fullLength = (course: number) => (totals[course] as { length: Mm }).length

  const levels: Level[] = []
  const ways: (1 | -1)[] = []
  const upon = new Map<number, number>()
  for (const [index, course] of work.courses.entries()) {
    levels.push(levelOf(course, index))
    ways.push(course.kind === 'gaps' || course.kind === 'arcs' ? (ways[course.on] === 1 ? -1 : 1) : 1)
  }

  function levelOf(course: Course, index: number): Level {
    if (course.kind === 'ring' || course.kind === 'row') return { out: 0, height: 0 }
    if (course.kind === 'standing') return { out: course.radiusMm + meanLength(index) / 2 + 0.1, height: 0 }
    const below = levels[course.on] as Level
    const root = work.firstOf(course.on)
    const closed = work.courses[root]?.kind === 'ring'
    const onFirst = course.on === root
    const d = (meanAcross(index) + meanAcross(course.on)) / 2
    if (course.kind === 'gaps') {
      const step = (onFirst ? 0.75 : 0.5) * d
      if (!closed) return { out: 0, height: below.height + course.side * step }
      // The round's own length against that of the row beneath says how far it draws in or spreads.
      const spread = clip((lengthAlong(course) - roundOf(course.on, root)) / (2 * Math.PI), 0.9 * step)
      const free = outside(root, below.height + course.side * step) - below.out
      const by = clip(Math.max(spread, free), 0.9 * step)
      return { out: below.out + by, height: below.height + course.side * Math.sqrt(step ** 2 - by ** 2) }
    }
    const run = (beads(index).length / course.stitches) * meanLength(index)
    const span = closed
      ? (roundOf(course.on, root) + 2 * Math.PI * below.out) / course.stitches - meanLength(course.on)
      : run * 0.7
    const rise = Math.max(d / 2, 0.85 * Math.sqrt(Math.max(0, (run / 2) ** 2 - (Math.max(span, 0) / 2) ** 2)))
    if (!closed) return { out: 0, height: below.height + course.side * rise }
    if (work.cores.has(root))
      return { out: below.out - 0.8 * rise, height: below.height + course.side * Math.max(0.4 * rise, d / 2) }
    // Arcs that begin on one row lie over each other, by turns in front and behind.
    const times = upon.get(course.on) ?? 0
    upon.set(course.on, times + 1)
    return { out: below.out + rise, height: below.height + (times === 0 ? 0.1 : times % 2 === 1 ? -0.7 : 0.7) * d }
  }

  /** How far a row must keep out of the first row's line at this height so as not to begin inside the stone. */
  function outside(root: number, height: Mm): Mm {
    const letter = work.cores.get(root)
    const stone = letter === undefined ? undefined : stoneOf(letter)
    if (!stone) return Number.NEGATIVE_INFINITY
    return (stoneShareAt(stone, height) - 1) * (girth(stone.outline) / (2 * Math.PI))
  }

  /** Through the beads that a round adds and passes. */
  function lengthAlong(course: Extract<Course, { on: number; from: number }>): Mm {
    let length = 0
    for (let pass = course.from; pass < course.to; pass++) length += lengthOf(beadOf(work.holeAt(pass)))
    return length
  }

  function roundOf(index: number, root: number): Mm {
    const course = work.courses[index] as Course
    return course.kind === 'gaps' ? lengthAlong(course) : fullLength(root)
  }

  const outlines = new Map<number, Outline>()
  /** The line of a first row, by the share of the way along it. */
  function outlineFor(root: number): Outline {
    const known = outlines.get(root)
    if (known) return known
    const length = Math.max(fullLength(root), 1)
    const letter = work.cores.get(root)
    const stone = letter === undefined ? undefined : stoneOf(letter)
    const made =
      work.courses[root]?.kind === 'standing'
        ? outlineOf({ shape: 'girth', girth: 2 * Math.PI * 1e-6 })
        : stone
          ? besides(
              outlineOf(stone.outline),
              Math.max((length - girth(stone.outline)) / (2 * Math.PI), 0.45 * meanAcross(root)),
            )
          : outlineOf({ shape: 'girth', girth: length })
    outlines.set(root, made)
    return made
  }

  return (bead) => {
    const { course: index, turn, lift } = work.seat(bead)
    const course = work.courses[index] as Course
    const root = work.firstOf(index)
    const { out, height } = seatLevel(course, index, lift)
    if (work.courses[root]?.kind === 'row') {
      const length = fullLength(root)
      return { centre: [(turn - 0.5) * length, height, 0], axis: [ways[index] as number, 0, 0], outward: [0, 1, 0] }
    }
    const { x, y, nx, ny } = outlineFor(root)(turn)
    const centre: Vector = [x + nx * out, y + ny * out, height]
    const outward: Vector = [nx, ny, 0]
    return course.kind === 'standing' ? { centre, axis: outward, outward } : { centre, axis: [ny, -nx, 0], outward }
  }

  function seatLevel(course: Course, index: number, lift: number): Level {
    const level = levels[index] as Level
    if (course.kind === 'ring' || course.kind === 'row') return { out: 0, height: (lift * meanAcross(index)) / 2 }
    if (course.kind === 'standing') return level
    const below = levels[course.on] as Level
    return {
      out: below.out + (level.out - below.out) * lift,
      height: below.height + (level.height - below.height) * lift,
    }
  }
}

const sum = (numbers: readonly number[]) => numbers.reduce((a, b) => a + b, 0)
const clip = (value: number, most: number) => Math.max(-most, Math.min(most, value))

/** An outline this far outside another, walked by its own length: beads along it lie evenly. */
function besides(outline: Outline, apart: Mm): Outline {
  const steps = 1440
  const lengths = new Float64Array(steps + 1)
  const at = (step: number) => {
    const { x, y, nx, ny } = outline(step / steps)
    return { x: x + nx * apart, y: y + ny * apart, nx, ny }
  }
  let last = at(0)
  for (let step = 1; step <= steps; step++) {
    const next = at(step)
    lengths[step] = (lengths[step - 1] as number) + Math.hypot(next.x - last.x, next.y - last.y)
    last = next
  }
  return (turn) => {
    const wanted = (turn - Math.floor(turn)) * (lengths[steps] as number)
    let [low, high] = [0, steps]
    while (high - low > 1) {
      const middle = (low + high) >> 1
      if ((lengths[middle] as number) <= wanted) low = middle
      else high = middle
    }
    const step = (lengths[high] as number) - (lengths[low] as number)
    return at(low + (step > 0 ? (wanted - (lengths[low] as number)) / step : 0))
  }
}
