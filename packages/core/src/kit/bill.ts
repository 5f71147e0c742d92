/**
 * A kit's bill: what one kit of a pattern takes from the shelf, item by item. Roles that share an item are added together.
 */
import { type Bead, isSeedBead } from '../catalogue/bead'
import type { StoneShape } from '../catalogue/stone'
import { type LabelledStone, sayLabelled, sayStone, stoneServes } from '../catalogue/stone-size'
import { type Mg, roundUpTo } from '../measure/units'
import type { Report } from '../report/report'
import { type SparePolicy, spareBeads, usualSpares } from './spares'

export type StockUnit = 'mg' | 'piece' | 'mm'

/** A stock item as a bill needs it. */
export interface KitItem {
  readonly id: number
  readonly unit: StockUnit
  /** Mass of one bead, as measured on the lot or by the maker; for items kept by weight. */
  readonly massMg?: Mg
  readonly bead?: Bead
  /** Of a stone: what its label says. */
  readonly stone?: LabelledStone
  /** Of one unit, in minor units of money, where it is known. */
  readonly unitCost?: number | undefined
}

export interface BillLine {
  readonly itemId: number
  /** The letters it serves; "thread" for the thread. */
  readonly roles: readonly string[]
  /** Beads or pieces, or mm of thread, that the steps really use. */
  readonly exact: number
  readonly spare: number
  /** What goes into the bag, in the item's unit. */
  readonly quantity: number
  readonly unit: StockUnit
  /** Pieces that `quantity` stands for; for thread, mm. */
  readonly standsFor: number
  /** What it is weighed or cut to, in the item's unit; 1 of what is counted. */
  readonly step: number
}

export interface Bill {
  readonly lines: readonly BillLine[]
  /** Roles that no item has been chosen for. */
  readonly missing: readonly string[]
  /** Stones of another size or shape than the pattern's: they are not in the bill. */
  readonly misfits: readonly StoneMisfit[]
}

export interface StoneMisfit {
  readonly role: string
  readonly wanted: StoneShape
  readonly chosen: LabelledStone
}

/** "S is round, 18 mm here, and the stone that is chosen is round, 14 mm." */
export const misfitWords = ({ role, wanted, chosen }: StoneMisfit): string =>
  `${role} is ${sayStone(wanted)} here, and the stone that is chosen is ${sayLabelled(chosen)}. Choose another stone, or another size of the pattern.`

/** The key under which a colourway names its thread. */
export const threadRole = 'thread'

/** Everything a colourway has to choose for a pattern, in the order of the pattern. */
export const rolesToChoose = (report: Report): string[] => [
  ...report.beads.filter((bead) => bead.total > 0).map((bead) => bead.role),
  ...report.stones.filter((stone) => stone.total > 0).map((stone) => stone.role),
  threadRole,
]

export function billOf(
  report: Report,
  chosen: Readonly<Record<string, KitItem>>,
  policy: SparePolicy = usualSpares,
): Bill {
  const wanted = new Map<number, { item: KitItem; roles: string[]; exact: number }>()
  const missing: string[] = []
  const misfits: StoneMisfit[] = []
  const want = (role: string, exact: number) => {
    if (exact === 0) return
    const item = chosen[role]
    if (!item) {
      missing.push(role)
      return
    }
    const line = wanted.get(item.id)
    if (line) {
      line.roles.push(role)
      line.exact += exact
    } else wanted.set(item.id, { item, roles: [role], exact })
  }
  for (const bead of report.beads) want(bead.role, bead.total)
  for (const { role, total, stone } of report.stones) {
    const has = chosen[role]?.stone
    if (total > 0 && has && !stoneServes(stone.outline, has)) misfits.push({ role, wanted: stone.outline, chosen: has })
    else want(role, total)
  }
  want(threadRole, report.thread.cuts.reduce((sum, cut) => sum + cut, 0) * report.makes)
  const lines = [...wanted.values()].map(({ item, roles, exact }) => lineOf(item, roles, exact, policy))
  return { lines, missing, misfits }
}

function lineOf(item: KitItem, roles: string[], exact: number, policy: SparePolicy): BillLine {
  const line = { itemId: item.id, roles, exact, unit: item.unit }
  if (item.unit === 'mm') {
    const step = policy.threadStepMm
    const quantity = roundUpTo(exact, step)
    return { ...line, spare: quantity - exact, quantity, standsFor: quantity, step }
  }
  const spare = item.bead ? spareBeads(exact, Math.max(item.bead.lengthMm, item.bead.acrossMm), policy) : 0
  if (item.unit === 'piece') return { ...line, spare, quantity: exact + spare, standsFor: exact + spare, step: 1 }
  const each = item.massMg ?? item.bead?.massMg ?? 0
  if (!(each > 0)) throw new RangeError(`Item ${item.id} is kept by weight but has no mass of one bead.`)
  const step = policy.scaleStepMg
  const quantity = roundUpTo((exact + spare) * each, step)
  return { ...line, spare, quantity, standsFor: Math.floor(quantity / each + 1e-9), step }
}

/** Seed beads are kept and packed by weight, other beads by the piece. */
export const unitOf = (bead: Bead): StockUnit => (isSeedBead(bead) ? 'mg' : 'piece')
