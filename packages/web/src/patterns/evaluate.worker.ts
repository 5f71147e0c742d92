/** Evaluates patterns off the page's own thread, so that typing is never held up. */
import type { Bead } from '@tessellum/core/catalogue/bead'
import { type Grade, gradeOver } from '@tessellum/core/desk/grade'
import { type Choices, evaluatePattern } from '@tessellum/core/evaluate/evaluate-pattern'
import type { Report } from '@tessellum/core/report/report'
import { type MakerRow, makersTable } from '@tessellum/core/substitute/makers'
import { type Candidate, type Question, type Substitute, substitutesFor } from '@tessellum/core/substitute/substitutes'
import { type Ways, waysWith } from '@tessellum/core/substitute/ways'
import { expose } from 'comlink'

const tasks = {
  evaluate: (source: string, choices: Choices): Report => evaluatePattern(source, choices).report,
  grade: (source: string, choices: Choices, name: string, values: readonly number[]): Grade[] =>
    gradeOver(source, choices, name, values),
  makers: (source: string, choices: Choices, records: readonly Bead[]): MakerRow[] =>
    makersTable(source, choices, records),
  substitutes: (question: Question): Substitute[] => substitutesFor(question),
  ways: (question: Parameters<typeof waysWith>[0], candidate: Candidate): Ways => waysWith(question, candidate),
}

export type EvaluateTasks = typeof tasks

expose(tasks)
