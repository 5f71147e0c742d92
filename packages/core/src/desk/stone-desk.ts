/** The sizing desk's first question: what goes round this stone, and what depth of wall holds it? */
import { type Bead, beadName } from '../catalogue/bead'
import { evaluatePattern } from '../evaluate/evaluate-pattern'
import { formedPattern } from '../form/form-pattern'
import type { Mm } from '../measure/units'
import { soundForm } from '../report/form-report'
import { girth } from '../sizing/girth'
import { fitRing, type RingFit } from '../sizing/ring-fit'

export interface StoneQuestion {
  /** As it is written in a pattern: "oval 13 x 18 mm, height 4 mm, domed". */
  readonly stone: string
  readonly wall: Bead
  readonly edge: Bead
  readonly multiple: number
}

/** A wall with so many rounds on each edge of its ring before the edge beads, settled round the stone. */
export interface Wall {
  readonly rounds: number
  readonly frontMm: Mm | undefined
  readonly backMm: Mm | undefined
  readonly holds: boolean
  readonly lines: readonly string[]
}

export interface StoneAnswer {
  readonly girthMm: Mm
  readonly fit: RingFit
  /** From the lowest wall up; none where no count goes round the stone. */
  readonly walls: readonly Wall[]
}

/** An edge that is smaller than the stone by less may let it slip. */
const safeMm: Mm = 0.3
const maxRounds = 4

/** @throws RangeError that says what is wrong with the stone or the multiple, and how to mend it */
export function stoneDesk({ stone, wall, edge, multiple }: StoneQuestion): StoneAnswer {
  if (!Number.isInteger(multiple) || multiple < 2 || multiple > 60)
    throw new RangeError('A ring divides by a whole number from 2 to 60.')
  const beads = { A: wall, C: edge }
  const { report } = evaluatePattern([...declared(stone, wall, edge), 'part bezel', '  ring 12A'].join('\n'), { beads })
  const fault = report.diagnostics.find(({ severity }) => severity === 'error')
  const found = report.stones[0]
  if (fault || !found) throw new RangeError(`${fault?.message ?? 'There is no stone.'} ${fault?.mend ?? ''}`.trim())
  const around = girth(found.stone.outline)
  const fit = fitRing(around, wall, multiple)
  const best = fit.candidates.find(({ count }) => count === fit.best)
  const goes = best !== undefined && best.verdict !== 'too tight' && best.verdict !== 'too big'
  return {
    girthMm: around,
    fit,
    walls: goes ? wallsOf({ stone, wall, edge, multiple }, fit.best) : [],
  }
}

const declared = (stone: string, wall: Bead, edge: Bead) => [
  'pattern Trial',
  `bead A ${beadName(wall)}`,
  `bead C ${beadName(edge)}`,
  `stone S ${stone}`,
  'thread braid 6 lb',
]

/** The lines of a bezel, as they stand in a part. */
export function bezelLines(count: number, rounds: number): string[] {
  const wall = Array.from({ length: rounds }, () => 'round A')
  return [`ring ${count}A`, ...wall, 'round C', 'other edge', ...wall, 'place S', 'round C']
}

function wallsOf({ stone, wall, edge }: StoneQuestion, count: number): Wall[] {
  const walls: Wall[] = []
  // A round at least, so that there are two edges; and no higher than the first that holds.
  for (let rounds = 0; rounds <= maxRounds; rounds++) {
    const lines = bezelLines(count, rounds)
    const source = [...declared(stone, wall, edge), 'part bezel', ...lines, 'finish'].join('\n')
    const { report } = formedPattern(source, { beads: { A: wall, C: edge } }).evaluated
    const held = soundForm(report)?.held[0]
    const holds = (held?.frontMm ?? 0) >= safeMm && (held?.backMm ?? 0) >= safeMm
    walls.push({ rounds, frontMm: held?.frontMm, backMm: held?.backMm, holds, lines })
    if (holds) break
  }
  return walls
}
