/** Evaluates patterns off the page's own thread, so that typing is never held up. */
import type { Bead } from '@tessellum/core/catalogue/bead'
import type { Grade } from '@tessellum/core/desk/grade'
import { type Choices, evaluatePattern } from '@tessellum/core/evaluate/evaluate-pattern'
import { type Brush, brushed } from '@tessellum/core/hand/brush'
import type { HandPass } from '@tessellum/core/hand/hand-pass'
import { mirrored } from '@tessellum/core/hand/mirror'
import { type NotPainted, type Painted, paint } from '@tessellum/core/hand/paint'
import { type RolledOut, rolledOut } from '@tessellum/core/hand/rolled-out'
import type { NoWork } from '@tessellum/core/hand/so-far'
import { type HandState, Stitching, sameAsDrawn, type WayThere } from '@tessellum/core/hand/stitching'
import type { Report } from '@tessellum/core/report/report'
import { type MakerRow, makersTable } from '@tessellum/core/substitute/makers'
import { type Candidate, type Question, type Substitute, substitutesFor } from '@tessellum/core/substitute/substitutes'
import type { Ways, waysWith } from '@tessellum/core/substitute/ways'

/** The work that a hand stitches on stays the same from pass to pass. */
let begun: { readonly key: string; readonly stitching: ReturnType<typeof Stitching.begin> } | undefined

function stitchingOn(source: string, choices: Choices): ReturnType<typeof Stitching.begin> {
  const key = JSON.stringify([source, choices])
  if (begun?.key !== key) begun = { key, stitching: Stitching.begin(source, choices) }
  return begun.stitching
}

// What settles pieces is more than all else together, and comes when it is asked for.
const grades = () => import('@tessellum/core/desk/grade')
const ways = () => import('@tessellum/core/substitute/ways')

export const tasks = {
  evaluate: (source: string, choices: Choices): Report => evaluatePattern(source, choices).report,
  grade: async (source: string, choices: Choices, name: string, values: readonly number[]): Promise<Grade[]> =>
    (await grades()).gradeOver(source, choices, name, values),
  makers: (source: string, choices: Choices, records: readonly Bead[]): MakerRow[] =>
    makersTable(source, choices, records),
  stitch(source: string, choices: Choices, passes: readonly HandPass[], drawn: Int32Array): HandState | NoWork {
    const stitching = stitchingOn(source, choices)
    return stitching instanceof Stitching ? stitching.state(passes, drawn) : stitching
  },
  wayThere(source: string, choices: Choices, passes: readonly HandPass[], bead: number): WayThere | undefined {
    const stitching = stitchingOn(source, choices)
    return stitching instanceof Stitching ? stitching.way(passes, bead) : undefined
  },
  rolledOut: (source: string, choices: Choices): RolledOut | undefined => rolledOut(evaluatePattern(source, choices)),
  mirrored,
  paint(
    source: string,
    choices: Choices,
    bead: number,
    brush: Brush,
    letter: string,
    drawn?: Int32Array,
  ): (Painted & { readonly round: number }) | NotPainted {
    const { work } = evaluatePattern(source, choices)
    if (drawn && (drawn.length !== work.passes || sameAsDrawn(work, drawn) < work.passes))
      return { why: 'The piece is being laid out again. Paint again when it is there.' }
    const at = brushed(work, bead, brush)
    const painted = paint(source, choices, new Map(at.map((each) => [each, letter])))
    return 'why' in painted ? painted : { ...painted, round: brushed(work, bead, { type: 'round' }).length }
  },
  substitutes: (question: Question): Substitute[] => substitutesFor(question),
  ways: async (question: Parameters<typeof waysWith>[0], candidate: Candidate): Promise<Ways> =>
    (await ways()).waysWith(question, candidate),
}

export type EvaluateTasks = typeof tasks
