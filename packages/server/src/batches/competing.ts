/** Batches that compete for one shelf: the more urgent first, then the sooner due. */
import type { Competing, CouldMake } from '@tessellum/contract/batches'
import { itemName } from '@tessellum/core/stock/item-name'
import { asc, eq } from 'drizzle-orm'
import type { Session } from '../database/connect'
import type { Shop } from '../http/route'
import { freeLots, listItems } from '../stock/store'
import { allocationFor, billsFor, itemsIn, type LineBill, type PlannedLine } from './plan'
import { kitLots, shareKits, toPack } from './ready-kits'
import { batch } from '../schema/batches'
import { linesOf } from './store'

export interface DraftLine extends PlannedLine {
  readonly id: number
  readonly title: string
  readonly colourway: string
  readonly batchId: number
  readonly batchName: string
  readonly dueOn: string
  /** The batch's place in the order in which drafts go. */
  readonly turn: number
}

export const drafts = (db: Session) =>
  db
    .select({ id: batch.id, name: batch.name, dueOn: batch.dueOn, priority: batch.priority })
    .from(batch)
    .where(eq(batch.state, 'draft'))
    .orderBy(asc(batch.priority), asc(batch.dueOn), asc(batch.id))

/** Every line of every draft, in the order in which they go. */
export async function draftLines(db: Session): Promise<DraftLine[]> {
  const lines: DraftLine[] = []
  for (const [turn, { id: batchId, name: batchName, dueOn }] of (await drafts(db)).entries())
    for (const line of await linesOf(db, batchId)) lines.push({ ...line, batchId, batchName, dueOn, turn })
  return lines
}

/** Lines in the order in which they go, with only those kits that do not stand packed on the shelf. */
export async function stillToPack<Line extends PlannedLine>(db: Session, lines: readonly Line[]): Promise<Line[]> {
  return toPack(lines, shareKits(lines, await kitLots(db, lines)))
}

/** How far the shelf goes when every draft is reserved in its turn. */
export async function competingDrafts(shop: Shop): Promise<Competing> {
  const planned = await draftLines(shop.db)
  const lines = await stillToPack(shop.db, planned)
  const bills = await billsFor(shop, lines)
  const lots = await freeLots(shop.db, itemsIn(bills), false)
  const turns = lines.map(({ turn }) => turn)
  const { lines: answers } = await allocationFor(shop.workers, lines, bills, lots, turns)
  const limits = [...new Set(answers.flatMap(({ limitedBy }) => limitedBy.map(({ itemId }) => itemId)))]
  const names = new Map((await listItems(shop.db, limits)).map((item) => [item.id, itemName(item)]))
  return (await drafts(shop.db)).map(({ id: batchId, ...rest }) => {
    const own = answers.filter(({ line }) => lines[line]?.batchId === batchId)
    const kitsIn = (of: readonly DraftLine[]) =>
      of.reduce((sum, line) => sum + (line.batchId === batchId ? line.kits : 0), 0)
    const wanted = kitsIn(planned)
    const ready = wanted - kitsIn(lines)
    const short = new Set(own.flatMap(({ limitedBy }) => limitedBy.map(({ itemId }) => names.get(itemId) ?? '')))
    return { batchId, ...rest, wanted, kits: own.reduce((sum, { kits }) => sum + kits, ready), limitedBy: [...short] }
  })
}

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
