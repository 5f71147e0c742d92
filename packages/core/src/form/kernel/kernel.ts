/**
 * The innermost loops of settling and unfolding, compiled to WebAssembly from packages/core/kernel, and the memory that they work on. They
 * do the same arithmetic in the same order as TypeScript would, in about half the time, and need no warming up.
 */
import { compiled } from './compiled'

/** What a column holds at first, or how many noughts. */
type Column = Float64Array | Int32Array | Uint8Array | number
export type Columns = Readonly<Record<string, Column>>

interface Global {
  value: number
}

/** Each is described where it is written. */
export interface Loops {
  readonly memory: { readonly buffer: ArrayBuffer; grow(pages: number): number }
  readonly pairs: Global
  readonly pairCount: Global
  firstFree(): number
  layGrid(buckets: number, cellMm: number, tooLarge: number, marginMm: number): void
  followCentres(count: number): void
  pressBeads(stiffness: number): number
  overOf(pair: number): number
  reachToward(centre: number, x: number, y: number, z: number): number
  slopeOfReach(): number
  pushPoints(count: number): void
  pullThreads(count: number, tension: number): number
  pullTies(count: number, tension: number): number
  resistBending(count: number, tension: number): number
  lieOnMat(rods: number, weight: number): number
  giveRoom(rods: number, strength: number): number
  moveBodies(bodies: number, beads: number, by: number): void
  squareBodies(bodies: number): void
  placeBeads(beads: number): void
  gatherBeads(beads: number, out: number): void
  direct(count: number, memory: number, known: number, last: number, scale: number): void
  downhill(count: number): number
  largest(count: number): number
  learn(count: number, place: number, by: number): void
  sweep(count: number, step: number, near: number, slack: number): void
}

/** What is needed of it, declared here since the core is checked with neither the DOM's types nor Node's. */
const { WebAssembly, atob } = globalThis as unknown as {
  readonly WebAssembly: {
    readonly Module: new (code: Uint8Array) => object
    readonly Instance: new (module: object, imports: object) => { readonly exports: unknown }
  }
  atob(text: string): string
}

let code: object | undefined

function newLoops(): Loops {
  code ??= new WebAssembly.Module(Uint8Array.from(atob(compiled), (each) => each.charCodeAt(0)))
  const host = { log: Math.log, pow: (x: number, y: number) => x ** y }
  return new WebAssembly.Instance(code, { host }).exports as Loops
}

/** Memories that can be used again: making one takes longer than settling a small piece for an iteration or two. */
const free: Loops[] = []
const mostFree = 4
/** Larger ones are left to the garbage collector: memory never shrinks. */
const mostFreeBytes = 16_000_000

const alignment = 16
const pageBytes = 65_536

export class Kernel {
  readonly loops: Loops
  private readonly places = new Map<string, { readonly from: number; readonly length: number }>()
  private views = new Map<string, Float64Array>()
  private buffer: ArrayBuffer

  /** Lays out columns, by the names by which the loops know them. */
  constructor(columns: Columns) {
    this.loops = free.pop() ?? newLoops()
    const { memory } = this.loops
    const from = aligned(this.loops.firstFree())
    let next = from
    for (const [name, column] of Object.entries(columns)) {
      const known = (this.loops as unknown as Record<string, Global | undefined>)[name]
      if (!known) throw new RangeError(`The loops know no column ${name}.`)
      known.value = next
      const [length, bytes] = typeof column === 'number' ? [column, 8 * column] : [column.length, column.byteLength]
      this.places.set(name, { from: next, length })
      next = aligned(next + bytes)
    }
    // Pairs are found later on, as many as there are: they lie last.
    this.loops.pairs.value = next
    const short = next - memory.buffer.byteLength
    if (short > 0) memory.grow(Math.ceil(short / pageBytes))
    this.buffer = memory.buffer
    new Uint8Array(this.buffer, from, next - from).fill(0)
    for (const [name, column] of Object.entries(columns)) {
      if (typeof column === 'number') continue
      const place = this.places.get(name)?.from as number
      const bytes = new Uint8Array(column.buffer, column.byteOffset, column.byteLength)
      new Uint8Array(this.buffer, place).set(bytes)
    }
  }

  /** A column of floats, as it is now; not to be kept, since the memory may grow. */
  floats(name: string): Float64Array {
    if (this.buffer !== this.loops.memory.buffer) {
      this.buffer = this.loops.memory.buffer
      this.views.clear()
    }
    const known = this.views.get(name)
    if (known) return known
    const { from, length } = this.place(name)
    const view = new Float64Array(this.buffer, from, length)
    this.views.set(name, view)
    return view
  }

  /** The pairs that were found, two contact centres each. */
  pairs(): Int32Array {
    return new Int32Array(this.loops.memory.buffer, this.loops.pairs.value, 2 * this.loops.pairCount.value)
  }

  /** Where a column lies, for a loop that is told which one it is to write. */
  place(name: string): { readonly from: number; readonly length: number } {
    const place = this.places.get(name)
    if (!place) throw new RangeError(`No column ${name} has been laid out.`)
    return place
  }

  /** The memory may be used for something else: nothing of it is to be read any more. */
  release(): void {
    const isLarge = this.loops.memory.buffer.byteLength > mostFreeBytes
    if (!isLarge && free.length < mostFree) free.push(this.loops)
  }
}

const aligned = (place: number): number => Math.ceil(place / alignment) * alignment
