import type { CouldMake } from '@tessellum/contract/batches'
import type { Shop } from '../shop'
import { freeLots } from '../stock/store'
import { allocationFor } from './allocation'
import { billsFor, itemsIn, type LineBill } from './bills'
import type { PlannedLine } from './lines'

/** More kits than anyone packs; a line without a limit is asked for this many. */
const many = 2000

/** How many of each could be made from what is free: each alone, all together, and in whole sets of the lines as they are. */
export async function couldMakeOf(shop: Shop, lines: readonly PlannedLine[]): Promise<CouldMake> {
  const bills = await billsFor(shop, lines)
  const lots = await freeLots(shop.db, itemsIn(bills), false)
  const kitsOf = async (wanted: readonly PlannedLine[], of: readonly LineBill[]) => {
    const { lines: answers, proven } = await allocationFor(shop.workers, wanted, of, lots)
    return { kits: answers.map(({ kits }) => kits), proven }
  }
  const asMany = lines.map((line) => ({ ...line, kits: many }))
  const alone = await Promise.all(
    asMany.map(async (line, i) => (await kitsOf([line], [bills[i] as LineBill])).kits[0] ?? 0),
  )
  // No more of a line than it makes alone: the solver is spared what cannot be.
  const together = await kitsOf(
    lines.map((line, i) => ({ ...line, kits: alone[i] as number })),
    bills,
  )
  let [able, tooMany] = [0, Math.min(...lines.map(({ kits }, i) => Math.floor((alone[i] as number) / kits))) + 1]
  let proven = together.proven
  while (tooMany - able > 1) {
    const sets = (able + tooMany) >> 1
    const wanted = lines.map((line) => ({ ...line, kits: line.kits * sets }))
    const found = await kitsOf(wanted, bills)
    proven &&= found.proven
    if (found.kits.every((kits, i) => kits === wanted[i]?.kits)) able = sets
    else tooMany = sets
  }
  return { alone, together: together.kits, sets: able, proven }
}
