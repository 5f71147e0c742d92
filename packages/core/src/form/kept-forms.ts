/**
 * Forms that have come to rest, kept by what went into them: pieces whose beads have the same measures have the same form, whatever their
 * colours, and nothing is computed twice.
 */
import type { Mm } from '../measure/units'
import type { Extents } from '../report/measures'
import type { Piece } from './piece'
import type { Seat } from './seat'

/** Goes into every digest: raised when the method gives other forms than before. */
const method = 8

/** A form at rest. */
export interface KeptForm {
  readonly at: Float64Array
  readonly natural: Float64Array
  /** Middle, front and right of each stone and ring. */
  readonly solids: Float64Array
  readonly iterations: number
  readonly moveMm: Mm
  readonly spreadMm: Extents | undefined
}

export interface KeptForms {
  get(digest: string): KeptForm | undefined
  keep(digest: string, form: KeptForm): void
}

/** The last few forms, in memory. */
export class LastForms implements KeptForms {
  private readonly kept = new Map<string, KeptForm>()
  private points = 0

  /** @param maxPoints ends of bores, of all forms together: 24 bytes each */
  constructor(private readonly maxPoints = 1_000_000) {}

  get(digest: string): KeptForm | undefined {
    const found = this.kept.get(digest)
    if (!found) return undefined
    this.kept.delete(digest)
    this.kept.set(digest, found)
    return found
  }

  keep(digest: string, form: KeptForm): void {
    this.kept.set(digest, form)
    this.points += form.at.length / 3
    for (const [oldest, { at }] of this.kept) {
      if (this.points <= this.maxPoints) return
      this.kept.delete(oldest)
      this.points -= at.length / 3
    }
  }
}

/** Of everything that a piece's form follows from, before it unfolds. */
export function digestOf(piece: Piece, seats: readonly Seat[], tension: string): string {
  const { work, shapes, shapeOf, rodOf, threads, natural, pulls, ties } = piece
  const digest = new Digest()
  digest.text(
    JSON.stringify([
      method,
      tension,
      shapes.map(({ bead: { maker: _, massMg: __, size: ___, ...measures } }) => measures),
      seats.map(({ course, stone, solid }) => [course, stone, solid?.described]),
      work.hangsFrom,
    ]),
  )
  for (const column of [shapeOf, rodOf, threads, natural, pulls, ties, work.faces()]) digest.numbers(column)
  for (const { points, places } of seats) {
    digest.numbers(points)
    digest.numbers(places)
  }
  for (let pass = 0; pass < work.passes; pass++) digest.number(work.holeAt(pass))
  return digest.toString()
}

/** Two running 32-bit hashes (murmur's mixing): not proof against malice, and no accident will meet it. */
class Digest {
  private one = 0x9e3779b9
  private two = 0x85ebca6b
  private readonly real = new Float64Array(1)
  private readonly halves = new Int32Array(this.real.buffer)

  number(value: number): void {
    this.real[0] = value
    this.mix(this.halves[0] as number)
    this.mix(this.halves[1] as number)
  }
  numbers(values: Iterable<number>): void {
    for (const value of values) this.number(value)
    this.mix(-1)
  }
  text(value: string): void {
    for (let i = 0; i < value.length; i++) this.mix(value.charCodeAt(i))
    this.mix(-2)
  }
  private mix(value: number): void {
    this.one = Math.imul(this.one ^ value, 0xcc9e2d51)
    this.one = (this.one << 15) | (this.one >>> 17)
    this.two = Math.imul(this.two ^ value ^ (this.one >>> 3), 0x1b873593)
    this.two = (this.two << 13) | (this.two >>> 19)
  }
  toString(): string {
    return `${(this.one >>> 0).toString(16).padStart(8, '0')}${(this.two >>> 0).toString(16).padStart(8, '0')}`
  }
}
