import type { FormedPattern } from '@tessellum/core/form/form-pattern'
import { sayAlong, sayExtents, sayMm, soundForm } from '@tessellum/core/report/form-report'
import { readArguments } from './arguments'
import { choicesFrom, formFile, orFaults, patternOptions } from './pattern'

/** `form FILE`: what is read off the computed form. */
export function form(args: string[]): string {
  const { values, positionals } = readArguments(args, patternOptions)
  const formed = formFile(positionals[0], choicesFrom(values))
  const { report } = formed.evaluated
  return orFaults(report, values.json ? `${JSON.stringify(asJson(formed), null, 2)}\n` : asText(formed))
}

/** Figures by line, as scripts rely on them. */
function asJson({ evaluated: { report }, unformed }: FormedPattern) {
  const line = (statement: number) => report.statements[statement]?.line
  const { form } = report
  return {
    pattern: report.pattern,
    size: report.size,
    sound: form?.sound ?? false,
    settled: form?.progress.settled ?? false,
    ...(unformed ? { why: unformed.why } : {}),
    ...(form && {
      iterations: form.progress.iterations,
      strained: form.strained,
      strain: form.strain.map(({ statement, ...rest }) => ({ line: line(statement), ...rest })),
      findings: form.findings,
    }),
    ...(form?.sound && {
      widthMm: form.widthMm,
      heightMm: form.heightMm,
      depthMm: form.depthMm,
      spreadMm: form.spreadMm,
      openings: form.openings.map(({ statement, acrossMm }) => ({ line: line(statement), acrossMm })),
      pitches: form.pitches.map(({ statement, ...rest }) => ({ line: line(statement), ...rest })),
      ...(form.along && { along: form.along }),
      lie: form.lie,
      held: form.held,
    }),
    thread: report.thread,
  }
}

function asText({ evaluated: { report }, unformed }: FormedPattern): string {
  const form = soundForm(report)
  const lines = [
    `${report.pattern}${report.size ? `, ${report.size}` : ''}`,
    ...(unformed ? [unformed.why] : []),
    ...(form
      ? [
          `${sayExtents(form)} (wide, high, deep), after ${form.progress.iterations} steps.`,
          ...(sayAlong(form) ? [`${sayAlong(form)}.`] : []),
          ...form.openings.map(
            ({ statement, acrossMm }) =>
              `Opening of line ${report.statements[statement]?.line}: ${sayMm(acrossMm)} across.`,
          ),
          ...form.findings.map(({ line, text }) => (line === undefined ? text : `Line ${line}: ${text}`)),
        ]
      : []),
    `Thread: ${sayMm(report.thread.pathMm)} along the beads.`,
  ]
  return `${lines.join('\n')}\n`
}
