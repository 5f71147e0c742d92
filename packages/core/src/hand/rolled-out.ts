/** A tube, a disc or a band laid flat: each round a row, rolled out, with the half bead by which rounds are set off from each other. */
import type { EvaluatedPattern } from '../report/evaluated-pattern'

export interface FlatBead {
  readonly bead: number
  readonly role: string
  /** From the left, 0 to 1 once round. */
  readonly x: number
  /** From the bottom, in rows. */
  readonly row: number
}

export interface RolledOut {
  readonly beads: readonly FlatBead[]
  readonly rows: number
  /** Beads of the fullest row. */
  readonly widest: number
}

/** @returns undefined where nothing lies in rounds or rows */
export function rolledOut({ work, letterOf }: Pick<EvaluatedPattern, 'work' | 'letterOf'>): RolledOut | undefined {
  const heightOf = heights(work.courses.length, (course) => {
    const of = work.courses[course]
    return of && 'on' in of ? of.on : undefined
  })
  const placed: { bead: number; role: string; x: number; height: number }[] = []
  for (let bead = 0; bead < work.beads; bead++) {
    const { course, turn, lift } = work.seat(bead)
    if (course < 0) continue
    const of = work.courses[course]
    // A first row that peyote has set to and fro is two rows; what grows to the back lies beneath it.
    const side = of && 'side' in of ? of.side : 1
    const set = of && 'on' in of ? side * (heightOf[course] ?? 0) : lift
    placed.push({ bead, role: letterOf(work.role(bead)), x: ((turn % 1) + 1) % 1, height: set })
  }
  if (placed.length === 0) return undefined
  const levels = [...new Set(placed.map(({ height }) => height))].sort((a, b) => a - b)
  const rowOf = new Map(levels.map((height, row) => [height, row]))
  const counts = new Map<number, number>()
  const beads = placed.map(({ bead, role, x, height }): FlatBead => {
    const row = rowOf.get(height) ?? 0
    counts.set(row, (counts.get(row) ?? 0) + 1)
    return { bead, role, x, row }
  })
  return { beads, rows: levels.length, widest: Math.max(...counts.values()) }
}

/** How many courses each stands on, counted from the first. */
function heights(count: number, below: (course: number) => number | undefined): number[] {
  const found: number[] = []
  for (let course = 0; course < count; course++) {
    const on = below(course)
    found.push(on === undefined || on < 0 ? 0 : (found[on] ?? 0) + 1)
  }
  return found
}
