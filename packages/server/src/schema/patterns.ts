import type { Season } from '@tessellum/contract/patterns'
import type { StepWords } from '@tessellum/contract/words'
import type { ShownPicture } from '@tessellum/core/writing/pictures'
import { sql } from 'drizzle-orm'
import { boolean, check, integer, jsonb, pgTable, primaryKey, real, text, timestamp, unique } from 'drizzle-orm/pg-core'
import { person } from './people'

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
  tags: text().array().notNull().default([]),
  season: text().$type<Season>().notNull().default(''),
  /** Out of the way: not offered any more, and still what it is. */
  putAwayAt: timestamp('put_away_at', { withTimezone: true }),
  /** To be brought back for thirty days. */
  thrownAwayAt: timestamp('thrown_away_at', { withTimezone: true }),
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
    /** The designer's own words for its steps, as they were then. */
    words: jsonb().$type<StepWords[]>().notNull().default([]),
    /** Its pictures as they were then, in their order. */
    pictures: jsonb().$type<ShownPicture[]>().notNull().default([]),
    published: boolean().notNull().default(false),
    /** The number of the version it corrects. */
    corrects: integer(),
    /** What samples had shown of its thread when it was kept: 1 and 0 where they had not. */
    sampledRatio: real('sampled_ratio').notNull().default(1),
    sampledCount: integer('sampled_count').notNull().default(0),
    madeAt: timestamp('made_at', { withTimezone: true }).notNull().defaultNow(),
    madeBy: integer('made_by')
      .notNull()
      .references(() => person.id),
  },
  (table) => [
    unique('pattern_version_number').on(table.patternId, table.number),
    check('pattern_version_from_1', sql`${table.number} >= 1`),
    check('pattern_version_corrects', sql`${table.corrects} < ${table.number}`),
    check('pattern_version_sampled', sql`${table.sampledRatio} > 0 and ${table.sampledCount} >= 0`),
  ],
)

/** The designer's own words for steps of the draft, hung on what the steps say in notation. */
export const stepWords = pgTable(
  'step_words',
  {
    patternId: integer('pattern_id')
      .notNull()
      .references(() => pattern.id),
    language: text().$type<StepWords['language']>().notNull(),
    part: text().notNull(),
    text: text().notNull(),
    nth: integer().notNull(),
    instead: text().notNull(),
    also: text().notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.patternId, table.language, table.part, table.text, table.nth] }),
    check('step_words_language', sql`${table.language} in ('en', 'de', 'fr', 'nl')`),
    check('step_words_say_something', sql`${table.instead} <> '' or ${table.also} <> ''`),
  ],
)
