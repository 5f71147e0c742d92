import type { Crop, PictureSize } from '@tessellum/contract/pictures'
import type { PictureKind } from '@tessellum/core/writing/pictures'
import type { StepKey } from '@tessellum/core/writing/step-words'
import { sql } from 'drizzle-orm'
import { check, index, integer, jsonb, pgTable, primaryKey, text, timestamp } from 'drizzle-orm/pg-core'
import { bytea } from './bytes'
import { pattern } from './patterns'
import { person } from './people'

/** A picture of a pattern. What it looks like never changes: cropped anew it is another. */
export const picture = pgTable(
  'picture',
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    patternId: integer('pattern_id')
      .notNull()
      .references(() => pattern.id),
    kind: text().$type<PictureKind>().notNull().default('finished'),
    step: jsonb().$type<StepKey>(),
    caption: text().notNull().default(''),
    /** Its place among the pattern's pictures, from 1; several may have the same, and then the older comes first. */
    position: integer().notNull(),
    /** Of the large size, in pixels. */
    width: integer().notNull(),
    height: integer().notNull(),
    crop: jsonb().$type<Crop>(),
    addedAt: timestamp('added_at', { withTimezone: true }).notNull().defaultNow(),
    addedBy: integer('added_by')
      .notNull()
      .references(() => person.id),
    /** To be put back for thirty days; versions that show it keep it. */
    removedAt: timestamp('removed_at', { withTimezone: true }),
  },
  (table) => [
    index('picture_by_pattern').on(table.patternId),
    check('picture_kind', sql`${table.kind} in ('finished', 'step', 'fault')`),
    check('picture_step', sql`${table.kind} <> 'step' or ${table.step} is not null`),
    check('picture_measures', sql`${table.width} > 0 and ${table.height} > 0`),
  ],
)

/** A picture's files: as it was taken in, from which it is cropped, and in the sizes in which it is shown. */
export const pictureFile = pgTable(
  'picture_file',
  {
    pictureId: integer('picture_id')
      .notNull()
      .references(() => picture.id),
    size: text().$type<PictureSize>().notNull(),
    /** SHA-256, in hex. */
    digest: text().notNull(),
    bytes: bytea().notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.pictureId, table.size] }),
    check('picture_file_size', sql`${table.size} in ('whole', 'small', 'medium', 'large')`),
  ],
)
