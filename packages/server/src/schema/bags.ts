import { sql } from 'drizzle-orm'
import { type AnyPgColumn, check, index, integer, pgTable, primaryKey, text, timestamp } from 'drizzle-orm/pg-core'
import { batch, batchLine } from './batches'
import { person } from './people'
import { quantity } from './quantity'
import { item, lot } from './stock'

/**
 * One item in one kit's bag: laid out when its batch is reserved, filled at the bench. A batch holds of each lot what its bags hold, no more and no
 * less.
 */
export const bag = pgTable(
  'bag',
  {
    batchId: integer('batch_id')
      .notNull()
      .references((): AnyPgColumn => batch.id),
    lineId: integer('line_id')
      .notNull()
      .references((): AnyPgColumn => batchLine.id),
    /** From 1 within its line. */
    kit: integer().notNull(),
    itemId: integer('item_id')
      .notNull()
      .references((): AnyPgColumn => item.id),
    /** Null where what was promised has been lost, and nothing else is free. */
    lotId: integer('lot_id').references((): AnyPgColumn => lot.id),
    roles: text().notNull(),
    least: quantity('least').notNull(),
    target: quantity('target').notNull(),
    most: quantity('most').notNull(),
    /** Beads that it is meant to have, where they are weighed; null for what is counted or cut, and for bags of older releases. */
    beads: integer(),
    /** What is in it; null while it is empty. */
    filled: quantity('filled'),
    personId: integer('person_id').references((): AnyPgColumn => person.id),
    at: timestamp({ withTimezone: true }),
  },
  (table) => [
    primaryKey({ columns: [table.lineId, table.kit, table.itemId] }),
    index('bag_batch').on(table.batchId),
    index('bag_lot').on(table.lotId),
    check(
      'bag_figures',
      sql`${table.kit} > 0 and ${table.least} > 0 and ${table.least} <= ${table.target} and ${table.target} <= ${table.most}`,
    ),
    check(
      'bag_filled',
      sql`(${table.filled} is null) = (${table.personId} is null) and (${table.filled} is null or (${table.filled} between ${table.least} and ${table.most} and ${table.lotId} is not null))`,
    ),
  ],
)

/** What a bag is promised by its lot: what it is meant to have, and what is in it beyond that. */
export const heldByBag = sql<number>`greatest(${bag.target}, coalesce(${bag.filled}, 0))`

export const heldBy = ({
  target,
  filled = null,
}: {
  readonly target: number
  readonly filled?: number | null
}): number => Math.max(target, filled ?? 0)

/** What was given back from kits that were issued: never more than a bag held. */
export const bagReturn = pgTable(
  'bag_return',
  {
    lineId: integer('line_id').notNull(),
    kit: integer().notNull(),
    itemId: integer('item_id').notNull(),
    quantity: quantity('quantity').notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.lineId, table.kit, table.itemId] }),
    check('bag_return_figures', sql`${table.quantity} >= 0`),
  ],
)
