/** How far a bead of a piece reaches. */
import type { Mm } from '../measure/units'
import { type Piece, shapeOfBead } from './piece'
import { type Frame, pointsOfFrame } from './shape'
import { dot, scaled, type Vector } from './vector'

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

/** The way across the hole in which a bead with a frame is wide. */
function wideOf({ at, rodOf }: Piece, bead: number, { points }: Frame): Vector {
  const first = 2 * (rodOf[bead] as number)
  const way: [number, number, number] = [0, 0, 0]
  let square = 0
  for (let k = 0; k < pointsOfFrame; k++) {
    const wide = points[2 * k + 1] as number
    square += wide * wide
    for (const c of [0, 1, 2] as const) way[c] += wide * (at[3 * (first + k) + c] as number)
  }
  return scaled(way, 1 / square)
}

/**
 * How far a bead reaches from its middle in a direction, its widest point in that direction counted.
 *
 * @param way of length 1
 */
export function support(piece: Piece, bead: number, way: Vector): Mm {
  const { bead: record, frame } = shapeOfBead(piece, bead)
  const cosine = dot(axisOf(piece, bead), way)
  if (!frame) {
    const sine = Math.sqrt(Math.max(0, 1 - cosine * cosine))
    return dualNorm(record.contact, cosine * record.lengthMm * 0.5, sine * record.acrossMm * 0.5, 0)
  }
  const wide = dot(wideOf(piece, bead, frame), way)
  const thick = Math.sqrt(Math.max(0, 1 - cosine * cosine - wide * wide))
  if (!frame.outline)
    return dualNorm(
      record.contact,
      cosine * record.lengthMm * 0.5,
      wide * frame.wideMm * 0.5,
      thick * record.acrossMm * 0.5,
    )
  const { turned, stations } = frame.outline
  const round = Math.hypot(cosine, thick)
  return stations.reduce((most, [at, from, to]) => {
    const out = turned
      ? (round * (to - from)) / 2
      : Math.max(from * cosine, to * cosine) + (thick * record.acrossMm) / 2
    return Math.max(most, at * wide + out)
  }, 0)
}

/** How far a superellipsoid reaches in a direction: the norm of the exponent that goes with its own. */
function dualNorm(contact: number, along: Mm, across: Mm, aside: Mm): Mm {
  const dual = contact / Math.max(contact - 1, 0.01)
  const power = Math.abs(along) ** dual + Math.abs(across) ** dual + (aside === 0 ? 0 : Math.abs(aside) ** dual)
  return power ** (1 / dual)
}
