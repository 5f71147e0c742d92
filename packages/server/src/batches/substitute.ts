/** Another bead in lines of one batch: each gets a version of its colourway that is for this batch only. */
import type { Choice } from '@tessellum/contract/colourways'
import type { Counting } from '@tessellum/core/sizing/counting'
import { choicesOf } from '../colourways/store'
import type { Session } from '../database/connect'
import type { linesOf } from '../planning/lines'
import { notFound } from '../problem'
import type { WantedLine } from './lines'

export interface Substitution {
  readonly lineId: number
  /** Of the line's kits; all of them when absent. */
  readonly kits?: number | undefined
  readonly choices: readonly { readonly role: string; readonly itemId: number; readonly counting: Counting }[]
}

/**
 * A batch's lines with substitutions, to be written with the bags that follow from them: where one is for some of the kits only, the rest stay a line
 * as they were.
 */
export async function substituted(
  db: Session,
  lines: Awaited<ReturnType<typeof linesOf>>,
  substitutions: readonly Substitution[],
): Promise<WantedLine[]> {
  for (const { lineId } of substitutions) if (!lines.some(({ id }) => id === lineId)) throw notFound('line')
  const before = await choicesOf(db, [...new Set(lines.map(({ colourwayVersionId }) => colourwayVersionId))])
  return lines.flatMap(({ id, patternVersionId, colourwayVersionId, size, kits: all }) => {
    let left = all
    const parts: WantedLine[] = []
    for (const { kits = left, choices } of substitutions.filter(({ lineId }) => lineId === id)) {
      const some = Math.min(kits, left)
      if (some === 0) continue
      left -= some
      const own = withChoices(before.get(colourwayVersionId) ?? [], choices)
      parts.push({ patternVersionId, size, colourwayVersionId, choices: own, kits: some })
    }
    const [first, ...others] = left > 0 ? [{ patternVersionId, colourwayVersionId, size, kits: left }, ...parts] : parts
    // Whatever stays first keeps the line's id, and with it the bags that can stay.
    return first ? [{ id, ...first }, ...others] : []
  })
}

function withChoices(before: readonly Choice[], choices: Substitution['choices']): Choice[] {
  const roles = new Set(choices.map(({ role }) => role))
  return [...before.filter(({ role }) => !roles.has(role)), ...choices.map((each) => ({ ...each, size: '', rank: 0 }))]
}
