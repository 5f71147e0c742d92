import { sparesOf } from '@tessellum/contract/usual-settings'
import { effectOf } from '@tessellum/core/stock/moves'
import { and, eq } from 'drizzle-orm'
import { logActivity } from '../audit/log'
import type { Session } from '../database/connect'
import { type FreeLot, needOf, ranked } from '../planning/allocation'
import { type BillEntry, billsFor, type LineBill } from '../planning/bills'
import { kitLots, type Ready, shareKits, toPack } from '../planning/ready-kits'
import { HttpProblem, notFound } from '../problem'
import { bag } from '../schema/bags'
import { batch } from '../schema/batches'
import { move } from '../schema/ledger'
import { settingsNow } from '../settings/store'
import type { Shop } from '../shop'
import { freeLots, listItems } from '../stock/store'
import { bagsIn, insertBags } from './bags'
import type { BatchActor } from './batch-actor'
import { type BagRow, bagsOf, byLot, massesOf, type NewBag } from './lay-out'
import { type WantedLine, writeLines } from './lines'
import { lockBatch } from './lock'
import { promisedKits, promiseKits } from './promise-kits'
import { TakenMeanwhile } from './reserve'
import { settleState } from './state'

export interface Reallocation {
  readonly lines: readonly WantedLine[]
  /** Of the batch, as it was when this was worked out. */
  readonly revision: number
  readonly drop: readonly BagRow[]
  /** By line, counted from 0. */
  readonly add: readonly (NewBag & { readonly at: number })[]
  /** By line, what of it is packed already. */
  readonly ready: readonly (readonly Ready[])[]
  readonly kitItems: readonly number[]
  /** What keeps it from being filled, where something does. */
  readonly short: { readonly at: number; readonly itemId: number; readonly kits: number } | undefined
}

/** Works out how a batch would lie after a change; nothing is written. */
export async function planReallocation(
  shop: Shop,
  batchId: number,
  lines: readonly WantedLine[],
): Promise<Reallocation> {
  const [row] = await shop.db.select({ revision: batch.revision }).from(batch).where(eq(batch.id, batchId))
  if (!row) throw notFound('batch')
  const { revision } = row
  const bills = await billsFor(shop, lines)
  const packed = await kitLots(shop.db, lines, batchId)
  const trouble = bills.flatMap(({ troubles }) => troubles)[0]
  if (trouble) throw new HttpProblem(422, 'not-makeable', trouble, { hint: 'Fix the pattern or the colourway first.' })
  const before = await bagsIn(shop.db, batchId)
  const ids = [...new Set([...bills.flatMap(({ bill }) => bill), ...before].map(({ itemId }) => itemId))]
  const free = await freeLots(shop.db, ids, false)
  const items = await listItems(shop.db, ids)
  // Everything that can stay, stays; where the rest then does not fit, only what is filled does, if that is of any help.
  const gently = await lay((row) => row.lotId !== null)
  if (!gently.short) return gently
  const anew = await lay((row) => row.filled !== null)
  return anew.short ? gently : anew

  async function lay(mayStay: (row: BagRow) => boolean): Promise<Reallocation> {
    const kept = new Set<BagRow>()
    const needs: { at: number; entry: BillEntry; kits: number[] }[] = []
    const staying = lines.map((line, at) =>
      before.filter(
        (row) => row.lineId === line.id && mayStay(row) && bills[at]?.bill.some((entry) => fits(row, entry, free)),
      ),
    )
    const kitsIn = (rows: readonly BagRow[]) => new Set(rows.map(({ kit }) => kit)).size
    const ready = shareKits(
      lines,
      packed,
      staying.map((rows) => ({ filled: kitsIn(rows.filter(({ filled }) => filled !== null)), laid: kitsIn(rows) })),
    )
    const wanted = toPack(lines, ready)
    for (const [at, line] of lines.entries()) {
      const { bill } = bills[at] as LineBill
      const stays = staying[at] ?? []
      const kits = chosenKits(stays, wanted[at]?.kits ?? 0)
      for (const row of stays) if (kits.includes(row.kit)) kept.add(row)
      for (const entry of bill) {
        const there = new Set(
          [...kept].filter((row) => row.lineId === line.id && row.itemId === entry.itemId).map(({ kit }) => kit),
        )
        const missing = kits.filter((kit) => !there.has(kit))
        if (missing.length > 0) needs.push({ at, entry, kits: missing })
      }
    }
    const drop = before.filter((row) => !kept.has(row))
    const given = byLot(drop)
    const lots = free.map((each) => ({ ...each, free: each.free + (given.get(each.lotId) ?? 0) }))
    const opened = new Set([...kept].flatMap(({ lotId }) => lotId ?? []))
    const { takes, lines: answers } = await shop.workers.run('allocate', {
      lines: needs.map(({ entry, kits }, line) => ({
        line,
        wanted: kits.length,
        priority: 0,
        variants: [{ bill: [needOf(entry, lots)], distance: 0 }],
      })),
      lots: ranked(lots, opened),
    })
    const massOf = massesOf(items, free)
    const spares = sparesOf(await settingsNow(shop))
    const add = needs.flatMap(({ at, entry, kits }, line) =>
      bagsOf(
        kits,
        entry,
        takes.filter((take) => take.line === line),
        massOf,
        spares,
      ).map((each) => ({ ...each, at })),
    )
    const lacking = answers.find(({ line, kits }) => kits < (needs[line]?.kits.length ?? 0))
    const need = lacking && needs[lacking.line]
    const short = need && { at: need.at, itemId: need.entry.itemId, kits: need.kits.length - lacking.kits }
    const kitItems = [...new Set(packed.map(({ itemId }) => itemId))]
    return { lines, revision, drop, add, ready, kitItems, short }
  }
}

