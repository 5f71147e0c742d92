/**
 * Where every bead begins: rows by their profile, and everything else in the order of the thread: a run between two beads as an arc
 * that bulges away from the work, a strand straight out, a ring of its own as a circle, a strip that is joined to its own beginning
 * rolled up. A good beginning is most of the way to the shape.
 */
import type { Stone } from '../catalogue/stone'
import type { Mm } from '../measure/units'
import { beadOf, boreOf, entryOf, exitOf, type Hole, wayOf } from '../stitch/hole'
import type { Work } from '../stitch/work'
import { bend, roll } from './bend'
import { type Piece, pointAt } from './piece'
import { type Profile, profileOf } from './profile'
import { reachOf, type Shape } from './shape'
import { add, aside, cross, dot, minus, scaled, size, square, unit, type Vector } from './vector'

/** Where the middle of each first row has come to lie. */
export type Middles = ReadonlyMap<number, Vector>

export function layOut(piece: Piece, stoneOf: (letter: string) => Stone | undefined): Middles {
  return new LayOut(piece, stoneOf).all()
}

/** Between neighbours of a run, so that they do not begin inside each other. */
const ease = 0.05
const front: Vector = [0, 0, 1]

const samePass = (a: Hole, b: Hole) => boreOf(a) === boreOf(b) && wayOf(a) === wayOf(b)

class LayOut {
  private readonly work: Work
  private readonly placed: Uint8Array
  /** Sums of the places of the beads that thread joins to each bead, and how many. */
  private readonly near: Float64Array
  private readonly nearCount: Int32Array
  private readonly profile: Profile
  private readonly begins: ReadonlySet<number>
  private readonly middles = new Map<number, Vector>()
  private readonly inFrame = new Map<number, number[]>()
  /** Beads of the component in hand begin here. */
  private component = 0
  private right = Number.NEGATIVE_INFINITY

  constructor(
    private readonly piece: Piece,
    stoneOf: (letter: string) => Stone | undefined,
  ) {
    const { work } = piece
    this.work = work
    this.placed = new Uint8Array(work.beads)
    this.near = new Float64Array(work.beads * 3)
    this.nearCount = new Int32Array(work.beads)
    this.begins = new Set(work.threads)
    this.profile = profileOf(work, this.shape, stoneOf)
    for (let bead = 0; bead < work.beads; bead++) {
      const { course } = work.seat(bead)
      if (course < 0) continue
      const root = work.firstOf(course)
      const known = this.inFrame.get(root)
      if (known) known.push(bead)
      else this.inFrame.set(root, [bead])
    }
  }

  private shape = (bead: number): Shape => this.piece.shapes[this.piece.shapeOf[bead] as number] as Shape

  all(): Middles {
    const { work } = this
    for (let pass = 0; pass < work.passes; pass++) {
      const bead = beadOf(work.holeAt(pass))
      if (!this.placed[bead]) {
        const { course } = work.seat(bead)
        if (course >= 0) this.placeFrame(work.firstOf(course), pass)
        else this.placeRun(pass)
      }
      if (!this.begins.has(pass)) this.join(beadOf(work.holeAt(pass - 1)), bead)
    }
    this.turnArcs()
    return this.middles
  }

  // --- rows -----------------------------------------------------------------------------------------------------

