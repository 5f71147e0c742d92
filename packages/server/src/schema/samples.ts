import { sql } from 'drizzle-orm'
import { check, index, integer, pgTable, real, text, timestamp } from 'drizzle-orm/pg-core'
import { pattern } from './patterns'
import { person } from './people'

/** Samples that were stitched, as they were logged; later thread plans are held against them. */
export const sample = pgTable(
  'sample',
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    patternId: integer('pattern_id')
      .notNull()
      .references(() => pattern.id),
    /** Null for the draft. */
    version: integer(),
    size: text().notNull(),
    minutes: integer().notNull(),
    threadMm: real('thread_mm').notNull(),
    computedMm: real('computed_mm').notNull(),
    computedMinutes: integer('computed_minutes').notNull().default(0),
    technique: text().notNull().default(''),
    note: text().notNull().default(''),
    madeAt: timestamp('made_at', { withTimezone: true }).notNull().defaultNow(),
    madeBy: integer('made_by')
      .notNull()
      .references(() => person.id),
  },
  (table) => [
    index('sample_technique').on(table.technique),
    check('sample_minutes', sql`${table.minutes} > 0`),
    check('sample_thread', sql`${table.threadMm} > 0 and ${table.computedMm} > 0`),
  ],
)
