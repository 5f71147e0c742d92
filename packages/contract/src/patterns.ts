import { batchState } from './batches'
import { choice } from './colourways'
import { recordId } from './fields'
import { stepWords } from './words'
import { z } from './zod'

const source = z.string('Send the text of the pattern.').max(2_000_000, 'A pattern has at most 2,000,000 characters.')

/** A pattern's draft drawn by the shop, with the figures beside it. */
export const patternDrawing = z.object({
  /** Of the text it is of, and of the build that drew it: another is another drawing. */
  digest: z.string(),
  /** It is of the draft as it is; where it is not, another is being made. */
  current: z.boolean(),
  beads: z.number(),
  pair: z.boolean(),
  size: z.string(),
  sizes: z.array(z.string()),
  roles: z.array(z.string()),
  /** "cylinder 11/0": every kind of bead it takes. */
  kinds: z.array(z.string()),
  /** Words of the notation that it is worked with: "round", "weave". */
  techniques: z.array(z.string()),
  level: z.string(),
  /** For somebody with practice; null where it does not come out. */
  minutes: z.number().nullable(),
  /** Why there is nothing to draw. */
  why: z.string().nullable(),
})
export type PatternDrawing = z.infer<typeof patternDrawing>

export const seasons = ['', 'spring', 'summer', 'autumn', 'winter'] as const
const season = z.enum(seasons, 'A season is spring, summer, autumn or winter, or none.')
export type Season = z.infer<typeof season>

const tag = z
  .string()
  .trim()
  .toLowerCase()
  .min(1, 'A tag has at least one letter.')
  .max(40, 'A tag has at most 40 letters.')

/** What a pattern is found by beside what is in it. */
export const describePattern = z.object({
  tags: z
    .array(tag)
    .max(20, 'At most 20 tags.')
    .transform((tags) => [...new Set(tags)].sort()),
  season,
})
export type DescribePattern = z.input<typeof describePattern>

export const renamePattern = z.object({
  title: z.string('Give it a name.').trim().min(1, 'Give it a name.').max(80, 'A name has at most 80 letters.'),
})

/** Enough to choose one by. */
export const patternName = z.object({ id: z.number(), title: z.string(), version: z.number().nullable() })
export type PatternName = z.infer<typeof patternName>

/** Where a pattern is: offered, out of the way, or thrown away for not more than thirty days. */
export const patternPlace = z.enum(['in the shop', 'put away', 'thrown away'])
export type PatternPlace = z.infer<typeof patternPlace>

export const patternSummary = z.object({
  id: z.number(),
  title: z.string(),
  /** The newest version's number, if any has been kept. */
  version: z.number().nullable(),
  savedAt: z.string(),
  savedBy: z.string(),
  /** The draft differs from the newest version. */
  changed: z.boolean(),
  tags: z.array(z.string()),
  season,
  place: patternPlace,
  drawing: patternDrawing.nullable(),
})
export type PatternSummary = z.infer<typeof patternSummary>

export const libraryWanted = z.object({
  find: z.string().max(200, 'That is a long thing to look for.').default(''),
  place: patternPlace.default('in the shop'),
  level: z.string().max(40).default(''),
  /** At most so many hours for somebody with practice; any when absent. */
  hours: z.coerce.number().min(0).max(1000).optional(),
  after: z.string().max(400).optional(),
  limit: z.coerce.number().int().min(1).max(100).default(24),
})
export type LibraryWanted = z.output<typeof libraryWanted>

export const libraryPage = z.object({
  patterns: z.array(patternSummary),
  /** Asks for the next page; null on the last. */
  next: z.string().nullable(),
  /** How many there are, and what they are found by; told with the first page only. */
  total: z.number().optional(),
  tags: z.array(z.string()).optional(),
})
export type LibraryPage = z.infer<typeof libraryPage>

export const patternVersion = z.object({
  number: z.number(),
  name: z.string(),
  note: z.string(),
  /** It has been given out: sold, taught, or put into kits as it is. */
  published: z.boolean(),
  /** The version that it corrects. */
  corrects: z.number().nullable(),
  madeAt: z.string(),
  madeBy: z.string(),
})
export type PatternVersion = z.infer<typeof patternVersion>

export const pattern = patternSummary.omit({ drawing: true }).extend({
  source,
  /** Of the drawing that the shop keeps of it; null where there is none to show. */
  drawn: z.string().nullable(),
  /** Rises with each save of the draft: a save must name the one it builds on. */
  revision: z.number(),
  versions: z.array(patternVersion),
})
export type Pattern = z.infer<typeof pattern>

export const versionText = patternVersion.extend({ source })
export type VersionText = z.infer<typeof versionText>

/** A colourway that comes with a pattern, its items found on the shelf. */
const broughtColourway = z.object({ name: z.string().trim().min(1).max(80), choices: z.array(choice).max(500) })

export const newPattern = z.object({
  source,
  words: z.array(stepWords).max(5000).default([]),
  colourways: z.array(broughtColourway).max(100).default([]),
})
export type NewPattern = z.input<typeof newPattern>

export const saveDraft = z.object({ source, revision: z.number().int().max(2_147_483_647) })
export type SaveDraft = z.infer<typeof saveDraft>

export const saveVersion = z.object({
  name: z
    .string('Name the version.')
    .trim()
    .min(1, 'Name the version.')
    .max(80, 'A version has a name of at most 80 letters.'),
  note: z.string().trim().max(2000, 'A note has at most 2,000 letters.').default(''),
  revision: z.number().int().max(2_147_483_647),
  publish: z.boolean().default(false),
  /** A published version that this one corrects; the note then says what was wrong. */
  corrects: recordId().optional(),
})
export type SaveVersion = z.input<typeof saveVersion>

/** A batch whose kits carry a version. */
export const carrier = z.object({
  id: z.number(),
  name: z.string(),
  dueOn: z.string(),
  state: batchState,
  kits: z.number(),
})
export type Carrier = z.infer<typeof carrier>
