import type { ItemCategory } from '@tessellum/contract/stock'
import { sql } from 'drizzle-orm'
import { check, date, doublePrecision, index, integer, pgTable, text, unique } from 'drizzle-orm/pg-core'
import { quantity } from './quantity'

export const maker = pgTable('maker', {
  id: integer().primaryKey().generatedAlwaysAsIdentity(),
  name: text().notNull().unique(),
})

/** Who sells to the shop; items name their maker, and orders their supplier, by this name. */
export const supplier = pgTable(
  'supplier',
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    name: text().notNull().unique(),
    contact: text().notNull().default(''),
    leadDays: integer('lead_days'),
    /** In minor units of money. */
    minOrder: integer('min_order').notNull().default(0),
    note: text().notNull().default(''),
  },
  (table) => [check('supplier_figures', sql`coalesce(${table.leadDays} >= 0, true) and ${table.minOrder} >= 0`)],
)

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
    /** Asked at the counter for a gram, a metre or a piece, in minor units of money; null where it is not settled. */
    sellingPrice: integer('selling_price'),
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
    check('item_selling_price', sql`coalesce(${table.sellingPrice} >= 0, true)`),
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
    /** Since when it costs so much. */
    pricedOn: date('priced_on').notNull().defaultNow(),
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
