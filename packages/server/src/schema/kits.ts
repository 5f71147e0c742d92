import { type AnyPgColumn, integer, pgTable, text, unique } from 'drizzle-orm/pg-core'
import { colourwayVersion } from './colourways'
import { patternVersion } from './patterns'
import { item } from './stock'

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
