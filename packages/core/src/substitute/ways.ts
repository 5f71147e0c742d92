/**
 * The schools of another bead, computed and compared: let every count follow it, only the arcs that bridge, none, or refill written runs to their
 * length; each settled, so that its size and how the stone is held are measured and not guessed.
 */
import { type Finished, finishedIn } from '../form/finished'
import { formedPattern } from '../form/form-pattern'
import { type Counting, countings } from '../sizing/counting'
import { type Consequence, consequenceOf } from './consequence'
import { type Candidate, kitsFrom, type Question, withBead } from './substitutes'

export interface Way {
  /** More than one where they come to the same. */
  readonly countings: readonly Counting[]
  readonly consequence: Consequence
  /** Undefined where its form does not come to rest. */
  readonly finished: Finished | undefined
  readonly kits: number
}

export interface Ways {
  readonly before: Finished | undefined
  readonly ways: readonly Way[]
}

export function waysWith(
  question: Omit<Question, 'candidates' | 'touching' | 'colours' | 'kits'>,
  candidate: Candidate,
): Ways {
  const { source, choices, role } = question
  const before = formedPattern(source, choices).evaluated.report
  const ways: (Way & { readonly added: string })[] = []
  for (const counting of countings) {
    const { report } = formedPattern(source, withBead(choices, role, candidate.bead, counting)).evaluated
    const added = JSON.stringify(report.statements.map((statement) => statement.added))
    const same = ways.findIndex((way) => way.added === added)
    const known = ways[same]
    if (known) ways[same] = { ...known, countings: [...known.countings, counting] }
    else
      ways.push({
        added,
        countings: [counting],
        consequence: consequenceOf(before, report),
        finished: finishedIn(report),
        kits: kitsFrom(report, question, candidate),
      })
  }
  return { before: finishedIn(before), ways: ways.map(({ added: _, ...way }) => way) }
}
