import { recordId } from './fields'
import { z } from './zod'

const measure = z.number('Give it in mm.').positive('A measure is above 0.').max(3000, 'That is longer than anyone.')

/** What a shop knows of a customer, because they told it. */
export const saveCustomer = z.object({
  name: z.string('Enter a name.').trim().min(1, 'Enter a name.').max(80, 'A name has at most 80 letters.'),
  /** A telephone number, an address, or how else they are reached. */
  contact: z.string().trim().max(200, 'At most 200 letters.').default(''),
  wristMm: measure.nullable().default(null),
  neckMm: measure.nullable().default(null),
  fingerMm: measure.nullable().default(null),
  leftHanded: z.boolean().default(false),
  /** What they have told of metals and the like. */
  allergies: z.string().trim().max(500, 'At most 500 letters.').default(''),
  note: z.string().trim().max(1000, 'A note has at most 1,000 letters.').default(''),
})
export type SaveCustomer = z.input<typeof saveCustomer>

export const customer = saveCustomer.extend({ id: z.number(), addedAt: z.string() })
export type Customer = z.output<typeof customer>

/** A customer with all that the shop has done for them; money in minor units. */
export const customerCard = customer.extend({
  orders: z.array(
    z.object({
      id: z.number(),
      what: z.string(),
      wantedOn: z.string(),
      state: z.enum(['taken', 'done', 'cancelled']),
      price: z.number(),
      paid: z.number(),
    }),
  ),
  sales: z.array(z.object({ id: z.number(), at: z.string(), what: z.array(z.string()), total: z.number() })),
  classes: z.array(
    z.object({
      id: z.number(),
      title: z.string(),
      heldOn: z.string(),
      state: z.enum(['offered', 'taught', 'cancelled']),
      price: z.number(),
      paid: z.number(),
      absent: z.boolean(),
    }),
  ),
  /** What is still to be paid for orders and seats that are not called off. */
  owed: z.number(),
})
export type CustomerCard = z.output<typeof customerCard>

export const customersPage = z.object({
  customers: z.array(customer),
  /** Asks for the next page; null on the last. */
  next: z.string().nullable(),
})

/** Who somebody is, where they are a customer on record. */
export const customerId = recordId('Choose a customer.').nullable().default(null)
