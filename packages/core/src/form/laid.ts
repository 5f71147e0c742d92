/** How a piece lies, to be laid so again. */
import type { KeptForm } from './kept-forms'
import type { Piece } from './piece'

/** Where the points of a piece lie, and its solids: nine numbers each. */
export type Laid = Pick<KeptForm, 'at' | 'solids'>

export const laidAs = ({ at, solids }: Piece): Laid => ({
  at: Float64Array.from(at),
  solids: Float64Array.from(solids.flatMap((solid) => [...solid.at, ...solid.front, ...solid.right])),
})

export function lay(piece: Piece, { at, solids }: Laid): void {
  piece.at.set(at)
  for (const [k, solid] of piece.solids.entries()) {
    solid.at.set(solids.subarray(9 * k, 9 * k + 3))
    solid.front.set(solids.subarray(9 * k + 3, 9 * k + 6))
    solid.right.set(solids.subarray(9 * k + 6, 9 * k + 9))
  }
}
