import type { StockUnit } from '@tessellum/core/kit/bill'
import { sql } from 'drizzle-orm'
import { check, index, integer, pgTable, text, timestamp } from 'drizzle-orm/pg-core'
import { customer } from './customers'
import { patternVersion } from './patterns'
import { person } from './people'
import { quantity } from './quantity'
import { item } from './stock'

/** Something sold over the counter. Money is told, and never taken here. */
export const sale = pgTable(
  'sale',
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    customer: text().notNull().default(''),
    customerId: integer('customer_id').references(() => customer.id),
    at: timestamp({ withTimezone: true }).notNull().defaultNow(),
    madeBy: integer('made_by')
      .notNull()
      .references(() => person.id),
  },
  (table) => [index('sale_at').on(table.at), index('sale_to').on(table.customerId).where(sql`customer_id is not null`)],
)

export const saleLine = pgTable(
  'sale_line',
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    saleId: integer('sale_id')
      .notNull()
      .references(() => sale.id),
    itemId: integer('item_id').references(() => item.id),
    patternVersionId: integer('pattern_version_id').references(() => patternVersion.id),
    name: text().notNull(),
    unit: text().$type<StockUnit>().notNull(),
    quantity: quantity('quantity').notNull(),
    /** Of the whole line, in minor units of money. */
    price: integer().notNull(),
    /** Of that, what is tax; as it was when it was sold. */
    tax: integer().notNull().default(0),
  },
  (table) => [
    index('sale_line_by_sale').on(table.saleId),
    index('sale_line_by_item').on(table.itemId, table.id),
    check('sale_line_of_one', sql`(${table.itemId} is null) <> (${table.patternVersionId} is null)`),
    check(
      'sale_line_figures',
      sql`${table.quantity} > 0 and ${table.price} >= 0 and ${table.tax} between 0 and ${table.price}`,
    ),
  ],
)

export const saleReturn = pgTable(
  'sale_return',
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    lineId: integer('line_id')
      .notNull()
      .references(() => saleLine.id),
    quantity: quantity('quantity').notNull(),
    refund: integer().notNull(),
    at: timestamp({ withTimezone: true }).notNull().defaultNow(),
    madeBy: integer('made_by')
      .notNull()
      .references(() => person.id),
  },
  (table) => [
    index('sale_return_by_line').on(table.lineId),
    index('sale_return_at').on(table.at),
    check('sale_return_figures', sql`${table.quantity} > 0 and ${table.refund} >= 0`),
  ],
)
