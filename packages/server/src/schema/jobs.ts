import type { ApiError } from '@tessellum/contract/errors'
import { sql } from 'drizzle-orm'
import { index, integer, jsonb, pgTable, text, timestamp } from 'drizzle-orm/pg-core'
import { bytea } from './bytes'

/** Long work that any server may take. Nothing is lost with what is done: it is worked out again. */
export const job = pgTable(
  'job',
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    name: text().notNull(),
    /** Of its name, its input and the build that works it out: what is asked for twice is worked out once. */
    digest: text().notNull().unique(),
    /** Of the servers that may take it: others would come to something else. */
    build: text().notNull(),
    /** JSON; empty once it is done. */
    input: text().notNull(),
    /** Who takes their turn with it; nobody where it is the shop's own. */
    personId: integer('person_id'),
    /** Requests that wait for it. */
    waiters: integer().notNull().default(0),
    /** How often it was begun. */
    attempts: integer().notNull().default(0),
    askedAt: timestamp('asked_at', { withTimezone: true }).notNull().defaultNow(),
    begunAt: timestamp('begun_at', { withTimezone: true }),
    doneAt: timestamp('done_at', { withTimezone: true }),
    result: bytea(),
    problem: jsonb().$type<ApiError & { readonly status: number }>(),
  },
  (table) => [index('job_open').on(table.id).where(sql`${table.doneAt} is null`)],
)
