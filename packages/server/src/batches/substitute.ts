/** Another bead in lines of one batch: each gets a version of its colourway that is for this batch only. */
import type { Choice } from '@tessellum/contract/colourways'
import type { Counting } from '@tessellum/core/sizing/counting'
import { addVersion, choicesOf, explain, lockColourwayOf } from '../colourways/store'
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

/** A batch's lines with substitutions: where one is for some of the kits only, the rest stay a line as they were. */
export async function substituted(
  tx: Session,
  batchId: number,
  lines: Awaited<ReturnType<typeof linesOf>>,
  substitutions: readonly Substitution[],
  by: number,
): Promise<WantedLine[]> {
  for (const { lineId } of substitutions) if (!lines.some(({ id }) => id === lineId)) throw notFound('line')
  const result: WantedLine[] = []
  for (const line of lines) {
    const { id, patternVersionId, colourwayVersionId, size } = line
    let left = line.kits
    const parts: WantedLine[] = []
    for (const { kits = left, choices } of substitutions.filter(({ lineId }) => lineId === id)) {
      const some = Math.min(kits, left)
      if (some === 0) continue
      left -= some
      const own = await ownVersion(tx, batchId, line, choices, by)
      parts.push({ patternVersionId, size, colourwayVersionId: own, kits: some })
    }
    // Whatever stays first keeps the line's id, and with it the bags that can stay.
    const all = left > 0 ? [{ patternVersionId, colourwayVersionId, size, kits: left }, ...parts] : parts
    all.forEach((part, i) => {
      result.push(i === 0 ? { id, ...part } : part)
    })
  }
  return result
}

async function ownVersion(
  tx: Session,
  batchId: number,
  { colourwayVersionId, colourway }: { colourwayVersionId: number; colourway: string },
  choices: Substitution['choices'],
  by: number,
): Promise<number> {
  const before = (await choicesOf(tx, [colourwayVersionId])).get(colourwayVersionId) ?? []
  const roles = new Set(choices.map(({ role }) => role))
  const after: Choice[] = [
    ...before.filter(({ role }) => !roles.has(role)),
    ...choices.map((each) => ({ ...each, size: '', rank: 0 })),
  ]
  try {
    return await addVersion(tx, await lockColourwayOf(tx, colourwayVersionId), after, by, batchId)
  } catch (error) {
    throw explain(error, colourway)
  }
}
