import { sql } from 'drizzle-orm'
import { bigint, check, index, integer, json, pgTable, text, timestamp, varchar } from 'drizzle-orm/pg-core'

export const person = pgTable(
  'person',
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    name: text().notNull().unique(),
    fullName: text('full_name').notNull(),
    role: text().$type<'owner' | 'designer' | 'stockroom' | 'teacher'>().notNull(),
    passwordHash: text('password_hash').notNull(),
  },
  (table) => [check('person_role', sql`${table.role} in ('owner', 'designer', 'stockroom', 'teacher')`)],
)

/** Kept by the session store; the names are its own. */
export const session = pgTable(
  'session',
  {
    sid: varchar().primaryKey(),
    sess: json().notNull(),
    expire: timestamp({ precision: 6 }).notNull(),
  },
  (table) => [index('session_expire').on(table.expire)],
)

/** Kept by the rate limiter of sign-ins; the names are its own. */
export const signInLimit = pgTable('sign_in_limit', {
  key: varchar({ length: 255 }).primaryKey(),
  points: integer().notNull().default(0),
  expire: bigint({ mode: 'number' }),
})
