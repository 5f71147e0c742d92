/**
 * A pattern worked through and settled: evaluated by plain rules, its form computed, and evaluated again with what was read off the form.
 * Begun as a generator, so that whoever runs it may show the piece between slices, or leave off.
 */

import { type Choices, evaluatePattern } from '../evaluate/evaluate-pattern'
import { usualSize } from '../evaluate/usual-size'
import type { Mm } from '../measure/units'
import type { EvaluatedPattern } from '../report/evaluated-pattern'
import type { FormReport, FormUnavailable } from '../report/form-report'
import type { Measures, Pitch, Progress } from '../report/measures'
import type { Formed } from '../stitch/stitch-machine'
import { findingsOf, unsoundWords } from './findings'
import { beginForm, type Form, maxSettled } from './form'
import { type KeptForms, LastForms } from './kept-forms'
import { withLoose } from './loose'
import { measure, strainOf, threadLaid } from './measure'
import { NoShape } from './shape'
import { soundnessOf } from './soundness'

export interface FormedPattern {
  /** By its form where that is sound; by plain rules otherwise. */
  readonly evaluated: EvaluatedPattern
  /** Undefined when none could be begun. */
  readonly form: Form | undefined
  readonly unformed: FormUnavailable | undefined
  /** By line: of the repeats that run to a length, what their counts were worked out with. */
  readonly pitches: Readonly<Record<number, Mm>>
}

/** Colourways, sizes side by side and editions ask for the same few forms again and again. */
export const lastForms = new LastForms()

/** Pitches are read off a form and put to use so often at the most: lengths hardly ever need more than one. */
const maxRounds = 3
/** A pitch within this share of the one before is as good. */
const samePitch = 0.01

/**
 * Thread measured on a form is up to so much longer than by the plain rules: 1.120 in 25 pieces of all techniques and sizes, from 0.84 on. Where
 * nothing could be measured, thread is rather cut too long than too short.
 */
const maxStretch = 1.12

type Look = { readonly evaluated: EvaluatedPattern; readonly form: Form; readonly progress: Progress }

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
): Generator<Look, FormedPattern> {
  const kept = keptPitches(source, choices, forms)
  const evaluateBy = (formed: Formed) => evaluatePattern(source, { ...choices, formed })
  let pitches: Record<number, Mm> = kept ?? {}
  for (let round = 1; ; round++) {
    const evaluated = evaluateBy({ laid: undefined, pitches })
    const { beads, passes } = evaluated.work
    const without = (why: string, stretch = 1): FormedPattern => ({
      evaluated: stretch === 1 ? evaluated : evaluateBy({ laid: undefined, pitches, stretch }),
      form: undefined,
      unformed: { progress: undefined, why },
      pitches,
    })
    if (beads === 0) return without('Nothing has been picked up yet.')
    if (beads > maxSettled)
      return without(
        `${beads.toLocaleString('en-GB')} beads are more than the ${maxSettled.toLocaleString('en-GB')} whose form is computed: the plain estimates stand.`,
        stretchIn(source, choices, evaluated.report, forms),
      )
    let form: Form
    try {
      form = yield* settled(evaluated, slice, forms)
    } catch (error) {
      if (!(error instanceof NoShape)) throw error
      return without(`${error.message} Fix it in the catalogue.`)
    }
    const { progress } = form.settling
    const soundness = soundnessOf(form)
    const strain = strainOf(form)
    const told = { progress, strained: soundness.strained, strain }
    if (!soundness.sound) {
      const plain = evaluatePattern(source, {
        ...choices,
        formed: {
          laid: undefined,
          pitches: kept ?? {},
          stretch: stretchIn(source, choices, evaluated.report, forms),
          unsound: true,
        },
      })
      const why = unsoundWords(soundness, progress, strain, evaluated.report)
      const unsound: FormReport = { ...told, sound: false, findings: [{ line: undefined, tone: 'trouble', text: why }] }
      return {
        evaluated: { ...plain, report: { ...plain.report, form: unsound } },
        form,
        unformed: { progress, why },
        pitches: kept ?? {},
      }
    }
    let measures = measure(evaluated, form)
    const found = pitchesWanted(evaluated, measures.pitches)
    const changed = Object.entries(found).some(
      ([line, pitch]) => Math.abs((pitches[Number(line)] ?? 0) / pitch - 1) > samePitch,
    )
    if (!kept && changed && round < maxRounds) {
      pitches = { ...pitches, ...found }
      continue
    }
    const checking = withLoose(evaluated, measures, forms)
    let checked = checking.next()
    for (let i = 1; !checked.done; i++, checked = checking.next())
      if (i % slice === 0) yield { evaluated, form, progress }
    measures = measuredWith(measures, checked.value)
    const loose = looseWanted(evaluated, measures.pitches)
    const held = Object.fromEntries(measures.held.map(({ stone, ...hold }) => [stone, hold]))
    const measured = evaluateBy({ laid: threadLaid(form.piece), pitches, loose, held })
    const usable = measured.work.passes === passes ? measured : evaluated
    const report: FormReport = {
      ...measures,
      ...told,
      sound: true,
      findings: findingsOf(measures, strain, usable.report),
    }
    return { evaluated: { ...usable, report: { ...usable.report, form: report } }, form, unformed: undefined, pitches }
  }
}

