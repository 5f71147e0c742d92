import { wristEases } from '@tessellum/core/desk/wearer'
import { readiness } from './classes'
import { drawnIn } from './colourways'
import { customerId } from './customers'
import { day, recordId } from './fields'
import { z } from './zod'

export const worn = z.enum(['wrist', 'neck', 'finger'])

export const sizeOrder = z.object({
  patternId: recordId('Choose a pattern.'),
  version: recordId('Choose a version.'),
  worn,
  measureMm: z
    .number('Enter the measure.')
    .positive('A measure must be above 0.')
    .max(3000, 'That is longer than anyone.'),
  ease: z.enum(wristEases).default('usual'),
})
export type SizeOrder = z.input<typeof sizeOrder>

/** How a pattern is made to a measure: to the measure itself where it has a length, or else in the nearest of its sizes. */
export const sizedOrder = z.object({
  wantedMm: z.number(),
  /** What to make it in, the best first. */
  ways: z.array(
    z.object({
      size: z.string(),
      made: z.boolean(),
      /** Its longest side when it has come to rest; null where that is not known. */
      finishedMm: z.number().nullable(),
      trouble: z.string().nullable(),
    }),
  ),
})
export type SizedOrder = z.infer<typeof sizedOrder>

export const saveOrder = z
  .object({
    customer: z
      .string('Enter the customer’s name.')
      .trim()
      .min(1, 'Enter the customer’s name.')
      .max(80, 'A name has at most 80 letters.'),
    customerId,
    worn: worn.nullable().default(null),
    measureMm: z.number().positive('A measure must be above 0.').max(3000).nullable().default(null),
    patternId: recordId('Choose a pattern.'),
    version: recordId('Choose a version.'),
    size: z.string().max(60).default(''),
    colourwayId: recordId('Choose a colourway.'),
    kits: z.number().int('Kits are whole.').min(1, 'At least one.').max(100, 'At most 100.').default(1),
    wantedOn: day('Give the day it is wanted.'),
    price: z.number().int('In pence or cents.').min(0, 'A price cannot be below 0.').max(100_000_000).default(0),
    /** So far, a deposit too. */
    paid: z.number().int('In pence or cents.').min(0, 'It cannot be below 0.').max(100_000_000).default(0),
    promised: z.string().trim().max(1000, 'A note has at most 1,000 letters.').default(''),
  })
  .refine(({ worn: by, measureMm }) => (by === null) === (measureMm === null), {
    path: ['measureMm'],
    message: 'Give the measure, or leave out what it is of.',
  })
export type SaveOrder = z.input<typeof saveOrder>

export const handOver = z.object({
  kits: z.number('Say how many kits.').int('Kits are whole.').min(1, 'At least one.').max(100, 'At most 100.'),
})
export type HandOver = z.input<typeof handOver>

export const order = z.object({
  id: z.number(),
  customer: z.string(),
  customerId: z.number().nullable(),
  worn: worn.nullable(),
  measureMm: z.number().nullable(),
  patternId: z.number(),
  pattern: z.string(),
  version: z.number(),
  size: z.string(),
  colourwayId: z.number(),
  colourway: z.string(),
  kits: z.number(),
  /** Of these kits, those that the customer has got already. */
  handed: z.number(),
  wantedOn: z.string(),
  price: z.number(),
  paid: z.number(),
  promised: z.string(),
  state: z.enum(['taken', 'done', 'cancelled']),
  /** What was last handed over, or calling it off, can be undone: it was less than a day ago. */
  undoable: z.boolean(),
  batchId: z.number().nullable(),
  readiness,
  /** The last day to order what its kit is short of, and to begin packing it; null where there is nothing to do. */
  buyBy: z.string().nullable(),
  packBy: z.string().nullable(),
  drawing: drawnIn.nullable(),
})
export type Order = z.infer<typeof order>
