import type { Mm } from '../measure/units'
import { centreOf, type Piece } from './piece'
import { support } from './reach'
import type { Solid } from './solid'
import { cross, dot, type Vector, vectorOf } from './vector'

/** How far a piece reaches across, up and toward the eye, its stones and rings with it. */
export function extentsOf(piece: Piece): Vector {
  const low = [Infinity, Infinity, Infinity]
  const high = [-Infinity, -Infinity, -Infinity]
  for (let bead = 0; bead < piece.work.beads; bead++) {
    const centre = centreOf(piece, bead)
    for (const k of [0, 1, 2] as const) {
      const [up, down] = [1, -1].map((sign) => support(piece, bead, unitOf(k, sign))) as [Mm, Mm]
      low[k] = Math.min(low[k] as number, centre[k] - down)
      high[k] = Math.max(high[k] as number, centre[k] + up)
    }
  }
  for (const solid of piece.solids) {
    for (const k of [0, 1, 2] as const) {
      const at = solid.at[k] as number
      const [up, down] = [1, -1].map((sign) => solidSupport(solid, unitOf(k, sign))) as [Mm, Mm]
      low[k] = Math.min(low[k] as number, at - down)
      high[k] = Math.max(high[k] as number, at + up)
    }
  }
  if (piece.work.beads === 0) return [0, 0, 0]
  return [0, 1, 2].map((k) => (high[k] as number) - (low[k] as number)) as unknown as Vector
}

/** How far a stone or ring reaches from its middle in a direction. */
function solidSupport({ front, right, reaches }: Solid, way: Vector): Mm {
  const [ahead, across] = [vectorOf(front), vectorOf(right)]
  return reaches(dot(way, across), dot(way, cross(ahead, across)), dot(way, ahead))
}

const unitOf = (k: 0 | 1 | 2, sign: number): Vector => [k === 0 ? sign : 0, k === 1 ? sign : 0, k === 2 ? sign : 0]
