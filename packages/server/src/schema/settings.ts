import type { SettingsParts } from '@tessellum/contract/settings'
import type { CostSettings } from '@tessellum/core/kit/price'
import { integer, jsonb, pgTable } from 'drizzle-orm/pg-core'

/** How the shop works out what a kit costs and asks: one row. */
export const costSetting = pgTable('cost_setting', {
  id: integer().primaryKey(),
  costs: jsonb().$type<CostSettings>().notNull(),
})

/** What the shop has settled otherwise than is usual, by parts: one row. */
export const shopSetting = pgTable('shop_setting', {
  id: integer().primaryKey(),
  settings: jsonb().$type<SettingsParts>().notNull(),
})
