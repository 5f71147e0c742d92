/** Taking and giving back: a batch's promises on the shared shelf. */
import { sparesOf } from '@tessellum/contract/usual-settings'
import type { Allocation } from '@tessellum/core/allocation/allocation'
import { counted } from '@tessellum/core/measure/counted'
import { itemName } from '@tessellum/core/stock/item-name'
import { effectOf } from '@tessellum/core/stock/moves'
import { eq, sql } from 'drizzle-orm'
import { logActivity } from '../audit/log'
import type { Session } from '../database/connect'
import type { WorkerPool } from '../jobs/pool'
import { allocationFor } from '../planning/allocation'
import { itemsIn, type LineBill } from '../planning/bills'
import type { PlannedLine } from '../planning/lines'
import { kitLots, kitsOf, type Ready, shareKits, toPack } from '../planning/ready-kits'
import { HttpProblem } from '../problem'
import { batchLine } from '../schema/batches'
import { move } from '../schema/ledger'
import { shopSettings } from '../settings/store'
import { freeLots, listItems } from '../stock/store'
import { insertBags } from './bags'
import type { BatchActor } from './batch-actor'
import { bagsOf, byLot, massesOf, type NewBag } from './lay-out'
import { lockBatch } from './lock'
import { ownColourway } from './own-colourway'
import { promiseKits } from './promise-kits'
import { settleState } from './state'

/** Somebody else has taken from a lot since the allocation was worked out. */
export class TakenMeanwhile extends Error {}

type Line = PlannedLine & { readonly id: number }

/** Where a batch's kits come from: packed ones off the shelf, and beads for the rest. */
export interface Filling {
  readonly bills: readonly LineBill[]
  readonly ready: readonly (readonly Ready[])[]
  /** Of kits that are to be packed. */
  readonly allocation: Allocation
  readonly kitItems: readonly number[]
}

export async function fillingFor(
  db: Session,
  workers: WorkerPool,
  lines: readonly PlannedLine[],
  bills: readonly LineBill[],
): Promise<Filling> {
  const lots = await kitLots(db, lines)
  const ready = shareKits(lines, lots)
  const free = await freeLots(db, itemsIn(bills), false)
  const allocation = await allocationFor(workers, toPack(lines, ready), bills, free)
  return { bills, ready, allocation, kitItems: [...new Set(lots.map(({ itemId }) => itemId))] }
}

/**
 * Promises a draft batch everything its lines need, or nothing. The allocation was worked out beforehand; the balances it takes from are read and
 * locked in the transaction that writes the moves, so that whoever comes second sees what is left. Kits in which something stands in become a
 * line of their own, with a colourway for this batch only.
 *
 * @throws TakenMeanwhile when the lots do not hold any more what it takes: to be worked out again
 */
export async function reserve(
  tx: Session,
  lines: readonly Line[],
  { bills, ready, allocation: { takes, lines: answers }, kitItems }: Filling,
  actor: BatchActor,
): Promise<void> {
  const row = await lockBatch(tx, actor.batchId)
  if (row.state !== 'draft')
    throw new HttpProblem(409, 'wrong-state', `This batch is ${row.state} already.`, { hint: 'Reload the page.' })
  const wanted = toPack(lines, ready)
  const trouble = bills.flatMap(({ troubles }, l) => (wanted[l]?.kits === 0 ? [] : troubles))[0]
  if (trouble)
    throw new HttpProblem(422, 'not-makeable', trouble, { hint: 'Fix the pattern or the colourway, then reserve.' })
  const short = answers.find(({ line, kits }) => kits < (wanted[line]?.kits ?? 0))
  if (short) {
    const [by] = short.limitedBy
    const [item] = by ? await listItems(tx, [by.itemId]) : []
    throw new HttpProblem(
      409,
      'short-of-stock',
      `Short of ${item ? itemName(item) : 'beads that other lines take'} from kit ${short.kits + kitsOf(ready[short.line]) + 1} on. Nothing has been reserved.`,
      {
        path: `lines.${short.line}`,
        hint: 'Plan fewer kits, choose another colourway, or receive more.',
      },
    )
  }
  const ids = itemsIn(bills)
  const lots = await freeLots(tx, [...ids, ...kitItems], true)
  const free = new Map(lots.map((each) => [each.lotId, each.free]))
  if (!(await promiseKits(tx, ready, free, actor))) throw new TakenMeanwhile()
  const massOf = massesOf(await listItems(tx, ids), lots)
  const spares = sparesOf(await shopSettings(tx))
  const bags: (NewBag & { lineId: number })[] = []
  for (const { line, variants } of answers) {
    const planned = lines[line] as Line
    let lineId: number | undefined = planned.id
    const packed = kitsOf(ready[line])
    for (const [variant, kits] of variants.entries()) {
      // Packed kits are as planned, and stay with the line whatever stands in for the rest.
      const here = variant === 0 ? packed + kits : kits
      if (here === 0) continue
      const way = bills[line]?.ways[variant]
      if (!way) throw new Error(`Line ${line} has no way ${variant}.`)
      const own =
        variant === 0
          ? planned.colourwayVersionId
          : await ownColourway(tx, planned.colourwayVersionId, way.choices, actor)
      const values = { kits: here, colourwayVersionId: own }
      // The first of a line's ways stays where the line is; any other is a line after all the rest.
      if (lineId === undefined) {
        const [made] = await tx
          .insert(batchLine)
          .values({
            batchId: actor.batchId,
            position: sql`(select coalesce(max(position), 0) + 1 from batch_line where batch_id = ${actor.batchId})`,
            patternVersionId: planned.patternVersionId,
            size: planned.size,
            ...values,
          })
          .returning({ id: batchLine.id })
        lineId = (made as { id: number }).id
      } else await tx.update(batchLine).set(values).where(eq(batchLine.id, lineId))
      const numbers = Array.from({ length: kits }, (_, n) => n + 1)
      for (const entry of way.bill) {
        const of = takes.filter(
          (take) => take.line === line && take.variant === variant && take.itemId === entry.itemId,
        )
        bags.push(...bagsOf(numbers, entry, of, massOf, spares).map((each) => ({ ...each, lineId: lineId as number })))
      }
      lineId = undefined
    }
  }
  const beads = byLot(bags)
  for (const [lotId, quantity] of beads) if ((free.get(lotId) ?? 0) < quantity) throw new TakenMeanwhile()
  if (beads.size > 0)
    await tx.insert(move).values(
      [...beads].map(([lotId, quantity]) => ({
        lotId,
        kind: 'reserve' as const,
        ...effectOf('reserve', quantity),
        ...actor,
      })),
    )
  await insertBags(tx, actor.batchId, bags)
  await settleState(tx, actor.batchId)
  const kits = lines.reduce((sum, line) => sum + line.kits, 0)
  await logActivity(tx, actor.personId, `reserved ${counted(kits, 'kit')} of ${row.name}`, `/kits/${actor.batchId}`)
}
