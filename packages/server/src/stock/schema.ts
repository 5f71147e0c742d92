import type { ItemCategory } from '@tessellum/contract/stock'
import type { MoveKind } from '@tessellum/core/stock/moves'
import { sql } from 'drizzle-orm'
import {
  type AnyPgColumn,
  bigint,
  boolean,
  check,
  date,
  doublePrecision,
  index,
  integer,
  pgTable,
  primaryKey,
  text,
  timestamp,
  unique,
  uniqueIndex,
} from 'drizzle-orm/pg-core'
import { batch } from '../batches/schema'
import { colourwayVersion } from '../colourways/schema'
import { patternVersion } from '../patterns/schema'
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
    category: text().$type<ItemCategory>().notNull(),
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
    /** What is printed on the maker's own tubes. */
    barcode: text().unique(),
    /** Nickel, magnet, lead unknown: told wherever it is packed or written about. */
    cautions: text().notNull().default(''),
    /** Everything it can be found by, lot codes too; kept by triggers. */
    words: text().notNull().default(''),
    // The bead's own figures; null for what is not a bead.
    lengthMm: doublePrecision('length_mm'),
    acrossMm: doublePrecision('across_mm'),
    boreMm: doublePrecision('bore_mm'),
    massMg: doublePrecision('mass_mg'),
    contact: doublePrecision(),
    bores: integer(),
  },
  (table) => [
    check('item_category', sql`${table.category} in ('bead', 'stone', 'thread', 'kit', 'other')`),
    check('item_unit', sql`${table.unit} in ('mg', 'piece', 'mm')`),
    check('item_colour', sql`${table.colour} ~ '^#[0-9a-f]{6}$'`),
    check(
      'item_bead_figures',
      sql`${table.category} <> 'bead' or coalesce(${table.lengthMm} > 0 and ${table.acrossMm} > 0 and ${table.boreMm} > 0 and ${table.massMg} > 0 and ${table.contact} > 0 and ${table.bores} in (1, 2), false)`,
    ),
    index('item_kind_size').on(table.kind, table.size),
    index('item_words').using('gin', sql`${table.words} gin_trgm_ops`),
    // The orders in which the shelf is paged through.
    index('item_by_colour').on(table.colourName, table.id),
    index('item_by_code').on(table.code, table.id),
    index('item_by_kind').on(table.kind, table.size, table.id),
    index('item_by_place').on(table.place, table.id),
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
    code: text().notNull(),
    receivedOn: date('received_on').notNull(),
    /** A dye lot that lies in two places is two rows with one code. */
    place: text().notNull().default(''),
    supplier: text().notNull().default(''),
    /** Of one unit, in minor units of money; null where it is not known. */
    unitCost: doublePrecision('unit_cost'),
    /** As weighed from this lot; the item's own figure holds where it is null. */
    mgPerBead: doublePrecision('mg_per_bead'),
    measuredBeads: integer('measured_beads'),
  },
  (table) => [
    index('lot_item').on(table.itemId, table.receivedOn, table.id),
    index('lot_place').on(table.place),
    unique('lot_code_place').on(table.itemId, table.code, table.place),
    check(
      'lot_figures',
      sql`coalesce(${table.unitCost} >= 0, true) and coalesce(${table.mgPerBead} > 0 and ${table.measuredBeads} > 0, ${table.mgPerBead} is null)`,
    ),
  ],
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
        when 'return' then ${table.onHand} > 0 and ${table.reserved} = 0 and ${table.batchId} is not null
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

/** What a kit of stock is made from, so that the same kit is the same item. */
export const kitItem = pgTable(
  'kit_item',
  {
    itemId: integer('item_id')
      .primaryKey()
      .references(() => item.id),
    patternVersionId: integer('pattern_version_id')
      .notNull()
      .references((): AnyPgColumn => patternVersion.id),
    size: text().notNull(),
    colourwayVersionId: integer('colourway_version_id')
      .notNull()
      .references((): AnyPgColumn => colourwayVersion.id),
  },
  (table) => [unique('kit_item_is').on(table.patternVersionId, table.size, table.colourwayVersionId)],
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
