/** How far a bead of a piece reaches. */
import type { Mm } from '../measure/units'
import { type Piece, shapeOfBead } from './piece'
import type { Vector } from './vector'

export function axisOf({ at, rodOf, lengths }: Piece, bead: number): Vector {
  const rod = rodOf[bead] as number
  const p = 6 * rod
  const length = lengths[rod] as number
  return [
    ((at[p + 3] as number) - (at[p] as number)) / length,
    ((at[p + 4] as number) - (at[p + 1] as number)) / length,
    ((at[p + 5] as number) - (at[p + 2] as number)) / length,
  ]
}

/** How far a bead reaches in a direction, its widest point in that direction counted. */
export function support(piece: Piece, bead: number, cosine: number): Mm {
  const { bead: record, twin } = shapeOfBead(piece, bead)
  const dual = record.contact / Math.max(record.contact - 1, 0.01)
  const across = twin ? Math.max(record.acrossMm, twin.wideMm) : record.acrossMm
  const sine = Math.sqrt(Math.max(0, 1 - cosine * cosine))
  return ((Math.abs(cosine) * record.lengthMm * 0.5) ** dual + (sine * across * 0.5) ** dual) ** (1 / dual)
}