  private placeFrame(root: number, pass: number): void {
    const beads = this.inFrame.get(root) ?? []
    const joint = this.middles.size > 0 || this.right > Number.NEGATIVE_INFINITY ? this.jointOf(root, pass) : undefined
    let middle: Vector = [0, 0, 0]
    let turn = 0
    if (joint) {
      const local = this.profile(joint.own).centre
      const other = this.centre(joint.other)
      const away = unit(square(this.outward(joint.other), front), [1, 0, 0])
      middle = add(other, away, Math.hypot(local[0], local[1]) + joint.gapMm)
      turn = Math.atan2(-away[1], -away[0]) - Math.atan2(local[1], local[0])
    } else if (this.right > Number.NEGATIVE_INFINITY) {
      const widest = Math.max(...beads.map((bead) => Math.abs(this.profile(bead).centre[0])))
      middle = [this.right + widest + 3, 0, 0]
      this.component = beads[0] ?? 0
    }
    this.middles.set(root, middle)
    const [cos, sin] = [Math.cos(turn), Math.sin(turn)]
    const turned = ([x, y, z]: Vector): Vector => [x * cos - y * sin, x * sin + y * cos, z]
    for (const bead of beads) {
      const { centre, axis, outward } = this.profile(bead)
      this.put(bead, add(middle, turned(centre)), turned(axis), scaled(turned(outward), -1))
    }
  }

  /** The first place where thread ties a frame that is still to be placed to what lies already. */
  private jointOf(root: number, from: number): { own: number; other: number; gapMm: Mm } | undefined {
    const { work } = this
    let own = -1
    let gapMm = 0
    let bridge: { own: number; other: number; gapMm: Mm } | undefined
    for (let pass = from; pass < work.passes; pass++) {
      const bead = beadOf(work.holeAt(pass))
      const { course } = work.seat(bead)
      if (course >= 0 && work.firstOf(course) === root) {
        if (pass === from && !this.begins.has(pass))
          bridge = { own: bead, other: beadOf(work.holeAt(pass - 1)), gapMm: 2 }
        own = bead
        gapMm = this.shape(bead).bead.acrossMm
      } else if (this.placed[bead]) {
        if (own >= 0 && !this.begins.has(pass)) return { own, other: bead, gapMm: gapMm + 0.5 }
        own = -1
      } else if (course >= 0) break
      else gapMm += this.shape(bead).bead.lengthMm
    }
    return bridge
  }

  /** Beads of arcs lie along the thread from the bead before to the bead after. */
  private turnArcs(): void {
    const { work } = this
    for (let pass = 1; pass < work.passes - 1; pass++) {
      if (!work.isNew(pass) || this.begins.has(pass) || this.begins.has(pass + 1)) continue
      const h = work.holeAt(pass)
      const bead = beadOf(h)
      const { course } = work.seat(bead)
      if (course < 0 || work.courses[course]?.kind !== 'arcs') continue
      const centre = this.centre(bead)
      const along = minus(this.centre(beadOf(work.holeAt(pass + 1))), this.centre(beadOf(work.holeAt(pass - 1))))
      if (size(along) > 1e-3) this.put(bead, centre, scaled(unit(along, [1, 0, 0]), wayOf(h)), [0, 0, -1])
    }
  }

  // --- runs -----------------------------------------------------------------------------------------------------

  private placeRun(from: number): void {
    const { work } = this
    const run: Hole[] = []
    const places = new Map<number, number>()
    let end = from
    for (; end < work.passes; end++) {
      const h = work.holeAt(end)
      const bead = beadOf(h)
      if ((end > from && this.begins.has(end)) || this.placed[bead] || places.has(bead) || work.seat(bead).course >= 0)
        break
      places.set(bead, run.length)
      run.push(h)
    }
    const follows = end < work.passes && !this.begins.has(end) ? work.holeAt(end) : undefined
    if (follows !== undefined && !places.has(beadOf(follows)) && !this.placed[beadOf(follows)])
      this.placeFrame(work.firstOf(work.seat(beadOf(follows)).course), end)
    const before = this.begins.has(from) ? undefined : work.holeAt(from - 1)
    const start = before === undefined ? this.fresh(run) : this.point(exitOf(before))
    const out = before === undefined ? ([1, 0, 0] as Vector) : this.outward(beadOf(before))
    const own = follows === undefined ? undefined : places.get(beadOf(follows))
    if (follows === undefined || (own !== undefined && !samePass(run[own] as Hole, follows)))
      this.strand(run, start, out)
    else if (own !== undefined) this.placeRing(run.slice(0, own), run.slice(own), before, start, out)
    else if (before === undefined) this.leadIn(run, follows)
    else this.between(run, before, start, follows)
  }

