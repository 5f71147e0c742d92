import { sql } from 'drizzle-orm'
import { boolean, check, doublePrecision, index, integer, pgTable, text, timestamp } from 'drizzle-orm/pg-core'
import { person } from './people'

/** Somebody who buys here, orders, or comes to classes. Forgotten on request: what they bought stays, without them. */
export const customer = pgTable(
  'customer',
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    name: text().notNull(),
    contact: text().notNull().default(''),
    wristMm: doublePrecision('wrist_mm'),
    neckMm: doublePrecision('neck_mm'),
    fingerMm: doublePrecision('finger_mm'),
    leftHanded: boolean('left_handed').notNull().default(false),
    allergies: text().notNull().default(''),
    note: text().notNull().default(''),
    addedAt: timestamp('added_at', { withTimezone: true }).notNull().defaultNow(),
    addedBy: integer('added_by')
      .notNull()
      .references(() => person.id),
  },
  (table) => [
    index('customer_by_name').on(table.name, table.id),
    check(
      'customer_measures',
      sql`coalesce(${table.wristMm} > 0, true) and coalesce(${table.neckMm} > 0, true) and coalesce(${table.fingerMm} > 0, true)`,
    ),
  ],
)
