import { createHash } from 'node:crypto'
import type { LineOutlook } from '@tessellum/contract/batches'
import type { Choice } from '@tessellum/contract/colourways'
import { type Alternative, alternativesOf } from '@tessellum/core/kit/alternatives'
import { visibleChange } from '@tessellum/core/substitute/visible-change'
import { eq, inArray } from 'drizzle-orm'
import { choicesOf } from '../colourways/store'
import type { Session } from '../database/connect'
import type { WorkerPool } from '../jobs/pool'
import type { Kit } from '../jobs/tasks'
import { cachedBill } from '../schema/batches'
import { patternVersion } from '../schema/patterns'
import { listItems } from '../stock/store'
import type { PlannedLine } from './lines'

export type BillEntry = LineOutlook['bill'][number]

/** One way of making a line's kits: as planned, or with what the colourway allows to stand in. */
export interface Way {
  readonly bill: readonly BillEntry[]
  readonly choices: readonly Choice[]
  readonly substitutes: Alternative['substitutes']
  readonly distance: number
}

export interface LineBill {
  readonly bill: LineOutlook['bill']
  readonly troubles: string[]
  /** The plan first. */
  readonly ways: readonly Way[]
}

/** The bills of a batch's lines. EvaluatedPattern in the workers, before any lock is taken. */
export async function billsFor(
  { db, workers }: { db: Session; workers: WorkerPool },
  lines: readonly PlannedLine[],
): Promise<LineBill[]> {
  const versions = await db
    .select({
      id: patternVersion.id,
      source: patternVersion.source,
      ratio: patternVersion.sampledRatio,
      count: patternVersion.sampledCount,
    })
    .from(patternVersion)
    .where(inArray(patternVersion.id, [...new Set(lines.map((line) => line.patternVersionId))]))
  const texts = new Map(versions.map((version) => [version.id, version]))
  const versionsOf = await choicesOf(db, [...new Set(lines.map((line) => line.colourwayVersionId))])
  const choicesIn = (line: PlannedLine) => line.choices ?? versionsOf.get(line.colourwayVersionId) ?? []
  const items = await listItems(db, [...new Set(lines.flatMap(choicesIn).map((choice) => choice.itemId))])
  const itemOf = (id: number) => items.find((each) => each.id === id)
  return Promise.all(
    lines.map(async (line) => {
      const { source, ratio, count } = texts.get(line.patternVersionId) as (typeof versions)[number]
      const evaluated = await Promise.all(
        alternativesOf(choicesIn(line), line.size).map(async ({ choices, substitutes }) => {
          const chosen = choices.map((each) => ({ ...each, rank: each.rank ?? 0 }))
          const ids = new Set(chosen.map((choice) => choice.itemId))
          const { bill, troubles } = await billOnce(
            { db, workers },
            {
              source,
              sampled: { ratio, count },
              size: line.size,
              choices: chosen,
              items: items.filter((item) => ids.has(item.id)),
            },
          )
          const distance = substitutes.reduce((sum, { itemId, insteadOf }) => {
            const [a, b] = [itemOf(itemId), itemOf(insteadOf)]
            return sum + (a && b ? visibleChange(a, b) : 0)
          }, 0)
          return {
            bill: bill.lines.map((each) => ({ ...each, roles: [...each.roles] })),
            troubles,
            substitutes,
            choices: chosen,
            distance,
          }
        }),
      )
      const plan = evaluated[0] as (typeof evaluated)[number]
      // A stand-in that cannot be made is none.
      const ways = evaluated.filter(({ troubles }, i) => i === 0 || troubles.length === 0)
      return { bill: plan.bill, troubles: plan.troubles, ways }
    }),
  )
}

/** A form takes a moment to settle, and a kit's bill is the same for everybody: it is evaluated once, and kept. */
export async function billOnce({ db, workers }: { db: Session; workers: WorkerPool }, kit: Kit) {
  // Of an item, only what a bill depends on: not what is on the shelf.
  const items = kit.items.map(({ id, unit, category, bead }) => ({ id, unit, category, bead }))
  const digest = createHash('sha256')
    .update(JSON.stringify({ ...kit, items, evaluated: billVersion }))
    .digest('base64')
  const [known] = await db.select().from(cachedBill).where(eq(cachedBill.digest, digest))
  if (known) return known
  const { bill, troubles } = await workers.run('bill', kit)
  await db.insert(cachedBill).values({ digest, bill, troubles }).onConflictDoNothing()
  return { bill, troubles }
}

/** Raised whenever the same text comes to another bill than before. */
const billVersion = 1

export const itemsIn = (bills: readonly LineBill[]): number[] => [
  ...new Set(bills.flatMap(({ ways }) => ways.flatMap(({ bill }) => bill.map(({ itemId }) => itemId)))),
]
