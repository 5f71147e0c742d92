import { sql } from 'drizzle-orm'
import {
  type AnyPgColumn,
  boolean,
  check,
  date,
  foreignKey,
  index,
  integer,
  pgTable,
  primaryKey,
  text,
  timestamp,
  unique,
} from 'drizzle-orm/pg-core'
import { batch } from './batches'
import { colourwayVersion } from './colourways'
import { customer } from './customers'
import { patternVersion } from './patterns'
import { person } from './people'

/** A class that is on offer, until it has been taught or called off. */
export const classTable = pgTable(
  'class',
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    title: text().notNull(),
    heldOn: date('held_on').notNull(),
    /** "10:00", by the clock on the wall. */
    beginsAt: text('begins_at').notNull(),
    minutes: integer().notNull(),
    place: text().notNull(),
    seats: integer().notNull(),
    teacherId: integer('teacher_id')
      .notNull()
      .references(() => person.id),
    patternVersionId: integer('pattern_version_id')
      .notNull()
      .references((): AnyPgColumn => patternVersion.id),
    spareKits: integer('spare_kits').notNull().default(0),
    /** Of a seat, in minor units of money. */
    price: integer().notNull().default(0),
    state: text().$type<'offered' | 'taught' | 'cancelled'>().notNull().default('offered'),
    /** When it was taught or called off. */
    overAt: timestamp('over_at', { withTimezone: true }),
    batchId: integer('batch_id').references((): AnyPgColumn => batch.id),
    /** Where the walk stands: the step, and the pass within it. */
    walkStep: integer('walk_step').notNull().default(0),
    note: text().notNull().default(''),
    madeAt: timestamp('made_at', { withTimezone: true }).notNull().defaultNow(),
    madeBy: integer('made_by')
      .notNull()
      .references(() => person.id),
  },
  (table) => [
    index('class_by_day').on(table.heldOn, table.id),
    check('class_state', sql`${table.state} in ('offered', 'taught', 'cancelled')`),
    check(
      'class_figures',
      sql`${table.seats} between 1 and 200 and ${table.minutes} between 15 and 6000 and ${table.spareKits} between 0 and 200 and ${table.price} >= 0`,
    ),
  ],
)

/** What can be chosen in a class: a size in a colourway. The first is what a seat gets that has chosen nothing yet. */
export const classOffer = pgTable(
  'class_offer',
  {
    classId: integer('class_id')
      .notNull()
      .references(() => classTable.id),
    position: integer().notNull(),
    size: text().notNull(),
    colourwayVersionId: integer('colourway_version_id')
      .notNull()
      .references((): AnyPgColumn => colourwayVersion.id),
  },
  (table) => [primaryKey({ columns: [table.classId, table.position] })],
)

/** The further days of a class that goes over several, each as long as the first. */
export const classDay = pgTable(
  'class_day',
  {
    classId: integer('class_id')
      .notNull()
      .references(() => classTable.id),
    heldOn: date('held_on').notNull(),
    beginsAt: text('begins_at').notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.classId, table.heldOn, table.beginsAt] }),
    index('class_day_on').on(table.heldOn),
  ],
)

/** Who waits for a seat, in the order in which they asked. */
export const waiting = pgTable(
  'waiting',
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    classId: integer('class_id')
      .notNull()
      .references(() => classTable.id),
    name: text().notNull(),
    contact: text().notNull().default(''),
    customerId: integer('customer_id').references(() => customer.id),
    askedAt: timestamp('asked_at', { withTimezone: true }).notNull().defaultNow(),
  },
  (table) => [index('waiting_for').on(table.classId, table.id)],
)

export const booking = pgTable(
  'booking',
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    classId: integer('class_id')
      .notNull()
      .references(() => classTable.id),
    seat: integer().notNull(),
    name: text().notNull(),
    /** Of the class's offers. */
    offer: integer().notNull(),
    note: text().notNull().default(''),
    contact: text().notNull().default(''),
    customerId: integer('customer_id').references(() => customer.id),
    /** So far, in minor units of money. */
    paid: integer().notNull().default(0),
    /** They did not come: their kit is theirs all the same. */
    absent: boolean().notNull().default(false),
  },
  (table) => [
    index('booking_of').on(table.customerId).where(sql`customer_id is not null`),
    check('booking_paid', sql`${table.paid} >= 0`),
    unique('booking_seat').on(table.classId, table.seat),
    foreignKey({ columns: [table.classId, table.offer], foreignColumns: [classOffer.classId, classOffer.position] }),
    check('booking_seat_from_1', sql`${table.seat} >= 1`),
  ],
)
