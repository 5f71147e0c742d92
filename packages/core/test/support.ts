import { readdirSync, readFileSync } from 'node:fs'
import path from 'node:path'
import { type Choices, evaluatePattern } from '../src/evaluate/evaluate-pattern'
import type { Report } from '../src/report/report'
import { beadOf, wayOf } from '../src/stitch/hole'

export const demo = (name: string): string =>
  readFileSync(path.join(__dirname, `../../../demo/patterns/${name}.tess`), 'utf8')

export const testPiece = (name: string): string => readFileSync(path.join(__dirname, 'pieces', `${name}.tess`), 'utf8')

/** The three bezels, which have sizes and stones. */
export const demoNames = ['windlass-pendant', 'heron-earrings', 'sluicegate-pendant'] as const

export const allDemos: readonly string[] = readdirSync(path.join(__dirname, '../../../demo/patterns')).map((file) =>
  file.replace('.tess', ''),
)

export const evaluate = (source: string, choices: Choices = {}): Report => evaluatePattern(source, choices).report

/** A few beads and a stone, so that a test need only say what it is about. */
export const head = `pattern Trial
bead A cylinder 11/0
bead B cylinder 11/0
bead C round 15/0
stone S round 14 mm, height 6 mm
part trial
`

export const errorsIn = (report: Report) => report.diagnostics.filter((fault) => fault.severity === 'error')

export const counts = (report: Report): Record<string, number> =>
  Object.fromEntries(report.beads.filter((bead) => bead.each > 0).map((bead) => [bead.role, bead.each]))

/** Every pass in order: "+3" picks up bead 3, "3" passes it, "3<" passes it backwards. */
export function passes(source: string): string[] {
  const { work } = evaluatePattern(source)
  return Array.from({ length: work.passes }, (_, pass) => {
    const hole = work.holeAt(pass)
    return `${work.isNew(pass) ? '+' : ''}${beadOf(hole)}${wayOf(hole) === 1 ? '' : '<'}`
  })
}
