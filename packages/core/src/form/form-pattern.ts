/**
 * A pattern worked through and settled: reckoned by plain rules, its form computed, and reckoned again with what was read off the form.
 * Begun as a generator, so that whoever runs it may show the piece between slices, or leave off.
 */
import type { Mm } from '../measure/units'
import { type Choices, type Reckoned, reckonPattern } from '../report/reckon-pattern'
import { findingsOf } from './findings'
import { beginForm, type Form, mostSettled } from './form'
import type { FormReport, Unformed } from './form-report'
import { measure } from './measure'
import type { Progress } from './settle'
import { NoShape } from './shape'

export interface FormedPattern {
  /** With a form in its report when the form has come to rest; by plain rules otherwise. */
  readonly reckoned: Reckoned
  /** Undefined when none could be begun. */
  readonly form: Form | undefined
  readonly unformed: Unformed | undefined
}

/** Pitches are read off a form and put to use so often at the most: lengths hardly ever need more than one. */
const mostRounds = 3

/**
 * @param slice iterations between one look and the next
 * @yields the form as it is then; leave off by not asking for more
 */
export function* formPattern(
  source: string,
  choices: Choices = {},
  slice = 10,
): Generator<{ reckoned: Reckoned; form: Form; progress: Progress }, FormedPattern> {
  const kept = keptPitches(source, choices)
  let pitches: Record<number, Mm> = kept ?? {}
  for (let round = 1; ; round++) {
    const reckoned = reckonPattern(source, { ...choices, formed: { laid: undefined, pitches } })
    const { beads, passes } = reckoned.work
    if (beads === 0)
      return { reckoned, form: undefined, unformed: { progress: undefined, why: 'Nothing has been picked up yet.' } }
    let form: Form
    try {
      form = beginForm(reckoned)
    } catch (error) {
      if (!(error instanceof NoShape)) throw error
      return {
        reckoned,
        form: undefined,
        unformed: { progress: undefined, why: `${error.message} Mend it in the catalogue.` },
      }
    }
    if (beads > mostSettled) {
      const why = `${beads.toLocaleString('en-GB')} beads are more than the ${mostSettled.toLocaleString('en-GB')} that are settled: it is drawn as it was laid out, and the plain estimates stand.`
      return { reckoned, form, unformed: { progress: undefined, why } }
    }
    yield { reckoned, form, progress: form.settling.progress }
    let progress = form.settling.progress
    while (!progress.settled && !progress.spent) {
      progress = form.settling.run(slice)
      yield { reckoned, form, progress }
    }
    const { laid, ...measures } = measure(reckoned, form)
    const found = pitchesWanted(reckoned, measures.pitches)
    const changed = Object.entries(found).some(([line, pitch]) => Math.abs((pitches[Number(line)] ?? 0) - pitch) > 0.01)
    if (progress.settled && !kept && changed && round < mostRounds) {
      pitches = { ...pitches, ...found }
      continue
    }
    const measured = progress.settled ? reckonPattern(source, { ...choices, formed: { laid, pitches } }) : reckoned
    const usable = measured.work.passes === passes ? measured : reckoned
    const report: FormReport = { ...measures, findings: findingsOf(measures, usable.report) }
    const why = `The form has not come to rest after ${progress.iterations} steps: the plain estimates stand.`
    return {
      reckoned: { ...usable, report: { ...usable.report, form: report } },
      form,
      unformed: progress.settled ? undefined : { progress, why },
    }
  }
}

/** Where counts stay as written, repeats to a length are those of the bead the pattern was written for. */
function keptPitches(source: string, { counting = {}, beads = {}, ...rest }: Choices): Record<number, Mm> | undefined {
  const keeps = (role: string) => counting[role] === 'none' || counting[role] === 'arcs'
  if (!Object.keys(beads).some(keeps)) return undefined
  const others = Object.fromEntries(Object.entries(beads).filter(([role]) => !keeps(role)))
  const choices = { ...rest, counting, beads: others }
  const { report } = reckonPattern(source, choices)
  const pitched = report.statements.some(
    ({ action }) => action.type === 'repeat' && action.pitch && action.pitch !== 'written',
  )
  if (!pitched) return {}
  const { reckoned } = formedPattern(source, choices)
  return pitchesWanted(reckoned, reckoned.report.form?.pitches ?? [])
}

/** Pitches of the repeats that run to a length without one written. */
function pitchesWanted({ report }: Reckoned, pitches: FormReport['pitches']): Record<number, Mm> {
  return Object.fromEntries(
    pitches.flatMap(({ statement, pitchMm }) => {
      const found = report.statements[statement]
      const wanted = found?.action.type === 'repeat' && found.action.pitch && found.action.pitch !== 'written'
      return wanted ? [[found.line, pitchMm]] : []
    }),
  )
}

/** All of it at once: for scripts, documents and tests. */
export function formedPattern(source: string, choices: Choices = {}): FormedPattern {
  const working = formPattern(source, choices, 1000)
  for (;;) {
    const next = working.next()
    if (next.done) return next.value
  }
}