/** As much longer as in another size of the same pattern, so that a larger one takes no less thread than a smaller; else as much as it may be. */
function stretchIn(
  source: string,
  choices: Choices,
  { size: asked, sizes }: EvaluatedPattern['report'],
  forms: KeptForms,
): number {
  const usual = usualSize(source)
  const other = [usual, ...sizes].find((size) => size !== asked)
  if (other === undefined || resting.has(source)) return maxStretch
  // The other size is not to look to this one in its turn.
  resting.add(source)
  try {
    const { evaluated, pitches, unformed } = formedPattern(source, { ...choices, size: other }, forms)
    if (unformed) return maxStretch
    const plain = evaluatePattern(source, { ...choices, size: other, formed: { laid: undefined, pitches } })
    return evaluated.report.thread.pathMm / plain.report.thread.pathMm
  } finally {
    resting.delete(source)
  }
}

/** Patterns another size of which is being looked at. */
const resting = new Set<string>()

/** @throws NoShape */
function* settled(evaluated: EvaluatedPattern, slice: number, forms: KeptForms): Generator<Look, Form> {
  const form = beginForm(evaluated, forms)
  const { settling } = form
  // A long piece is not there before a few of its repeats are.
  if (!settling.progress.settled) settling.run(1)
  for (;;) {
    const { progress } = settling
    yield { ...(form.meanwhile ?? { evaluated, form }), progress }
    if (progress.settled || progress.spent) return form
    settling.run(slice)
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
  const { report } = evaluatePattern(source, choices)
  const pitched = report.statements.some(
    ({ action }) => action.type === 'repeat' && action.pitch && action.pitch !== 'written',
  )
  if (!pitched) return {}
  return { ...formedPattern(source, choices, forms).pitches }
}

/** Pitches of the repeats that run to a length without one written, by line. */
const pitchesWanted = (evaluated: EvaluatedPattern, pitches: readonly Pitch[]): Record<number, Mm> =>
  Object.fromEntries(wanted(evaluated, pitches).map(({ line, pitch }) => [line, pitch.pitchMm]))

const looseWanted = (evaluated: EvaluatedPattern, pitches: readonly Pitch[]): Formed['loose'] =>
  Object.fromEntries(
    wanted(evaluated, pitches).flatMap(({ line, pitch }) => (pitch.looseMm ? [[line, pitch.looseMm]] : [])),
  )

function wanted({ report }: EvaluatedPattern, pitches: readonly Pitch[]) {
  return pitches.flatMap((pitch) => {
    const found = report.statements[pitch.statement]
    const runs = found?.action.type === 'repeat' && found.action.pitch && found.action.pitch !== 'written'
    return runs ? [{ line: found.line, pitch }] : []
  })
}

/** Where a repeat's length is not decided, the length of what it makes is not, either. */
function measuredWith(measures: Measures, pitches: readonly Pitch[]): Measures {
  const loose = pitches.some(({ looseMm }) => looseMm)
  return { ...measures, pitches, along: loose && measures.along?.type === 'chain' ? undefined : measures.along }
}

/** All of it at once: for scripts, documents and tests. */
export function formedPattern(source: string, choices: Choices = {}, forms: KeptForms = lastForms): FormedPattern {
  const working = formPattern(source, choices, 1000, forms)
  for (;;) {
    const next = working.next()
    if (next.done) return next.value
  }
}
