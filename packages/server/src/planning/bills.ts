import { createHash } from 'node:crypto'
import type { LineOutlook } from '@tessellum/contract/batches'
import type { Choice } from '@tessellum/contract/colourways'
import { sparesOf } from '@tessellum/contract/usual-settings'
import { type Alternative, alternativesOf } from '@tessellum/core/kit/alternatives'
import type { Bill } from '@tessellum/core/kit/bill'
import { visibleChange } from '@tessellum/core/substitute/visible-change'
import { inArray, sql } from 'drizzle-orm'
import { choicesOf } from '../colourways/store'
import type { Session } from '../database/connect'
import type { Revision } from '../database/revision'
import type { WorkerPool } from '../jobs/pool'
import type { Kit } from '../jobs/tasks'
import { cachedBill } from '../schema/batches'
import { patternVersion } from '../schema/patterns'
import { settingsNow } from '../settings/store'
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

/** The bills of a batch's lines. Worked out in the workers, before any lock is taken. Lines of the same kit share theirs. */
export async function billsFor(
  parts: { db: Session; workers: WorkerPool; revision?: Revision },
  lines: readonly PlannedLine[],
): Promise<LineBill[]> {
  const kitOf = ({ patternVersionId, colourwayVersionId, size, choices }: PlannedLine) =>
    JSON.stringify([patternVersionId, colourwayVersionId, size, choices])
  const kits = new Map(lines.map((line) => [kitOf(line), line]))
  const bills = await billsOf(parts, [...kits.values()])
  const found = new Map([...kits.keys()].map((kit, i) => [kit, bills[i] as LineBill]))
  return lines.map((line) => found.get(kitOf(line)) as LineBill)
}

async function billsOf(
  { db, workers, ...kept }: { db: Session; workers: WorkerPool; revision?: Revision },
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
  const settings = await settingsNow({ db, ...kept })
  const spares = sparesOf(settings)
  const texts = new Map(versions.map((version) => [version.id, version]))
  const versionsOf = await choicesOf(db, [...new Set(lines.map((line) => line.colourwayVersionId))])
  const choicesIn = (line: PlannedLine) => line.choices ?? versionsOf.get(line.colourwayVersionId) ?? []
  const items = await listItems(db, [...new Set(lines.flatMap(choicesIn).map((choice) => choice.itemId))])
  const byId = new Map(items.map((item) => [item.id, item]))
  const asked = lines.map((line) => {
    const { source, ratio, count } = texts.get(line.patternVersionId) as (typeof versions)[number]
    return alternativesOf(choicesIn(line), line.size).map(({ choices, substitutes }) => {
      const chosen = choices.map((each) => ({ ...each, rank: each.rank ?? 0 }))
      const ids = new Set(chosen.map((choice) => choice.itemId))
      const kit: Kit = {
        source,
        thread: { ...settings.thread, sampled: { ratio, count } },
        spares,
        size: line.size,
        choices: chosen,
        items: items.filter((item) => ids.has(item.id)),
      }
      return { kit, substitutes, choices: chosen }
    })
  })
  const bills = await cachedBills(
    { db, workers },
    asked.flatMap((ways) => ways.map(({ kit }) => kit)),
  )
  let next = 0
  return asked.map((kits) => {
    const evaluated = kits.map(({ substitutes, choices }) => {
      const { bill, troubles } = bills[next++] as CachedBill
      const distance = substitutes.reduce((sum, { itemId, insteadOf }) => {
        const [a, b] = [byId.get(itemId), byId.get(insteadOf)]
        return sum + (a && b ? visibleChange(a, b) : 0)
      }, 0)
      return {
        bill: bill.lines.map((each) => ({ ...each, roles: [...each.roles] })),
        troubles: [...troubles],
        substitutes,
        choices,
        distance,
      }
    })
    const plan = evaluated[0] as (typeof evaluated)[number]
    // A substitute that cannot be made is none.
    const ways = evaluated.filter(({ troubles }, i) => i === 0 || troubles.length === 0)
    return { bill: plan.bill, troubles: plan.troubles, ways }
  })
}

interface CachedBill {
  readonly bill: Bill
  readonly troubles: readonly string[]
}

/**
 * A form takes a moment to settle, and a kit's bill is the same for everybody: each is evaluated once, and kept. Those that are known are read in one
 * statement, and so are those written that were not.
 */
export async function cachedBills(
  { db, workers }: { db: Session; workers: WorkerPool },
  kits: readonly Kit[],
): Promise<CachedBill[]> {
  if (kits.length === 0) return []
  const digests = digestsOf(kits)
  const rows = await db
    .select()
    .from(cachedBill)
    .where(inArray(cachedBill.digest, [...new Set(digests)]))
  const known = new Map<string, CachedBill>(rows.map((row) => [row.digest, row]))
  await markUsed(db, rows)
  const missing = new Map(digests.flatMap((digest, i) => (known.has(digest) ? [] : [[digest, kits[i] as Kit]])))
  // One that cannot be worked out keeps none of the others from being written down.
  const worked = await Promise.allSettled(
    [...missing].map(async ([digest, kit]) => ({ digest, ...(await workers.run('bill', kit)) })),
  )
  const made = worked.flatMap((each) => (each.status === 'fulfilled' ? [each.value] : []))
  if (made.length > 0) await db.insert(cachedBill).values(made).onConflictDoNothing()
  for (const each of worked) if (each.status === 'rejected') throw each.reason
  for (const each of made) known.set(each.digest, each)
  return digests.map((digest) => known.get(digest) as CachedBill)
}

/** What is asked for again is kept on; told to the records once a week at the most. */
async function markUsed(db: Session, rows: readonly (typeof cachedBill.$inferSelect)[]): Promise<void> {
  const weekAgo = new Date(Date.now() - 7 * 86_400_000).toISOString().slice(0, 10)
  const old = rows.filter(({ usedOn }) => usedOn < weekAgo).map(({ digest }) => digest)
  if (old.length > 0) await db.update(cachedBill).set({ usedOn: sql`now()` }).where(inArray(cachedBill.digest, old))
}

function digestsOf(kits: readonly Kit[]): string[] {
  const texts = new Map<string, string>()
  const digestOf = (text: string) => createHash('sha256').update(text).digest('base64')
  return kits.map(({ source, ...kit }) => {
    const text = texts.get(source) ?? digestOf(source)
    texts.set(source, text)
    // Of an item, only what a bill depends on: not what is on the shelf.
    const items = kit.items.map(({ id, unit, category, bead }) => ({ id, unit, category, bead }))
    return digestOf(JSON.stringify({ ...kit, text, items, by: billVersion }))
  })
}

/** Raised whenever the same text comes to another bill than before. */
const billVersion = 4

export const itemsIn = (bills: readonly LineBill[]): number[] => [
  ...new Set(bills.flatMap(({ ways }) => ways.flatMap(({ bill }) => bill.map(({ itemId }) => itemId)))),
]
