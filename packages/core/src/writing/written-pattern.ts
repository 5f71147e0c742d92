/** The written pattern as structure, every sentence already in its language: screens, pages and PDFs only set it. */
import type { LanguageCode, Words } from './language'
import type { ShownPicture } from './pictures'
import type { StepKey } from './step-words'
import type { TechniqueName } from './techniques'

export interface MaterialRow {
  readonly roles: string
  /** "cylinder 11/0, Lantern green (BG-114), Brackwater Glass" */
  readonly name: string
  readonly colour: string | undefined
  /** "63" or "106 cm". */
  readonly exact: string
  /** What is in the kit: "75 pieces", "0.4 g (about 76)". */
  readonly inKit: string
  /** "0.33 g"; empty for what is not weighed. */
  readonly weight: string
}

export interface Step {
  readonly number: number
  readonly line: number
  readonly key: StepKey
  readonly text: string
  /** Where the needle is, when a part goes on with the thread in hand; otherwise empty. */
  readonly begins: string
  /** The sentence that the designer's own words stand in for; undefined where they do not. */
  readonly replaced: string | undefined
  /** What the designer adds; empty for nothing. */
  readonly also: string
  /** "18 A"; empty where nothing is picked up. */
  readonly added: string
  /** "63 A, 9 B, 18 C"; empty where nothing is picked up, and within a repeat until its last step. */
  readonly running: string
  /** What it looks like now; empty where that is nothing new. */
  readonly looks: string
  readonly pictures: readonly ShownPicture[]
  readonly kind: 'stitch' | 'check' | 'note'
  /** How often it is done. */
  readonly times: number
  /** It makes a whole round, row or strip. */
  readonly course: boolean
}

export interface SizeRow {
  readonly name: string
  /** By role, in the order of `WrittenPattern.roles`. */
  readonly counts: readonly number[]
  readonly thread: string
  readonly finished: string
  /** Each stone with its measures, and how its ring sits. */
  readonly ring: string
}

export interface ColourwayRow {
  readonly name: string
  readonly choices: readonly { readonly roles: string; readonly name: string; readonly colour: string }[]
}

export interface WrittenPattern {
  readonly language: LanguageCode
  readonly words: Words
  readonly title: string
  /** Edition, size, colourway and what it makes, each in a few words. */
  readonly facts: readonly string[]
  /** Level and time. */
  readonly effort: readonly string[]
  /** "Version 3" or "Draft"; with its date. */
  readonly edition: string
  readonly draft: boolean
  readonly size: string
  readonly colourway: string
  readonly makes: string
  readonly materials: readonly MaterialRow[]
  /** Roles of beads, as the tables of sizes have them. */
  readonly roles: readonly string[]
  readonly sizes: readonly SizeRow[]
  readonly colourways: readonly ColourwayRow[]
  readonly makers: readonly string[]
  readonly thread: readonly string[]
  readonly tools: readonly string[]
  readonly cautions: readonly string[]
  readonly marks: readonly string[]
  readonly techniques: readonly { readonly name: TechniqueName; readonly title: string; readonly text: string }[]
  readonly parts: readonly { readonly name: string; readonly steps: readonly Step[] }[]
  readonly totals: string
  /** Those that stand beside no step: of the finished piece, the cover first, and faults to avoid. */
  readonly pictures: { readonly finished: readonly ShownPicture[]; readonly faults: readonly ShownPicture[] }
  readonly wear: readonly string[]
  readonly errata: readonly string[]
  /** Whose pattern it is, and what may be done with it, line by line; empty where nobody is named. */
  readonly shop: readonly string[]
}

/** Longer ones have a list of contents. */
export const stepsForContents = 24
