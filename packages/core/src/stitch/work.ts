/**
 * The work on the needle: every bead and every pass of the thread, in order.
 *
 * Statements only append. Counts, thread length, crowding, drawing and text are all read off these columns afterwards; nothing
 * is counted on the side. Bytes a bead and a pass are few, because a pattern may have 200,000 of them.
 */
import type { Mm } from '../measure/units'
import { gapLength, gapShares, type StitchGap, stitchGapNumber, stitchGaps } from '../thread/stitch-gap'
import { type Course, type Seat, strung } from './course'
import { beadOf, boreOf, entryOf, exitOf, type Hole, hole } from './hole'

/** Beads, and passes, that there is room for at first; it is doubled as it runs out. */
const someRoom = 1024

function widened<T extends Int32Array | Float64Array | Uint8Array>(column: T, length: number): T {
  const wider = new (column.constructor as new (length: number) => T)(length)
  wider.set(column)
  return wider
}

export class Work {
  private beadCount = 0
  private roles = new Int32Array(someRoom)
  private bornAt = new Int32Array(someRoom)
  private courseOf = new Int32Array(someRoom)
  private turns = new Float64Array(someRoom)
  private lifts = new Float64Array(someRoom)

  /** Passes of each bore, 255 at the most: bead * 2 + bore. */
  private filled = new Uint8Array(2 * someRoom)

  private passCount = 0
  private holes = new Int32Array(someRoom)
  private fresh = new Uint8Array(someRoom)
  private gapOf = new Uint8Array(someRoom)
  private statementOf = new Int32Array(someRoom)

  /** The pass at which each thread begins. */
  readonly threads: number[] = []
  /** Of a thread that is the tail of the one before it: the end that it comes out of, as the needle would have. */
  readonly tails = new Map<number, Hole>()
  /** The pass at which each doing of a line begins, of lines that lay any. */
  readonly doings: number[] = []
  readonly courses: Course[] = []
  /** The stones, by the course that holds each round its widest line. */
  readonly cores = new Map<number, string>()
  /** The passes before which the work was turned over. */
  private readonly turnedOver: number[] = []
  /** Beads that the piece hangs from as it is worn. */
  readonly hangsFrom: number[] = []
  /** Ends of bores held under the thread between two others, three by three: how a row stands on the row beneath. */
  readonly ties: number[] = []
  /** Ends of bores that a knot draws together, two by two: a ring that is tied and not passed again. */
  private readonly knots: number[] = []
  private joinedUpTo = 0
  private readonly joins = new Map<number, number[]>()
  /** Of a copy: what was joined in the work that it was copied from. */
  private joinedBefore: ReadonlyMap<number, readonly number[]> = new Map()

  get beads(): number {
    return this.beadCount
  }
  get passes(): number {
    return this.passCount
  }

  role = (bead: number): number => this.roles[bead] as number
  statementOfBead = (bead: number): number => this.bornAt[bead] as number
  turnOf = (bead: number): number => this.turns[bead] as number
  seat = (bead: number): Seat => ({
    course: this.courseOf[bead] as number,
    turn: this.turns[bead] as number,
    lift: this.lifts[bead] as number,
  })

  holeAt = (pass: number): Hole => this.holes[pass] as Hole
  isNew = (pass: number): boolean => this.fresh[pass] === 1
  statementAt = (pass: number): number => this.statementOf[pass] as number
  /** The gap before this pass; meaningless for the first of a thread. */
  gapAt = (pass: number): StitchGap => stitchGaps[this.gapOf[pass] as number] as StitchGap
  beginsThread = (pass: number): boolean => this.threads.includes(pass)

  /** The hole the needle has just come out of, if it is in the work at all. */
  get needle(): Hole | undefined {
    const begun = this.threads[this.threads.length - 1]
    return begun === undefined || begun >= this.passes
      ? this.tails.get(this.threads.length - 1)
      : this.holeAt(this.passes - 1)
  }

  /** @param tail where the tail of the thread before hangs out, when the needle goes on with it */
  newThread(tail?: Hole): void {
    this.threads.push(this.passes)
    if (tail !== undefined) this.tails.set(this.threads.length - 1, tail)
  }

  /** What the thread has passed before this pass; undefined at the beginning of a thread. */
  beforePass(pass: number): Hole | undefined {
    const thread = this.threads.indexOf(pass)
    return thread < 0 ? this.holeAt(pass - 1) : this.tails.get(thread)
  }

