import { z } from 'zod'

export const stockUnit = z.enum(['mg', 'piece', 'mm'])
export type StockUnit = z.infer<typeof stockUnit>

export const itemCategory = z.enum(['bead', 'stone', 'thread'])
export type ItemCategory = z.infer<typeof itemCategory>

/** The figures of a bead, as core's Bead has them. */
export const beadFigures = z.object({
  kind: z.string(),
  size: z.string(),
  lengthMm: z.number(),
  acrossMm: z.number(),
  boreMm: z.number(),
  massMg: z.number(),
  contact: z.number(),
  bores: z.union([z.literal(1), z.literal(2)]),
  maker: z.string().optional(),
})

/** A pack an item is bought in. */
export const pack = z.object({
  /** In the item's unit. */
  amount: z.number(),
  /** In minor units of the shop's money. */
  price: z.number(),
  leadDays: z.number(),
})
export type Pack = z.infer<typeof pack>

export const item = z.object({
  id: z.number(),
  code: z.string(),
  category: itemCategory,
  maker: z.string(),
  kind: z.string(),
  size: z.string(),
  colourCode: z.string(),
  colourName: z.string(),
  finish: z.string(),
  /** "#2f5d50"; what it looks like by daylight. */
  colour: z.string(),
  unit: stockUnit,
  place: z.string(),
  bead: beadFigures.nullable(),
  /** Over all lots, in the item's unit. */
  onHand: z.number(),
  reserved: z.number(),
  reorderBelow: z.number(),
  packs: z.array(pack),
})
export type Item = z.infer<typeof item>

export const lot = z.object({
  id: z.number(),
  code: z.string(),
  receivedOn: z.string(),
  onHand: z.number(),
  reserved: z.number(),
})
export type Lot = z.infer<typeof lot>

export const move = z.object({
  id: z.number(),
  lotId: z.number(),
  lotCode: z.string(),
  kind: z.string(),
  onHand: z.number(),
  reserved: z.number(),
  reason: z.string(),
  batchId: z.number().nullable(),
  batchName: z.string().nullable(),
  by: z.string(),
  at: z.string(),
  /** It was wrong, and has been taken back by another. */
  reversed: z.boolean(),
})
export type Move = z.infer<typeof move>

export const itemStory = item.extend({
  lots: z.array(lot),
  moves: z.array(move),
  /** At the end of each day on which something moved, oldest first, over all lots. */
  days: z.array(z.object({ day: z.string(), onHand: z.number(), reserved: z.number() })),
  /** What batches hold of it, by the day they are due. */
  promises: z.array(z.object({ batchId: z.number(), name: z.string(), dueOn: z.string(), quantity: z.number() })),
})
export type ItemStory = z.infer<typeof itemStory>

/** A move posted by hand. Quantities are whole numbers of the item's unit. */
export const handMove = z.object({
  kind: z.enum(['receive', 'sale', 'scrap', 'correction']),
  quantity: z
    .number('Give a quantity.')
    .int('A quantity is a whole number of mg, mm or pieces.')
    .min(-1_000_000_000, 'That is more than a shop holds.')
    .max(1_000_000_000, 'That is more than a shop holds.')
    .refine((quantity) => quantity !== 0, 'A move of nothing is no move.'),
  reason: z.string('Say why.').trim().min(1, 'Say why.').max(200, 'A reason has at most 200 letters.'),
})
export type HandMove = z.infer<typeof handMove>

/** Why a move is taken back. */
export const reverseMove = z.object({
  reason: z.string('Say why.').trim().min(1, 'Say why.').max(200, 'A reason has at most 200 letters.'),
})
