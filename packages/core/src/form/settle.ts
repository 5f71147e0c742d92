/**
 * Settling: from where a piece has unfolded to where its thread is shortest. A few beginnings are tried softly, the flattest of the good
 * ones goes on, and its beads grow hard by and by. Nothing is random and no clock is read: the same piece settles to the same place, to
 * the bit, however it is sliced.
 */
import type { Mm } from '../measure/units'
import type { Extents, Progress } from '../report/measures'
import type { Tension } from '../thread/settings'
import { Bodies, bodyColumns, freedoms } from './bodies'
import { deepestPress } from './deepest-press'
import { Energy, type Strengths } from './energy'
import { extentsOf } from './extents'
import { againstTold, layOver } from './face'
import type { Press } from './forces/press'
import { gapingThreads, laidThread } from './gaping'
import type { KeptForm } from './kept-forms'
import { type Laid, laidAs, lay } from './laid'
import type { Lengthened } from './long'
import { type Minimised, Minimiser, minimiserColumns } from './minimise'
import { depthOf, type Piece } from './piece'
import { draw, shake, thinness } from './shake'
import { keepRoomToTurn } from './start'
import { bestOf, compare, type Tried } from './tried'
import { turnToEye } from './turn-to-eye'
import type { Beginning } from './unfold'
import type { Vector } from './vector'

const tensionOf: Readonly<Record<Tension, number>> = { firm: 1.5, usual: 1, relaxed: 0.5 }

interface Stage extends Strengths {
  readonly iterations: number
}

/** Soft, so that what begins inside each other can pass, and with room, so that tubes come out round. */
const opening: Stage = { stiffness: 6, room: 2, rubbing: 4, mat: 0.06, iterations: 80 }

/** Work that begins as it unfolded has farther to come than work that begins flat. */
const openingWide: Stage = { ...opening, room: 4 }

/** What holds a stone begins close to it, and stays there. */
const openingOnStone: Stage = { ...opening, room: 0 }

const drawingUp: Stage = { stiffness: 12, room: 0, rubbing: 4, mat: 0.06, iterations: 120 }

const hardening: readonly Stage[] = [
  { stiffness: 12, room: 0, rubbing: 2, mat: 0.06, iterations: 250 },
  { stiffness: 50, room: 0, rubbing: 0.6, mat: 0.01, iterations: 250 },
  { stiffness: 250, room: 0, rubbing: 0.4, mat: 0.003, iterations: Number.POSITIVE_INFINITY },
]

/** Of a long piece that begins as a few of its repeats lie. */
const lengthened: readonly Stage[] = hardening.slice(1)

/** Enough for a piece that grows by a line: it is looked at, and not measured. */
const growing: readonly Stage[] = [
  { stiffness: 12, room: 0, rubbing: 2, mat: 0.03, iterations: 80 },
  { stiffness: 100, room: 0, rubbing: 0.6, mat: 0.003, iterations: 200 },
]

/** Of a piece of so many beads this many beginnings are brought to rest: the one with the least thread is true. */
const likeliest = (beads: number): number => Math.max(1, Math.min(3, Math.floor(450 / beads)))

/** Where a long piece takes this times as much thread as it would if it lay as its few do, it was caught on its way. */
const asMuchThread = 1.08
/** Layouts whose cost is the same but for this share. */
const alikeShare = 0.02
/** It lies as they do where it takes as much but for this share. */
const asFewDo = 0.02

/** How often a piece of so many beads is shaken. */
const shakes = (beads: number): number => Math.min(4, Math.floor(1200 / beads))

/** A few repeats of a long piece are drawn askew at once. */
const shakesOfPart = 2

/** What finds a truer rest each time is shaken no more often. */
const maxShakes = 6

/** While beads are soft, those that are pressed deeper than this have passed into each other. */
const throughEachOther = 0.5

/** What is stiff comes back to this share of its extents, from two other starts, and need not be shaken again. */
const stiff = 0.0015
const stiffAfter = 2

/**
 * How thick a piece is tried again, as a share of how it unfolded. The ways along a sheet do not say how it is dented: work that can lie flat
 * on a mat does, and what cannot is round.
 */
const flattened = [0.3, 0.08]

/** At rest when the energy has fallen by less than this share of itself in so many iterations. */
const restShare = 1.5e-4

const window = 50

/**
 * A few repeats, of which only the middle is used, and what begins as they lie are looked at this often: they need not go on to the end of a
 * window.
 */
const often = 10

