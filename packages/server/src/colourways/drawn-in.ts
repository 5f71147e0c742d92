/** Kept drawings of patterns in the colours of colourways' versions, for lists. */
import type { DrawnIn } from '@tessellum/contract/colourways'
import { roleColours } from '@tessellum/core/drawing/role-colours'
import { chosenIn } from '@tessellum/core/kit/choice'
import type { Session } from '../database/connect'
import { listItems } from '../stock/store'
import { choicesOf } from './store'

/** What a picture follows from. */
export interface Drawn {
  readonly patternId: number
  /** Of the drawing that the shop keeps of the pattern. */
  readonly digest: string
  readonly roles: readonly string[]
  readonly colourwayVersionId: number
  readonly size: string
}

/** Two statements, however many there are. @returns one for each, null where there is no drawing */
export async function drawnIn(db: Session, all: readonly (Drawn | null)[]): Promise<(DrawnIn | null)[]> {
  const choices = await choicesOf(db, [...new Set(all.flatMap((each) => each?.colourwayVersionId ?? []))])
  const items = await listItems(db, [...new Set([...choices.values()].flat().map(({ itemId }) => itemId))])
  return all.map((each) => {
    if (!each) return null
    const { patternId, digest, roles, colourwayVersionId, size } = each
    const { colours } = chosenIn(choices.get(colourwayVersionId) ?? [], size, items)
    return { patternId, digest, colours: { ...roleColours(roles), ...colours } }
  })
}
