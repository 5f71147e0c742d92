/** Reckons patterns off the page's own thread, so that typing is never held up. */
import { type Choices, reckonPattern } from '@tessellum/core/report/reckon-pattern'
import type { Report } from '@tessellum/core/report/report'
import { type Question, type Substitute, substitutesFor } from '@tessellum/core/substitute/substitutes'
import { expose } from 'comlink'

const bench = {
  reckon: (source: string, choices: Choices): Report => reckonPattern(source, choices).report,
  substitutes: (question: Question): Substitute[] => substitutesFor(question),
}

export type ReckonBench = typeof bench

expose(bench)
