import type { Bead } from '@tessellum/core/catalogue/bead'
import { type Choices, evaluatePattern } from '@tessellum/core/evaluate/evaluate-pattern'
import { type FormedPattern, formedPattern } from '@tessellum/core/form/form-pattern'
import type { Report } from '@tessellum/core/report/report'
import { type readArguments, readText } from './arguments'
import { beadFrom } from './bead'
import { InputFault, Misuse } from './trouble'

export const patternOptions = {
  size: { type: 'string' },
  option: { type: 'string', multiple: true },
  bead: { type: 'string', multiple: true },
  plain: { type: 'boolean' },
  json: { type: 'boolean' },
} as const

type Values = ReturnType<typeof readArguments<typeof patternOptions>>['values']

/** What the arguments choose: `--size`, `--option rim=off`, `--bead A="cylinder 11/0 L=1.35"`. */
export function choicesFrom(values: Values): Choices {
  const options: Record<string, boolean> = {}
  for (const each of values.option ?? []) {
    const found = /^([^=]+)=(on|off)$/.exec(each)
    if (!found) throw new Misuse(`--option is "${each}"; write NAME=on or NAME=off.`)
    options[found[1] as string] = found[2] === 'on'
  }
  const beads: Record<string, Bead> = {}
  for (const each of values.bead ?? []) {
    const at = each.indexOf('=')
    if (at < 1 || !/^[A-Z]/.test(each)) throw new Misuse(`--bead is "${each}"; write A="cylinder 11/0 L=1.35".`)
    beads[each.slice(0, at)] = beadFrom(each.slice(at + 1))
  }
  return { ...(values.size === undefined ? {} : { size: values.size }), options, beads }
}

export const formFile = (file: string | undefined, choices: Choices): FormedPattern =>
  formedPattern(readText(file), choices)

/** The same counts and thread as on the page: by the form where it is sound. `--plain` leaves the form out, and is quick. */
export const reportFile = (file: string | undefined, values: Values): Report =>
  values.plain
    ? evaluatePattern(readText(file), choicesFrom(values)).report
    : formFile(file, choicesFrom(values)).evaluated.report

/** Gives the output, or throws it with the faults when the pattern has any. */
export function orFaults(report: Report, output: string): string {
  const faults = report.diagnostics.filter((fault) => fault.severity === 'error')
  if (faults.length === 0) return output
  throw new InputFault(
    faults
      .map(({ line, column, message, mend }) => `${line}:${column}: ${message}${mend ? ` ${mend}` : ''}`)
      .join('\n'),
    output,
  )
}
