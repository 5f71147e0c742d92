import { sql } from 'drizzle-orm'
import {
  type AnyPgColumn,
  bigint,
  check,
  foreignKey,
  integer,
  pgTable,
  primaryKey,
  text,
  timestamp,
} from 'drizzle-orm/pg-core'
import { batch } from '../batches/schema'
import { person } from '../people/schema'
import { item, lot } from '../stock/schema'

const quantity = (name: string) => bigint(name, { mode: 'number' })

/** What was settled when a batch was reserved: so many kits of a line from this lot, and what each bag must hold. */
export const batchTake = pgTable(
  'batch_take',
  {
    batchId: integer('batch_id')
      .notNull()
      .references((): AnyPgColumn => batch.id),
    line: integer().notNull(),
    itemId: integer('item_id')
      .notNull()
      .references((): AnyPgColumn => item.id),
    lotId: integer('lot_id')
      .notNull()
      .references((): AnyPgColumn => lot.id),
    kits: integer().notNull(),
    least: quantity('least').notNull(),
    target: quantity('target').notNull(),
    most: quantity('most').notNull(),
    roles: text().notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.batchId, table.line, table.itemId, table.lotId] }),
    check(
      'batch_take_figures',
      sql`${table.kits} > 0 and ${table.least} > 0 and ${table.least} <= ${table.target} and ${table.target} <= ${table.most}`,
    ),
  ],
)

/** A bag that has been filled; the same kit is filled once with each item. */
export const bag = pgTable(
  'bag',
  {
    batchId: integer('batch_id').notNull(),
    line: integer().notNull(),
    kit: integer().notNull(),
    itemId: integer('item_id').notNull(),
    lotId: integer('lot_id').notNull(),
    quantity: quantity('quantity').notNull(),
    personId: integer('person_id')
      .notNull()
      .references((): AnyPgColumn => person.id),
    at: timestamp({ withTimezone: true }).notNull().defaultNow(),
  },
  (table) => [
    primaryKey({ columns: [table.batchId, table.line, table.kit, table.itemId] }),
    foreignKey({
      columns: [table.batchId, table.line, table.itemId, table.lotId],
      foreignColumns: [batchTake.batchId, batchTake.line, batchTake.itemId, batchTake.lotId],
    }),
    check('bag_figures', sql`${table.kit} > 0 and ${table.quantity} > 0`),
  ],
)
