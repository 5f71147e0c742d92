import type { Counting } from '@tessellum/core/sizing/counting'
import { sql } from 'drizzle-orm'
import { check, integer, pgTable, primaryKey, text, timestamp, unique } from 'drizzle-orm/pg-core'
import { pattern } from './patterns'
import { person } from './people'
import { item } from './stock'

export const colourway = pgTable(
  'colourway',
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    patternId: integer('pattern_id')
      .notNull()
      .references(() => pattern.id),
    name: text().notNull(),
  },
  (table) => [unique('colourway_name').on(table.patternId, table.name)],
)

/** A colourway as it stood: a change makes a new version, and batches keep the one they were planned with. */
export const colourwayVersion = pgTable(
  'colourway_version',
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    colourwayId: integer('colourway_id')
      .notNull()
      .references(() => colourway.id),
    number: integer().notNull(),
    madeAt: timestamp('made_at', { withTimezone: true }).notNull().defaultNow(),
    madeBy: integer('made_by')
      .notNull()
      .references(() => person.id),
  },
  (table) => [unique('colourway_version_number').on(table.colourwayId, table.number)],
)

export const colourwayChoice = pgTable(
  'colourway_choice',
  {
    colourwayVersionId: integer('colourway_version_id')
      .notNull()
      .references(() => colourwayVersion.id),
    role: text().notNull(),
    /** "" for every size. */
    size: text().notNull().default(''),
    /** 0 for what is chosen; then what may stand in for it where the shelf is short, nearest first. */
    rank: integer().notNull().default(0),
    itemId: integer('item_id')
      .notNull()
      .references(() => item.id),
    counting: text().$type<Counting>().notNull().default('all'),
  },
  (table) => [
    primaryKey({ columns: [table.colourwayVersionId, table.role, table.size, table.rank] }),
    check('colourway_choice_counting', sql`${table.counting} in ('all', 'arcs', 'none', 'runs')`),
  ],
)
