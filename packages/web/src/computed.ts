import { queryOptions, skipToken } from '@tanstack/react-query'
import type { Edition } from '@tessellum/contract/editions'
import type { Bead } from '@tessellum/core/catalogue/bead'
import type { StoneQuestion } from '@tessellum/core/desk/stone-desk'
import type { Hand } from '@tessellum/core/drawing/mirror'
import type { Choices } from '@tessellum/core/evaluate/evaluate-pattern'
import type { Mm } from '@tessellum/core/measure/units'
import type { Candidate, Question } from '@tessellum/core/substitute/substitutes'
import type { Setting } from '@tessellum/core/writing/html'
import type { LanguageCode } from '@tessellum/core/writing/language'
import { evaluateClient, patientClient } from './patterns/use-evaluated'
import { formClient } from './piece/form-client'
import { writer } from './writing/write-client'

/** A measure of a pattern, and what it is tried over. */
export interface MeasuresAsked {
  readonly name: string
  readonly values: readonly Mm[]
}

/** Everything the pages have computed for them in workers, beside what they read from the shop. Nothing is asked before its question is known. */
export const computed = {
  makers: (source: string, choices: Choices, records: readonly Bead[] | undefined) =>
    queryOptions({
      queryKey: ['makers', source, choices, records?.length],
      queryFn: records ? () => evaluateClient.makers(source, choices, records) : skipToken,
    }),
  graded: (source: string, choices: Choices, asked: MeasuresAsked | undefined) =>
    queryOptions({
      queryKey: ['graded', source, choices, asked],
      retry: false,
      queryFn: asked ? () => patientClient.grade(source, choices, asked.name, asked.values) : skipToken,
    }),
  stone: (question: StoneQuestion | undefined) =>
    queryOptions({
      queryKey: ['stone', question],
      retry: false,
      staleTime: Number.POSITIVE_INFINITY,
      queryFn: question ? () => formClient.stoneDesk(question) : skipToken,
    }),
  /** Small drawings, one for each text; undefined where a text gives none. */
  sketches: (sources: readonly string[]) =>
    queryOptions({
      queryKey: ['sketches', sources],
      staleTime: Number.POSITIVE_INFINITY,
      queryFn: () => formClient.sketch(sources),
    }),
  /** The shelf changes with every move; what it offers is looked at again after a while. */
  substitutes: (question: Question) => {
    const { candidates, touching, now, ...asked } = question
    return queryOptions({
      queryKey: ['substitutes', asked, now?.id, candidates.length, touching.length],
      staleTime: 30_000,
      queryFn: () => evaluateClient.substitutes(question),
    })
  },
  ways: (question: Omit<Question, 'candidates' | 'touching' | 'colours' | 'kits'>, candidate: Candidate) =>
    queryOptions({
      queryKey: ['ways', question.source, question.choices, question.role, candidate.id, candidate.free],
      retry: false,
      staleTime: 60_000,
      queryFn: () => patientClient.ways(question, candidate),
    }),
  written: (edition: Edition | undefined, language: LanguageCode, hand: Hand, chosen: Omit<Setting, 'drawings'>) =>
    queryOptions({
      queryKey: ['written', edition, language, hand, chosen],
      retry: false,
      staleTime: Number.POSITIVE_INFINITY,
      gcTime: 60_000,
      queryFn: edition ? () => writer.ask((remote) => remote.write(edition, language, hand, chosen)) : skipToken,
    }),
  checked: (edition: Edition | undefined) =>
    queryOptions({
      queryKey: ['checked', edition],
      retry: false,
      staleTime: Number.POSITIVE_INFINITY,
      gcTime: 60_000,
      queryFn: edition ? () => writer.ask((remote) => remote.check(edition)) : skipToken,
    }),
}
