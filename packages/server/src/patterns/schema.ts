import { sql } from 'drizzle-orm'
import { check, integer, pgTable, text, timestamp, unique } from 'drizzle-orm/pg-core'
import { person } from '../people/schema'

/** A pattern's draft: the text as it is being worked on. */
export const pattern = pgTable('pattern', {
  id: integer().primaryKey().generatedAlwaysAsIdentity(),
  title: text().notNull(),
  source: text().notNull(),
  revision: integer().notNull().default(1),
  savedAt: timestamp('saved_at', { withTimezone: true }).notNull().defaultNow(),
  savedBy: integer('saved_by')
    .notNull()
    .references(() => person.id),
})

/** A version that was kept: its text never changes (a trigger sees to it). */
export const patternVersion = pgTable(
  'pattern_version',
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    patternId: integer('pattern_id')
      .notNull()
      .references(() => pattern.id),
    number: integer().notNull(),
    name: text().notNull(),
    note: text().notNull().default(''),
    source: text().notNull(),
    madeAt: timestamp('made_at', { withTimezone: true }).notNull().defaultNow(),
    madeBy: integer('made_by')
      .notNull()
      .references(() => person.id),
  },
  (table) => [
    unique('pattern_version_number').on(table.patternId, table.number),
    check('pattern_version_from_1', sql`${table.number} >= 1`),
  ],
)