/** A long piece that lies nearly as it will, since a few of its repeats do. */
export interface AsFew extends Lengthened {
  /** By what share of itself each extent of theirs is not decided. */
  readonly undecided: Extents | undefined
  /** Where it begins if it does not lie as they do. */
  readonly otherwise: () => readonly Beginning[]
}

/** Finds where a piece begins, an iteration at a time. */
export type Begin = (settling: Settling) => Generator<void, readonly Beginning[] | AsFew>

/** A beginning, and how it opens. */
interface Begun {
  readonly begun: Float64Array
  readonly isFlat: boolean
  readonly tried: Tried
}

/**
 * A whole piece; a few repeats of a longer one, of which less has to be found out; or work that has grown by a line, lies nearly as it will, and stays
 * turned as it is.
 */
export type Settles = 'whole' | 'part' | 'grown'

export class Settling {
  /** What it is settled with, from the first iteration until it is at rest. */
  private tools: { readonly energy: Energy; readonly bodies: Bodies } | undefined
  private readonly work: Iterator<void>
  private iterations = 0
  private moveMm: Mm = Number.POSITIVE_INFINITY
  private settled = false

  constructor(
    readonly piece: Piece,
    private readonly tension: Tension = 'usual',
    /** Where it begins; as the piece lies, where nothing is given. */
    begin: readonly Beginning[] | Begin = [],
    /** Iterations it may take. */
    readonly budget = 16_000,
    private readonly settles: Settles = 'whole',
  ) {
    this.work = settles === 'grown' ? this.grow() : this.settle(begin)
  }

  private get energy(): Energy {
    return this.working().energy
  }
  private get bodies(): Bodies {
    return this.working().bodies
  }

  private working() {
    if (this.tools) return this.tools
    const { piece, tension } = this
    const size = freedoms * (piece.work.beads + piece.solids.length)
    const energy = Energy.of(piece, tensionOf[tension], opening, { ...bodyColumns(piece), ...minimiserColumns(size) })
    this.tools = { energy, bodies: new Bodies(energy.kernel, piece) }
    return this.tools
  }

  private putAway(): void {
    this.tools?.energy.kernel.release()
    this.tools = undefined
  }

  /** Counts what is done elsewhere for this piece. */
  spend(iterations: number): void {
    this.iterations += iterations
  }

  /** A piece that has been at rest before. */
  static atRest(piece: Piece, form: KeptForm): Settling {
    const settling = new Settling(piece)
    settling.takeOver(form)
    return settling
  }

  /** Looks whether this form has been found elsewhere, now and then while it is being computed. */
  elsewhere: (() => KeptForm | undefined) | undefined

  private takeOver({ at, natural, solids, iterations, moveMm, spreadMm }: KeptForm): void {
    const { piece } = this
    lay(piece, { at, solids })
    piece.natural.set(natural)
    this.iterations = iterations
    this.moveMm = moveMm
    this.spreadMm = spreadMm
    this.checking = false
    this.settled = true
    this.putAway()
  }

  /** It has lain as it will: how far its sizes are decided is being found out, and how it lies meanwhile is nothing to look at. */
  checking = false

  /** How far its extents come out otherwise from another start; undefined where none was tried that was as good. */
  spreadMm: Extents | undefined

  /** Told once, when it has come to rest. */
  onRest: ((form: KeptForm) => void) | undefined

  get progress(): Progress {
    const { iterations, moveMm, settled } = this
    return { iterations, moveMm, settled, spent: iterations >= this.budget }
  }

  /** Goes on for so many iterations, or until it is at rest or the budget is used up. */
  run(iterations: number): Progress {
    const found = this.settled ? undefined : this.elsewhere?.()
    if (found) this.takeOver(found)
    for (let i = 0; i < iterations; i++) {
      const { settled, spent } = this.progress
      if (settled || spent) break
      this.work.next()
    }
    return this.progress
  }

  pressed(nearMm: Mm = 0): Press[] {
    return this.tools ? this.tools.energy.pressed(nearMm) : Energy.pressed(this.piece, nearMm)
  }

  /** All of it, an iteration at a time. */
  private *settle(begin: readonly Beginning[] | Begin): Generator<void> {
    const { piece } = this
    const found = typeof begin === 'function' ? yield* begin(this) : begin
    const rests: Tried[] = []
    if ('layouts' in found) {
      yield* this.asFew(found)
      const share = laidThread(piece) / found.threadMm
      if (share < asMuchThread) {
        turnToEye(piece)
        if (Math.abs(share - 1) < asFewDo) this.spreadMm = scaledBy(found.undecided, extentsOf(piece))
        this.rest()
        return
      }
      rests.push(this.tried())
    }
    const beginnings = 'layouts' in found ? found.otherwise() : found
    const likeliest = yield* this.likeliest(beginnings)
    for (const begun of likeliest) rests.push(yield* this.toRest(begun))
    this.checking = true
    const truest = yield* this.shaken(bestOf(rests), likeliest[0]?.begun)
    this.checking = false
    this.layAs(truest)
    this.rest()
  }

