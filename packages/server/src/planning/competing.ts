/** Batches that compete for one shelf: the more urgent first, then the sooner due. */
import type { Competing } from '@tessellum/contract/batches'
import { itemName } from '@tessellum/core/stock/item-name'
import type { Shop } from '../shop'
import { freeLots, listItems } from '../stock/store'
import { allocationFor } from './allocation'
import { billsFor, itemsIn } from './bills'
import { type DraftLine, draftLines, drafts, stillToPack } from './drafts'

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
  const wantedBy = kitsBy(planned)
  const toPackBy = kitsBy(lines)
  const answersOf = new Map<number | undefined, (typeof answers)[number][]>()
  for (const answer of answers) {
    const batchId = lines[answer.line]?.batchId
    answersOf.set(batchId, [...(answersOf.get(batchId) ?? []), answer])
  }
  return (await drafts(shop.db)).map(({ id: batchId, ...rest }) => {
    const own = answersOf.get(batchId) ?? []
    const wanted = wantedBy.get(batchId) ?? 0
    const ready = wanted - (toPackBy.get(batchId) ?? 0)
    const short = new Set(own.flatMap(({ limitedBy }) => limitedBy.map(({ itemId }) => names.get(itemId) ?? '')))
    return { batchId, ...rest, wanted, kits: own.reduce((sum, { kits }) => sum + kits, ready), limitedBy: [...short] }
  })
}

function kitsBy(lines: readonly DraftLine[]): Map<number, number> {
  const kits = new Map<number, number>()
  for (const line of lines) kits.set(line.batchId, (kits.get(line.batchId) ?? 0) + line.kits)
  return kits
}
