/**
 * Settling: position-based, one pass over all constraints an iteration. Thread pulls with a bounded force, which is its tension; rods keep
 * their length; beads and solids push out, last and hardest. Nothing is random and no clock is read: the same piece settles to the same
 * place, to the bit.
 */
import type { Mm } from '../measure/units'
import type { Tension } from '../thread/settings'
import { type Centres, centresOf, Pairs } from './contact'
import { type Piece, slackMm } from './piece'
import { reachSteps, type Shape } from './shape'

/** The most that thread draws two ends together in an iteration, once the piece has closed. */
const pullOf: Readonly<Record<Tension, Mm>> = { firm: 0.009, usual: 0.009, relaxed: 0.004 }

/** Settled when nothing moves farther than this in an iteration, nor this much in all of the last `window`. */
export const stillMm: Mm = 0.002
const driftMm: Mm = 0.012
/** Glass lies still on glass: what would move less than this does not move at all. Without it a flat net would crumple by and by. */
const stickMm: Mm = 0.001
const window = 20
/**
 * A bead wedged between others may swing to and fro by some hundredths for ever. After twice the closing the piece counts as settled, too,
 * when in a hundred iterations nothing has got farther than this.
 */
const swingMm: Mm = 0.03
const longWindow = 100

export interface Progress {
  readonly iterations: number
  /** The largest move of the last iteration. */
  readonly moveMm: Mm
  readonly settled: boolean
  /** The iterations it may take are used up. */
  readonly spent: boolean
}

/** A pull that begins strong, to close what begins apart, and comes down to the thread's tension. */
const closing = 300
/** The first iterations only part what begins inside each other. */
const parting = 30
const strongest: Mm = 0.02
const inSlack = 0.15

/** From this iteration on the thread has been drawn up: what lies between two beads may grow shorter, but it does not stretch. */
const drawnUp = 40
/** A solid pushes by no more than this in an iteration, so that beads are not thrown off it. */
const mostPush: Mm = 0.08
/** The most that taut thread draws its ends together in an iteration. */
const mostTaut: Mm = 0.1

/** How much of a row's excess is drawn in in an iteration: as slowly as its beads' own threads would. */
const hoopShare = 0.02

export class Settling {
  private readonly centres: Centres
  private readonly pairs: Pairs
  /** x, y, z of each contact centre. */
  private readonly middle: Float64Array
  private readonly before: Float64Array
  private readonly normal = new Float64Array(3)
  private readonly pull: Mm
  /** By bead: its reach, its half sizes, whether it has two bores. */
  private readonly tables: readonly Float64Array[]
  /** By thread: as long as it has been drawn up. */
  private readonly laid: Float64Array
  private iterations = 0
  private move = Number.POSITIVE_INFINITY
  private drift = Number.POSITIVE_INFINITY
  /** Where everything was when the window in hand began. */
  private readonly marked: Float64Array
  private longDrift = Number.POSITIVE_INFINITY
  private readonly longMarked: Float64Array

  constructor(
    readonly piece: Piece,
    tension: Tension = 'usual',
    /** Iterations it may take. */
    readonly budget = 1500,
  ) {
    this.centres = centresOf(piece)
    this.pairs = new Pairs(this.centres)
    this.middle = new Float64Array(this.centres.count * 3)
    this.before = Float64Array.from(piece.at)
    this.marked = Float64Array.from(piece.at)
    this.longMarked = Float64Array.from(piece.at)
    this.laid = new Float64Array(piece.threads.length / 2).fill(Number.POSITIVE_INFINITY)
    this.pull = pullOf[tension]
    this.tables = piece.shapes.map((shape) => shape.reach)
    this.keepLengths()
  }

  get progress(): Progress {
    const still = this.move < stillMm && this.drift < driftMm && this.iterations > closing
    const settled = still || (this.longDrift < swingMm && this.iterations > 2 * closing)
    return { iterations: this.iterations, moveMm: this.move, settled, spent: this.iterations >= this.budget }
  }

  /** Goes on for so many iterations, or until it is settled or the budget is used up. */
  run(iterations: number): Progress {
    for (let i = 0; i < iterations; i++) {
      const { settled, spent } = this.progress
      if (settled || spent) break
      this.step()
    }
    return this.progress
  }