  /** A ring of its own, on a stem of the beads before it. */
  private placeRing(
    stem: readonly Hole[],
    ring: readonly Hole[],
    before: Hole | undefined,
    start: Vector,
    out: Vector,
  ): void {
    const [base, ...others] = ring as [Hole, ...Hole[]]
    if (before !== undefined || stem.length > 0) {
      this.strand(stem, start, out)
      const foot = add(start, out, this.lengthOf(stem))
      const round = this.roundOf(ring)
      this.along(ring, bend(foot, foot, round, out), scaled(out, -1), round)
    } else if (ring.length === 4) {
      this.put(beadOf(base), start, [0, wayOf(base), 0], [0, 0, -1], boreOf(base))
      this.unit(base, others, [1, 0, 0])
    } else this.circle(ring, start)
  }

  /** Work that begins with beads before it comes to what is there already. */
  private leadIn(run: readonly Hole[], follows: Hole): void {
    const target = this.point(entryOf(follows))
    const length = this.lengthOf(run)
    const out = this.outward(beadOf(follows))
    this.along(run, bend(add(target, out, length), target, length, out), scaled(out, -1))
  }

  private between(run: readonly Hole[], before: Hole, start: Vector, follows: Hole): void {
    const target = this.point(entryOf(follows))
    const length = this.lengthOf(run)
    if (beadOf(before) === beadOf(follows)) {
      this.loop(run, before, follows)
      return
    }
    const chord = size(minus(target, start))
    const flat = this.work.seat(beadOf(before)).course < 0 && this.work.seat(beadOf(follows)).course < 0
    const closes = flat && chord > 3 * length && chord > 5
    if (closes) this.rollUp(target, start, length)
    const from = closes ? this.point(exitOf(before)) : start
    const both = add(this.outward(beadOf(before)), this.outward(beadOf(follows)))
    // Where the two ends look away from each other the run lies over the work.
    const out = size(both) < 0.6 ? front : unit(both, front)
    this.along(run, bend(from, this.point(entryOf(follows)), length, out), scaled(out, -1))
  }

  /** Out of a bead and again through it, or back down it. */
  private loop(run: readonly Hole[], before: Hole, follows: Hole): void {
    const out = this.outward(beadOf(before))
    if (run.length === 3 && before === follows) {
      this.unit(before, run, out)
      return
    }
    const base = wayOf(before) === wayOf(follows) ? this.shape(beadOf(before)).bead.lengthMm : 0
    const round = Math.max(this.lengthOf(run), this.roundOf([...run, before]) - base)
    const curve = bend(this.point(exitOf(before)), this.point(entryOf(follows)), round, out)
    this.along(run, curve, scaled(out, -1), round)
  }

  /** A strip joined to its own beginning closes into a band. */
  private rollUp(start: Vector, end: Vector, gapMm: Mm): void {
    const { at } = this.piece
    const rolled = roll(start, end, gapMm)
    for (let bead = this.component; bead < this.work.beads; bead++) {
      if (!this.placed[bead]) continue
      for (const end of this.ends(bead)) {
        const [x, y, z] = rolled([at[end] as number, at[end + 1] as number, at[end + 2] as number])
        at[end] = x
        at[end + 1] = y
        at[end + 2] = z
      }
    }
    this.near.fill(0)
    this.nearCount.fill(0)
    for (let pass = 1; pass < this.work.passes; pass++) {
      const [a, b] = [beadOf(this.work.holeAt(pass - 1)), beadOf(this.work.holeAt(pass))]
      if (!this.placed[a] || !this.placed[b]) break
      if (!this.begins.has(pass)) this.join(a, b)
    }
  }

  private ends = (bead: number): number[] => {
    const ends: number[] = []
    for (let rod = this.piece.rodOf[bead] as number; rod < (this.piece.rodOf[bead + 1] as number); rod++)
      ends.push(rod * 6, rod * 6 + 3)
    return ends
  }

