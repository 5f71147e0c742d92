/**
 * Whether the thread decides how long a repeat is. A rope turns about its core with hardly more thread at one pitch than at another; how
 * tightly it was pulled decides, and no form knows that. So half as many repeats are brought to rest too, and must lie as all of them do.
 */

import type { Mm } from '../measure/units'
import type { EvaluatedPattern } from '../report/evaluated-pattern'
import type { Measures, Pitch } from '../report/measures'
import { beginForm } from './form'
import type { KeptForms } from './kept-forms'
import { halved, shortened } from './long'
import { pitchOf, runsOf } from './run'

/** Pitches that agree within this share of themselves are decided. */
const decided = 0.03
/** Fewer repeats by this share are another piece. */
const fewer = 0.75

/**
 * Pitches with what else they may come to, where the thread does not decide them.
 *
 * @param measures of a form that is sound
 * @yields between iterations, so that whoever runs it may leave off
 */
export function* withLoose(
  evaluated: EvaluatedPattern,
  { pitches, along }: Pick<Measures, 'pitches' | 'along'>,
  forms: KeptForms,
): Generator<void, readonly Pitch[]> {
  // Half of a closed band would be bent more.
  if (pitches.length === 0 || along?.type === 'band') return pitches
  // A long piece lies as a few of its repeats do.
  const few = shortened(evaluated)?.few ?? evaluated
  const half = halved(few)
  if (!half) return pitches
  const { piece, settling } = beginForm(half, forms)
  while (!settling.progress.settled && !settling.progress.spent) {
    settling.run(1)
    yield
  }
  const found = runsOf(evaluated, piece, evaluated.work).flatMap((run) => pitchOf(run) ?? [])
  return pitches.map((pitch): Pitch => {
    const other = found.find(({ statement }) => statement === pitch.statement)
    if (!other || other.repeats > fewer * pitch.repeats) return pitch
    const looseMm: readonly [Mm, Mm] = [Math.min(pitch.pitchMm, other.pitchMm), Math.max(pitch.pitchMm, other.pitchMm)]
    return looseMm[1] > looseMm[0] * (1 + decided) ? { ...pitch, looseMm } : pitch
  })
}