  private step(): void {
    const { piece, before } = this
    const { at } = piece
    const share = Math.min(1, this.iterations / closing)
    const pull = this.pull + (strongest - this.pull) * (1 - share) ** 2
    // What moved goes on moving a little: long waves die out in tens of iterations instead of thousands.
    const keep =
      this.iterations < parting ? 0.4 : this.iterations < closing ? 0.85 : this.iterations < 2 * closing ? 0.5 : 0
    for (let i = 0; i < at.length; i += 3) {
      const [x, y, z] = [at[i] as number, at[i + 1] as number, at[i + 2] as number]
      const dx = x - (before[i] as number)
      const dy = y - (before[i + 1] as number)
      const dz = z - (before[i + 2] as number)
      const goes = dx * dx + dy * dy + dz * dz > stickMm * stickMm ? keep : 0
      at[i] = x + dx * goes
      at[i + 1] = y + dy * goes
      at[i + 2] = z + dz * goes
      before[i] = x
      before[i + 1] = y
      before[i + 2] = z
    }
    this.pullThreads(pull)
    this.pullTies(pull)
    this.keepHoops()
    this.keepLengths()
    this.follow()
    this.keepApart()
    this.pushOut()
    this.keepLengths()
    let most = 0
    // What still swings to and fro is held to the middle of its swing.
    const goes = this.iterations < 2 * closing ? 1 : 0.5
    for (let i = 0; i < at.length; i++)
      at[i] = (before[i] as number) + ((at[i] as number) - (before[i] as number)) * goes
    for (let i = 0; i < at.length; i += 3) {
      const dx = (at[i] as number) - (before[i] as number)
      const dy = (at[i + 1] as number) - (before[i + 1] as number)
      const dz = (at[i + 2] as number) - (before[i + 2] as number)
      const moved = dx * dx + dy * dy + dz * dz
      if (moved < stickMm * stickMm) {
        at[i] = before[i] as number
        at[i + 1] = before[i + 1] as number
        at[i + 2] = before[i + 2] as number
      } else if (moved > most) most = moved
    }
    this.move = Math.sqrt(most)
    this.iterations++
    if (this.iterations % window === 0) this.drift = this.since(this.marked)
    if (this.iterations % longWindow === 0) this.longDrift = this.since(this.longMarked)
  }

  /** The farthest that anything has got since a mark was set; sets it anew. */
  private since(marked: Float64Array): Mm {
    const { at } = this.piece
    let most = 0
    for (let i = 0; i < at.length; i++) {
      const moved = Math.abs((at[i] as number) - (marked[i] as number))
      if (moved > most) most = moved
    }
    marked.set(at)
    return most
  }

  private pullThreads(pull: Mm): void {
    const { at, threads, loose, within } = this.piece
    const { laid } = this
    const up = this.iterations >= drawnUp
    const closes = this.iterations < closing
    for (let t = 0; t < threads.length; t += 2) {
      const a = 3 * (threads[t] as number)
      const b = 3 * (threads[t + 1] as number)
      const dx = (at[b] as number) - (at[a] as number)
      const dy = (at[b + 1] as number) - (at[a + 1] as number)
      const dz = (at[b + 2] as number) - (at[a + 2] as number)
      const apart = Math.sqrt(dx * dx + dy * dy + dz * dz)
      if (apart < 1e-9 || within[t >> 1]) continue
      // Within what the holes leave it only takes up what lies loose.
      const over = apart - (loose[t >> 1] as number)
      const drawn = pull * (inSlack + (over > 0 ? 1.6 * Math.min(over, 1.5) : 0))
      let taut = 0
      if (up) {
        let length = laid[t >> 1] as number
        if (closes && apart + slackMm < length) laid[t >> 1] = length = apart + slackMm
        if (apart > length) taut = Math.min((apart - length) * 0.25, mostTaut)
      }
      const by = (Math.min(apart * 0.25, drawn) + taut) / apart / 2
      at[a] = (at[a] as number) + dx * by
      at[a + 1] = (at[a + 1] as number) + dy * by
      at[a + 2] = (at[a + 2] as number) + dz * by
      at[b] = (at[b] as number) - dx * by
      at[b + 1] = (at[b + 1] as number) - dy * by
      at[b + 2] = (at[b + 2] as number) - dz * by
    }
  }

  /** A row that has been drawn up does not stretch: where it is longer, all of it is drawn in toward its middle at once. */
  private keepHoops(): void {
    const { hoopAt } = this.piece
    for (let hoop = 0; hoop + 1 < hoopAt.length; hoop++) {
      const length = this.lengthOfHoop(hoop)
      const most = this.piece.hoopMm[hoop] as number
      if (length > most) this.drawIn(hoop, Math.min(((length - most) * hoopShare) / (2 * Math.PI), mostTaut))
    }
  }

