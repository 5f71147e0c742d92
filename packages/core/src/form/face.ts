/**
 * Which face of the work each bead was laid on. Neither the thread nor contact knows: what lies over work that is there already lies on
 * the face that was in hand, the front unless the work was turned over.
 */
import type { Mm } from '../measure/units'
import { beadOf } from '../stitch/hole'
import type { Bodies } from './bodies'
import type { Piece } from './piece'
import type { Shape } from './shape'

/** Beads that come closer than this share of their widths, as seen from the front, lie over each other and not beside each other. */
const overlap = 0.6
/** What lies over a bead begins this share of their widths above it. */
const above = 0.8
/** Deeper than so many widths beneath the work lies another wall of it. */
const otherWall = 2

/** Beads by the cell of a grid that they lie in, as seen from the front. */
class Seen {
  private readonly cells = new Map<number, number[]>()
  private static readonly across = 1 << 20

  constructor(
    private readonly middle: Float64Array,
    private readonly cell: Mm,
  ) {}

  private keyAt(x: number, y: number): number {
    return x * Seen.across + y
  }

  add(bead: number): void {
    const [x, y] = this.cellOf(bead)
    const key = this.keyAt(x, y)
    const known = this.cells.get(key)
    if (known) known.push(bead)
    else this.cells.set(key, [bead])
  }

  *near(bead: number): Generator<number> {
    const [x, y] = this.cellOf(bead)
    for (let i = -1; i <= 1; i++) for (let j = -1; j <= 1; j++) yield* this.cells.get(this.keyAt(x + i, y + j)) ?? []
  }

  private cellOf(bead: number): [number, number] {
    return [
      Math.floor((this.middle[3 * bead] as number) / this.cell),
      Math.floor((this.middle[3 * bead + 1] as number) / this.cell),
    ]
  }
}

/** Every bead with each that was picked up before it and that it lies over or under, not next to it on the thread; in the order of picking up. */
function* overlapping(
  piece: Piece,
  middle: Float64Array,
): Generator<{ later: number; earlier: number; near: Mm; apart: Mm }> {
  const { work, shapes, shapeOf, threads, rodOf } = piece
  const acrossOf = (bead: number) => (shapes[shapeOf[bead] as number] as Shape).bead.acrossMm
  const beadAt = new Int32Array(piece.rods)
  for (let bead = 0; bead < work.beads; bead++) beadAt.fill(bead, rodOf[bead], rodOf[bead + 1])
  const joined = new Set<number>()
  const pair = (a: number, b: number) => Math.min(a, b) * work.beads + Math.max(a, b)
  for (let t = 0; t < threads.length; t += 2)
    joined.add(pair(beadAt[(threads[t] as number) >> 1] as number, beadAt[(threads[t + 1] as number) >> 1] as number))
  let widest = 0
  for (const { bead } of shapes) widest = Math.max(widest, bead.acrossMm)
  const seen = new Seen(middle, widest)
  for (let later = 0; later < work.beads; later++) {
    for (const earlier of seen.near(later)) {
      if (joined.has(pair(later, earlier))) continue
      const apart = (acrossOf(later) + acrossOf(earlier)) / 2
      const near = Math.hypot(
        (middle[3 * later] as number) - (middle[3 * earlier] as number),
        (middle[3 * later + 1] as number) - (middle[3 * earlier + 1] as number),
      )
      if (near < overlap * apart) yield { later, earlier, near, apart }
    }
    seen.add(later)
  }
}

/** The face that was in hand as each bead was picked up: 1 the front, -1 the back. */
function facesOf({ work }: Pick<Piece, 'work'>): Int8Array {
  const byPass = work.faces()
  const faces = new Int8Array(work.beads).fill(1)
  for (let pass = 0; pass < work.passes; pass++)
    if (work.isNew(pass)) faces[beadOf(work.holeAt(pass))] = byPass[pass] as number
  return faces
}

/**
 * Lifts what lies over other beads above them, on the face it was laid on.
 *
 * @param held by bead: 1 where it stays as it lies
 */
export function layOver(piece: Piece, bodies: Bodies, held?: Uint8Array): void {
  const faces = facesOf(piece)
  const { middle } = bodies
  for (const { later, earlier, near, apart } of overlapping(piece, middle)) {
    if (held?.[later]) continue
    const face = faces[later] as number
    const off = face * ((middle[3 * later + 2] as number) - (middle[3 * earlier + 2] as number))
    const wanted = Math.sqrt(Math.max(0, (above * apart) ** 2 - near ** 2))
    if (off < wanted && off > -otherWall * apart)
      middle[3 * later + 2] = (middle[3 * earlier + 2] as number) + face * wanted
  }
  bodies.write()
}

/**
 * How the beads that lie over each other lie as they were laid: 1 when all of them do, -1 when none does, and in between. Nought where no bead
 * lies over another.
 */
export function laidAsTold(piece: Piece, middle: Float64Array): number {
  const faces = facesOf(piece)
  let [told, all] = [0, 0]
  for (const { later, earlier, apart } of overlapping(piece, middle)) {
    const off = (faces[later] as number) * ((middle[3 * later + 2] as number) - (middle[3 * earlier + 2] as number))
    if (Math.abs(off) > 1.2 * apart) continue
    told += off
    all += Math.abs(off)
  }
  return all === 0 ? 0 : told / all
}

/** Work that was laid over other work as plainly as this, by so much of all its beads, has a front. */
const plainly = 0.5

/** Whether most of a piece is work and what was laid over it on one face, as of a strip that is crossed. */
export function hasFront(piece: Piece, middle: Float64Array): boolean {
  if (Math.abs(laidAsTold(piece, middle)) <= plainly) return false
  const over = new Set<number>()
  for (const { later, earlier } of overlapping(piece, middle)) over.add(later).add(earlier)
  return over.size >= plainly * piece.work.beads
}

/**
 * How far beads lie otherwise than they were laid: 0 where all lie so, or none lies over another; the more of them do not, the more. A piece that
 * lies on nothing may be turned over as a whole.
 */
export function againstTold(piece: Piece, middle: Float64Array): number {
  const told = laidAsTold(piece, middle)
  if (told === 0) return 0
  return 1 - (piece.solids.length > 0 ? told : Math.abs(told))
}
