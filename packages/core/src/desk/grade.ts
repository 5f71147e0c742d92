/** A pattern graded over a list of sizes: what each comes to, which break a rule, and the nearest that keeps it. */

import { type Choices, evaluatePattern } from '../evaluate/evaluate-pattern'
import { Faults } from '../evaluate/faults'
import { readSheet } from '../evaluate/program'
import { type Finished, finishedIn } from '../form/finished'
import { formedPattern } from '../form/form-pattern'
import type { Mm } from '../measure/units'
import { parsePattern } from '../notation/parse'
import type { Report } from '../report/report'

export interface Grade {
  readonly valueMm: Mm
  /** With thread measured on the form, where it has come to rest. */
  readonly report: Report
  readonly finished: Finished | undefined
  /** What rule it breaks; undefined where it keeps them all. */
  readonly breaks: string | undefined
  /** The nearest measure that keeps every rule, where this one does not and there is one within reach. */
  readonly nearestMm: Mm | undefined
}

export const maxGrades = 24
/** How far a nearer measure is looked for, and in what steps. */
const reachMm: Mm = 3
const stepMm: Mm = 0.1

/** The measures that a pattern's sizes set: "width", "length". */
export function measuresOf(source: string): string[] {
  const parsed = parsePattern(source)
  const { sizes } = readSheet(parsed.lines, new Faults(parsed))
  return [...new Set(sizes.flatMap((size) => size.settings.map(({ name }) => name)))]
}

/**
 * @param name the measure that is graded; the others are as the chosen size has them
 * @throws RangeError for a list that is empty, too long, or has what is no measure
 */
export function gradeOver(source: string, choices: Choices, name: string, values: readonly Mm[]): Grade[] {
  if (values.length === 0) throw new RangeError('Give the measures, for example: 12, 14, 16, 18.')
  if (values.length > maxGrades) throw new RangeError(`At most ${maxGrades} measures at a time.`)
  const wrong = values.find((value) => !(value > 0 && value <= 5000))
  if (wrong !== undefined) throw new RangeError(`${wrong} mm is no measure of a piece; between 0 and 5,000 mm.`)
  const choicesAt = (value: Mm) => ({ ...choices, measures: { ...choices.measures, [name]: value } })
  const at = (value: Mm) => evaluatePattern(source, choicesAt(value)).report
  return values.map((valueMm): Grade => {
    const { report } = formedPattern(source, choicesAt(valueMm)).evaluated
    const breaks = brokenBy(report)
    return {
      valueMm,
      report,
      finished: finishedIn(report),
      breaks,
      nearestMm: breaks === undefined ? undefined : nearestTo(valueMm, at),
    }
  })
}

function brokenBy(report: Report): string | undefined {
  const fault = report.diagnostics.find(({ severity }) => severity === 'error')
  if (fault) return `Line ${fault.line}: ${fault.message}`
  const fit = report.fits.find(({ verdict }) => verdict === 'too tight' || verdict === 'too big')
  return fit && `The ring of ${fit.beads} round ${fit.stone} is ${fit.verdict}.`
}

function nearestTo(value: Mm, at: (value: Mm) => Report): Mm | undefined {
  for (let step = 1; step * stepMm <= reachMm + 1e-9; step++) {
    for (const other of [value - step * stepMm, value + step * stepMm]) {
      const tidy = Math.round(other * 10) / 10
      if (tidy > 0 && brokenBy(at(tidy)) === undefined) return tidy
    }
  }
  return undefined
}

/** "12, 14; 16 mm" as measures; a trailing cm or in counts for all. @throws RangeError that names what is no number */
export function measuresFrom(text: string): Mm[] {
  const [, list = '', unit = 'mm'] = /^(.*?)\s*(mm|cm|in)?\s*$/s.exec(text) ?? []
  const times = unit === 'cm' ? 10 : unit === 'in' ? 25.4 : 1
  return list
    .split(/[,;\s]+/)
    .filter(Boolean)
    .map((word) => {
      const value = Number(word)
      if (!Number.isFinite(value)) throw new RangeError(`"${word}" is not a number. Write for example: 12, 14, 16 mm.`)
      return value * times
    })
}
