/** Contact centres, and the grid on which the kernel finds those that are near each other. */
import type { Mm } from '../../measure/units'
import type { Columns } from '../kernel/kernel'
import type { Piece } from '../piece'
import type { Shape } from '../shape'

/** Contact centres of all beads. */
export interface Centres {
  readonly count: number
  /** The rod it lies on, and its share of the way along it. */
  readonly rod: Int32Array
  readonly share: Float64Array
  /** Which of its bead's it is. */
  readonly lobe: Uint8Array
  readonly bead: Int32Array
  /** How far contact may reach from it. */
  readonly farthest: Float64Array
}

export function centresOf(piece: Piece): Centres {
  const { work, shapes, shapeOf, rodOf } = piece
  let count = 0
  for (let bead = 0; bead < work.beads; bead++) count += (shapes[shapeOf[bead] as number] as Shape).centres
  const centres = {
    count,
    rod: new Int32Array(count),
    share: new Float64Array(count),
    lobe: new Uint8Array(count),
    bead: new Int32Array(count),
    farthest: new Float64Array(count),
  }
  let next = 0
  for (let bead = 0; bead < work.beads; bead++) {
    const shape = shapes[shapeOf[bead] as number] as Shape
    for (let k = 0; k < shape.centres; k++, next++) {
      centres.rod[next] = rodOf[bead] as number
      centres.share[next] = (k + 0.5) / shape.centres
      centres.lobe[next] = k
      centres.bead[next] = bead
      centres.farthest[next] = shape.farthest
    }
  }
  return centres
}

/** Beads may come this much nearer before the pairs are looked for again. */
const margin: Mm = 0.5

/** Of the grid on which pairs are found. */
export interface Grid {
  readonly buckets: number
  readonly cellMm: Mm
  readonly marginMm: Mm
  /** Few beads are much larger than the rest; they are looked at against all. */
  readonly large: readonly number[]
}

export function gridOf({ count, farthest }: Centres): Grid {
  const sorted = Float64Array.from(farthest).sort()
  const usual = sorted[Math.floor(count * 0.9)] ?? 1
  const most = usual * 2
  const large: number[] = []
  let widest = 0
  for (const [i, each] of farthest.entries())
    if (each <= most) widest = Math.max(widest, each)
    else large.push(i)
  return {
    buckets: 2 ** Math.ceil(Math.log2(Math.max(16, count * 2))),
    cellMm: 2 * widest + margin,
    marginMm: margin,
    large,
  }
}

/** What finding pairs needs in the kernel's memory; the pairs themselves lie last there. */
export function pairColumns({ count }: Centres, { buckets, large }: Grid): Columns {
  const isLarge = new Uint8Array(count)
  for (const i of large) isLarge[i] = 1
  return {
    foundAt: new Float64Array(count * 3).fill(Number.POSITIVE_INFINITY),
    cells: new Int32Array(count * 3),
    order: new Int32Array(count),
    starts: new Int32Array(buckets + 1),
    large: Int32Array.from(large),
    isLarge,
  }
}
