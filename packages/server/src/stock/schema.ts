import type { MoveKind } from '@tessellum/core/stock/moves'
import { sql } from 'drizzle-orm'
import {
  type AnyPgColumn,
  bigint,
  check,
  date,
  doublePrecision,
  index,
  integer,
  pgTable,
  text,
  timestamp,
  unique,
} from 'drizzle-orm/pg-core'
import { batch } from '../batches/schema'
import { person } from '../people/schema'

const quantity = (name: string) => bigint(name, { mode: 'number' })

export const maker = pgTable('maker', {
  id: integer().primaryKey().generatedAlwaysAsIdentity(),
  name: text().notNull().unique(),
})

export const item = pgTable(
  'item',
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    code: text().notNull().unique(),
    category: text().$type<'bead' | 'stone' | 'thread'>().notNull(),
    makerId: integer('maker_id')
      .notNull()
      .references(() => maker.id),
    kind: text().notNull(),
    size: text().notNull(),
    colourCode: text('colour_code').notNull().default(''),
    colourName: text('colour_name').notNull(),
    finish: text().notNull().default(''),
    colour: text().notNull(),
    unit: text().$type<'mg' | 'piece' | 'mm'>().notNull(),
    place: text().notNull().default(''),
    reorderBelow: quantity('reorder_below').notNull().default(0),
    // The bead's own figures; null for what is not a bead.
    lengthMm: doublePrecision('length_mm'),
    acrossMm: doublePrecision('across_mm'),
    boreMm: doublePrecision('bore_mm'),
    massMg: doublePrecision('mass_mg'),
    contact: doublePrecision(),
    bores: integer(),
  },
  (table) => [
    check('item_category', sql`${table.category} in ('bead', 'stone', 'thread')`),
    check('item_unit', sql`${table.unit} in ('mg', 'piece', 'mm')`),
    check('item_colour', sql`${table.colour} ~ '^#[0-9a-f]{6}$'`),
    check(
      'item_bead_figures',
      sql`${table.category} <> 'bead' or coalesce(${table.lengthMm} > 0 and ${table.acrossMm} > 0 and ${table.boreMm} > 0 and ${table.massMg} > 0 and ${table.contact} > 0 and ${table.bores} in (1, 2), false)`,
    ),
    index('item_kind_size').on(table.kind, table.size),
  ],
)

/** What an item is bought in, and for how much, in minor units of money. */
export const pack = pgTable(
  'pack',
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    itemId: integer('item_id')
      .notNull()
      .references(() => item.id),
    amount: quantity('amount').notNull(),
    price: integer().notNull(),
    leadDays: integer('lead_days').notNull().default(7),
  },
  (table) => [
    unique('pack_amount').on(table.itemId, table.amount),
    check('pack_figures', sql`${table.amount} > 0 and ${table.price} >= 0 and ${table.leadDays} >= 0`),
  ],
)

export const lot = pgTable(
  'lot',
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    itemId: integer('item_id')
      .notNull()
      .references(() => item.id),
    code: text().notNull().unique(),
    receivedOn: date('received_on').notNull(),
  },
  (table) => [index('lot_item').on(table.itemId, table.receivedOn, table.id)],
)

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
    // With the one above: nothing below nought, and nothing promised twice.
    check('balance_reserved_within_on_hand', sql`${table.reserved} <= ${table.onHand}`),
  ],
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
    reverses: bigint({ mode: 'number' })
      .references((): AnyPgColumn => move.id)
      .unique(),
    personId: integer('person_id')
      .notNull()
      .references(() => person.id),
    at: timestamp({ withTimezone: true }).notNull().defaultNow(),
    actionKey: text('action_key').notNull(),
  },
  (table) => [
    index('move_lot').on(table.lotId, table.id),
    index('move_batch').on(table.batchId),
    check('move_moves_something', sql`${table.onHand} <> 0 or ${table.reserved} <> 0`),
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
        when 'reverse' then ${table.reverses} is not null
        else false end`,
    ),
  ],
)