  /** From the layout that turns out best. */
  private *asFew({ layouts }: Lengthened): Generator<void> {
    const { bodies, energy, piece } = this
    const [first, ...others] = lengthened as [Stage, ...Stage[]]
    const unlaid = Float64Array.from(piece.natural)
    const layOut = (laid: Float64Array) => {
      piece.at.set(laid)
      piece.natural.set(unlaid)
      keepRoomToTurn(piece)
      bodies.read()
    }
    energy.strengths = first
    const costs = layouts.map((laid) => {
      layOut(laid)
      return energy.evaluate()
    })
    // Those that cost as much lie alike.
    const unlike = layouts.filter(
      (_, k) => !costs.slice(0, k).some((cost) => Math.abs(cost - (costs[k] as number)) < alikeShare * cost),
    )
    const opened: { readonly natural: Float64Array; readonly tried: Tried }[] = []
    for (const laid of unlike) {
      layOut(laid)
      yield* this.through(first, often)
      // Which is the flattest is told as they lie to the eye.
      if (unlike.length > 1) {
        turnToEye(piece)
        bodies.read()
      }
      opened.push({ natural: Float64Array.from(piece.natural), tried: this.tried() })
    }
    const best = bestOf(opened.map(({ tried }) => tried))
    for (const { natural, tried } of opened) if (tried === best) piece.natural.set(natural)
    bodies.restore(best.bodies)
    for (const stage of others) yield* this.through(stage, often)
  }

  /**
   * Shaken, and brought to rest again: what is clearly truer is how it lies, and what is as good says how far its extents are decided.
   *
   * @returns the truest that was found; `spreadMm` is undefined where nothing else was as good
   */
  private *shaken(best: Tried, begun: Float64Array | undefined): Generator<void, Tried> {
    const { bodies, piece } = this
    let truest = best
    let extents = this.layAs(truest)
    let spread: Extents | undefined
    const isPart = this.settles === 'part'
    const first = isPart ? 1 : 0
    let left = first + (isPart ? shakesOfPart : shakes(bodies.count))
    for (let time = first; time < left && this.iterations < this.budget / 2; time++) {
      this.layAs(truest)
      // What lies on a stone is held by it: it is begun again.
      if (piece.solids.length === 0) draw(piece.at, time)
      else if (begun && time % 2 === 1) bodies.restore(begun)
      shake(piece.at, time, piece.solids.length > 0 ? 1 : thinness(extents))
      bodies.read()
      if (time > 0) yield* this.through(this.softest())
      yield* this.through(drawingUp)
      for (const stage of hardening) yield* this.through(stage)
      const again = this.tried()
      const other = this.layAs(again)
      const compared = compare(again, truest, other[2] / extents[2])
      if (compared === 'other') continue
      if (compared === 'truer') {
        // How far it is decided has to be found out once more.
        left = isPart ? left : Math.min(time + 1 + shakes(bodies.count), maxShakes)
        truest = again
        extents = other
        spread = undefined
        continue
      }
      const off = (k: 0 | 1 | 2): Mm => Math.max(spread?.[k] ?? 0, Math.abs(other[k] - extents[k]))
      spread = [off(0), off(1), off(2)]
      if (time + 1 - first >= stiffAfter && spread.every((mm, k) => mm < stiff * (extents[k] as Mm))) break
    }
    this.spreadMm = spread
    return truest
  }

  /** How what was tried lies, turned to the eye. */
  private readonly turned = new WeakMap<Tried, Laid & { readonly extents: Extents }>()

  /** Lays the piece as it was tried, turned to the eye. @returns its extents so */
  private layAs(tried: Tried): Extents {
    const { piece } = this
    this.bodies.restore(tried.bodies)
    const known = this.turned.get(tried)
    if (known) {
      lay(piece, known)
      return known.extents
    }
    turnToEye(piece)
    const extents = extentsOf(piece)
    this.turned.set(tried, { ...laidAs(piece), extents })
    return extents
  }

