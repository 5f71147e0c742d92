/**
 * Courses: the rows that a piece is built of, as its statements tell them. They say nothing of counts or thread; what lies against a stone
 * begins where its rows say (form/), and edges and openings are measured by them.
 */
import type { Mm } from '../measure/units'
import type { Hole } from './hole'

export type Course =
  /** The first row: strung and closed, or left open. A ring that was gathered by hand says which holes it goes along. */
  | { readonly kind: 'ring'; readonly along?: readonly Hole[] }
  | { readonly kind: 'row' }
  /** A round or row stitched on another: in its gaps, or in arcs from bead to bead. Passes from..to of the work, without the step up. */
  | {
      readonly kind: 'gaps' | 'arcs'
      readonly on: number
      readonly side: 1 | -1
      readonly stitches: number
      readonly from: number
      readonly to: number
    }
  /** Beads on end, round a core of this radius or on the row before; and what is from top to top where as many stand as there is room for. */
  | { readonly kind: 'standing'; readonly on: number | undefined; readonly radiusMm: Mm; readonly topsMm: Mm }

/** Where a bead begins: in a course, a share of the way along it, and how far it is lifted from the row beneath to its own. */
export interface Seat {
  /** `strung` for a bead that is placed between what the thread comes from and goes to: of a loop, a strand, a unit. */
  readonly course: number
  /** 0 to 1. */
  readonly turn: number
  /** 0 on the row beneath, 1 at the row's own height; in a first row -0.5 to 0.5, half a bead down or up. */
  readonly lift: number
}

export const strung: Seat = { course: -1, turn: 0, lift: 0 }
