/** Long lists, page by page: found by words, and paged by where the last page ended. */
import { type SQL, sql } from 'drizzle-orm'
import type { PgColumn } from 'drizzle-orm/pg-core'
import { HttpProblem } from '../problem'

/** More words than these are not looked for. */
const maxWords = 8

/** What somebody looks for, word by word; each must be found. */
export const wordsIn = (find: string): string[] => find.toLowerCase().split(/\s+/).filter(Boolean).slice(0, maxWords)

/** A pattern for `like`: the word as it is, anywhere. */
export const likeAnywhere = (word: string): string => `%${word.replace(/[\\%_]/g, '\\$&')}%`

/**
 * Rows after the one where a page ended.
 *
 * @param columns of the order, texts first, the id last
 * @param after their values in that row, as JSON
 */
export function beyond(columns: readonly PgColumn[], after: string): SQL {
  let ended: unknown
  try {
    ended = JSON.parse(after)
  } catch {
    ended = undefined
  }
  const values: unknown[] = Array.isArray(ended) ? ended : []
  const id = values[values.length - 1]
  const texts = values.slice(0, -1)
  if (values.length !== columns.length || !texts.every((each) => typeof each === 'string') || !Number.isInteger(id))
    throw new HttpProblem(400, 'bad-input', 'This page link has expired.', {
      path: 'after',
      hint: 'Begin at the first.',
    })
  const listed = (all: readonly unknown[]) =>
    sql.join(
      all.map((each) => sql`${each}`),
      sql`, `,
    )
  return sql`(${listed(columns)}) > (${listed(values)})`
}
