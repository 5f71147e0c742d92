import { z } from './zod'

export const stockUnit = z.enum(['mg', 'piece', 'mm'])
export type StockUnit = z.infer<typeof stockUnit>

export const itemCategory = z.enum(['bead', 'stone', 'thread', 'kit', 'other'])
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
  barcode: z.string().nullable(),
  cautions: z.string(),
  bead: beadFigures.nullable(),
  /** Over all lots, in the item's unit. */
  onHand: z.number(),
  reserved: z.number(),
  reorderBelow: z.number(),
  packs: z.array(pack),
  /** Ordered, and not here yet. */
  coming: z.number(),
})
export type Item = z.infer<typeof item>

/** By which an item is told from others wherever it is named: how it looks, what it is, and where it lies. */
export const itemIdentity = item.pick({
  id: true,
  category: true,
  kind: true,
  size: true,
  colourCode: true,
  colourName: true,
  finish: true,
  colour: true,
  place: true,
})
export type ItemIdentity = z.infer<typeof itemIdentity>

export const lot = z.object({
  id: z.number(),
  code: z.string(),
  receivedOn: z.string(),
  onHand: z.number(),
  reserved: z.number(),
  /** Of what is on hand, what lies in bags already and not in the tube. */
  inBags: z.number(),
  place: z.string(),
  supplier: z.string(),
  /** Of one unit, in minor units of money. */
  unitCost: z.number().nullable(),
  /** As weighed; null where the item's own figure holds. */
  mgPerBead: z.number().nullable(),
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
  /** Moves there are before the oldest of these. */
  moreMoves: z.boolean(),
  purchases: z.array(
    z.object({ id: z.number(), supplier: z.string(), amount: z.number(), cost: z.number(), expectedOn: z.string() }),
  ),
  /** What batches hold of it, by the day they are due. */
  promises: z.array(z.object({ batchId: z.number(), name: z.string(), dueOn: z.string(), quantity: z.number() })),
})
export type ItemStory = z.infer<typeof itemStory>

/** How the shelf is looked through: page after page, from after the last item of the one before. */
export const shelfWanted = z.object({
  find: z.string().max(200, 'That is a long thing to look for.').default(''),
  show: z.enum(['all', 'beads', 'stones', 'thread', 'kits', 'low']).default('all'),
  by: z.enum(['colour', 'code', 'kind', 'place']).default('colour'),
  after: z.string().max(400).optional(),
  limit: z.coerce.number().int().min(1).max(200).default(50),
})
export type ShelfWanted = z.output<typeof shelfWanted>

export const shelfPage = z.object({
  items: z.array(item),
  /** Asks for the next page; null on the last. */
  next: z.string().nullable(),
  /** How many fit, and how many of all run low; told with the first page only. */
  total: z.number().optional(),
  /** There are more than are counted. */
  more: z.boolean().optional(),
  low: z.number().optional(),
})
export type ShelfPage = z.infer<typeof shelfPage>

export const movesPage = z.object({ moves: z.array(move), more: z.boolean() })

const reason = z.string('Say why.').trim().min(1, 'Say why.').max(200, 'A reason has at most 200 letters.')

/** A move posted by hand. Quantities are whole numbers of the item's unit. */
export const handMove = z.object({
  kind: z.enum(['receive', 'sale', 'scrap', 'correction']),
  quantity: z
    .number('Give a quantity.')
    .int('A quantity is a whole number of mg, mm or pieces.')
    .min(-1_000_000_000, 'That is more than a shop holds.')
    .max(1_000_000_000, 'That is more than a shop holds.')
    .refine((quantity) => quantity !== 0, 'Enter a quantity other than 0.'),
  reason,
})
export type HandMove = z.infer<typeof handMove>

/** Why a move is taken back. */
export const reverseMove = z.object({ reason })
export type ReverseMove = z.infer<typeof reverseMove>

