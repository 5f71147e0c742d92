import type { Press } from './forces/press'
import { type Piece, shapeOfBead } from './piece'

/** Beads that are pressed deeper do not lie so. */
export const maxPressed = 0.1

/** How deep any bead is pressed into another, as a share of the narrower one's width. */
export function deepestPress(piece: Pick<Piece, 'shapes' | 'shapeOf'>, pressed: readonly Press[]): number {
  const acrossOf = (bead: number) => shapeOfBead(piece, bead).bead.acrossMm
  return pressed.reduce((most, { a, b, overMm }) => Math.max(most, overMm / Math.min(acrossOf(a), acrossOf(b))), 0)
}
