/** Turns a piece to the eye before it settles: flat side to the front, long way across, what it hangs by uppermost. */
import { beadOf } from '../stitch/hole'
import type { Middles } from './lay-out'
import type { Piece } from './piece'
import type { Vector } from './vector'

type Turn = (v: Vector) => Vector

/** @param fixed a stone that is not round lies in it, so that its own top stays up */
export function turnOut(piece: Piece, middles: Middles, cored: boolean, fixed: boolean): Middles {
  const turn = cored ? undefined : flatToFront(piece)
  const turned = turn ? apply(piece, middles, turn) : middles
  const up = fixed || turn ? undefined : loopUp(piece, turned)
  return up ? apply(piece, turned, up) : turned
}

function apply({ at }: Piece, middles: Middles, turn: Turn): Middles {
  for (let p = 0; p < at.length; p += 3) {
    const [x, y, z] = turn([at[p] as number, at[p + 1] as number, at[p + 2] as number])
    at[p] = x
    at[p + 1] = y
    at[p + 2] = z
  }
  return new Map([...middles].map(([course, middle]) => [course, turn(middle)]))
}

/** The way in which the piece is thinnest comes to lie toward the eye. */
function flatToFront({ at }: Piece): Turn | undefined {
  const low = [Infinity, Infinity, Infinity]
  const high = [-Infinity, -Infinity, -Infinity]
  for (let p = 0; p < at.length; p++) {
    low[p % 3] = Math.min(low[p % 3] as number, at[p] as number)
    high[p % 3] = Math.max(high[p % 3] as number, at[p] as number)
  }
  const [x, y, z] = [0, 1, 2].map((k) => (high[k] as number) - (low[k] as number)) as [number, number, number]
  if (z <= 1.25 * Math.min(x, y)) return undefined
  // Long work goes across.
  return y < x ? ([a, b, c]) => [c, a, b] : ([a, b, c]) => [c, b, -a]
}

/** A round piece has no top of its own: its first loop goes there, as it will hang. */
function loopUp({ work, rodOf, at }: Piece, middles: Middles): Turn | undefined {
  const [first] = middles
  if (!first) return undefined
  const [, middle] = first
  for (let pass = 0; pass < work.passes; pass++) {
    const bead = beadOf(work.holeAt(pass))
    if (!work.isNew(pass) || work.seat(bead).course >= 0) continue
    const p = 6 * (rodOf[bead] as number)
    const by = Math.PI / 2 - Math.atan2((at[p + 1] as number) - middle[1], (at[p] as number) - middle[0])
    const [cos, sin] = [Math.cos(by), Math.sin(by)]
    return ([x, y, z]) => {
      const [dx, dy] = [x - middle[0], y - middle[1]]
      return [middle[0] + dx * cos - dy * sin, middle[1] + dx * sin + dy * cos, z]
    }
  }
  return undefined
}
