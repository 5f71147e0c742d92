import { integer, pgTable, text } from 'drizzle-orm/pg-core'
import { bytea } from './bytes'

/** The shop's sign, as a JPEG: one row, or none. */
export const shopLogo = pgTable('shop_logo', {
  id: integer().primaryKey(),
  /** SHA-256, in hex: another is another sign. */
  digest: text().notNull(),
  width: integer().notNull(),
  height: integer().notNull(),
  bytes: bytea().notNull(),
})
