import { batchState } from './batches'
import { recordId } from './fields'
import { itemIdentity, stockUnit } from './stock'
import { z } from './zod'

const lineId = recordId()
const kit = z.number().int().min(1).max(10_000)

/** One bag filled: a kit's beads of one item. */
export const fillBag = z.object({
  lineId,
  kit,
  itemId: recordId(),
  quantity: z
    .number('Give what is in the bag.')
    .int('A quantity is a whole number of mg, mm or pieces.')
    .min(1, 'An empty bag is not filled.')
    .max(1_000_000_000, 'That is more than a bag holds.'),
  /** Of the tube that was scanned; another lot than the bag's is refused. */
  lotId: recordId().optional(),
})
export type FillBag = z.infer<typeof fillBag>

export const emptyBag = fillBag.omit({ quantity: true, lotId: true })
export type EmptyBag = z.infer<typeof emptyBag>

/** One item from one lot, through all the bags it goes into. */
export const packingTask = z.object({
  itemId: z.number(),
  name: z.string(),
  item: itemIdentity,
  unit: stockUnit,
  cautions: z.string(),
  /** Null where what was promised has been lost. */
  lotId: z.number().nullable(),
  lotCode: z.string(),
  place: z.string(),
  bags: z.array(
    z.object({
      lineId: z.number(),
      /** Counted from 1, as people do. */
      line: z.number(),
      kit: z.number(),
      /** "Windlass pendant, petite, in Lantern" */
      of: z.string(),
      roles: z.string(),
      least: z.number(),
      target: z.number(),
      most: z.number(),
      /** What is weighed, counted; null for what is not weighed. */
      beads: z.number().nullable(),
      /** What is in it; null while it is empty. */
      filled: z.number().nullable(),
      by: z.string().nullable(),
      /** What came back of it after the batch was closed. */
      returned: z.number(),
    }),
  ),
})
export type PackingTask = z.infer<typeof packingTask>

export const packing = z.object({
  id: z.number(),
  name: z.string(),
  state: batchState,
  kits: z.number(),
  tasks: z.array(packingTask),
})
export type Packing = z.infer<typeof packing>

const quantity = z
  .number('Give a quantity.')
  .int('A quantity is a whole number of mg, mm or pieces.')
  .min(1, 'Enter a quantity above 0.')
  .max(1_000_000_000, 'That is more than a shop holds.')

/** Beads that are not there any more: spilt, or never in the tube. */
export const loseBeads = z.object({
  itemId: recordId(),
  lotId: recordId(),
  how: z.enum(['spilt', 'missing']),
  quantity,
})
export type LoseBeads = z.infer<typeof loseBeads>

/** Another tube for all the bags that wait for this one. */
export const swapLot = z.object({
  itemId: recordId(),
  fromLotId: recordId(),
  toLotId: recordId('Choose a lot.'),
})
export type SwapLot = z.infer<typeof swapLot>

/** What comes back of one kit: all that it held, or so much of each bead. */
export const returnKit = z.object({
  lineId,
  kit,
  whole: z.boolean().default(false),
  /** A whole one that a customer had: the kits on the shelf stay there. */
  sold: z.boolean().default(false),
  quantities: z.array(z.object({ itemId: recordId(), quantity })).default([]),
})
export type ReturnKit = z.output<typeof returnKit>
