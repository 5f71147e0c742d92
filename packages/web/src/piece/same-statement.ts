/** The piece that is shown may be of the text as it was before the last edit: which statement of one text is which of the other. */
import type { StatementReport } from '@tessellum/core/report/report'

type Statements = readonly Pick<StatementReport, 'text'>[]

/**
 * The same statement in another text: counted from the beginning, where all before it is the same, or from the end. Lines that are alike cannot be
 * told apart, and need not be.
 *
 * @returns undefined where it has been changed, or there is none
 */
export function sameStatement(from: Statements, to: Statements, index: number): number | undefined {
  if (!from[index]) return undefined
  if (from === to) return index
  const alike = (a: number, b: number) => b >= 0 && from[a]?.text === to[b]?.text
  let before = 0
  while (before <= index && alike(before, before)) before++
  if (before > index) return index
  const longer = to.length - from.length
  let after = from.length - 1
  while (after >= index && alike(after, after + longer)) after--
  return after < index ? index + longer : undefined
}
