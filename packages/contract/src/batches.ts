import { countings } from '@tessellum/core/sizing/counting'
import { drawnIn } from './colourways'
import { day, recordId } from './fields'
import { itemIdentity, stockUnit } from './stock'
import { z } from './zod'

export const maxKits = 10_000

export const batchLine = z.object({
  /** Of a line that there is already; a new one has none. */
  id: recordId().optional(),
  patternId: recordId('Choose a pattern.'),
  version: recordId('Choose a version.'),
  size: z.string().max(60),
  colourwayId: recordId('Choose a colourway.'),
  /** The version of it to keep; the newest when absent. */
  colourwayVersion: recordId().optional(),
  kits: z
    .number('Give the number of kits.')
    .int('Kits are whole: give a number without a fraction.')
    .min(1, 'A line has at least 1 kit.')
    .max(maxKits, `A line has at most ${maxKits.toLocaleString('en-GB')} kits.`),
})
export type BatchLine = z.infer<typeof batchLine>

const lines = z.array(batchLine).min(1, 'A batch has at least one line.').max(50, 'A batch has at most 50 lines.')

/** 1 goes first where batches compete, 3 last. */
export const priority = z.number().int().min(1).max(3)

const batchName = z
  .string('Name the batch.')
  .trim()
  .min(1, 'Name the batch.')
  .max(80, 'A batch has a name of at most 80 letters.')

export const newBatch = z.object({
  name: batchName,
  dueOn: day('Give the day it is due.'),
  priority: priority.default(2),
  lines,
})
export type NewBatch = z.input<typeof newBatch>

/** What it is called, when it is due and how urgent it is: who goes first where batches compete. */
export const changeBatch = z.object({
  name: batchName.optional(),
  dueOn: day('Give the day it is due.'),
  priority,
})

/** Another bead for a role, in one line of one batch. */
export const substituteInLine = z.object({
  role: z.string().min(1).max(40),
  itemId: recordId('Choose an item.'),
  counting: z.enum(countings).default('all'),
  /** For so many of the line's kits; for all of them when absent. */
  kits: z.number().int().min(1).optional(),
})
export type SubstituteInLine = z.input<typeof substituteInLine>

/** How many of each could be made: alone, together, and as sets in the proportion of `kits`. */
export const couldMake = z.object({
  alone: z.array(z.number()),
  together: z.array(z.number()),
  /** Whole sets of all the lines as they are. */
  sets: z.number(),
  proven: z.boolean(),
})
export type CouldMake = z.infer<typeof couldMake>

/** All drafts at once, in the order in which they go: how far the shelf goes for each. */
export const competing = z.array(
  z.object({
    batchId: z.number(),
    name: z.string(),
    dueOn: z.string(),
    priority: z.number(),
    wanted: z.number(),
    kits: z.number(),
    /** Items that keep its kits from being made. */
    limitedBy: z.array(z.string()),
  }),
)
export type Competing = z.infer<typeof competing>

export const changeLines = z.object({ lines })

/** Other lines, and with them its name and its day, where these change too. */
export const changePlan = changeLines.extend({
  name: batchName.optional(),
  dueOn: day('Give the day it is due.').optional(),
})

/** Lines as they might be; of a batch that there is, whose own promises are not counted against it. */
export const outlookWanted = changeLines.extend({ batchId: recordId().optional() })

export const batchState = z.enum(['draft', 'reserved', 'packing', 'packed', 'closed', 'cancelled'])
export type BatchState = z.infer<typeof batchState>

export const billLine = z.object({
  itemId: z.number(),
  roles: z.array(z.string()),
  exact: z.number(),
  spare: z.number(),
  quantity: z.number(),
  unit: stockUnit,
  standsFor: z.number(),
  step: z.number(),
})
export type BillLine = z.infer<typeof billLine>

/** What a line of a batch needs and what the shelf allows for it. */
export const lineOutlook = z.object({
  bill: z.array(billLine),
  /** Roles without an item, and anything else that keeps the line from being made. */
  troubles: z.array(z.string()),
  /** Kits that the free stock would fill if this line stood alone. */
  couldMake: z.number(),
  /** Kits of it in the best filling of all the lines at once. */
  /** Packed already and on the shelf, of those that are wanted: they go first. */
  ready: z.number(),
  together: z.number(),
  limitedBy: z.array(z.number()),
  /** Kits of `together` in which something stands in, as the colourway allows. */
  substitutes: z.array(
    z.object({ kits: z.number(), roles: z.array(z.object({ role: z.string(), name: z.string() })) }),
  ),
  /** Kits that one more pack of what limits it would allow, if the line stood alone. */
  oneMore: z.array(z.object({ itemId: z.number(), amount: z.number(), kits: z.number() })),
})
export type LineOutlook = z.infer<typeof lineOutlook>

/** One item over the whole batch, in its unit. */
export const itemOutlook = z.object({
  itemId: z.number(),
  name: z.string(),
  item: itemIdentity,
  unit: stockUnit,
  needed: z.number(),
  onHand: z.number(),
  /** Held by all batches, this one included. */
  promised: z.number(),
  /** Held by this batch. */
  promisedHere: z.number(),
  free: z.number(),
  short: z.number(),
  /** The first kit that goes without, where one does. */
  shortFromKit: z.number().nullable(),
  /** Other batches that hold it, soonest due first. */
  heldBy: z.array(z.object({ batchId: z.number(), name: z.string(), dueOn: z.string(), quantity: z.number() })),
})
export type ItemOutlook = z.infer<typeof itemOutlook>

export const outlook = z.object({
  lines: z.array(lineOutlook),
  items: z.array(itemOutlook),
  ready: z.boolean(),
  /** The filling is proven to be the best there is. */
  proven: z.boolean(),
})
export type Outlook = z.infer<typeof outlook>

export const batchSummary = z.object({
  id: z.number(),
  name: z.string(),
  dueOn: z.string(),
  state: batchState,
  priority: z.number(),
  kits: z.number(),
  patterns: z.array(z.string()),
})
export type BatchSummary = z.infer<typeof batchSummary>

/** As the list of all batches tells of it. */
export const listedBatch = batchSummary.extend({
  /** Bags that are filled, of all that are laid out; none before it is reserved. */
  bags: z.object({ filled: z.number(), of: z.number() }),
  /** The first of its lines whose pattern the shop has drawn, in that line's colours by role. */
  drawing: drawnIn.nullable(),
})
export type ListedBatch = z.infer<typeof listedBatch>

export const batch = batchSummary.extend({
  lines: z.array(
    batchLine.extend({
      id: z.number(),
      title: z.string(),
      colourway: z.string(),
      colourwayVersion: z.number(),
      ownColourway: z.boolean(),
    }),
  ),
  outlook,
})
export type Batch = z.infer<typeof batch>

/** A batch after it was changed, with filled bags that are not wanted any more and go back into their tubes. */
export const changedBatch = batch.extend({ toEmpty: z.array(z.string()) })
export type ChangedBatch = z.infer<typeof changedBatch>
