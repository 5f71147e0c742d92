import type { PersonRole } from '@tessellum/contract/roles'
import { sql } from 'drizzle-orm'
import { bigint, check, index, integer, json, pgTable, text, timestamp, varchar } from 'drizzle-orm/pg-core'

export const person = pgTable(
  'person',
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    name: text().notNull().unique(),
    fullName: text('full_name').notNull(),
    roles: text().array().$type<PersonRole[]>().notNull(),
    /** Null until they have chosen one. */
    passwordHash: text('password_hash'),
    /** They may not sign in; what they did keeps their name. */
    disabledAt: timestamp('disabled_at', { withTimezone: true }),
    /** Carried by their sessions: another role, another password or being disabled gives another seal, and the sessions end. */
    seal: text().notNull().default(sql`gen_random_uuid()::text`),
  },
  (table) => [
    check(
      'person_roles',
      sql`${table.roles} <@ array['owner', 'designer', 'stockroom', 'teacher', 'counter'] and cardinality(${table.roles}) > 0`,
    ),
  ],
)

/** The one link by which somebody may choose a password now; only a digest of it is kept. In no archive. */
export const personLink = pgTable('person_link', {
  personId: integer('person_id')
    .primaryKey()
    .references(() => person.id),
  tokenDigest: text('token_digest').notNull().unique(),
  expiresAt: timestamp('expires_at', { withTimezone: true }).notNull(),
})

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