  private lengthOfHoop(hoop: number): Mm {
    const { at, hoops, hoopAt } = this.piece
    const [from, to] = [hoopAt[hoop] as number, hoopAt[hoop + 1] as number]
    let length = 0
    let p = 6 * (hoops[to - 2] as number)
    let q = 6 * (hoops[to - 1] as number)
    for (let k = from; k < to; k++) {
      // From between two beads to between the next two: the row itself, not its zigzag.
      const r = 6 * (hoops[k] as number)
      const dx = (at[r] as number) + (at[r + 3] as number) - (at[p] as number) - (at[p + 3] as number)
      const dy = (at[r + 1] as number) + (at[r + 4] as number) - (at[p + 1] as number) - (at[p + 4] as number)
      const dz = (at[r + 2] as number) + (at[r + 5] as number) - (at[p + 2] as number) - (at[p + 5] as number)
      length += Math.sqrt(dx * dx + dy * dy + dz * dz) / 4
      p = q
      q = r
    }
    return length
  }

  private drawIn(hoop: number, by: Mm): void {
    const { at, hoops, hoopAt } = this.piece
    const [from, to] = [hoopAt[hoop] as number, hoopAt[hoop + 1] as number]
    let [mx, my, mz] = [0, 0, 0]
    for (let k = from; k < to; k++) {
      const p = 6 * (hoops[k] as number)
      mx += (at[p] as number) + (at[p + 3] as number)
      my += (at[p + 1] as number) + (at[p + 4] as number)
      mz += (at[p + 2] as number) + (at[p + 5] as number)
    }
    const count = 2 * (to - from)
    for (let k = from; k < to; k++) {
      const p = 6 * (hoops[k] as number)
      const dx = mx / count - ((at[p] as number) + (at[p + 3] as number)) / 2
      const dy = my / count - ((at[p + 1] as number) + (at[p + 4] as number)) / 2
      const dz = mz / count - ((at[p + 2] as number) + (at[p + 5] as number)) / 2
      const share = by / Math.max(Math.sqrt(dx * dx + dy * dy + dz * dz), 1e-9)
      for (const q of [p, p + 3]) {
        at[q] = (at[q] as number) + dx * share
        at[q + 1] = (at[q + 1] as number) + dy * share
        at[q + 2] = (at[q + 2] as number) + dz * share
      }
    }
  }

  private pullTies(pull: Mm): void {
    const { at, ties } = this.piece
    for (let t = 0; t < ties.length; t += 3) {
      const p = 3 * (ties[t] as number)
      const a = 3 * (ties[t + 1] as number)
      const b = 3 * (ties[t + 2] as number)
      const dx = ((at[a] as number) + (at[b] as number)) / 2 - (at[p] as number)
      const dy = ((at[a + 1] as number) + (at[b + 1] as number)) / 2 - (at[p + 1] as number)
      const dz = ((at[a + 2] as number) + (at[b + 2] as number)) / 2 - (at[p + 2] as number)
      const apart = Math.sqrt(dx * dx + dy * dy + dz * dz)
      if (apart < 1e-9) continue
      const by = Math.min(apart * 0.5, 2 * pull) / apart / 1.5
      at[p] = (at[p] as number) + dx * by
      at[p + 1] = (at[p + 1] as number) + dy * by
      at[p + 2] = (at[p + 2] as number) + dz * by
      for (const q of [a, b]) {
        at[q] = (at[q] as number) - (dx * by) / 2
        at[q + 1] = (at[q + 1] as number) - (dy * by) / 2
        at[q + 2] = (at[q + 2] as number) - (dz * by) / 2
      }
    }
  }

  private keepLengths(): void {
    const { lengths, rodOf, shapeOf, shapes, rods, work } = this.piece
    for (let rod = 0; rod < rods; rod++) this.keep(6 * rod, 6 * rod + 3, lengths[rod] as number)
    for (let bead = 0; bead < work.beads; bead++) {
      const rod = rodOf[bead] as number
      if ((rodOf[bead + 1] as number) - rod < 2) continue
      const { twin, bead: record } = shapes[shapeOf[bead] as number] as Shape
      const gap = (twin as { gapMm: Mm }).gapMm
      const across = Math.sqrt(gap * gap + record.lengthMm * record.lengthMm)
      const p = 6 * rod
      this.keep(p, p + 6, gap)
      this.keep(p + 3, p + 9, gap)
      this.keep(p, p + 9, across)
      this.keep(p + 3, p + 6, across)
      this.keep(p, p + 3, record.lengthMm)
      this.keep(p + 6, p + 9, record.lengthMm)
    }
  }

