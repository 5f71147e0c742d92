/**
 * Where the rows round a stone or a wire ring begin: the first on its outline, each round in the gaps of the one beneath a little out or in
 * of it and a little above or below.
 */
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

/** A row: its distance outward from the first row's line and its height toward the front; of beads that stand, how their holes rise, as a sine. */
interface Level {
  readonly out: Mm
  readonly height: Mm
  readonly rises?: number
}

interface Place {
  readonly centre: Vector
  readonly axis: Vector
}

/** Between a bead that stands and what it stands on. */
const threadMm: Mm = 0.1

/** A row that a stone or a wire ring is seated by, with its stone. */
export interface FirstRow {
  readonly course: number
  readonly stone: Stone | undefined
}

/**
 * Gives the beads of a first row, and of the rounds and standing rows on it, their places about its middle.
 *
 * @param shapeOf a bead's shape
 * @returns undefined for a bead that is in none of those rows
 */
export function profileOf(
  work: Work,
  { course: root, stone }: FirstRow,
  shapeOf: (bead: number) => Shape,
): (bead: number) => Place | undefined {
  const rows: number[][] = work.courses.map(() => [])
  for (let bead = 0; bead < work.beads; bead++) rows[work.seat(bead).course]?.push(bead)
  const lengthOf = (bead: number) => shapeOf(bead).bead.lengthMm
  const acrossOf = (bead: number) => shapeOf(bead).bead.acrossMm
  const meanOf = (course: number, of: (bead: number) => Mm) => {
    const row = rows[course] as number[]
    return row.length > 0 ? sum(row.map(of)) / row.length : 2
  }
  const first = work.courses[root] as Course
  const lengthRound =
    first.kind === 'gaps' ? lengthAlong(first) : Math.max(1, sum((rows[root] as number[]).map(lengthOf)))
  const outline = outlineRound()

  const levels = new Map<number, Level>()
  for (const [index, course] of work.courses.entries()) {
    const level = levelOf(course, index)
    if (level) levels.set(index, level)
  }

  function levelOf(course: Course, index: number): Level | undefined {
    if (course.kind === 'standing') return standing(course, index)
    if (index === root) return { out: 0, height: 0 }
    const below = course.kind === 'gaps' ? levels.get(course.on) : undefined
    if (course.kind !== 'gaps' || !below) return undefined
    const d = (meanOf(index, acrossOf) + meanOf(course.on, acrossOf)) / 2
    const step = (course.on === root ? 0.75 : 0.5) * d
    // The round's own length against that of the row beneath says how far it draws in or spreads.
    const beneath = work.courses[course.on] as Course
    const spread =
      (lengthAlong(course) - (beneath.kind === 'gaps' ? lengthAlong(beneath) : lengthRound)) / (2 * Math.PI)
    const free = outside(below.height + course.side * step) - below.out
    const by = clip(Math.max(clip(spread, 0.9 * step), free), 0.9 * step)
    return { out: below.out + by, height: below.height + course.side * Math.sqrt(step ** 2 - by ** 2) }
  }

  /** A row of fewer beads than there is room for rises from the one that it stands on. */
  function standing(course: Course & { kind: 'standing' }, index: number): Level | undefined {
    if (index === root) return { out: course.radiusMm + meanOf(index, lengthOf) / 2 + threadMm, height: 0 }
    const below = course.on === undefined ? undefined : levels.get(course.on)
    if (course.on === undefined || !below) return undefined
    const step = (meanOf(index, lengthOf) + meanOf(course.on, lengthOf)) / 2 + threadMm
    const tops = (course.topsMm * (rows[index] as number[]).length) / (2 * Math.PI)
    const by = clip(tops - meanOf(index, lengthOf) / 2 - below.out, step)
    const up = Math.sqrt(step ** 2 - by ** 2)
    return { out: below.out + by, height: below.height + up, rises: up / step }
  }

  /** How far a row must keep out of the first row's line at this height so as not to begin inside the stone. */
  function outside(height: Mm): Mm {
    if (!stone) return Number.NEGATIVE_INFINITY
    return (stoneShareAt(stone, height) - 1) * (girth(stone.outline) / (2 * Math.PI))
  }

  /** Through the beads that a round adds and passes. */
  function lengthAlong(course: Extract<Course, { on: number; from: number }>): Mm {
    let length = 0
    for (let pass = course.from; pass < course.to; pass++) length += lengthOf(beadOf(work.holeAt(pass)))
    return length
  }

  /** The line of the first row, by the share of the way along it. */
  function outlineRound(): Outline {
    if (first.kind === 'standing') return outlineOf({ shape: 'girth', girth: 2 * Math.PI * 1e-6 })
    if (!stone) return outlineOf({ shape: 'girth', girth: lengthRound })
    const apart = Math.max((lengthRound - girth(stone.outline)) / (2 * Math.PI), 0.45 * meanOf(root, acrossOf))
    return besides(outlineOf(stone.outline), apart)
  }

  function heightOf(course: Course, index: number, lift: number): Level {
    const level = levels.get(index) as Level
    if (index === root)
      return { out: level.out, height: course.kind === 'ring' ? (lift * meanOf(index, acrossOf)) / 2 : 0 }
    if (course.kind !== 'gaps') return level
    const below = levels.get(course.on) as Level
    return {
      out: below.out + (level.out - below.out) * lift,
      height: below.height + (level.height - below.height) * lift,
    }
  }

  return (bead) => {
    const { course: index, turn, lift } = work.seat(bead)
    if (!levels.has(index)) return undefined
    const course = work.courses[index] as Course
    const { out, height } = heightOf(course, index, lift)
    const rises = levels.get(index)?.rises ?? 0
    const outward = Math.sqrt(1 - rises ** 2)
    const { x, y, nx, ny } = outline(turn)
    return {
      centre: [x + nx * out, y + ny * out, height],
      // A bead that stands was picked up from its top.
      axis: course.kind === 'standing' ? [-nx * outward, -ny * outward, -rises] : [ny, -nx, 0],
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