  begin(course: Course): number {
    return this.courses.push(course) - 1
  }

  /** The course that others were stitched on, down to the first. */
  firstOf(course: number): number {
    let at = course
    for (let below = this.courses[at]; below && 'on' in below && below.on !== undefined; below = this.courses[at])
      at = below.on
    return at
  }

  /** Whether a course was stitched on another, or on one that was; or is that one. */
  isOn(course: number, root: number): boolean {
    for (let at: number | undefined = course; at !== undefined; ) {
      if (at === root) return true
      const below: Course | undefined = this.courses[at]
      at = below && 'on' in below ? below.on : undefined
    }
    return false
  }

  turnOver(): void {
    this.turnedOver.push(this.passes)
  }

  get faceInHand(): 'front' | 'back' {
    return this.turnedOver.length % 2 === 0 ? 'front' : 'back'
  }

  /** Whether the work is ever turned over. */
  get hasTwoFaces(): boolean {
    return this.turnedOver.length > 0
  }

  /** The face in hand at each pass: 1 the front, -1 the back. */
  faces(): Int8Array {
    const faces = new Int8Array(this.passes)
    let turns = 0
    for (let pass = 0; pass < this.passes; pass++) {
      while ((this.turnedOver[turns] ?? Number.POSITIVE_INFINITY) <= pass) turns++
      faces[pass] = turns % 2 === 0 ? 1 : -1
    }
    return faces
  }

  /** How often the thread goes through this hole already. */
  passesThrough = (h: Hole): number => this.filled[h >> 1] as number

  /** Picks up a new bead. */
  pick(role: number, stitchGap: StitchGap, statement: number, seat: Seat, bore: 0 | 1 = 0): Hole {
    const bead = this.beadCount++
    if (bead === this.roles.length) this.widenBeads(2 * bead)
    this.roles[bead] = role
    this.bornAt[bead] = statement
    this.courseOf[bead] = seat.course
    this.turns[bead] = seat.turn
    this.lifts[bead] = seat.lift
    this.filled[2 * bead] = 0
    this.filled[2 * bead + 1] = 0
    this.append(hole(bead, bore), stitchGap, statement, true)
    return hole(bead, bore)
  }

  reseat(bead: number, seat: Seat): void {
    this.courseOf[bead] = seat.course
    this.turns[bead] = seat.turn
    this.lifts[bead] = seat.lift
  }

  /** Passes through a bead that is there already. */
  pass(h: Hole, stitchGap: StitchGap, statement: number): void {
    if (beadOf(h) >= this.beads) throw new RangeError(`Bead ${beadOf(h)} has not been picked up.`)
    this.append(h, stitchGap, statement, false)
  }

  /** The gap before the next pass, where a line has led the thread another way. */
  nextGap: StitchGap | undefined

  private append(h: Hole, stitchGap: StitchGap, statement: number, fresh: boolean): void {
    const pass = this.passCount++
    if (pass === this.holes.length) this.widenPasses(2 * pass)
    this.holes[pass] = h
    this.fresh[pass] = fresh ? 1 : 0
    this.gapOf[pass] = stitchGapNumber[this.nextGap ?? stitchGap]
    this.nextGap = undefined
    this.filled[h >> 1] = Math.min((this.filled[h >> 1] as number) + 1, 255)
    this.statementOf[pass] = statement
  }

  private widenBeads(beads: number): void {
    this.roles = widened(this.roles, beads)
    this.bornAt = widened(this.bornAt, beads)
    this.courseOf = widened(this.courseOf, beads)
    this.turns = widened(this.turns, beads)
    this.lifts = widened(this.lifts, beads)
    this.filled = widened(this.filled, 2 * beads)
  }

  private widenPasses(passes: number): void {
    this.holes = widened(this.holes, passes)
    this.fresh = widened(this.fresh, passes)
    this.gapOf = widened(this.gapOf, passes)
    this.statementOf = widened(this.statementOf, passes)
  }

  /** The same work once more. What is laid on the copy leaves this one as it is; this one rests while the copy is in use. */
  copy(): Work {
    const copy = this.upTo(this.passes, () => true)
    // A thread that has been begun and not yet sewn with.
    for (let thread = copy.threads.length; thread < this.threads.length; thread++)
      copy.newThread(this.tails.get(thread))
    copy.nextGap = this.nextGap
    this.joinedTo(0)
    copy.joinedUpTo = this.passes
    copy.joinedBefore = this.joinedBefore.size === 0 ? this.joins : bothOf(this.joinedBefore, this.joins)
    return copy
  }

