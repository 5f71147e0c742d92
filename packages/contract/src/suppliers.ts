import { z } from './zod'

/** What a shop knows of who sells to it. Items and orders name them by their name. */
export const saveSupplier = z.object({
  name: z.string('Enter a name.').trim().min(1, 'Enter a name.').max(80, 'A name has at most 80 letters.'),
  contact: z.string().trim().max(200, 'At most 200 letters.').default(''),
  /** How long they usually take; null where it is not known. */
  leadDays: z
    .number('In days.')
    .int('Give whole days.')
    .min(0, 'It cannot be below 0.')
    .max(730)
    .nullable()
    .default(null),
  /** What an order must come to at least, in minor units of money. */
  minOrder: z
    .number('In pence or cents.')
    .int('In pence or cents.')
    .min(0, 'It cannot be below 0.')
    .max(100_000_000)
    .default(0),
  note: z.string().trim().max(1000, 'A note has at most 1,000 letters.').default(''),
})
export type SaveSupplier = z.input<typeof saveSupplier>

export const supplier = saveSupplier.extend({
  id: z.number(),
  /** Items of theirs that are kept here. */
  items: z.number(),
  /** Of orders that are on their way, in minor units of money. */
  onItsWay: z.number(),
})
export type Supplier = z.output<typeof supplier>

/** A supplier with what they sell here, and at what prices since when. */
export const supplierCard = supplier.extend({
  prices: z.array(
    z.object({
      itemId: z.number(),
      name: z.string(),
      unit: z.enum(['mg', 'piece', 'mm']),
      packs: z.array(z.object({ amount: z.number(), price: z.number(), leadDays: z.number(), pricedOn: z.string() })),
    }),
  ),
  /** Of what came and what is on its way, the newest first. */
  bought: z.array(
    z.object({
      id: z.number(),
      itemId: z.number(),
      name: z.string(),
      unit: z.enum(['mg', 'piece', 'mm']),
      amount: z.number(),
      cost: z.number(),
      orderedOn: z.string(),
      state: z.enum(['ordered', 'received', 'cancelled']),
    }),
  ),
})
export type SupplierCard = z.output<typeof supplierCard>
