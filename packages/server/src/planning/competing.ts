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
