import { asBead, type ChoosableItem } from '../kit/choice'
import { unitCost } from '../kit/cost'
import type { Balance } from '../stock/moves'
import type { Candidate } from './substitutes'

/** A stock item as a bead that could stand in a role; nothing for stones and thread. */
export function candidateOf(item: ChoosableItem & Balance): Candidate | undefined {
  if (!item.bead) return undefined
  const bead = asBead(item.bead)
  return {
    id: item.id,
    colour: item.colour,
    finish: item.finish,
    bead,
    kit: { id: item.id, unit: item.unit, massMg: bead.massMg, bead, unitCost: unitCost(item.packs) },
    free: item.onHand - item.reserved,
  }
}
