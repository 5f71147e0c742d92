import type { Allocation, AllocationLine, AllocationLot, Need } from '@tessellum/core/allocation/allocation'
import { weighedOut } from '@tessellum/core/kit/packing'
import type { WorkerPool } from '../jobs/pool'
import type { BillEntry, LineBill } from './bills'
import type { PlannedLine } from './lines'

/** Lots that a batch may take from; what it holds itself is free to it. */
export interface FreeLot {
  readonly lotId: number
  readonly itemId: number
  readonly free: number
  readonly receivedOn: string
  readonly mgPerBead: number | null
  /** The day it comes, of one that is on its way. */
  readonly comesOn?: string
}

/**
 * What a kit takes of an item, also from lots whose beads were weighed.
 *
 * @param dueOn the day the kit is due, where lots are on their way
 */
export function needOf(entry: BillEntry, lots: readonly FreeLot[], dueOn?: string): Need {
  const { itemId, quantity, unit } = entry
  const byLot = Object.fromEntries(
    lots
      .filter((each) => each.itemId === itemId)
      .flatMap(({ lotId, mgPerBead, comesOn }) => {
        if (comesOn !== undefined && dueOn !== undefined && comesOn > dueOn) return [[lotId, Number.POSITIVE_INFINITY]]
        return unit === 'mg' && mgPerBead !== null ? [[lotId, weighedOut(entry, mgPerBead)]] : []
      }),
  )
  return Object.keys(byLot).length > 0 ? { itemId, quantity, byLot } : { itemId, quantity }
}

/**
 * Lots in the order in which they are used up: the oldest, and of one day the smallest.
 *
 * @param before lots that go before all others, such as those whose tubes are open for the batch already
 */
export function ranked(lots: readonly FreeLot[], before: ReadonlySet<number> = new Set()): AllocationLot[] {
  const later = ({ lotId }: FreeLot) => (before.has(lotId) ? 0 : 1)
  const order = [...lots].sort(
    (a, b) => later(a) - later(b) || a.receivedOn.localeCompare(b.receivedOn) || a.free - b.free || a.lotId - b.lotId,
  )
  const met = new Map<number, number>()
  return order.map(({ lotId, itemId, free }) => {
    const rank = met.get(itemId) ?? 0
    met.set(itemId, rank + 1)
    return { lotId, itemId, free, rank }
  })
}

/**
 * The best filling of lines, solved off the event loop.
 *
 * @param priorities by line; all alike when absent
 */
export const allocationFor = (
  workers: WorkerPool,
  lines: readonly PlannedKits[],
  bills: readonly LineBill[],
  lots: readonly FreeLot[],
  priorities: readonly number[] = [],
): Promise<Allocation> => workers.run('allocate', rivals(lines, bills, lots, priorities))

export type PlannedKits = Pick<PlannedLine, 'kits' | 'dueOn'>

/** Lines that want the same lots, as the solver is asked. What cannot be made as it stands wants nothing. */
export const rivals = (
  lines: readonly PlannedKits[],
  bills: readonly LineBill[],
  lots: readonly FreeLot[],
  priorities: readonly number[],
): { lines: AllocationLine[]; lots: AllocationLot[] } => {
  const ofItem = new Map<number, FreeLot[]>()
  for (const lot of lots) {
    const others = ofItem.get(lot.itemId)
    if (others) others.push(lot)
    else ofItem.set(lot.itemId, [lot])
  }
  const coming = lots.some(({ comesOn }) => comesOn !== undefined)
  // Lines of the same kit share what they need, as they share their bill: many lines are of few kits, and all of it goes to a worker.
  const known = new Map<string | undefined, Map<LineBill, AllocationLine['variants']>>()
  const variantsOf = (of: LineBill | undefined, dueOn: string | undefined): AllocationLine['variants'] => {
    if (!of) return []
    const shared = known.get(dueOn) ?? new Map<LineBill, AllocationLine['variants']>()
    known.set(dueOn, shared)
    const variants =
      shared.get(of) ??
      of.ways.map(({ bill, distance }) => ({
        bill: bill.map((entry) => needOf(entry, ofItem.get(entry.itemId) ?? [], dueOn)),
        distance,
      }))
    shared.set(of, variants)
    return variants
  }
  return {
    lines: lines.map(({ kits, dueOn }, line) => ({
      line,
      wanted: (bills[line]?.troubles.length ?? 0) > 0 ? 0 : kits,
      priority: priorities[line] ?? 0,
      variants: variantsOf(bills[line], coming ? dueOn : undefined),
    })),
    lots: ranked(lots),
  }
}
