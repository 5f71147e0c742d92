/**
 * What there was of an item at the end of each day. A busy item has thousands of moves; the ledger is append-only, so moves that have been added up once
 * are not read again.
 */
import type { ItemStory } from '@tessellum/contract/stock'
import { sql } from 'drizzle-orm'
import { LRUCache } from 'lru-cache'
import type { Database } from '../database/connect'
import { prepared } from '../database/prepared'
import { itemTotal, move } from '../schema/ledger'
import { lot } from '../schema/stock'
import { dateIn, timeZoneOf } from '../settings/days'

interface StoryDays {
  /** The highest id of a move that is counted in them; 0 where there is none. */
  readonly upTo: number
  readonly days: ItemStory['days']
}

interface NewMoves {
  readonly upTo: number | null
  /** What they changed, by day. */
  readonly changes: ItemStory['days']
  /** The item's total over all its moves; 0 where there is no such item. */
  readonly onHand: number
  readonly reserved: number
}

interface NewMovesOf {
  readonly itemId: number
  readonly after: number
  readonly timeZone: string
}

const given = (name: keyof NewMovesOf) => sql.placeholder(name)

/** One statement, so that the changes and the total are of the same moment. */
const newMoves = prepared<NewMovesOf, NewMoves>(
  'new_moves',
  sql`
    with by_day as (
      select ${dateIn(move.at, sql`${given('timeZone')}::text`)} as day, max(${move.id}) as up_to,
        sum(${move.onHand}) as on_hand, sum(${move.reserved}) as reserved
      from ${move} join ${lot} on ${lot.id} = ${move.lotId}
      where ${lot.itemId} = ${given('itemId')}::int and ${move.id} > ${given('after')}::bigint group by 1
    )
    select max(up_to)::float as "upTo",
      coalesce(json_agg(json_build_object('day', day, 'onHand', on_hand, 'reserved', reserved) order by day), '[]') as changes,
      coalesce((select ${itemTotal.onHand}::float from ${itemTotal} where ${itemTotal.itemId} = ${given('itemId')}::int), 0) as "onHand",
      coalesce((select ${itemTotal.reserved}::float from ${itemTotal} where ${itemTotal.itemId} = ${given('itemId')}::int), 0) as reserved
    from by_day`,
)

const maxItems = 1000
const known = new WeakMap<Database, LRUCache<string, StoryDays>>()
const none: StoryDays = { upTo: 0, days: [] }

/** What was on hand and promised at the end of each day on which something moved. */
export async function storyDays(db: Database, itemId: number): Promise<ItemStory['days']> {
  const kept = known.get(db) ?? new LRUCache<string, StoryDays>({ max: maxItems })
  known.set(db, kept)
  const timeZone = await timeZoneOf(db)
  const key = `${itemId} ${timeZone}`
  const since = async (before: StoryDays) => {
    const [found] = await newMoves(db, { itemId, after: before.upTo, timeZone })
    if (!found) return undefined
    const { upTo, changes, onHand, reserved } = found
    const days = grown(before.days, changes)
    const last = days?.at(-1) ?? { onHand: 0, reserved: 0 }
    const addsUp = days && last.onHand === onHand && last.reserved === reserved
    return addsUp ? { upTo: upTo ?? before.upTo, days } : undefined
  }
  const before = kept.get(key)
  // Ids are given out before moves are committed: a move with a lower id may have been committed after those that were read. Then it does not add up, and all
  // of them are read again.
  const story = (before && (await since(before))) ?? (await since(none))
  if (!story) throw new Error(`The moves of item ${itemId} do not add up to its total.`)
  kept.set(key, story)
  return story.days
}

/** @returns undefined where a change belongs to a day before the last one: clocks may be set back */
function grown(days: ItemStory['days'], changes: ItemStory['days']): ItemStory['days'] | undefined {
  const all = [...days]
  for (const { day, onHand, reserved } of changes) {
    const last = all.at(-1) ?? { day: '', onHand: 0, reserved: 0 }
    if (day < last.day) return undefined
    if (day === last.day) all.pop()
    all.push({ day, onHand: last.onHand + onHand, reserved: last.reserved + reserved })
  }
  return all
}
