import type { ItemOutlook, LineOutlook, Outlook } from '@tessellum/contract/batches'
import { maxAlone } from '@tessellum/core/allocation/alone'
import { itemName } from '@tessellum/core/stock/item-name'
import type { Shop } from '../shop'
import { identityOf } from '../stock/identity'
import { freeLots, listItems } from '../stock/store'
import { type BillEntry, billsFor, itemsIn } from './bills'
import { type Held, heldOf } from './holdings'
import type { PlannedLine } from './lines'
import { kitLots, kitsOf, shareKits, toPack } from './ready-kits'
import { shortagesFor } from './shortages'

/** @param batchId the batch itself, whose own promises are not counted against it */
export async function outlookFor(
  shop: Shop,
  lines: readonly PlannedLine[],
  batchId: number | undefined,
): Promise<Outlook> {
  const bills = await billsFor(shop, lines)
  const { db } = shop
  const all = itemsIn(bills)
  // What only stands in is on the shelf, but not planned.
  const ids = [...new Set(bills.flatMap(({ bill }) => bill.map(({ itemId }) => itemId)))]
  const [items, free, held] = await Promise.all([listItems(db, all), freeLots(db, all, false), heldOf(db, all)])
  const here = held.filter((each) => each.batchId === batchId)
  const lots = free.map((each) => ({
    ...each,
    free: each.free + sumOf(here.filter((one) => one.lotId === each.lotId)),
  }))
  const ready = shareKits(lines, await kitLots(db, lines, batchId))
  const wanted = toPack(lines, ready)
  const { allocation, shortages } = await shortagesFor(shop.workers, wanted, bills, lots)
  const filled = allocation.lines.every(({ line, kits }) => kits === wanted[line]?.kits)
  const outlookLines: LineOutlook[] = bills.map(({ bill, troubles }, i) => {
    const { kits, limitedBy } = maxAlone(bill, lots)
    const made = allocation.lines[i]
    return {
      bill,
      troubles,
      ready: kitsOf(ready[i]),
      couldMake: kitsOf(ready[i]) + (troubles.length > 0 ? 0 : kits),
      together: kitsOf(ready[i]) + (made?.kits ?? 0),
      limitedBy: troubles.length > 0 ? [] : limitedBy,
      substitutes: (bills[i]?.ways ?? []).flatMap(({ substitutes }, w) => {
        const standing = made?.variants[w] ?? 0
        return standing > 0 && substitutes.length > 0
          ? [{ kits: standing, roles: substitutes.map(({ role, itemId }) => ({ role, name: nameOf(itemId) })) }]
          : []
      }),
      oneMore: troubles.length > 0 || kits >= (wanted[i]?.kits ?? 0) ? [] : oneMore(bill, limitedBy, kitsOf(ready[i])),
    }
  })
  function nameOf(itemId: number) {
    const item = items.find(({ id }) => id === itemId)
    return item ? itemName(item) : ''
  }
  /** What the smallest pack of each thing that limits a line would allow. */
  function oneMore(bill: readonly BillEntry[], limitedBy: readonly number[], ready: number): LineOutlook['oneMore'] {
    return limitedBy.flatMap((itemId) => {
      const [pack] = items.find(({ id }) => id === itemId)?.packs ?? []
      if (!pack) return []
      const { kits } = maxAlone(bill, [...lots, { itemId, free: pack.amount }])
      return [{ itemId, amount: pack.amount, kits: kits + ready }]
    })
  }
  const outlookItems: ItemOutlook[] = ids.map((itemId) => {
    const item = items.find((each) => each.id === itemId)
    if (!item) throw new Error(`Item ${itemId} has gone.`)
    const short = shortages.filter((each) => each.itemId === itemId)
    return {
      itemId,
      name: itemName(item),
      item: identityOf(item),
      unit: item.unit,
      needed: bills.reduce(
        (sum, { bill }, i) =>
          sum + (bill.find((entry) => entry.itemId === itemId)?.quantity ?? 0) * (wanted[i]?.kits ?? 0),
        0,
      ),
      onHand: item.onHand,
      promised: item.reserved,
      promisedHere: sumOf(here.filter((each) => each.itemId === itemId)),
      free: item.onHand - item.reserved,
      short: short.reduce((sum, each) => sum + each.missing, 0),
      shortFromKit: short[0] ? (lines[short[0].line]?.kits ?? 0) - short[0].kits + 1 : null,
      heldBy: byBatch(held.filter((each) => each.itemId === itemId && each.batchId !== batchId)),
    }
  })
  const makeable = outlookLines.every(({ troubles }, i) => troubles.length === 0 || wanted[i]?.kits === 0)
  return { lines: outlookLines, items: outlookItems, ready: filled && makeable, proven: allocation.proven }
}

const sumOf = (promises: readonly { readonly quantity: number }[]) =>
  promises.reduce((sum, each) => sum + each.quantity, 0)

function byBatch(promises: readonly Held[]): ItemOutlook['heldBy'] {
  const batches = new Map<number, ItemOutlook['heldBy'][number]>()
  for (const { batchId, name, dueOn, quantity } of promises) {
    const before = batches.get(batchId)
    batches.set(batchId, { batchId, name, dueOn, quantity: (before?.quantity ?? 0) + quantity })
  }
  return [...batches.values()]
}