const place = z.string('Say where.').trim().min(1, 'Say where.').max(60, 'A place has at most 60 letters.')

/** Part of a lot to another place; all of it, promises and all, when no quantity is given. */
export const transferLot = z.object({
  place,
  quantity: z
    .number('Give a quantity.')
    .int('A quantity is a whole number of mg, mm or pieces.')
    .min(1, 'Enter a quantity other than 0.')
    .max(1_000_000_000, 'That is more than a shop holds.')
    .optional(),
})
export type TransferLot = z.infer<typeof transferLot>

/** So many beads of a lot on the scale, and what they weigh together. */
export const weighLot = z.object({
  beads: z
    .number('Give how many beads lie on the scale.')
    .int('Beads are whole.')
    .min(20, 'Weigh at least 20 beads: of fewer, the scale’s step is too large a share.')
    .max(100_000, 'That is more than a scale holds.'),
  mg: z
    .number('Give what they weigh.')
    .positive('Enter a weight above 0.')
    .max(1_000_000, 'That is more than a scale holds.'),
})
export type WeighLot = z.infer<typeof weighLot>

/** What is written on a lot's label beside its code. */
export const changeLot = z.object({
  supplier: z.string().trim().max(80, 'A supplier has at most 80 letters.'),
  unitCost: z.number().min(0, 'A cost cannot be below 0.').max(1_000_000).nullable(),
})
export type ChangeLot = z.infer<typeof changeLot>

const text = (most: number) => z.string().trim().max(most, `At most ${most} letters.`)
const needed = (most: number, missing: string) =>
  z.string(missing).trim().min(1, missing).max(most, `At most ${most} letters.`)
const measure = z.number('Measure it.').positive('A measure must be above 0.').max(1000, 'That is larger than a bead.')

export const packs = z
  .array(
    z.object({
      amount: z.number('Say what a pack holds.').int('Give whole mg, mm or pieces.').min(1, 'A pack holds something.'),
      price: z.number('Give its price.').int('A price in pence or cents.').min(0, 'It cannot be below 0.'),
      leadDays: z
        .number('Say in how many days it comes.')
        .int('Give whole days.')
        .min(0, 'It cannot be below 0.')
        .max(730),
    }),
  )
  .max(12, 'An item is bought in at most 12 packs.')
  .refine((all) => new Set(all.map(({ amount }) => amount)).size === all.length, 'It has two packs of the same size.')

/** An item as it is kept: what is on it is for moves to say. */
export const saveItem = z
  .object({
    code: needed(40, 'Give it a code.'),
    category: z.enum(['bead', 'stone', 'thread', 'other']),
    maker: needed(80, 'Name the maker.'),
    kind: needed(60, 'Say what kind it is.'),
    size: text(40).default(''),
    colourCode: text(40).default(''),
    colourName: needed(80, 'Name its colour.'),
    finish: text(60).default(''),
    colour: z.string().regex(/^#[0-9a-f]{6}$/, 'A colour is a # and six digits or letters a to f.'),
    unit: stockUnit,
    place: text(60).default(''),
    reorderBelow: z.number().int('Give whole mg, mm or pieces.').min(0, 'It cannot be below 0.').default(0),
    barcode: text(60).min(1).nullable().default(null),
    cautions: text(200).default(''),
    figures: z
      .object({
        lengthMm: measure,
        acrossMm: measure,
        boreMm: measure,
        massMg: z.number('Weigh some.').positive('A bead weighs something.').max(1_000_000),
        contact: z.number().positive().max(100),
        bores: z.union([z.literal(1), z.literal(2)]),
      })
      .nullable()
      .default(null),
    packs: packs.default([]),
  })
  .refine(({ category, figures }) => category !== 'bead' || figures !== null, {
    path: ['figures'],
    message: 'A bead has its measures: long, across, hole and what one weighs.',
  })
export type SaveItem = z.output<typeof saveItem>
