import type { Mm } from '../measure/units'
import type { StoneHold } from '../sizing/stone-hold'

/** Wide, high, deep. */
export type Extents = readonly [Mm, Mm, Mm]

/** Figures that are true of a sound form only. */
export interface Measures {
  readonly widthMm: Mm
  readonly heightMm: Mm
  readonly depthMm: Mm
  /** How far they come out otherwise when the piece is shaken and comes to rest again; undefined where that was not tried. */
  readonly spreadMm: Extents | undefined
  /** The free way through each edge of a ring: of a round opening of the same size, across. */
  readonly openings: readonly { readonly statement: number; readonly acrossMm: Mm }[]
  /** From one repeat to the next along the piece, in the middle of each run of them. */
  readonly pitches: readonly Pitch[]
  /** Of a band that is closed, or a chain or rope that is longer than it lies; undefined for what is neither. */
  readonly along: Along | undefined
  readonly lie: {
    /** The greatest distance of a bead's middle from the plane that fits them best. */
    readonly awayMm: Mm
    /** No bead is farther from that plane than flat work of beads of these sizes has them. */
    readonly flat: boolean
    /** How far the outer edge lies to the front (or, below 0, behind) of the first row. */
    readonly cupMm: Mm
    /** How often the outer edge goes from one side of its own plane to the other. */
    readonly ruffles: number
  }
  readonly held: readonly ({ readonly stone: string } & StoneHold)[]
  /** Which roles lie against each other. */
  readonly touching: readonly Touching[]
}

export interface Strain {
  readonly statement: number
  /** Thread that does not reach, and beads that are pressed into each other. */
  readonly what: 'thread' | 'pressed'
  /** In how many places, of how many. */
  readonly places: number
  readonly of: number
  readonly worstMm: Mm
  /** What is missing in all. */
  readonly missingMm: Mm
}

export interface Progress {
  readonly iterations: number
  /** The largest move of the last iteration. */
  readonly moveMm: Mm
  /** At rest: its thread grows no shorter. */
  readonly settled: boolean
  /** The iterations it may take are used up. */
  readonly spent: boolean
}

export type Along =
  /** A run that has come round to its beginning. */
  | {
      readonly type: 'band'
      /** The free way round inside it, and across where it is laid round. */
      readonly innerRoundMm: Mm
      readonly innerAcrossMm: Mm
    }
  /** From one end of the piece to the other. */
  | { readonly type: 'chain'; readonly straightMm: Mm }

export interface Pitch {
  readonly statement: number
  readonly repeats: number
  readonly pitchMm: Mm
  /** From and to, where the thread does not decide it; see loose.ts. */
  readonly looseMm?: readonly [Mm, Mm]
}

/** Two roles whose beads touch in the computed piece, in so many places. */
export interface Touching {
  readonly roles: readonly [string, string]
  readonly places: number
}
