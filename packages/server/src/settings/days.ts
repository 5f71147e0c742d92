/** Days by the clock of the shop, wherever its server stands. */
import type { ShopDays } from '@tessellum/contract/settings'
import { type SQL, type SQLWrapper, sql } from 'drizzle-orm'
import type { Session } from '../database/connect'
import { shopSettings } from './store'

/** Of IANA's names: "Europe/London". */
export const timeZoneOf = async (db: Session): Promise<string> => (await shopSettings(db)).profile.timeZone

/** The day of a moment, as a date. To group by it, give its place: the zone goes in as a value of its own each time. */
export const dateIn = (moment: SQLWrapper, timeZone: string | SQLWrapper): SQL =>
  sql`(${moment} at time zone ${timeZone})::date`

/** The same as YYYY-MM-DD. */
export const dayIn = (moment: SQLWrapper, timeZone: string): SQL<string> =>
  sql<string>`${dateIn(moment, timeZone)}::text`

/** Whether a moment is on a day from one to another, both with them. */
export const onDays = (
  moment: SQLWrapper,
  { from, to }: { readonly from: string; readonly to: string },
  timeZone: string,
): SQL =>
  sql`${moment} >= ${from}::date::timestamp at time zone ${timeZone} and ${moment} < (${to}::date + 1)::timestamp at time zone ${timeZone}`

/** So many days before a day; after it, where they are below 0. */
export const dayBefore = (day: string, days: number): string =>
  new Date(Date.parse(`${day}T00:00:00Z`) - days * 86_400_000).toISOString().slice(0, 10)

const isWorking = (day: string, { closed, off }: ShopDays): boolean =>
  !closed.includes(new Date(`${day}T00:00:00Z`).getUTCDay()) && !off.includes(day)

/** The day that lies so many of the shop's working days before another; one of them, or that other itself where it is none before. */
export function workingDaysBefore(day: string, days: number, shop: ShopDays): string {
  let at = day
  for (let left = days; left > 0; ) {
    at = dayBefore(at, 1)
    if (isWorking(at, shop)) left--
  }
  return at
}

/** The last working day that is not after a day. */
export function lastWorkingDay(day: string, shop: ShopDays): string {
  let at = day
  while (!isWorking(at, shop)) at = dayBefore(at, 1)
  return at
}

/** The last day for which so many working days before it are not after a day. */
export function lastDueBy(day: string, days: number, shop: ShopDays): string {
  let at = day
  while (workingDaysBefore(dayBefore(at, -1), days, shop) <= day) at = dayBefore(at, -1)
  return at
}
