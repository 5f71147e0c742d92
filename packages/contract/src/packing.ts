import { z } from 'zod'
import { batchState } from './batches'
import { stockUnit } from './stock'

const line = z.number().int().min(1)
const kit = z.number().int().min(1).max(10_000)

/** One bag filled: a kit's beads of one item. Lines and kits are counted from 1. */
export const fillBag = z.object({
  line,
  kit,
  itemId: z.number().int(),
  quantity: z
    .number('Give what is in the bag.')
    .int('A quantity is a whole number of mg, mm or pieces.')
    .min(1, 'An empty bag is not filled.')
    .max(1_000_000_000, 'That is more than a bag holds.'),
})
export type FillBag = z.infer<typeof fillBag>

export const emptyBag = fillBag.omit({ quantity: true })
export type EmptyBag = z.infer<typeof emptyBag>

/** One item from one lot, through all the bags it goes into. */
export const packingTask = z.object({
  itemId: z.number(),
  name: z.string(),
  colour: z.string(),
  unit: stockUnit,
  lotId: z.number(),
  lotCode: z.string(),
  place: z.string(),
  bags: z.array(
    z.object({
      line: z.number(),
      kit: z.number(),
      /** "Windlass pendant, petite, in Lantern" */
      of: z.string(),
      roles: z.string(),
      least: z.number(),
      target: z.number(),
      most: z.number(),
      /** What is in it; null while it is empty. */
      filled: z.number().nullable(),
      by: z.string().nullable(),
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
