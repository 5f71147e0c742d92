/** What every record has, within what the records can hold. */
import { z } from './zod'

const most = 2_147_483_647
const outOfRange = 'There is no such number here.'

/** The number by which something is kept, or a count of its versions. */
export const recordId = (missing?: string) => z.number(missing).int(missing).min(1, outOfRange).max(most, outOfRange)

/** The same, from an address. */
export const recordIdInAddress = z.coerce.number<number | string>().int().min(1, outOfRange).max(most, outOfRange)

const dayRange = 'Give a day between 1900 and 2199.'

/** A day as YYYY-MM-DD. */
export const day = (missing: string) =>
  z.iso.date(missing).refine((given) => given >= '1900-01-01' && given <= '2199-12-31', dayRange)

/** Which page of a list that is searched by words is wanted. */
export const pageWanted = z.object({
  find: z.string().max(200, 'That is a long thing to look for.').default(''),
  /** As `next` of the page before had it. */
  after: z.string().max(400).optional(),
  limit: z.coerce.number().int().min(1).max(100).default(50),
})
