/**
 * What was there of an item at the end of each day. Of a busy item that is thousands of moves; the ledger only grows, so those that have been added up
 * once are not read again.
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
  /** The move with the highest number that is in them; 0 where there is none. */
  readonly upTo: number
  readonly days: ItemStory['days']
}

interface NewMoves {
  readonly upTo: number | null
  /** By day, what they changed. */
  readonly changes: ItemStory['days']
  /** What all moves come to, those before with them. */
  readonly onHand: number
  readonly reserved: number
}

interface NewMovesOf {
  readonly itemId: number
  readonly after: number
  readonly timeZone: string
}

const given = (name: keyof NewMovesOf) => sql.placeholder(name)

/** In one statement, so that the changes and what they come to are of one moment. */
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
      (select ${itemTotal.onHand}::float from ${itemTotal} where ${itemTotal.itemId} = ${given('itemId')}::int) as "onHand",
      (select ${itemTotal.reserved}::float from ${itemTotal} where ${itemTotal.itemId} = ${given('itemId')}::int) as reserved
    from by_day`,
)

const maxItems = 1000
const known = new WeakMap<Database, LRUCache<string, StoryDays>>()
const none: StoryDays = { upTo: 0, days: [] }

/** What was there and promised at the end of each day on which something moved. */
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
  // Moves are numbered before they are written: one that waited for another may have come after those that were read, with a lower number.
  const story = (before && (await since(before))) ?? (await since(none))
  if (!story) throw new Error(`The moves of item ${itemId} do not add up to its total.`)
  kept.set(key, story)
  return story.days
}

/** @returns undefined where a change is of a day before the last: clocks may be set back */
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