  /** Where work begins that hangs on nothing. */
  private fresh(run: readonly Hole[]): Vector {
    if (this.right === Number.NEGATIVE_INFINITY) return [0, 0, 0]
    this.component = beadOf(run[0] as Hole)
    return [this.right + 3, 0, 0]
  }

  /**
   * A right-angle unit on the bead it shares: the bead opposite lies side by side with that one, the two between rest on the shoulders
   * of both.
   */
  private unit(base: Hole, run: readonly Hole[], out: Vector): void {
    const [first, opposite, last] = run as [Hole, Hole, Hole]
    const along = unit(minus(this.point(exitOf(base)), this.centre(beadOf(base))), [0, 1, 0])
    const half = (this.acrossOf(base) + this.acrossOf(opposite)) / 4
    const middle = this.centre(beadOf(base))
    const second = scaled(out, -1)
    const lay = (h: Hole, place: Vector, way: Vector) =>
      this.put(beadOf(h), place, scaled(way, wayOf(h)), second, boreOf(h))
    const side = (h: Hole) => this.shoulder(base, h, half)
    lay(first, add(add(middle, out, half), along, side(first)), out)
    lay(opposite, add(middle, out, 2 * half), scaled(along, -1))
    lay(last, add(add(middle, out, half), along, -side(last)), scaled(out, -1))
  }

  private acrossOf = (h: Hole): Mm => this.shape(beadOf(h)).bead.acrossMm

  /** How high above the middle of an upright bead another lies across its end, this far to the side. */
  private shoulder(upright: Hole, across: Hole, aside: Mm): Mm {
    const [u, a] = [this.shape(beadOf(upright)).bead, this.shape(beadOf(across)).bead]
    let [low, high] = [0, (u.lengthMm + a.acrossMm) / 2]
    for (let i = 0; i < 30; i++) {
      const height = (low + high) / 2
      const apart = Math.hypot(aside, height)
      const near =
        reachOf(u.lengthMm, u.acrossMm, u.contact, height / apart) +
        reachOf(a.lengthMm, a.acrossMm, a.contact, aside / apart)
      if (apart < near) low = height
      else high = height
    }
    return high
  }

  /** Clockwise from the left, so that what is woven on goes to the right. */
  private circle(ring: readonly Hole[], left: Vector): void {
    const length = this.roundOf(ring)
    const radius = length / (2 * Math.PI)
    const first = (this.shape(beadOf(ring[0] as Hole)).bead.lengthMm * length) / this.lengthOf(ring) / 2
    this.along(
      ring,
      (at) => {
        const angle = Math.PI - (2 * Math.PI * (at - first)) / length
        return add(left, [radius * (1 + Math.cos(angle)), radius * Math.sin(angle), 0])
      },
      [0, 0, -1],
      length,
    )
  }

  private strand(run: readonly Hole[], start: Vector, out: Vector): void {
    this.along(run, (at) => add(start, out, at), aside(out))
  }

  /** @param over the length of the curve to lay them on, where that is more than their own */
  private along(run: readonly Hole[], curve: (at: Mm) => Vector, second: Vector, over = this.lengthOf(run)): void {
    const apart = over / this.lengthOf(run)
    let at = (ease / 2) * apart
    for (const h of run) {
      const { lengthMm } = this.shape(beadOf(h)).bead
      const [a, b] = [curve(at), curve(at + lengthMm * apart)]
      const middle = apart > 1.05 ? curve(at + (lengthMm * apart) / 2) : scaled(add(a, b), 0.5)
      at += (lengthMm + ease) * apart
      this.put(beadOf(h), middle, scaled(unit(minus(b, a), [1, 0, 0]), wayOf(h)), second, boreOf(h))
    }
  }

