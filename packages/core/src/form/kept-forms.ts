/**
 * Forms that have come to rest, kept by what went into them: pieces whose beads have the same measures have the same form, whatever their
 * colours, and nothing is computed twice.
 */
import type { Mm } from '../measure/units'
import type { Extents } from '../report/measures'
import type { Piece } from './piece'
import type { Seat } from './seat'

/** Goes into every digest: raised when the method gives other forms than before. */
const method = 12

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
  /** Asked again while a form is being computed: it may have been found, or computed, meanwhile. */
  get(digest: string): KeptForm | undefined
  keep(digest: string, form: KeptForm): void
}

/** The last few forms, in memory, and behind them what is kept elsewhere. */
export class LastForms implements KeptForms {
  private readonly kept = new Map<string, KeptForm>()
  private points = 0
  /** Where forms outlive this thread: files on a server, the server for a page. */
  behind: KeptForms | undefined

  /** @param maxPoints ends of bores, of all forms together: 24 bytes each */
  constructor(private readonly maxPoints = 1_000_000) {}

  get(digest: string): KeptForm | undefined {
    const known = this.kept.get(digest)
    if (known) {
      this.kept.delete(digest)
      this.kept.set(digest, known)
      return known
    }
    const found = this.behind?.get(digest)
    if (found) this.remember(digest, found)
    return found
  }

  keep(digest: string, form: KeptForm): void {
    this.remember(digest, form)
    this.behind?.keep(digest, form)
  }

  private remember(digest: string, form: KeptForm): void {
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

/** Magic number and version of the bytes that a form is kept as. */
const format = 0x7e55_0001
/** Numbers before the columns. */
const headSize = 10

/** A form as bytes, in a file or on its way to a page: 64-bit numbers, little-endian as every machine here has them, and a checksum. */
export function bytesOfForm({ at, natural, solids, iterations, moveMm, spreadMm }: KeptForm): Uint8Array {
  const spread = spreadMm ?? [Number.NaN, Number.NaN, Number.NaN]
  const head = [format, method, at.length, natural.length, solids.length, iterations, moveMm, ...spread]
  const numbers = new Float64Array(headSize + at.length + natural.length + solids.length + 1)
  numbers.set(head)
  numbers.set(at, headSize)
  numbers.set(natural, headSize + at.length)
  numbers.set(solids, headSize + at.length + natural.length)
  numbers[numbers.length - 1] = checksumOf(numbers)
  return new Uint8Array(numbers.buffer)
}

/** @returns undefined where they are cut short, damaged, or of another version */
export function formOfBytes(bytes: Uint8Array): KeptForm | undefined {
  if (bytes.length % 8 !== 0 || bytes.length < 8 * (headSize + 1)) return undefined
  const numbers = new Float64Array(bytes.length / 8)
  new Uint8Array(numbers.buffer).set(bytes)
  const [kind, by, points, threads, solids, iterations, moveMm, wide, high, deep] = numbers as unknown as number[]
  if (kind !== format || by !== method) return undefined
  const ends = [headSize]
  for (const size of [points, threads, solids]) ends.push((ends[ends.length - 1] as number) + (size as number))
  if (ends[3] !== numbers.length - 1 || numbers[numbers.length - 1] !== checksumOf(numbers)) return undefined
  const column = (k: number) => numbers.slice(ends[k], ends[k + 1])
  return {
    at: column(0),
    natural: column(1),
    solids: column(2),
    iterations: iterations as number,
    moveMm: moveMm as Mm,
    spreadMm: Number.isNaN(wide) ? undefined : [wide as Mm, high as Mm, deep as Mm],
  }
}

/** Of all numbers but the last, which is where it stands. */
function checksumOf(numbers: Float64Array): number {
  const digest = new Digest()
  digest.numbers(numbers.subarray(0, -1))
  return digest.low
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
  get low(): number {
    return this.one >>> 0
  }
  toString(): string {
    return `${(this.one >>> 0).toString(16).padStart(8, '0')}${(this.two >>> 0).toString(16).padStart(8, '0')}`
  }
}
