import type { MoveKind } from '@tessellum/core/stock/moves'
import { sql } from 'drizzle-orm'
import {
  type AnyPgColumn,
  bigint,
  boolean,
  check,
  date,
  index,
  integer,
  pgTable,
  primaryKey,
  text,
  timestamp,
  uniqueIndex,
} from 'drizzle-orm/pg-core'
import { batch } from './batches'
import { person } from './people'
import { quantity } from './quantity'
import { saleLine } from './sales'
import { item, lot } from './stock'

/** Kept by a trigger from the moves, in the same transaction; never written by hand. */
export const balance = pgTable(
  'balance',
  {
    lotId: integer('lot_id')
      .primaryKey()
      .references(() => lot.id),
    onHand: quantity('on_hand').notNull().default(0),
    reserved: quantity('reserved').notNull().default(0),
  },
  (table) => [
    check('balance_reserved_not_negative', sql`${table.reserved} >= 0`),
    // With the one above: nothing below 0, and nothing promised twice.
    check('balance_reserved_within_on_hand', sql`${table.reserved} <= ${table.onHand}`),
  ],
)

/** An item's balance over all its lots, kept by triggers with each statement that moves something: what runs low is found without adding up a shelf. */
export const itemTotal = pgTable(
  'item_total',
  {
    itemId: integer('item_id')
      .primaryKey()
      .references(() => item.id),
    onHand: quantity('on_hand').notNull().default(0),
    reserved: quantity('reserved').notNull().default(0),
    reorderBelow: quantity('reorder_below').notNull().default(0),
    low: boolean().generatedAlwaysAs(sql`on_hand - reserved < reorder_below`),
  },
  (table) => [index('item_total_low').on(table.itemId).where(sql`low`)],
)

/** The ledger. Rows are only ever added (a trigger refuses anything else). */
export const move = pgTable(
  'move',
  {
    id: bigint({ mode: 'number' }).primaryKey().generatedAlwaysAsIdentity(),
    lotId: integer('lot_id')
      .notNull()
      .references(() => lot.id),
    kind: text().$type<MoveKind>().notNull(),
    onHand: quantity('on_hand').notNull(),
    reserved: quantity('reserved').notNull(),
    reason: text().notNull().default(''),
    batchId: integer('batch_id').references(() => batch.id),
    /** Sold over the counter, or come back from there. */
    saleLineId: integer('sale_line_id').references((): AnyPgColumn => saleLine.id),
    reverses: bigint({ mode: 'number' })
      .references((): AnyPgColumn => move.id)
      .unique(),
    personId: integer('person_id')
      .notNull()
      .references(() => person.id),
    at: timestamp({ withTimezone: true }).notNull().defaultNow(),
    idempotencyKey: text('idempotency_key').notNull(),
  },
  (table) => [
    // With what an item's story adds up, so that the moves themselves need not be read for it.
    index('move_lot').on(table.lotId, table.id, table.at, table.onHand, table.reserved),
    index('move_promise').on(table.lotId, table.batchId, table.reserved).where(sql`batch_id is not null`),
    index('move_batch').on(table.batchId),
    index('move_sale_line').on(table.saleLineId).where(sql`sale_line_id is not null`),
    // A tube that is put in another place as it is changes no balance.
    check('move_moves_something', sql`${table.onHand} <> 0 or ${table.reserved} <> 0 or ${table.kind} = 'transfer'`),
    check(
      'move_kind',
      sql`case ${table.kind}
        when 'receive' then ${table.onHand} > 0 and ${table.reserved} = 0
        when 'correction' then ${table.reserved} = 0
        when 'sale' then ${table.onHand} < 0 and ${table.reserved} = 0
        when 'scrap' then ${table.onHand} < 0 and ${table.reserved} = 0
        when 'reserve' then ${table.onHand} = 0 and ${table.reserved} > 0 and ${table.batchId} is not null
        when 'release' then ${table.onHand} = 0 and ${table.reserved} < 0 and ${table.batchId} is not null
        when 'issue' then ${table.onHand} < 0 and ${table.reserved} <= 0 and ${table.batchId} is not null
        when 'transfer' then ${table.reserved} = 0
        when 'return' then ${table.onHand} > 0 and ${table.reserved} = 0 and coalesce(${table.batchId}, ${table.saleLineId}) is not null
        when 'open' then ${table.onHand} < 0 and ${table.reserved} = 0 and ${table.batchId} is not null
        when 'reverse' then ${table.reverses} is not null
        else false end`,
    ),
  ],
)

/** Something on its way: counted as coming, and a lot once it is there. */
export const purchase = pgTable(
  'purchase',
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    itemId: integer('item_id')
      .notNull()
      .references(() => item.id),
    supplier: text().notNull(),
    amount: quantity('amount').notNull(),
    /** In minor units of money. */
    cost: integer().notNull(),
    orderedOn: date('ordered_on').notNull(),
    expectedOn: date('expected_on').notNull(),
    state: text().$type<'ordered' | 'received' | 'cancelled'>().notNull().default('ordered'),
    lotId: integer('lot_id').references(() => lot.id),
    orderedBy: integer('ordered_by')
      .notNull()
      .references(() => person.id),
  },
  (table) => [
    index('purchase_item').on(table.itemId, table.state),
    check('purchase_figures', sql`${table.amount} > 0 and ${table.cost} >= 0`),
    check('purchase_state', sql`(${table.state} = 'received') = (${table.lotId} is not null)`),
  ],
)

export const stocktake = pgTable(
  'stocktake',
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    place: text().notNull(),
    state: text().$type<'counting' | 'posted' | 'abandoned'>().notNull().default('counting'),
    begunAt: timestamp('begun_at', { withTimezone: true }).notNull().defaultNow(),
    begunBy: integer('begun_by')
      .notNull()
      .references(() => person.id),
    endedAt: timestamp('ended_at', { withTimezone: true }),
  },
  (table) => [
    uniqueIndex('stocktake_one_at_a_time').on(table.place).where(sql`${table.state} = 'counting'`),
    check('stocktake_state', sql`${table.state} in ('counting', 'posted', 'abandoned')`),
  ],
)

/** One lot of a stocktake: what the ledger had when the place was frozen, and what was found. */
export const stocktakeRow = pgTable(
  'stocktake_row',
  {
    stocktakeId: integer('stocktake_id')
      .notNull()
      .references(() => stocktake.id),
    lotId: integer('lot_id')
      .notNull()
      .references(() => lot.id),
    /** In the tube by the ledger when the count began: on hand less what lies in bags. */
    frozen: quantity('frozen').notNull(),
    counted: quantity('counted'),
    /** In the tube by the ledger when it was counted: the difference stands whatever moves before or after. */
    expected: quantity('expected'),
    countedBy: integer('counted_by').references(() => person.id),
    countedAt: timestamp('counted_at', { withTimezone: true }),
  },
  (table) => [
    primaryKey({ columns: [table.stocktakeId, table.lotId] }),
    check(
      'stocktake_row_counted',
      sql`(${table.counted} is null) = (${table.expected} is null) and coalesce(${table.counted} >= 0, true)`,
    ),
  ],
)
