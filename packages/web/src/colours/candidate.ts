import type { Item } from '@tessellum/contract/stock'
import { asBead } from '@tessellum/core/kit/choice'
import { unitCost } from '@tessellum/core/kit/cost'
import type { Candidate } from '@tessellum/core/substitute/substitutes'

/** A stock item as a bead that could stand in a role; nothing for stones and thread. */
export function candidateOf(item: Item): Candidate | undefined {
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