  /**
   * The work as it was when the thread had been laid so far.
   *
   * @param laidIn whether a stone had been laid in by then, by its letter
   */
  upTo(passes: number, laidIn: (stone: string) => boolean): Work {
    const early = new Work()
    let beads = 0
    for (let pass = 0; pass < passes; pass++) if (this.isNew(pass)) beads++
    const [beadRoom, passRoom] = [Math.max(someRoom, beads), Math.max(someRoom, passes)]
    early.beadCount = beads
    early.roles = this.roles.slice(0, beadRoom)
    early.bornAt = this.bornAt.slice(0, beadRoom)
    early.courseOf = this.courseOf.slice(0, beadRoom)
    early.turns = this.turns.slice(0, beadRoom)
    early.lifts = this.lifts.slice(0, beadRoom)
    early.filled = this.filled.slice(0, 2 * beadRoom)
    early.passCount = passes
    early.holes = this.holes.slice(0, passRoom)
    early.fresh = this.fresh.slice(0, passRoom)
    early.gapOf = this.gapOf.slice(0, passRoom)
    early.statementOf = this.statementOf.slice(0, passRoom)
    early.threads.push(...this.threads.filter((pass) => pass < passes))
    for (const [thread, tail] of this.tails) if (thread < early.threads.length) early.tails.set(thread, tail)
    early.doings.push(...this.doings.filter((pass) => pass < passes))
    early.turnedOver.push(...this.turnedOver.filter((pass) => pass <= passes))
    early.hangsFrom.push(...this.hangsFrom.filter((bead) => bead < beads))
    early.courses.push(
      ...this.courses.map((course) => ('to' in course ? { ...course, to: Math.min(course.to, passes) } : course)),
    )
    for (const [course, stone] of this.cores) if (laidIn(stone)) early.cores.set(course, stone)
    for (let t = 0; t < this.ties.length; t += 3) {
      const tie = this.ties.slice(t, t + 3)
      if (tie.every((end) => beadOf(end) < beads)) early.ties.push(...tie)
    }
    for (let k = 0; k < this.knots.length; k += 2) {
      const knot = this.knots.slice(k, k + 2)
      if (knot.every((end) => beadOf(end) < beads)) early.knots.push(...knot)
    }
    return early
  }

  /**
   * The work with a part of it left out whose end is worked on as its beginning is: what came after goes on there.
   *
   * @param low no bead before this one is meant by what refers into the part
   * @returns undefined where something else refers into the part
   */
  without(from: number, to: number, low: number): Work | undefined {
    const shorter = new Work()
    let [beads, left, back] = [0, 0, 0]
    for (let pass = 0; pass < to; pass++) {
      if (pass >= from) back = Math.max(back, beads + left - beadOf(this.holeAt(pass)))
      if (!this.isNew(pass)) continue
      if (pass < from) beads++
      else left++
    }
    for (let pass = 0; pass < this.passes; pass++) {
      if (pass >= from && pass < to) continue
      const h = this.holeAt(pass)
      const bead = beadOf(h)
      const moved = bead >= beads ? bead - left : bead
      if (moved < low && moved !== bead) return undefined
      // Only what lies as near before the end as the part itself went back is there at its beginning.
      if (bead >= beads && bead < beads + left - back) return undefined
      if (this.beginsThread(pass)) {
        // A tail is told from its bead, which may be one of those left out.
        if (this.tails.has(this.threads.indexOf(pass))) return undefined
        shorter.newThread()
      }
      if (this.isNew(pass)) shorter.pick(this.role(bead), this.gapAt(pass), this.statementAt(pass), strung, boreOf(h))
      else shorter.pass(h - 4 * (bead - moved), this.gapAt(pass), this.statementAt(pass))
    }
    shorter.turnedOver.push(
      ...this.turnedOver.flatMap((pass) => (pass <= from ? [pass] : pass < to ? [] : [pass - (to - from)])),
    )
    return shorter
  }

