import { integer, jsonb, pgTable, text, timestamp } from 'drizzle-orm/pg-core'
import { person } from './people'

/** Requests that have been carried out, by their key, so that a repeated one does not act twice. */
export const idempotentRequest = pgTable('idempotent_request', {
  key: text().primaryKey(),
  kind: text().notNull(),
  /** Of the request: the same key with another body is refused. Absent of those from before it was kept. */
  digest: text(),
  personId: integer('person_id')
    .notNull()
    .references(() => person.id),
  result: jsonb(),
  at: timestamp({ withTimezone: true }).notNull().defaultNow(),
})
