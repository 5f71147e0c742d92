/** A motif turned round: the letters of some lines in the opposite order, bead for bead. */
import { type Choices, evaluatePattern } from '../evaluate/evaluate-pattern'
import { doingsOf } from './doings'
import { type NotPainted, type Painted, paint } from './paint'

export function mirrored(source: string, choices: Choices, first: number, last: number): Painted | NotPainted {
  const { work, letterOf, report } = evaluatePattern(source, choices)
  const wanted = new Map<number, string>()
  for (const { statement, beads } of doingsOf(work)) {
    const line = report.statements[statement]?.line ?? 0
    if (line < first || line > last) continue
    for (const [i, bead] of beads.entries())
      wanted.set(bead, letterOf(work.role(beads[beads.length - 1 - i] as number)))
  }
  return paint(source, choices, wanted)
}
