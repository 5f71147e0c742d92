import { bigint, index, integer, pgTable, text, timestamp } from 'drizzle-orm/pg-core'
import { person } from './people'

/** What people did, as sentences that can be read years later. Only ever added to. */
export const auditEntry = pgTable(
  'audit_entry',
  {
    id: bigint({ mode: 'number' }).primaryKey().generatedAlwaysAsIdentity(),
    at: timestamp({ withTimezone: true }).notNull().defaultNow(),
    personId: integer('person_id')
      .notNull()
      .references(() => person.id),
    /** "reserved 12 kits of Spring term": what follows the person's name. */
    what: text().notNull(),
    /** Where it can be looked at: "/kits/3"; empty where there is nothing to see. */
    page: text().notNull().default(''),
  },
  (table) => [index('audit_entry_person').on(table.personId, table.id)],
)
