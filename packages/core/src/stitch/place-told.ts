/** A place as a line names it, with its numbers worked out: what every language says it from. */
import { beadsIn, type Run } from './runs'

export interface PlaceTold {
  readonly base: { readonly role: string } | { readonly name: string }
  readonly steps: readonly PlaceStep[]
  /** The beads it comes to, in order. */
  readonly beads: readonly Run[]
}

export type PlaceStep =
  | { readonly type: 'role'; readonly role: string }
  | { readonly type: 'nth'; readonly nth: number }
  | { readonly type: 'range'; readonly from: number; readonly to: number }
  | { readonly type: 'half'; readonly second: boolean }
  | { readonly type: 'word'; readonly word: string }
  | { readonly type: 'next'; readonly count: number }
  | { readonly type: 'bore'; readonly bore: 1 | 2 }
  | { readonly type: 'in'; readonly place: PlaceTold }

/** How many beads a place comes to. */
export const beadsOf = ({ beads }: PlaceTold): number => beadsIn(beads)
