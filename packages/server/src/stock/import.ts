/** A file of stock beside what is kept: what it would do, and doing it, all or nothing. Done twice, the second does nothing. */
import type { StockFileOutcome } from '@tessellum/contract/stock-file'
import { counted } from '@tessellum/core/measure/counted'
import { effectOf } from '@tessellum/core/stock/moves'
import { sayQuantity } from '@tessellum/core/stock/quantity'
import type { ReadSheet, SheetItem, SheetLot } from '@tessellum/core/stock/stock-spreadsheet'
import { eq, ne } from 'drizzle-orm'
import { logActivity } from '../audit/log'
import type { Actor } from '../context'
import type { Session } from '../database/connect'
import { balance, move } from '../schema/ledger'
import { item, lot } from '../schema/stock'
import { addItems, changeItem } from './items'
import { listItems } from './store'

/** So many are told; the rest are counted. */
const maxTold = 200
/** A statement has at most 65,535 parameters. */
const most = 2000

interface Plan {
  readonly add: { readonly item: SheetItem; readonly lots: readonly SheetLot[] }[]
  readonly change: { readonly id: number; readonly item: SheetItem; readonly changes: string[] }[]
  readonly lots: { readonly itemId: number; readonly lot: SheetLot }[]
  readonly outcome: StockFileOutcome
}

async function planImport(db: Session, { rows, items, faults }: ReadSheet): Promise<Plan> {
  const kept = new Map((await sheetItems(db)).map((each) => [each.item.code, each]))
  const barcodes = new Map(
    [...kept.values()].flatMap(({ item: { barcode, code } }) => (barcode ? [[barcode, code] as const] : [])),
  )
  const wrong = [...faults]
  const plan: Plan = {
    add: [],
    change: [],
    lots: [],
    outcome: {
      rows,
      faults: [],
      moreFaults: 0,
      newItems: [],
      changedItems: [],
      sameItems: 0,
      newLots: [],
      otherQuantities: [],
      done: false,
    },
  }
  const { outcome } = plan
  for (const { item: wanted, lots, row } of items) {
    const holder = wanted.barcode ? barcodes.get(wanted.barcode) : undefined
    if (holder !== undefined && holder !== wanted.code)
      wrong.push({ row, column: 'barcode', message: `${wanted.barcode} is ${holder}'s barcode already.` })
    const known = kept.get(wanted.code)
    if (!known) {
      plan.add.push({ item: wanted, lots })
      outcome.newItems.push(`${wanted.code}, ${wanted.colourName}`)
      outcome.newLots.push(...lots.map((each) => `${each.code}: ${sayQuantity(each.quantity, wanted.unit)}`))
      continue
    }
    const keys = Object.keys(wanted) as (keyof SheetItem)[]
    const differ = keys.filter((key) => JSON.stringify(known.item[key]) !== JSON.stringify(wanted[key]))
    if (differ.includes('unit') && known.lots.length > 0)
      wrong.push({
        row,
        column: 'unit',
        message: `${wanted.code} has moves in ${known.item.unit}: its unit cannot change.`,
      })
    if (differ.length === 0) outcome.sameItems++
    else {
      const changes = differ.map((key) => `${key}: ${said(known.item[key])} becomes ${said(wanted[key])}`)
      plan.change.push({ id: known.id, item: wanted, changes })
      outcome.changedItems.push({ code: wanted.code, changes })
    }
    for (const each of lots) {
      const there = known.lots.find(({ code, place }) => code === each.code && place === each.place)
      if (!there) {
        plan.lots.push({ itemId: known.id, lot: each })
        outcome.newLots.push(`${each.code}: ${sayQuantity(each.quantity, wanted.unit)}`)
      } else if (there.quantity !== each.quantity)
        outcome.otherQuantities.push(
          `${each.code}: ${sayQuantity(there.quantity, wanted.unit)} by the ledger, ${sayQuantity(each.quantity, wanted.unit)} in the file`,
        )
    }
  }
  const ordered = wrong.sort((a, b) => a.row - b.row)
  outcome.faults = ordered.slice(0, maxTold)
  outcome.moreFaults = ordered.length - outcome.faults.length
  return plan
}

