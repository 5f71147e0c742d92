import type { PatternDrawing } from '@tessellum/contract/patterns'
import { integer, jsonb, pgTable, text } from 'drizzle-orm/pg-core'
import { pattern } from './patterns'

/** A pattern's draft as it was last drawn. Nothing is lost with it: it is drawn again. */
export const patternDrawing = pgTable('pattern_drawing', {
  patternId: integer('pattern_id')
    .primaryKey()
    .references(() => pattern.id, { onDelete: 'cascade' }),
  digest: text().notNull(),
  figures: jsonb().$type<Omit<PatternDrawing, 'digest' | 'current'>>().notNull(),
  /** A view, as JSON: it is only ever passed on. */
  view: text(),
})