  /** Makes beads that were gathered by hand a ring of their own, in the order of a walk along them. */
  gather(holes: readonly Hole[], lengthOf: (bead: number) => Mm): number {
    const course = this.begin({ kind: 'ring', along: holes })
    const total = holes.reduce((sum, h) => sum + lengthOf(beadOf(h)), 0)
    let before = 0
    for (const h of holes) {
      const length = lengthOf(beadOf(h))
      this.reseat(beadOf(h), { course, turn: (before + length / 2) / total, lift: 0 })
      before += length
    }
    return course
  }

  /** @param places the new number of each statement */
  renumberStatements(places: Int32Array): void {
    if (places.every((place, i) => place === i)) return
    for (let pass = 0; pass < this.passes; pass++) this.statementOf[pass] = places[this.statementAt(pass)] as number
    for (let bead = 0; bead < this.beads; bead++) this.bornAt[bead] = places[this.statementOfBead(bead)] as number
  }

  /** Takes back the last beads and passes: of a line that was found at fault half-way. */
  takeBack(beads: number, passes: number): void {
    for (let pass = this.passes - 1; pass >= passes; pass--) {
      const bore = this.holeAt(pass) >> 1
      const filled = this.filled[bore] as number
      if (filled < 255) this.filled[bore] = filled - 1
    }
    this.beadCount = Math.min(beads, this.beadCount)
    this.passCount = Math.min(passes, this.passCount)
    while ((this.doings[this.doings.length - 1] ?? -1) >= passes) this.doings.pop()
    while (this.ties.length > 0 && this.ties.slice(-3).some((end) => beadOf(end) >= beads)) this.ties.length -= 3
    while (this.knots.length > 0 && this.knots.slice(-2).some((end) => beadOf(end) >= beads)) this.knots.length -= 2
    this.nextGap = undefined
    if (this.joinedUpTo > passes) {
      this.joins.clear()
      this.joinedBefore = new Map()
      this.joinedUpTo = 0
    }
  }

  /** Ties the thread that comes out of one hole to where another is entered, as at the end of a ring. */
  knot(from: Hole, to: Hole): void {
    this.knots.push(exitOf(from), entryOf(to))
  }

  /** Ends of bores that thread joins to this one: where the needle can go on from here. */
  joinedTo(end: number): readonly number[] {
    for (let pass = Math.max(1, this.joinedUpTo); pass < this.passes; pass++) {
      const before = this.beforePass(pass)
      if (before !== undefined) this.join(exitOf(before), entryOf(this.holeAt(pass)))
    }
    for (let k = 0; k < this.knots.length; k += 2) this.join(this.knots[k] as number, this.knots[k + 1] as number)
    this.joinedUpTo = this.passes
    const [before, since] = [this.joinedBefore.get(end), this.joins.get(end)]
    return before && since ? [...before, ...since.filter((each) => !before.includes(each))] : (since ?? before ?? [])
  }

  private join(a: number, b: number): void {
    for (const [from, to] of [
      [a, b],
      [b, a],
    ] as const) {
      const joined = this.joins.get(from)
      if (!joined) this.joins.set(from, [to])
      else if (!joined.includes(to)) joined.push(to)
    }
  }

  /**
   * The length of the thread laid from one pass to another (not including it), gaps before each counted.
   *
   * @param lengths @param across of the beads of each role
   */
  pathLength(from: number, to: number, lengths: readonly Mm[], across: readonly Mm[]): Mm {
    const { threads, tails, holes, roles, gapOf } = this
    let path = 0
    let thread = threads.findLastIndex((begins) => begins <= from)
    let begins = threads[thread]
    for (let pass = from; pass < to; pass++) {
      while (thread + 1 < threads.length && (threads[thread + 1] as number) <= pass) begins = threads[++thread]
      const role = roles[beadOf(holes[pass] as Hole)] as number
      const before = pass === begins ? tails.get(thread) : (holes[pass - 1] as Hole)
      if (before !== undefined) {
        const acrossBefore = across[roles[beadOf(before)] as number] as Mm
        path += gapLength(gapShares[gapOf[pass] as number] as number, acrossBefore, across[role] as Mm)
      }
      path += lengths[role] as Mm
    }
    return path
  }
}

const bothOf = (
  before: ReadonlyMap<number, readonly number[]>,
  since: ReadonlyMap<number, readonly number[]>,
): ReadonlyMap<number, readonly number[]> => {
  const both = new Map(before)
  for (const [end, joined] of since) both.set(end, [...new Set([...(both.get(end) ?? []), ...joined])])
  return both
}