  /** From one beginning, or flattened from it. */
  private *toRest({ begun, isFlat, tried }: Begun): Generator<void, Tried> {
    const { bodies, piece } = this
    bodies.restore(tried.bodies)
    yield* this.through(drawingUp)
    const drawn = [this.tried()]
    // What lies on a stone begins as it lies on it; what is flat is not pressed flat, where it would be pressed into itself while it is soft.
    for (const share of piece.solids.length > 0 || isFlat ? [] : flattened) {
      bodies.restore(begun)
      bodies.flatten(share)
      layOver(piece, bodies)
      yield* this.through(opening)
      layOver(piece, bodies)
      yield* this.through(drawingUp)
      drawn.push(this.tried())
    }
    bodies.restore(bestOf(drawn, throughEachOther).bodies)
    for (const stage of hardening) yield* this.through(stage)
    return this.tried()
  }

  private *grow(): Generator<void> {
    for (const stage of growing) yield* this.through(stage)
    this.rest()
  }

  private rest(): void {
    this.settled = true
    this.putAway()
    this.onRest?.(this.asKept())
  }

  /** The beginnings that open best, as many as the piece is small, the flat one among them. */
  private *likeliest(beginnings: readonly Beginning[]): Generator<void, readonly Begun[]> {
    const { bodies, piece } = this
    const opened: Begun[] = []
    const asItLies = { at: Float64Array.from(piece.at), isFlat: false }
    for (const { at, isFlat } of beginnings.length > 0 ? beginnings : [asItLies]) {
      piece.at.set(at)
      bodies.read()
      if (piece.solids.length > 0 && piece.work.hasTwoFaces) layOver(piece, bodies, this.onStones())
      const begun = bodies.save()
      yield* this.through(this.softest())
      opened.push({ begun, isFlat, tried: this.tried() })
    }
    const wanted = likeliest(bodies.count)
    opened.sort((a, b) => a.tried.energy - b.tried.energy)
    const flat = wanted > 1 ? opened.filter(({ isFlat }) => isFlat) : []
    return [...opened.filter((each) => !flat.includes(each)).slice(0, wanted - flat.length), ...flat]
  }

  private softest(): Stage {
    return this.piece.solids.length > 0 ? openingOnStone : openingWide
  }

  /** By bead: 1 where it lies against a stone or a ring. */
  private onStones(): Uint8Array {
    const { work, solids, rodOf } = this.piece
    const rests = new Set(solids.flatMap((solid) => [...solid.rests]))
    return Uint8Array.from({ length: work.beads }, (_, bead) => (rests.has(2 * (rodOf[bead] as number)) ? 1 : 0))
  }

  /** One stage, until nothing more is gained or its iterations are used up. */
  private *through(stage: Stage, lookEvery = this.settles === 'part' ? often : window): Generator<void> {
    this.energy.strengths = stage
    const minimiser = new Minimiser(this.energy.kernel, minimised(this.energy, this.bodies))
    const energies = new Float64Array(window / lookEvery).fill(Number.POSITIVE_INFINITY)
    for (let i = 1; i <= stage.iterations && !minimiser.stuck; i++) {
      this.moveMm = minimiser.iterate()
      this.iterations++
      yield
      if (i % lookEvery !== 0) continue
      const place = (i / lookEvery) % energies.length
      const before = energies[place] as number
      energies[place] = minimiser.energy
      if (before - minimiser.energy < restShare * Math.abs(minimiser.energy)) return
    }
  }

  /** As it lies, to be kept. */
  asKept(): KeptForm {
    return {
      ...laidAs(this.piece),
      natural: Float64Array.from(this.piece.natural),
      iterations: this.iterations,
      moveMm: this.moveMm,
      spreadMm: this.spreadMm,
    }
  }

  private tried(): Tried {
    // What room gives, and what lying flat saves, is no reason to be folded.
    this.energy.strengths = { ...this.energy.strengths, room: 0, mat: 0 }
    return {
      bodies: this.bodies.save(),
      energy: this.energy.evaluate(),
      depthMm: depthOf(this.piece),
      gaping: gapingThreads(this.piece),
      pressed: deepestPress(this.piece, this.pressed()),
      against: againstTold(this.piece, this.bodies.middle),
    }
  }
}

const scaledBy = (shares: Extents | undefined, [wide, high, deep]: Vector): Extents | undefined =>
  shares && [shares[0] * wide, shares[1] * high, shares[2] * deep]

function minimised(energy: Energy, bodies: Bodies): Minimised {
  const kept = bodies.save()
  return {
    size: bodies.count * freedoms,
    evaluate(into) {
      const now = energy.evaluate()
      bodies.gather(energy.onSolids, into)
      return now
    },
    move: (by) => bodies.move(by),
    keep: () => bodies.saveTo(kept),
    putBack: () => bodies.restore(kept),
  }
}