const said = (value: unknown): string =>
  value === null || value === '' ? 'nothing' : typeof value === 'object' ? JSON.stringify(value) : String(value)

export const previewImport = async (db: Session, sheet: ReadSheet): Promise<StockFileOutcome> =>
  (await planImport(db, sheet)).outcome

/**
 * Does what the preview told; with any fault, nothing at all.
 *
 * @param step told how much is done, from 0 to 1; what it throws ends it, and nothing is done
 */
export async function runImport(
  tx: Session,
  sheet: ReadSheet,
  actor: Actor,
  step: (done: number) => void,
): Promise<StockFileOutcome> {
  const { add, change, lots, outcome } = await planImport(tx, sheet)
  if (outcome.faults.length > 0) return outcome
  const ids = await addItems(
    tx,
    add.map((each) => each.item),
  )
  for (const { id, item: wanted } of change) await changeItem(tx, id, { ...wanted, packs: [...wanted.packs] })
  const all = [...add.flatMap((each, i) => each.lots.map((one) => ({ itemId: ids[i] as number, lot: one }))), ...lots]
  for (let at = 0; at < all.length; at += most) {
    step(0.4 + (0.6 * at) / all.length)
    const part = all.slice(at, at + most)
    const made = await tx
      .insert(lot)
      .values(part.map(({ itemId, lot: { quantity: _, ...rest } }) => ({ itemId, ...rest })))
      .returning({ id: lot.id })
    const moves = part.flatMap(({ lot: { quantity } }, i) =>
      quantity > 0
        ? [
            {
              lotId: (made[i] as { id: number }).id,
              kind: 'receive' as const,
              ...effectOf('receive', quantity),
              reason: 'from a file',
              ...actor,
            },
          ]
        : [],
    )
    if (moves.length > 0) await tx.insert(move).values(moves)
  }
  const { newItems, changedItems, newLots } = outcome
  await logActivity(
    tx,
    actor.personId,
    `took in a file of stock: ${counted(newItems.length, 'new item')}, ${counted(newLots.length, 'new lot')}, ${counted(changedItems.length, 'item')} changed`,
    '/stock',
  )
  return { ...outcome, done: true }
}

/** The shelf as a file has it; kits are not in it, since their batches make them. */
export async function sheetItems(db: Session): Promise<{ id: number; item: SheetItem; lots: SheetLot[] }[]> {
  const lots = new Map<number, SheetLot[]>()
  const rows = await db
    .select({ lot, onHand: balance.onHand })
    .from(lot)
    .innerJoin(balance, eq(balance.lotId, lot.id))
    .orderBy(lot.receivedOn, lot.id)
  for (const {
    lot: { itemId, code, receivedOn, place, supplier, unitCost },
    onHand,
  } of rows)
    lots.set(itemId, [...(lots.get(itemId) ?? []), { code, receivedOn, place, supplier, unitCost, quantity: onHand }])
  const ids = (await db.select({ id: item.id }).from(item).where(ne(item.category, 'kit'))).map(({ id }) => id)
  const found = []
  for (let at = 0; at < ids.length; at += most) found.push(...(await listItems(db, ids.slice(at, at + most))))
  return found.flatMap(({ id, bead, category, onHand: _, reserved: __, coming: ___, ...kept }) => {
    if (category === 'kit') return []
    const figures = bead && {
      lengthMm: bead.lengthMm,
      acrossMm: bead.acrossMm,
      boreMm: bead.boreMm,
      massMg: bead.massMg,
      contact: bead.contact,
      bores: bead.bores,
    }
    return [{ id, item: { ...kept, category, figures }, lots: lots.get(id) ?? [] }]
  })
}
