import type { BatchState } from '@tessellum/contract/batches'
import type { Bill } from '@tessellum/core/kit/bill'
import { sql } from 'drizzle-orm'
import { boolean, check, date, integer, jsonb, pgTable, text, timestamp, unique } from 'drizzle-orm/pg-core'
import { colourwayVersion } from './colourways'
import { patternVersion } from './patterns'
import { person } from './people'

export const batch = pgTable(
  'batch',
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    name: text().notNull(),
    dueOn: date('due_on').notNull(),
    state: text().$type<BatchState>().notNull().default('draft'),
    /** 1 goes before 2, and 2 before 3, where they compete; then the sooner due. */
    priority: integer().notNull().default(2),
    /** For a class or a customer: its packed kits stay promised to it until they are handed out. */
    kept: boolean().notNull().default(false),
    /** Of its lines and bags: raised by triggers with each of their changes. */
    revision: integer().notNull().default(0),
    madeAt: timestamp('made_at', { withTimezone: true }).notNull().defaultNow(),
    madeBy: integer('made_by')
      .notNull()
      .references(() => person.id),
  },
  (table) => [
    check('batch_state', sql`${table.state} in ('draft', 'reserved', 'packing', 'packed', 'closed', 'cancelled')`),
    check('batch_priority', sql`${table.priority} in (1, 2, 3)`),
  ],
)

export const batchLine = pgTable(
  'batch_line',
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    batchId: integer('batch_id')
      .notNull()
      .references(() => batch.id),
    position: integer().notNull(),
    patternVersionId: integer('pattern_version_id')
      .notNull()
      .references(() => patternVersion.id),
    size: text().notNull(),
    colourwayVersionId: integer('colourway_version_id')
      .notNull()
      .references(() => colourwayVersion.id),
    kits: integer().notNull(),
  },
  (table) => [
    unique('batch_line_position').on(table.batchId, table.position),
    check('batch_line_kits', sql`${table.kits} between 1 and 10000`),
  ],
)

/** Versions of colourways that are for one batch only; nobody else is offered them. */
export const batchColourway = pgTable('batch_colourway', {
  colourwayVersionId: integer('colourway_version_id')
    .primaryKey()
    .references(() => colourwayVersion.id),
  batchId: integer('batch_id')
    .notNull()
    .references(() => batch.id),
})

/** Bills that have been evaluated, by a digest of all that goes into one: never wrong, since anything else has another digest. */
export const cachedBill = pgTable('cached_bill', {
  digest: text().primaryKey(),
  bill: jsonb().$type<Bill>().notNull(),
  troubles: jsonb().$type<string[]>().notNull(),
  /** The day it was last asked for: long after it, it is deleted. */
  usedOn: date('used_on').notNull().defaultNow(),
})
