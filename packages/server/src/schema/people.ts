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
    /** They may not sign in; what they did keeps their name. */
    disabledAt: timestamp('disabled_at', { withTimezone: true }),
    /** Carried by their sessions: another role, another password or being disabled gives another seal, and the sessions end. */
    seal: text().notNull().default(sql`gen_random_uuid()::text`),
  },
  (table) => [check('person_role', sql`${table.role} in ('owner', 'designer', 'stockroom', 'teacher')`)],
)

/** What all servers of the shop share and nobody else knows; in no archive. */
export const shopSecret = pgTable('shop_secret', { name: text().primaryKey(), value: text().notNull() })

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
