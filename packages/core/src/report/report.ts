/** The one value that holds everything a screen, a document or a script wants to know of a pattern in one size and colourway. */

import type { Bead } from '../catalogue/bead'
import type { Stone } from '../catalogue/stone'
import type { Mg, Mm } from '../measure/units'
import type { Fault } from '../notation/fault'
import type { ThreadChoice } from '../notation/parse-thread'
import type { Action } from '../stitch/action'
import type { Refilled } from '../stitch/roles'
import type { Fit } from '../stitch/stitch-machine'
import type { Crowding } from '../thread/crowding'
import type { ThreadPlan } from '../thread/plan'
import type { ThreadSettings } from '../thread/settings'
import type { FormReport } from './form-report'

export interface BeadTotal {
  readonly role: string
  readonly kind: string
  readonly size: string
  readonly label: string
  /** For one piece. */
  readonly each: number
  /** For all that the pattern makes. */
  readonly total: number
  readonly totalMg: Mg
  readonly bead: Bead
}

export interface StoneTotal {
  readonly role: string
  readonly label: string
  readonly each: number
  readonly total: number
  readonly stone: Stone
}

/** Findings and other things that are neither beads nor stones. */
export interface ItemTotal {
  readonly role: string
  readonly name: string
  readonly label: string
  readonly each: number
  readonly total: number
}

export interface StatementReport {
  readonly line: number
  readonly text: string
  readonly part: string
  /** How often it is done, in repeats and parts made more than once. */
  readonly times: number
  /** Stitches made; nought for lines that string, travel or speak. */
  readonly stitches: number
  readonly added: Readonly<Record<string, number>>
  readonly totals: Readonly<Record<string, number>>
  /** Thread laid by this line, without ends. */
  readonly threadMm: Mm
  /** The letter of the bead the needle comes out of; "" where there is none. */
  readonly needleIn: string
  /** What it did; the first time, where it is done more than once. */
  readonly action: Action
  /** What it did each time, where that is not always the same. */
  readonly turns: readonly Action[]
}

export interface Report {
  readonly pattern: string
  readonly makes: number
  /** "pair" is said where the pattern says it. */
  readonly pair: boolean
  /** The size evaluated; "" for a pattern of one size. */
  readonly size: string
  readonly sizes: readonly string[]
  /** Options by name, as they were evaluated. */
  readonly options: Readonly<Record<string, boolean>>
  readonly beads: readonly BeadTotal[]
  readonly stones: readonly StoneTotal[]
  readonly items: readonly ItemTotal[]
  /** Each stone that was placed, and how its ring sits. */
  readonly fits: readonly Fit[]
  /** Written runs that another kind of bead fills, where a colourway has them refilled. */
  readonly refilled: readonly Refilled[]
  readonly threadChoice: ThreadChoice
  /** For one piece: every thread of it, one after the other. */
  readonly thread: { readonly pathMm: Mm; readonly totalMm: Mm; readonly cuts: readonly Mm[] }
  /** The shop's ways with thread, as the pattern would have them. */
  readonly threadSettings: ThreadSettings
  readonly threads: readonly (ThreadPlan & {
    /** Lines at which the second and further lengths begin. */
    readonly furtherFrom: readonly number[]
  })[]
  /** The fullest bead of each role. */
  readonly crowding: readonly Crowding[]
  readonly parts: readonly {
    readonly name: string
    readonly added: Readonly<Record<string, number>>
    readonly threadMm: Mm
    /** Where thread is handled another way than in the rest of the pattern. */
    readonly threadSettings?: ThreadSettings
  }[]
  readonly statements: readonly StatementReport[]
  readonly diagnostics: readonly Fault[]
  /** No line is at fault, so that counts can be relied on. */
  readonly sound: boolean
  /** Read off the computed form, where it has been computed; lengths of thread then are measured on it. */
  readonly form?: FormReport
}