  private keep(a: number, b: number, length: Mm): void {
    const { at } = this.piece
    const dx = (at[b] as number) - (at[a] as number)
    const dy = (at[b + 1] as number) - (at[a + 1] as number)
    const dz = (at[b + 2] as number) - (at[a + 2] as number)
    const now = Math.sqrt(dx * dx + dy * dy + dz * dz)
    if (now < 1e-9) {
      at[b] = (at[a] as number) + length
      return
    }
    const by = (now - length) / now / 2
    at[a] = (at[a] as number) + dx * by
    at[a + 1] = (at[a + 1] as number) + dy * by
    at[a + 2] = (at[a + 2] as number) + dz * by
    at[b] = (at[b] as number) - dx * by
    at[b + 1] = (at[b + 1] as number) - dy * by
    at[b + 2] = (at[b + 2] as number) - dz * by
  }

  private place(i: number): void {
    const { at, rodOf } = this.piece
    const { rod, share, bead } = this.centres
    const b = bead[i] as number
    const p = 6 * (rod[i] as number)
    const { middle } = this
    if ((rodOf[b + 1] as number) - (rodOf[b] as number) === 2) {
      for (let k = 0; k < 3; k++)
        middle[3 * i + k] =
          ((at[p + k] as number) + (at[p + 3 + k] as number) + (at[p + 6 + k] as number) + (at[p + 9 + k] as number)) /
          4
      return
    }
    const t = share[i] as number
    middle[3 * i] = (at[p] as number) * (1 - t) + (at[p + 3] as number) * t
    middle[3 * i + 1] = (at[p + 1] as number) * (1 - t) + (at[p + 4] as number) * t
    middle[3 * i + 2] = (at[p + 2] as number) * (1 - t) + (at[p + 5] as number) * t
  }

  private follow(): void {
    for (let i = 0; i < this.centres.count; i++) this.place(i)
    this.pairs.follow(this.middle)
  }

  /** Beads that are nearer than both reach, by the direction between them, are moved apart. */
  private keepApart(): void {
    const { pairs, middle } = this
    const { farthest } = this.centres
    const { list, count } = pairs
    for (let k = 0; k < count; k++) {
      const i = list[2 * k] as number
      const j = list[2 * k + 1] as number
      const dx = (middle[3 * j] as number) - (middle[3 * i] as number)
      const dy = (middle[3 * j + 1] as number) - (middle[3 * i + 1] as number)
      const dz = (middle[3 * j + 2] as number) - (middle[3 * i + 2] as number)
      const squared = dx * dx + dy * dy + dz * dz
      const most = (farthest[i] as number) + (farthest[j] as number)
      if (squared >= most * most) continue
      const apart = Math.sqrt(squared)
      const [ux, uy, uz] = apart > 1e-9 ? [dx / apart, dy / apart, dz / apart] : [0, 0, 1]
      const over = this.reach(i, ux, uy, uz) + this.reach(j, ux, uy, uz) - apart
      if (over <= 0) continue
      this.shift(i, (-ux * over) / 2, (-uy * over) / 2, (-uz * over) / 2)
      this.shift(j, (ux * over) / 2, (uy * over) / 2, (uz * over) / 2)
    }
  }

  /**
   * Beads that are nearer than they reach, and by how much.
   *
   * @param nearMm those that come so near, too; they are over by less than nought
   */
  pressed(nearMm: Mm = 0): { a: number; b: number; overMm: Mm }[] {
    const { pairs, middle } = this
    const { bead } = this.centres
    this.follow()
    const found: { a: number; b: number; overMm: Mm }[] = []
    for (let k = 0; k < pairs.count; k++) {
      const i = pairs.list[2 * k] as number
      const j = pairs.list[2 * k + 1] as number
      const dx = (middle[3 * j] as number) - (middle[3 * i] as number)
      const dy = (middle[3 * j + 1] as number) - (middle[3 * i + 1] as number)
      const dz = (middle[3 * j + 2] as number) - (middle[3 * i + 2] as number)
      const apart = Math.max(Math.sqrt(dx * dx + dy * dy + dz * dz), 1e-9)
      const [ux, uy, uz] = [dx / apart, dy / apart, dz / apart]
      const overMm = this.reach(i, ux, uy, uz) + this.reach(j, ux, uy, uz) - apart
      if (overMm > -nearMm) found.push({ a: bead[i] as number, b: bead[j] as number, overMm })
    }
    return found
  }

