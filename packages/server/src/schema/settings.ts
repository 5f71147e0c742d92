import type { CostSettings } from '@tessellum/core/kit/price'
import { integer, jsonb, pgTable } from 'drizzle-orm/pg-core'

/** How the shop works out what a kit costs and asks: one row. */
export const costSetting = pgTable('cost_setting', {
  id: integer().primaryKey(),
  costs: jsonb().$type<CostSettings>().notNull(),
})
