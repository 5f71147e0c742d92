/** Packed kits on the shelf go before beads: what is there of a line's kits is promised to it, and only the rest is packed. */
import { freeOf } from '@tessellum/core/stock/moves'
import { asc, eq, inArray, sql } from 'drizzle-orm'
import type { Session } from '../database/connect'
import { kitItem } from '../schema/kits'
import { balance } from '../schema/ledger'
import { lot } from '../schema/stock'
import type { PlannedLine } from './lines'

/** What a kit is: only the very same is as good. */
export type KitChoice = Pick<PlannedLine, 'patternVersionId' | 'size' | 'colourwayVersionId' | 'choices'>

const same = (a: KitChoice, b: KitChoice) =>
  !a.choices &&
  !b.choices &&
  a.patternVersionId === b.patternVersionId &&
  a.size === b.size &&
  a.colourwayVersionId === b.colourwayVersionId

/** A lot of packed kits. */
export interface KitLot extends KitChoice {
  readonly lotId: number
  readonly itemId: number
  /** Promised to nobody. */
  readonly free: number
  /** Promised to the batch that asks. */
  readonly own: number
}

/** So many kits of a line from a lot that is packed already. */
export interface Ready {
  readonly lotId: number
  readonly kits: number
}

/** Lots of packed kits of what the lines want, oldest first. @param batchId the batch that asks */
export async function kitLots(db: Session, lines: readonly KitChoice[], batchId?: number): Promise<KitLot[]> {
  if (lines.length === 0) return []
  const rows = await db
    .select({
      lotId: lot.id,
      itemId: lot.itemId,
      patternVersionId: kitItem.patternVersionId,
      size: kitItem.size,
      colourwayVersionId: kitItem.colourwayVersionId,
      onHand: balance.onHand,
      reserved: balance.reserved,
      own: sql<number>`(select coalesce(sum(own.reserved), 0)::int from move as own where own.lot_id = ${lot.id} and own.batch_id = ${batchId ?? 0})`,
    })
    .from(kitItem)
    .innerJoin(lot, eq(lot.itemId, kitItem.itemId))
    .innerJoin(balance, eq(balance.lotId, lot.id))
    .where(inArray(kitItem.patternVersionId, [...new Set(lines.map((line) => line.patternVersionId))]))
    .orderBy(asc(lot.receivedOn), asc(lot.id))
  return rows
    .filter((row) => lines.some((line) => same(line, row)))
    .map(({ onHand, reserved, ...each }) => ({ ...each, free: freeOf({ onHand, reserved }) }))
}

/** How far a line's kits are packed for it already. */
interface Bags {
  /** Kits of which something is in a bag: they are not unpacked for others. */
  readonly filled: number
  /** Kits that have bags, filled or not: for them no packed ones are sought. */
  readonly laid: number
}

/**
 * Shares packed kits out: to each line what it has already, then in their order what is free.
 *
 * @param bags by line, of a batch that has been laid out
 */
export function shareKits(
  lines: readonly (KitChoice & { readonly kits: number })[],
  lots: readonly KitLot[],
  bags?: readonly Bags[],
): Ready[][] {
  const left = lots.map(({ free, own }) => ({ free, own }))
  const shares = lines.map((): { lotId: number; kits: number }[] => [])
  const take = (of: 'own' | 'free', l: number, wanted: number): number => {
    let toTake = wanted
    for (const [i, each] of lots.entries()) {
      const some = Math.min(toTake, left[i]?.[of] ?? 0)
      if (some <= 0 || !same(each, lines[l] as KitChoice)) continue
      ;(left[i] as { free: number; own: number })[of] -= some
      toTake -= some
      const share = shares[l]?.find(({ lotId }) => lotId === each.lotId)
      if (share) share.kits += some
      else shares[l]?.push({ lotId: each.lotId, kits: some })
    }
    return wanted - toTake
  }
  const had = lines.map(({ kits }, l) => take('own', l, kits - (bags?.[l]?.filled ?? 0)))
  for (const [l, { kits }] of lines.entries()) take('free', l, kits - (had[l] ?? 0) - (bags?.[l]?.laid ?? 0))
  return shares
}

export const kitsOf = (ready: readonly Ready[] | undefined): number =>
  (ready ?? []).reduce((sum, { kits }) => sum + kits, 0)

/** Lines with only those kits that are still to be packed. */
export const toPack = <Line extends { readonly kits: number }>(
  lines: readonly Line[],
  ready: readonly (readonly Ready[])[],
): Line[] => lines.map((line, l) => ({ ...line, kits: line.kits - kitsOf(ready[l]) }))
