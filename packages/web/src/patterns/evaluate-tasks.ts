/** Evaluates patterns off the page's own thread, so that typing is never held up. */
import type { Bead } from '@tessellum/core/catalogue/bead'
import type { Grade } from '@tessellum/core/desk/grade'
import { type Choices, evaluatePattern } from '@tessellum/core/evaluate/evaluate-pattern'
import type { Report } from '@tessellum/core/report/report'
import type { MakerRow } from '@tessellum/core/substitute/makers'
import type { Candidate, Question, Substitute } from '@tessellum/core/substitute/substitutes'
import type { Ways, waysWith } from '@tessellum/core/substitute/ways'

// What settles pieces is more than all else together, and comes when it is asked for; so does what is not wanted at every key.
const grades = () => import('@tessellum/core/desk/grade')
const makers = () => import('@tessellum/core/substitute/makers')
const substitutes = () => import('@tessellum/core/substitute/substitutes')
const ways = () => import('@tessellum/core/substitute/ways')
const mirror = () => import('@tessellum/core/hand/mirror')
const hand = () => import('./hand-tasks')

type Mirror = typeof import('@tessellum/core/hand/mirror')
type Hand = typeof import('./hand-tasks')

export const tasks = {
  evaluate: (source: string, choices: Choices): Report => evaluatePattern(source, choices).report,
  grade: async (source: string, choices: Choices, name: string, values: readonly number[]): Promise<Grade[]> =>
    (await grades()).gradeOver(source, choices, name, values),
  makers: async (source: string, choices: Choices, records: readonly Bead[]): Promise<MakerRow[]> =>
    (await makers()).makersTable(source, choices, records),
  stitch: async (...asked: Parameters<Hand['stitch']>) => (await hand()).stitch(...asked),
  wayThere: async (...asked: Parameters<Hand['wayThere']>) => (await hand()).wayThere(...asked),
  rolledOut: async (...asked: Parameters<Hand['rolledOut']>) => (await hand()).rolledOut(...asked),
  mirrored: async (...asked: Parameters<Mirror['mirrored']>) => (await mirror()).mirrored(...asked),
  paint: async (...asked: Parameters<Hand['paint']>) => (await hand()).paint(...asked),
  substitutes: async (question: Question): Promise<Substitute[]> => (await substitutes()).substitutesFor(question),
  ways: async (question: Parameters<typeof waysWith>[0], candidate: Candidate): Promise<Ways> =>
    (await ways()).waysWith(question, candidate),
}

export type EvaluateTasks = typeof tasks
