import { hands } from '@tessellum/core/drawing/mirror'
import { languageCodes } from '@tessellum/core/writing/language'
import { densities, sheets } from '@tessellum/core/writing/layout'
import { choice } from './colourways'
import { recordIdInAddress } from './fields'
import { shownPicture } from './pictures'
import { logo, papers, settings } from './settings'
import { beadFigures, item } from './stock'
import { stepWords } from './words'
import { z } from './zod'

/** Which edition of a pattern is wanted. */
export const editionWanted = z.object({
  /** A version's number; the draft when absent. */
  version: recordIdInAddress.optional(),
  size: z.string().max(60).default(''),
  colourway: recordIdInAddress.optional(),
  /** The newest when absent. */
  colourwayVersion: recordIdInAddress.optional(),
})
export type EditionWanted = z.input<typeof editionWanted>

/** How it is set on paper. */
export const documentWanted = editionWanted.extend({
  /** As the shop usually does when absent, as the language. */
  paper: z.enum(papers, 'Paper is A4 or LETTER.').optional(),
  language: z.enum(languageCodes, `The language is one of ${languageCodes.join(', ')}.`).optional(),
  sheet: z.enum(sheets, `The sheet is one of ${sheets.join(', ')}.`).default('sale'),
  /** How many of the drawings of steps it has. */
  drawings: z.enum(densities, `Drawings are for each ${densities.join(', ')}.`).default('step'),
  /** Whose hand it is written and drawn for. */
  hand: z.enum(hands, 'It is for the right or the left hand.').default('right'),
  seat: z.string().trim().max(80, 'A seat has a name of at most 80 letters.').default(''),
  chosen: z.string().trim().max(120).default(''),
  /** Whom it was sold to: told on every page. */
  buyer: z.string().trim().max(80, 'A name has at most 80 letters.').default(''),
})
export type DocumentWanted = z.infer<typeof documentWanted>

/** Everything that an edition is written from, gathered at one moment. */
export const edition = z.object({
  title: z.string(),
  source: z.string(),
  size: z.string(),
  version: z.number().optional(),
  madeAt: z.string().optional(),
  published: z.boolean(),
  colourway: z.string().optional(),
  choices: z.array(choice),
  colourways: z.array(z.object({ name: z.string(), choices: z.array(choice) })),
  /** All that the colourways choose. */
  items: z.array(item),
  /** Every bead that is kept, with its maker. */
  catalogue: z.array(beadFigures),
  words: z.array(stepWords),
  pictures: z.array(shownPicture),
  timed: z.array(z.number()),
  errata: z.array(z.object({ version: z.number(), corrects: z.number(), note: z.string() })),
  sampled: z.object({ ratio: z.number(), count: z.number() }),
  shop: settings.shape.profile.extend({
    thread: settings.shape.thread,
    units: settings.shape.documents.shape.units,
    logo: logo.nullable(),
  }),
})
export type Edition = z.infer<typeof edition>