  private pushOut(): void {
    const { middle, normal } = this
    const { count, farthest } = this.centres
    for (const solid of this.piece.solids) {
      for (let i = 0; i < count; i++) {
        const x = (middle[3 * i] as number) - solid.x
        const y = (middle[3 * i + 1] as number) - solid.y
        const z = (middle[3 * i + 2] as number) - solid.z
        const far = solid.reachMm + (farthest[i] as number)
        if (x * x + y * y + z * z > far * far) continue
        const away = solid.distance(x, y, z, normal)
        if (away >= (farthest[i] as number)) continue
        const [nx, ny, nz] = [normal[0] as number, normal[1] as number, normal[2] as number]
        const over = this.reach(i, nx, ny, nz) - away
        if (over <= 0) continue
        const by = Math.min(over * 0.5, mostPush)
        this.shift(i, nx * by, ny * by, nz * by)
      }
    }
  }

  /** How far a bead reaches from a contact centre in a direction. */
  private reach(i: number, ux: number, uy: number, uz: number): Mm {
    const { at, rodOf, shapeOf, lengths } = this.piece
    const b = this.centres.bead[i] as number
    const rod = this.centres.rod[i] as number
    const p = 6 * rod
    const ax = (at[p + 3] as number) - (at[p] as number)
    const ay = (at[p + 4] as number) - (at[p + 1] as number)
    const az = (at[p + 5] as number) - (at[p + 2] as number)
    const length = lengths[rod] as number
    const cosine = (ux * ax + uy * ay + uz * az) / length
    if ((rodOf[b + 1] as number) - (rodOf[b] as number) === 2) {
      const shape = this.piece.shapes[shapeOf[b] as number] as Shape
      const twin = shape.twin as { wideMm: Mm; gapMm: Mm }
      const wide =
        (ux * ((at[p + 6] as number) - (at[p] as number)) +
          uy * ((at[p + 7] as number) - (at[p + 1] as number)) +
          uz * ((at[p + 8] as number) - (at[p + 2] as number))) /
        twin.gapMm
      const thick = Math.sqrt(Math.max(0, 1 - cosine * cosine - wide * wide))
      const { contact, acrossMm } = shape.bead
      return (
        ((Math.abs(cosine) / (length / 2)) ** contact +
          (Math.abs(wide) / (twin.wideMm / 2)) ** contact +
          (thick / (acrossMm / 2)) ** contact) **
        (-1 / contact)
      )
    }
    const table = this.tables[shapeOf[b] as number] as Float64Array
    const step = Math.min(1, cosine * cosine) * reachSteps
    const low = step | 0
    const share = step - low
    return (table[low] as number) * (1 - share) + (table[low + 1] as number) * share
  }

  /** Moves a bead so that its contact centre moves by this. */
  private shift(i: number, dx: number, dy: number, dz: number): void {
    const { at, rodOf } = this.piece
    const { middle } = this
    const b = this.centres.bead[i] as number
    const p = 6 * (this.centres.rod[i] as number)
    middle[3 * i] = (middle[3 * i] as number) + dx
    middle[3 * i + 1] = (middle[3 * i + 1] as number) + dy
    middle[3 * i + 2] = (middle[3 * i + 2] as number) + dz
    const t = this.centres.share[i] as number
    let [first, second] = [1, 1]
    if (t !== 0.5) {
      const by = 1 / ((1 - t) * (1 - t) + t * t)
      first = (1 - t) * by
      second = t * by
    }
    at[p] = (at[p] as number) + dx * first
    at[p + 1] = (at[p + 1] as number) + dy * first
    at[p + 2] = (at[p + 2] as number) + dz * first
    at[p + 3] = (at[p + 3] as number) + dx * second
    at[p + 4] = (at[p + 4] as number) + dy * second
    at[p + 5] = (at[p + 5] as number) + dz * second
    if ((rodOf[b + 1] as number) - (rodOf[b] as number) === 2) {
      for (const q of [p + 6, p + 9]) {
        at[q] = (at[q] as number) + dx
        at[q + 1] = (at[q + 1] as number) + dy
        at[q + 2] = (at[q + 2] as number) + dz
      }
    }
  }
}
