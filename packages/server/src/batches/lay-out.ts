/** Bags as they are laid out for a batch's kits: which lot each is filled from, and what it must hold. */

import type { Item } from '@tessellum/contract/stock'
import type { Take } from '@tessellum/core/allocation/allocation'
import { bandOf } from '@tessellum/core/kit/packing'
import type { SparePolicy } from '@tessellum/core/kit/spares'
import type { FreeLot } from '../planning/allocation'
import type { BillEntry } from '../planning/bills'
import { type bag, heldBy } from '../schema/bags'

export type BagRow = typeof bag.$inferSelect
export type NewBag = Pick<BagRow, 'kit' | 'itemId' | 'lotId' | 'roles' | 'least' | 'target' | 'most' | 'beads'>

/** Mass of one bead by lot, as weighed, or else the item's own. */
export function massesOf(items: readonly Item[], lots: readonly FreeLot[]) {
  const byItem = new Map(items.map(({ id, bead }) => [id, bead?.massMg]))
  const byLot = new Map(lots.map(({ lotId, mgPerBead }) => [lotId, mgPerBead]))
  return (itemId: number, lotId: number | undefined) =>
    (lotId === undefined ? undefined : byLot.get(lotId)) ?? byItem.get(itemId)
}

/**
 * The bags of one item through a line's kits: the first so many from the first lot, and so on. Kits that no lot fills get a bag without one.
 *
 * @param kits their numbers
 */
export function bagsOf(
  kits: readonly number[],
  entry: BillEntry,
  takes: readonly Pick<Take, 'lotId' | 'kits' | 'quantity'>[],
  massOf: ReturnType<typeof massesOf>,
  spares: SparePolicy,
): NewBag[] {
  const each = (lotId: number | undefined, target: number) => {
    const band = bandOf({ ...entry, quantity: target }, massOf(entry.itemId, lotId), spares)
    return {
      itemId: entry.itemId,
      lotId: lotId ?? null,
      roles: entry.roles.join(' + '),
      ...band,
      most: Math.floor(band.most),
      beads: entry.unit === 'mg' ? entry.exact + entry.spare : null,
    }
  }
  let at = 0
  const filled = [...takes]
    .sort((a, b) => a.lotId - b.lotId)
    .flatMap(({ lotId, kits: so, quantity }) => {
      const from = at
      at += so
      return kits.slice(from, at).map((kit) => ({ kit, ...each(lotId, quantity / so) }))
    })
  return [...filled, ...kits.slice(at).map((kit) => ({ kit, ...each(undefined, entry.quantity) }))]
}

/** What bags hold of each lot, lot by lot in the order in which all lock them. */
export function byLot(
  bags: readonly { readonly lotId: number | null; readonly target: number; readonly filled?: number | null }[],
): Map<number, number> {
  const sums = new Map<number, number>()
  for (const each of bags) if (each.lotId) sums.set(each.lotId, (sums.get(each.lotId) ?? 0) + heldBy(each))
  return new Map([...sums].sort(([a], [b]) => a - b))
}