/** A bag stays where its beads are still what its kit takes from that lot. */
const fits = (row: BagRow, entry: BillEntry, lots: readonly FreeLot[]): boolean => {
  if (row.itemId !== entry.itemId || row.lotId === null) return false
  const { quantity, byLot: others } = needOf(entry, lots)
  return row.target === (others?.[row.lotId] ?? quantity)
}

/** Which numbers a line's kits keep: those that are filled the furthest, then the lowest; new ones take the lowest that are left. */
function chosenKits(rows: readonly BagRow[], wanted: number): number[] {
  const filled = new Map<number, number>()
  for (const { kit, filled: amount } of rows) filled.set(kit, (filled.get(kit) ?? 0) + (amount === null ? 0 : 1))
  const kits = [...filled]
    .sort(([a, n], [b, m]) => m - n || a - b)
    .slice(0, wanted)
    .map(([kit]) => kit)
  for (let next = 1; kits.length < wanted; next++) if (!kits.includes(next)) kits.push(next)
  return kits.sort((a, b) => a - b)
}

/**
 * Writes a change down.
 *
 * @returns filled bags that do not belong to the batch any more, and go back into their tubes
 * @throws TakenMeanwhile when bags or lots are not as they were when it was worked out
 */
export async function applyReallocation(
  tx: Session,
  { lines, revision, drop, add, ready, kitItems }: Reallocation,
  actor: BatchActor,
): Promise<BagRow[]> {
  const { batchId } = actor
  const row = await lockBatch(tx, batchId)
  if (row.revision !== revision) throw new TakenMeanwhile()
  const [given, wanted] = [byLot(drop), byLot(add)]
  const lotIds = [...new Set([...given.keys(), ...wanted.keys()])].sort((a, b) => a - b)
  const had = await promisedKits(tx, batchId)
  const itemIds = [
    ...new Set([...[...drop, ...add].map(({ itemId }) => itemId), ...kitItems, ...had.map(({ itemId }) => itemId)]),
  ]
  const free = new Map((await freeLots(tx, itemIds, true)).map((each) => [each.lotId, each.free]))
  if (!(await promiseKits(tx, ready, free, actor))) throw new TakenMeanwhile()
  const net = lotIds.map((lotId) => [lotId, (wanted.get(lotId) ?? 0) - (given.get(lotId) ?? 0)] as const)
  for (const [lotId, more] of net) if (more > (free.get(lotId) ?? 0)) throw new TakenMeanwhile()
  const moves = net.flatMap(([lotId, more]) => {
    if (more === 0) return []
    const kind: 'reserve' | 'release' = more > 0 ? 'reserve' : 'release'
    return [{ lotId, kind, ...effectOf(kind, Math.abs(more)), ...actor }]
  })
  if (moves.length > 0) await tx.insert(move).values(moves)
  for (const { lineId, kit, itemId } of drop) await tx.delete(bag).where(sameBag(lineId, kit, itemId))
  const lineIds = await writeLines(tx, lines, actor)
  await insertBags(
    tx,
    batchId,
    add.map(({ at, ...each }) => ({ ...each, lineId: lineIds[at] as number })),
  )
  await settleState(tx, batchId)
  await logActivity(tx, actor.personId, `changed ${row.name}`, `/kits/${batchId}`)
  return drop.filter(({ filled }) => filled !== null)
}

const sameBag = (lineId: number, kit: number, itemId: number) =>
  and(eq(bag.lineId, lineId), eq(bag.kit, kit), eq(bag.itemId, itemId))