  private lengthOf = (run: readonly Hole[]): Mm =>
    run.reduce((sum, h) => sum + this.shape(beadOf(h)).bead.lengthMm + ease, 0)

  /** Round a small ring: beads that turn a corner touch at their shoulders, so that few of them need more room than their lengths. */
  private roundOf(ring: readonly Hole[]): Mm {
    const turn = Math.PI / ring.length
    const reach = ring.reduce((sum, h) => {
      const { lengthMm, acrossMm, contact } = this.shape(beadOf(h)).bead
      return sum + reachOf(lengthMm, acrossMm, contact, Math.cos(turn))
    }, 0)
    return Math.max(this.lengthOf(ring), (2 * Math.PI * reach) / ring.length / Math.sin(turn))
  }

  // --- places ---------------------------------------------------------------------------------------------------

  /** Lays a bead, the bore that is strung on the spot and the other, if there is one, to the side of it. */
  private put(bead: number, centre: Vector, axis: Vector, second: Vector, bore: 0 | 1 = 0): void {
    const { at, rodOf } = this.piece
    const { bead: record, twin } = this.shape(bead)
    const half = record.lengthMm / 2
    const rod = rodOf[bead] as number
    const lay = (which: number, middle: Vector) => {
      at.set(add(middle, axis, -half), which * 6)
      at.set(add(middle, axis, half), which * 6 + 3)
    }
    lay(rod + (twin ? bore : 0), centre)
    if (twin) {
      const side = unit(square(second, axis), aside(axis))
      lay(rod + 1 - bore, add(centre, side, twin.gapMm))
    }
    this.placed[bead] = 1
    this.right = Math.max(this.right, centre[0] + record.lengthMm)
  }

  private point(end: number): Vector {
    const { at } = this.piece
    const p = pointAt(this.piece, end) * 3
    return [at[p] as number, at[p + 1] as number, at[p + 2] as number]
  }

  private centre(bead: number): Vector {
    const { at, rodOf } = this.piece
    const p = (rodOf[bead] as number) * 6
    return [
      ((at[p] as number) + (at[p + 3] as number)) / 2,
      ((at[p + 1] as number) + (at[p + 4] as number)) / 2,
      ((at[p + 2] as number) + (at[p + 5] as number)) / 2,
    ]
  }

  private join(a: number, b: number): void {
    if (a === b) return
    for (const [bead, [x, y, z]] of [
      [a, this.centre(b)],
      [b, this.centre(a)],
    ] as const) {
      this.near[bead * 3] = (this.near[bead * 3] as number) + x
      this.near[bead * 3 + 1] = (this.near[bead * 3 + 1] as number) + y
      this.near[bead * 3 + 2] = (this.near[bead * 3 + 2] as number) + z
      this.nearCount[bead] = (this.nearCount[bead] as number) + 1
    }
  }

  /** Away from the beads that thread joins to a bead. */
  private outward(bead: number): Vector {
    const count = this.nearCount[bead] as number
    const centre = this.centre(bead)
    const axis = unit(minus(this.point(bead * 4 + 1), centre), [1, 0, 0])
    const away: Vector =
      count === 0
        ? [0, 0, 0]
        : minus(centre, [
            (this.near[bead * 3] as number) / count,
            (this.near[bead * 3 + 1] as number) / count,
            (this.near[bead * 3 + 2] as number) / count,
          ])
    const beside = square(away, axis)
    if (size(beside) > 0.02) return unit(beside, front)
    const { course } = this.work.seat(bead)
    const middle = course < 0 ? undefined : this.middles.get(this.work.firstOf(course))
    // A standing bead looks the way its hole does.
    if (middle && course >= 0 && this.work.courses[course]?.kind === 'standing')
      return unit(scaled(axis, Math.sign(dot(axis, minus(centre, middle))) || 1), axis)
    const fromMiddle = middle ? square(minus(centre, middle), axis) : ([0, 0, 0] as Vector)
    return unit(fromMiddle, unit(cross(front, axis), front))
  }
}
