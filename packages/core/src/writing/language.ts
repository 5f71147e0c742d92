/**
 * What a language has to say for a pattern to be written in it: whole sentences made from data, never words that somebody else puts
 * together, since languages order and inflect them differently. A folder for each language; see languages.ts.
 */

import type { Look } from '../form/looks'
import type { Mg, Mm, UnitSystem } from '../measure/units'
import type { Level } from '../report/level'
import type { Along } from '../report/measures'
import type { FitVerdict } from '../sizing/ring-fit'
import type { Action } from '../stitch/action'
import type { PlaceTold } from '../stitch/place-told'
import type { Troubles } from '../substitute/consequence'
import type { ThreadSettings } from '../thread/settings'
import type { TechniqueName } from './techniques'

export const languageCodes = ['en', 'de', 'fr', 'nl'] as const
export type LanguageCode = (typeof languageCodes)[number]

/** Headings and single words, as they stand on the page. */
export interface Words {
  readonly materials: string
  readonly item: string
  readonly exact: string
  readonly inKit: string
  readonly weight: string
  readonly thread: string
  readonly tools: string
  readonly takeCare: string
  readonly wordsUsed: string
  readonly steps: string
  readonly check: string
  readonly contents: string
  readonly techniques: string
  /** A page to tick off what is done. */
  readonly tickOff: string
  readonly step: string
  readonly fromTheShop: string
  readonly sizes: string
  readonly size: string
  readonly finished: string
  readonly ring: string
  readonly colourways: string
  readonly makers: string
  readonly wear: string
  readonly errata: string
  readonly draftMark: string
  readonly fromBehind: string
  /** What a picture is said to show that has no caption. */
  readonly finishedPiece: string
  readonly thisStep: string
  /** Before the caption of a fault. */
  readonly notLikeThis: string
  readonly faultsToAvoid: string
  readonly notSettled: string
  readonly seat: string
  readonly colours: string
  readonly notation: string
  readonly count: string
  readonly soFar: string
  /** Under a PDF of which some letters are in no font of ours. */
  readonly unprinted: string
}

export interface ThreadWords {
  /** "braid" */
  readonly kind: string
  readonly size: string
  readonly doubled: boolean
  readonly cuts: readonly { readonly mm: Mm; readonly times: number }[]
  readonly each: boolean
  readonly tailMm: Mm
  readonly weaveInMm: Mm
  readonly tension: ThreadSettings['tension']
  readonly start: ThreadSettings['start']
  /** Parts in which thread is handled another way. */
  readonly parts: readonly ({ readonly name: string } & Pick<ThreadSettings, 'tailMm' | 'tension' | 'start'>)[]
  readonly spanMm: Mm
  /** Samples that the plan has been corrected by, and by what; undefined where it is computed only. */
  readonly sampled: { readonly ratio: number; readonly count: number } | undefined
}

/** How threads are ended in a pattern. */
export type Endings = ReadonlySet<ThreadSettings['ending']>

/** A step that is done several times with other numbers. */
export interface StepChanging {
  readonly step: number
  readonly changes: readonly string[]
}

export interface Language {
  readonly units: UnitSystem
  readonly code: LanguageCode
  /** In the language itself. */
  readonly name: string
  readonly words: Words

  list(parts: readonly string[]): string
  length(mm: Mm): string
  mass(mg: Mg): string
  pieces(count: number): string
  /** "0.4 g (about 76)" */
  weighed(mg: Mg, standsFor: number): string
  /** @param figures wide, high, deep in its units, with a point before the tenths */
  extents(figures: readonly string[], about: boolean): string
  /** "61.2 mm round inside", "482 mm long laid straight". */
  along(along: Along): string
  date(iso: string): string

  version(number: number): string
  draft: string
  size(name: string): string
  colourway(name: string): string
  makes(count: number, pair: boolean): string
  finished(extents: string): string
  /** Of an edition that is drawn mirrored. */
  leftHanded: string
  /** What a person has written, with left and right exchanged where they are sides. */
  otherHand(text: string): string
  /** Where the needle is as a part begins. */
  needleIn(role: string): string
  /**
   * Steps that are told already are done so often more.
   *
   * @param changing what changes in a step each time, from the first time on, as `fromTurnToTurn` takes it
   */
  again(from: number, to: number, times: number, changing: readonly StepChanging[]): string
  /** What can be seen when a step is done. */
  look(look: Look): string
  level(level: Level): string
  /** @param sampled so many samples have been timed, and `minutes` is theirs */
  time(minutes: { readonly practised: number; readonly beginner: number }, sampled: number): string
  page(number: number, of: number): string
  inOnePiece(counts: string): string

  /** The kind of a bead, a stone or a thread, as it is called in a shop: "cylinder", "braid". */
  kind(kind: string): string
  stone: string

  /** @returns undefined for a line that a stitcher need not be told of */
  sentence(action: Action, settings: ThreadSettings): string | undefined
  /** What heads a repeat, over so many steps. */
  repeat(steps: number, times: readonly number[], at: PlaceTold | undefined): string
  /** What heads a part that is made more than once, in so many steps. */
  repeatPart(steps: number, times: number): string
  /** What is done in the turns from one to another. */
  turns(from: number, to: number, sentence: string): string
  /** What changes from one turn to the next, already in numbers: "1, 2, 3 B". */
  fromTurnToTurn(changes: readonly string[]): string
  /** Ends a list of turns that is too long to be told whole. */
  andSoOn(turns: number): string
  /** What a step adds, and how many beads there are after it where that can be told (empty where not). */
  picked(added: string, running: string): string

  thread(thread: ThreadWords): readonly string[]
  tools(needle: number, endings: Endings): readonly string[]
  cautions(endings: Endings, hasStone: boolean, hasFindings: boolean): readonly string[]
  readonly marks: readonly string[]
  /** How each technique is worked, in two or three sentences. */
  readonly techniques: Readonly<Record<TechniqueName, { readonly title: string; readonly text: string }>>
  readonly wear: readonly string[]
  /** How a stone is held by its ring: "36 beads, snug". */
  ring(beads: number, verdict: FitVerdict): string
  /** Roles whose counts stay as they are with other makers' beads. */
  makersAlike(roles: readonly string[], makers: readonly string[]): string
  /** What another maker's bead changes; never nothing. */
  maker(
    maker: string,
    changes: readonly { readonly role: string; readonly before: number; readonly after: number }[],
    troubles: Troubles,
  ): string
  /** An erratum: what a version corrects in another. */
  corrects(version: number, note: string): string
}

/** Letters and numbers are the same in every language: "18 A, 9 B". */
export const sayCounts = (counts: Readonly<Record<string, number>>): string =>
  Object.entries(counts)
    .map(([role, count]) => `${count} ${role}`)
    .join(', ')

export const capital = (words: string): string => words.charAt(0).toLocaleUpperCase() + words.slice(1)
