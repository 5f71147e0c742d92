/**
 * A pattern worked through and settled: reckoned by plain rules, its form computed, and reckoned again with what was read off the form.
 * Begun as a generator, so that whoever runs it may show the piece between slices, or leave off.
 */
import type { Mm } from '../measure/units'
import { type Choices, type Reckoned, reckonPattern } from '../report/reckon-pattern'
import { findingsOf, unsoundWords } from './findings'
import { beginForm, type Form, mostSettled } from './form'
import type { FormReport, SoundForm, Unformed } from './form-report'
import { type KeptForms, LastForms } from './kept-forms'
import { measure, strainOf, threadLaid } from './measure'
import type { Progress } from './settle'
import { NoShape } from './shape'
import { soundnessOf } from './soundness'

export interface FormedPattern {
  /** By its form where that is sound; by plain rules otherwise. */
  readonly reckoned: Reckoned
  /** Undefined when none could be begun. */
  readonly form: Form | undefined
  readonly unformed: Unformed | undefined
  /** By line: of the repeats that run to a length, what their counts were worked out with. */
  readonly pitches: Readonly<Record<number, Mm>>
}

/** Colourways, sizes side by side and editions ask for the same few forms again and again. */
const lastForms = new LastForms()

/** Pitches are read off a form and put to use so often at the most: lengths hardly ever need more than one. */
const mostRounds = 3

/**
 * @param slice iterations between one look and the next
 * @param forms forms that need not be computed again
 * @yields the form as it is then; leave off by not asking for more
 */
export function* formPattern(
  source: string,
  choices: Choices = {},
  slice = 10,
  forms: KeptForms = lastForms,
): Generator<{ reckoned: Reckoned; form: Form; progress: Progress }, FormedPattern> {
  const kept = keptPitches(source, choices, forms)
  let pitches: Record<number, Mm> = kept ?? {}
  for (let round = 1; ; round++) {
    const reckoned = reckonPattern(source, { ...choices, formed: { laid: undefined, pitches } })
    const { beads, passes } = reckoned.work
    if (beads === 0)
      return {
        reckoned,
        form: undefined,
        unformed: { progress: undefined, why: 'Nothing has been picked up yet.' },
        pitches,
      }
    if (beads > mostSettled) {
      const why = `${beads.toLocaleString('en-GB')} beads are more than the ${mostSettled.toLocaleString('en-GB')} whose form is computed: the plain estimates stand.`
      return { reckoned, form: undefined, unformed: { progress: undefined, why }, pitches }
    }
    let form: Form
    try {
      form = beginForm(reckoned, forms)
    } catch (error) {
      if (!(error instanceof NoShape)) throw error
      return {
        reckoned,
        form: undefined,
        unformed: { progress: undefined, why: `${error.message} Mend it in the catalogue.` },
        pitches,
      }
    }
    yield { reckoned, form, progress: form.settling.progress }
    let progress = form.settling.progress
    while (!progress.settled && !progress.spent) {
      progress = form.settling.run(slice)
      yield { reckoned, form, progress }
    }
    const soundness = soundnessOf(form)
    const strain = strainOf(form)
    const told = { progress, strained: soundness.strained, strain }
    if (!soundness.sound) {
      const plain =
        round > 1 ? reckonPattern(source, { ...choices, formed: { laid: undefined, pitches: kept ?? {} } }) : reckoned
      const why = unsoundWords(soundness, progress, strain, plain.report)
      const unsound: FormReport = { ...told, sound: false, findings: [{ line: undefined, tone: 'trouble', text: why }] }
      return {
        reckoned: { ...plain, report: { ...plain.report, form: unsound } },
        form,
        unformed: { progress, why },
        pitches: kept ?? {},
      }
    }
    const measures = measure(reckoned, form)
    const found = { ...pitches, ...pitchesWanted(reckoned, measures.pitches) }
    // A pitch that changes no count is as good as the one before.
    const again = kept ? undefined : reckonPattern(source, { ...choices, formed: { laid: undefined, pitches: found } })
    if (again && again.work.passes !== passes && round < mostRounds) {
      pitches = found
      continue
    }
    if (again?.work.passes === passes) pitches = found
    const measured = reckonPattern(source, { ...choices, formed: { laid: threadLaid(form.piece), pitches } })
    const usable = measured.work.passes === passes ? measured : reckoned
    const report: FormReport = {
      ...measures,
      ...told,
      sound: true,
      findings: findingsOf(measures, strain, usable.report),
    }
    return { reckoned: { ...usable, report: { ...usable.report, form: report } }, form, unformed: undefined, pitches }
  }
}

/** Where counts stay as written, repeats to a length are those of the bead the pattern was written for. */
function keptPitches(
  source: string,
  { counting = {}, beads = {}, ...rest }: Choices,
  forms: KeptForms,
): Record<number, Mm> | undefined {
  const keeps = (role: string) => counting[role] === 'none' || counting[role] === 'arcs'
  if (!Object.keys(beads).some(keeps)) return undefined
  const others = Object.fromEntries(Object.entries(beads).filter(([role]) => !keeps(role)))
  const choices = { ...rest, counting, beads: others }
  const { report } = reckonPattern(source, choices)
  const pitched = report.statements.some(
    ({ action }) => action.type === 'repeat' && action.pitch && action.pitch !== 'written',
  )
  if (!pitched) return {}
  return { ...formedPattern(source, choices, forms).pitches }
}

/** Pitches of the repeats that run to a length without one written. */
function pitchesWanted({ report }: Reckoned, pitches: SoundForm['pitches']): Record<number, Mm> {
  return Object.fromEntries(
    pitches.flatMap(({ statement, pitchMm }) => {
      const found = report.statements[statement]
      const wanted = found?.action.type === 'repeat' && found.action.pitch && found.action.pitch !== 'written'
      return wanted ? [[found.line, pitchMm]] : []
    }),
  )
}

/** All of it at once: for scripts, documents and tests. */
export function formedPattern(source: string, choices: Choices = {}, forms: KeptForms = lastForms): FormedPattern {
  const working = formPattern(source, choices, 1000, forms)
  for (;;) {
    const next = working.next()
    if (next.done) return next.value
  }
}
