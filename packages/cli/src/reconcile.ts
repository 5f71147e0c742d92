import { reconcile as compare, sayFinding } from '@tessellum/core/kit/reconcile'
import { readArguments, readText } from './arguments'
import { orFaults, patternOptions, reportFile } from './pattern'

/** `reconcile FILE LIST`: a written materials list against what the steps use. */
export function reconcile(args: string[]): string {
  const { values, positionals } = readArguments(args, patternOptions)
  const found = reportFile(positionals[0], values)
  const findings = compare(found, readText(positionals[1], 'a materials list'))
  return orFaults(
    found,
    values.json ? `${JSON.stringify(findings, null, 2)}\n` : `${findings.map(sayFinding).join('\n')}\n`,
  )
}
