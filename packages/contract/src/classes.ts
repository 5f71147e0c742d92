import { paces } from '@tessellum/core/teach/time-plan'
import { customerId } from './customers'
import { day, recordId } from './fields'
import { z } from './zod'

const title = z
  .string('Name the class.')
  .trim()
  .min(1, 'Name the class.')
  .max(80, 'A class has a name of at most 80 letters.')

const beginsAt = z.string('Give the hour.').regex(/^([01]\d|2[0-3]):[0-5]\d$/, 'An hour is written like 10:00.')

const moreDays = z.array(z.object({ heldOn: day('Give the day.'), beginsAt })).max(20, 'At most 20 further days.')

export const saveClass = z
  .object({
    title,
    heldOn: day('Give the day.'),
    beginsAt,
    /** Further days of a class that goes over several, each as long as the first. */
    moreDays: moreDays.default([]),
    minutes: z
      .number('Give how long it goes on.')
      .int('Give whole minutes.')
      .min(15, 'A class goes on for a quarter of an hour at least.')
      .max(6000, 'That is more than four days.'),
    place: z.string('Say where.').trim().min(1, 'Say where.').max(80, 'A place has at most 80 letters.'),
    seats: z
      .number('Give the seats.')
      .int('Seats are whole.')
      .min(1, 'A class has at least one seat.')
      .max(200, 'At most 200 seats.'),
    teacherId: recordId('Choose who teaches.'),
    patternId: recordId('Choose a pattern.'),
    version: recordId('Choose a version.'),
    offers: z
      .array(z.object({ size: z.string().max(60), colourwayId: recordId('Choose a colourway.') }))
      .min(1, 'Offer at least one colourway.')
      .max(12, 'Offer at most 12 choices.'),
    spareKits: z.number().int('Kits are whole.').min(0, 'It cannot be below 0.').max(200).default(0),
    price: z.number().int('In pence or cents.').min(0, 'A price cannot be below 0.').max(10_000_000).default(0),
    note: z.string().trim().max(1000, 'A note has at most 1,000 letters.').default(''),
  })
  .refine(({ heldOn, moreDays: more }) => more.every((each) => each.heldOn > heldOn), {
    path: ['moreDays'],
    message: 'A further day comes after the first. Move it, or make the earlier one the first.',
  })
export type SaveClass = z.input<typeof saveClass>

/** Another day that a class might move to. */
export const classMoveWanted = z.object({ heldOn: day('Give the day.') })

/** What would no longer fit in time if a class were held on another day. */
export const classMove = z.object({
  /** The day by which its kits would have to be packed, where that is over and they are not packed; null where there is time. */
  packBy: z.string().nullable(),
  /** What its batch is short of, and would have had to be ordered before today. */
  late: z.array(z.object({ itemId: z.number(), name: z.string(), orderBy: z.string() })),
  /** Other classes that its teacher has on that day. */
  clashes: z.array(z.object({ id: z.number(), title: z.string(), beginsAt: z.string() })),
})
export type ClassMove = z.infer<typeof classMove>

/** A seat taken. With the booking's id it is changed; without, the seat must be free. */
export const bookSeat = z.object({
  id: recordId().optional(),
  name: z.string('Enter a name.').trim().min(1, 'Enter a name.').max(80, 'A name has at most 80 letters.'),
  offer: z.number('Choose one of the offers.').int().min(0),
  note: z.string().trim().max(200, 'A note has at most 200 letters.').default(''),
  contact: z.string().trim().max(200, 'At most 200 letters.').default(''),
  customerId,
  /** Of the waiting list: they wait no longer. */
  waitingId: recordId().optional(),
})
export type BookSeat = z.input<typeof bookSeat>

/** What a seat has paid so far, and whether they came: also of a class that was taught. */
export const markSeat = z.object({
  paid: z.number('In pence or cents.').int('In pence or cents.').min(0, 'It cannot be below 0.').max(10_000_000),
  absent: z.boolean(),
})
export type MarkSeat = z.infer<typeof markSeat>

/** Somebody who would like a seat when one is free. */
export const waitFor = z.object({
  name: bookSeat.shape.name,
  contact: bookSeat.shape.contact,
  customerId,
})
export type WaitFor = z.input<typeof waitFor>

export const walkPlace = z.object({ step: z.number().int().min(0).max(100_000) })

/** How far what a class, an order or a batch needs has come; "to change" where its batch is not of the kits that are booked now. */
export const readiness = z.enum([
  'unplanned',
  'to change',
  'short',
  'to reserve',
  'to pack',
  'packing',
  'ready',
  'over',
])
export type Readiness = z.infer<typeof readiness>

export const classSummary = z.object({
  id: z.number(),
  title: z.string(),
  heldOn: z.string(),
  beginsAt: z.string(),
  minutes: z.number(),
  place: z.string(),
  seats: z.number(),
  booked: z.number(),
  teacher: z.string(),
  pattern: z.string(),
  state: z.enum(['offered', 'taught', 'cancelled']),
  /** It can be opened again: it was taught or called off less than a day ago. */
  undoable: z.boolean(),
  batchId: z.number().nullable(),
  readiness,
})
export type ClassSummary = z.infer<typeof classSummary>

const plannedPart = z.object({
  name: z.string(),
  minutes: z.number(),
  from: z.number().optional(),
  fits: z.number(),
})

export const classAnswer = classSummary.extend({
  teacherId: z.number(),
  patternId: z.number(),
  version: z.number(),
  spareKits: z.number(),
  price: z.number(),
  note: z.string(),
  walkStep: z.number(),
  offers: z.array(
    z.object({
      size: z.string(),
      colourwayId: z.number(),
      colourwayVersion: z.number(),
      colourway: z.string(),
      kits: z.number(),
    }),
  ),
  bookings: z.array(
    z.object({
      id: z.number(),
      seat: z.number(),
      name: z.string(),
      offer: z.number(),
      note: z.string(),
      contact: z.string(),
      customerId: z.number().nullable(),
      paid: z.number(),
      absent: z.boolean(),
      /** As their record says. */
      leftHanded: z.boolean(),
      allergies: z.string(),
    }),
  ),
  /** In the order in which they asked. */
  waiting: z.array(
    z.object({ id: z.number(), name: z.string(), contact: z.string(), customerId: z.number().nullable() }),
  ),
  moreDays,
  /** For each pace, the pattern against the class's time. */
  plans: z.array(
    z.object({
      pace: z.enum(paces),
      welcome: z.number(),
      needed: z.number(),
      left: z.number(),
      parts: z.array(plannedPart),
    }),
  ),
  cost: z.object({
    /** Of one kit, its beads included. */
    kit: z.number(),
    /** Items whose cost is not known, and which are left out. */
    unpriced: z.number(),
    seat: z.number(),
    suggested: z.number(),
  }),
})
export type ClassAnswer = z.infer<typeof classAnswer>

/** A class whose batch was brought up to its bookings. */
export const classWithBags = classAnswer.extend({
  /** Bags to be emptied, by name. */
  toEmpty: z.array(z.string()),
})

export const teacher = z.object({ id: z.number(), name: z.string() })
