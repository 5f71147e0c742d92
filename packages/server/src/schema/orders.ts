import type { Worn } from '@tessellum/core/desk/wearer'
import { sql } from 'drizzle-orm'
import {
  type AnyPgColumn,
  check,
  date,
  doublePrecision,
  index,
  integer,
  pgTable,
  text,
  timestamp,
} from 'drizzle-orm/pg-core'
import { batch } from './batches'
import { colourwayVersion } from './colourways'
import { customer } from './customers'
import { patternVersion } from './patterns'
import { person } from './people'

/** One customer's piece: sized to a measure, in colours, by a day. */
export const customerOrder = pgTable(
  'customer_order',
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    customer: text().notNull(),
    /** Null where they are no customer on record. */
    customerId: integer('customer_id').references((): AnyPgColumn => customer.id),
    worn: text().$type<Worn>(),
    measureMm: doublePrecision('measure_mm'),
    patternVersionId: integer('pattern_version_id')
      .notNull()
      .references((): AnyPgColumn => patternVersion.id),
    /** As it is made: one of the pattern's sizes, or made to measure. */
    size: text().notNull(),
    colourwayVersionId: integer('colourway_version_id')
      .notNull()
      .references((): AnyPgColumn => colourwayVersion.id),
    kits: integer().notNull().default(1),
    wantedOn: date('wanted_on').notNull(),
    /** In minor units of money. */
    price: integer().notNull().default(0),
    /** So far, a deposit too. */
    paid: integer().notNull().default(0),
    promised: text().notNull().default(''),
    state: text().$type<'taken' | 'done' | 'cancelled'>().notNull().default('taken'),
    /** When it was handed over or called off. */
    overAt: timestamp('over_at', { withTimezone: true }),
    batchId: integer('batch_id').references((): AnyPgColumn => batch.id),
    madeAt: timestamp('made_at', { withTimezone: true }).notNull().defaultNow(),
    madeBy: integer('made_by')
      .notNull()
      .references(() => person.id),
  },
  (table) => [
    index('customer_order_by_day').on(table.wantedOn, table.id),
    index('customer_order_of').on(table.customerId).where(sql`customer_id is not null`),
    check('customer_order_state', sql`${table.state} in ('taken', 'done', 'cancelled')`),
    check(
      'customer_order_figures',
      sql`${table.kits} between 1 and 100 and ${table.price} >= 0 and ${table.paid} >= 0 and (${table.worn} is null) = (${table.measureMm} is null)`,
    ),
  ],
)

/** Kits of an order that the customer has got, all at once or some at a time. */
export const handover = pgTable(
  'handover',
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    orderId: integer('order_id')
      .notNull()
      .references(() => customerOrder.id),
    kits: integer().notNull(),
    at: timestamp({ withTimezone: true }).notNull().defaultNow(),
    madeBy: integer('made_by')
      .notNull()
      .references(() => person.id),
  },
  (table) => [index('handover_by_order').on(table.orderId), check('handover_kits', sql`${table.kits} > 0`)],
)
