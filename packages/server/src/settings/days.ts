/** Days by the clock of the shop, wherever its server stands. */
import { type SQL, type SQLWrapper, sql } from 'drizzle-orm'
import type { Session } from '../database/connect'
import { shopSettings } from './store'

/** Of IANA's names: "Europe/London". */
export const timeZoneOf = async (db: Session): Promise<string> => (await shopSettings(db)).profile.timeZone

/** As YYYY-MM-DD. */
export const todayIn = (timeZone: string): string => new Intl.DateTimeFormat('sv-SE', { timeZone }).format(new Date())

/** The day of a moment, as YYYY-MM-DD. To group by it, give its place: the zone goes in as a value of its own each time. */
export const dayIn = (moment: SQLWrapper, timeZone: string): SQL<string> =>
  sql<string>`(${moment} at time zone ${timeZone})::date::text`

/** Whether a moment is on a day from one to another, both with them. */
export const onDays = (
  moment: SQLWrapper,
  { from, to }: { readonly from: string; readonly to: string },
  timeZone: string,
): SQL =>
  sql`${moment} >= ${from}::date::timestamp at time zone ${timeZone} and ${moment} < (${to}::date + 1)::timestamp at time zone ${timeZone}`

/** So many days before a day; after it, where they are below nought. */
export const dayBefore = (day: string, days: number): string =>
  new Date(Date.parse(`${day}T00:00:00Z`) - days * 86_400_000).toISOString().slice(0, 10)
