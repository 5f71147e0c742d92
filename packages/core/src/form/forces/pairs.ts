/** Which beads may touch: contact centres near each other, found on a uniform grid and kept until something has moved too far. */
import type { Mm } from '../../measure/units'
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

/** Pairs of contact centres that are or may soon come near, two numbers each. */
export class Pairs {
  list = new Int32Array(1024)
  count = 0
  /** Where each centre was when the pairs were found. */
  private readonly foundAt: Float64Array
  private readonly cells: Int32Array
  private readonly order: Int32Array
  private readonly starts: Int32Array
  private readonly mask: number
  private readonly cell: Mm
  /** Few beads are much larger than the rest; they are looked at against all. */
  private readonly large: number[] = []
  private readonly isLarge: Uint8Array

  constructor(private readonly centres: Centres) {
    const { count, farthest } = centres
    this.foundAt = new Float64Array(count * 3).fill(Number.POSITIVE_INFINITY)
    this.cells = new Int32Array(count * 3)
    this.order = new Int32Array(count)
    const buckets = 2 ** Math.ceil(Math.log2(Math.max(16, count * 2)))
    this.mask = buckets - 1
    this.starts = new Int32Array(buckets + 1)
    const sorted = Float64Array.from(farthest).sort()
    const usual = sorted[Math.floor(count * 0.9)] ?? 1
    const most = usual * 2
    this.isLarge = new Uint8Array(count)
    for (let i = 0; i < count; i++) {
      if ((farthest[i] as number) <= most) continue
      this.isLarge[i] = 1
      this.large.push(i)
    }
    let widest = 0
    for (const each of farthest) if (each <= most) widest = Math.max(widest, each)
    this.cell = 2 * widest + margin
  }

  /** @param at x, y, z of each centre now */
  follow(at: Float64Array): void {
    const { foundAt } = this
    const most = (margin / 2) ** 2
    for (let i = 0; i < at.length; i += 3) {
      const dx = (at[i] as number) - (foundAt[i] as number)
      const dy = (at[i + 1] as number) - (foundAt[i + 1] as number)
      const dz = (at[i + 2] as number) - (foundAt[i + 2] as number)
      if (!(dx * dx + dy * dy + dz * dz <= most)) {
        this.find(at)
        return
      }
    }
  }

  private find(at: Float64Array): void {
    const { centres, cells, order, starts, mask, cell, isLarge } = this
    const { count } = centres
    this.foundAt.set(at)
    this.count = 0
    starts.fill(0)
    for (let i = 0; i < count; i++) {
      const x = Math.floor((at[3 * i] as number) / cell)
      const y = Math.floor((at[3 * i + 1] as number) / cell)
      const z = Math.floor((at[3 * i + 2] as number) / cell)
      cells[3 * i] = x
      cells[3 * i + 1] = y
      cells[3 * i + 2] = z
      if (isLarge[i]) continue
      const bucket = bucketOf(x, y, z, mask) + 1
      starts[bucket] = (starts[bucket] as number) + 1
    }
    for (let b = 1; b <= mask + 1; b++) starts[b] = (starts[b] as number) + (starts[b - 1] as number)
    // Filled from the back of each bucket, so that within it beads lie in order.
    for (let i = count - 1; i >= 0; i--) {
      if (isLarge[i]) continue
      const bucket = bucketOf(cells[3 * i] as number, cells[3 * i + 1] as number, cells[3 * i + 2] as number, mask) + 1
      const place = (starts[bucket] as number) - 1
      starts[bucket] = place
      order[place] = i
    }
    // What was the end of each bucket has become its beginning; the next bucket's beginning is its end.
    for (let i = 0; i < count; i++) {
      if (isLarge[i]) continue
      const [cx, cy, cz] = [cells[3 * i] as number, cells[3 * i + 1] as number, cells[3 * i + 2] as number]
      const first = this.count
      for (let x = cx - 1; x <= cx + 1; x++) {
        for (let y = cy - 1; y <= cy + 1; y++) {
          for (let z = cz - 1; z <= cz + 1; z++) {
            const bucket = bucketOf(x, y, z, mask) + 1
            const end = bucket <= mask ? (starts[bucket + 1] as number) : order.length - this.large.length
            for (let k = starts[bucket] as number; k < end; k++) {
              const j = order[k] as number
              if (j <= i || cells[3 * j] !== x || cells[3 * j + 1] !== y || cells[3 * j + 2] !== z) continue
              this.consider(i, j, at)
            }
          }
        }
      }
      this.inOrder(first)
    }
    for (const i of this.large)
      for (let j = 0; j < count; j++) if (j !== i && !(isLarge[j] && j < i)) this.consider(i, j, at)
  }

  /** A bead's partners by their numbers, not by where they lie: the same piece turned about is worked through in the same order. */
  private inOrder(first: number): void {
    const { list } = this
    for (let k = first + 1; k < this.count; k++) {
      const j = list[2 * k + 1] as number
      let to = k
      for (; to > first && (list[2 * to - 1] as number) > j; to--) list[2 * to + 1] = list[2 * to - 1] as number
      list[2 * to + 1] = j
    }
  }

  private consider(i: number, j: number, at: Float64Array): void {
    const { farthest, bead } = this.centres
    if (bead[i] === bead[j]) return
    const dx = (at[3 * i] as number) - (at[3 * j] as number)
    const dy = (at[3 * i + 1] as number) - (at[3 * j + 1] as number)
    const dz = (at[3 * i + 2] as number) - (at[3 * j + 2] as number)
    const near = (farthest[i] as number) + (farthest[j] as number) + margin
    if (dx * dx + dy * dy + dz * dz > near * near) return
    if (2 * this.count + 2 > this.list.length) {
      const wider = new Int32Array(this.list.length * 2)
      wider.set(this.list)
      this.list = wider
    }
    this.list[2 * this.count] = i
    this.list[2 * this.count + 1] = j
    this.count++
  }
}

const bucketOf = (x: number, y: number, z: number, mask: number): number =>
  (Math.imul(x, 73856093) ^ Math.imul(y, 19349663) ^ Math.imul(z, 83492791)) & mask
