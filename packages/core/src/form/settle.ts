/**
 * Settling: from where a piece has unfolded to where its thread is shortest. A few beginnings are tried softly, the flattest of the good
 * ones goes on, and its beads grow hard by and by. Nothing is random and no clock is read: the same piece settles to the same place, to
 * the bit, however it is sliced.
 */
import type { Mm } from '../measure/units'
import type { Tension } from '../thread/settings'
import { Bodies, freedoms } from './bodies'
import { Energy, type Strengths } from './energy'
import type { Press } from './forces/press'
import { gapingThreads } from './gaping'
import { type Minimised, Minimiser } from './minimise'
import type { Piece } from './piece'
import { turnToEye } from './turn-to-eye'

export interface Progress {
  readonly iterations: number
  /** The largest move of the last iteration. */
  readonly moveMm: Mm
  /** At rest: its thread grows no shorter. */
  readonly settled: boolean
  /** The iterations it may take are used up. */
  readonly spent: boolean
}

const tensionOf: Readonly<Record<Tension, number>> = { firm: 1.5, usual: 1, relaxed: 0.5 }

interface Stage extends Strengths {
  readonly iterations: number
}

/**
 * How thick a piece begins, as a share of how it unfolded. The ways along a sheet do not say how it is dented: work that can lie flat on a
 * mat does, and what cannot is round.
 */
const beginnings = [0.08, 0.3, 1]
/** Work that begins thick has farther to come, and is given more room. */
const roomier = 2
/** Soft, so that what begins inside each other can pass. */
const trial: readonly Stage[] = [
  { stiffness: 6, room: 2, rubbing: 4, mat: 0.06, iterations: 80 },
  { stiffness: 12, room: 0, rubbing: 4, mat: 0.06, iterations: 120 },
]
const hardening: readonly Stage[] = [
  { stiffness: 12, room: 0, rubbing: 2, mat: 0.06, iterations: 250 },
  { stiffness: 50, room: 0, rubbing: 1, mat: 0.01, iterations: 250 },
  { stiffness: 250, room: 0, rubbing: 0.5, mat: 0.003, iterations: Number.POSITIVE_INFINITY },
]
/** Of beginnings whose energy is nearly as little, the flattest is taken. */
const nearly = 1.04

/** At rest when the energy falls by less than this share of itself in so many iterations. */
const restShare = 5e-4
const window = 50

interface Tried {
  readonly bodies: Float64Array
  readonly energy: number
  readonly depthMm: Mm
  readonly gaping: number
}

export class Settling {
  readonly energy: Energy
  private readonly bodies: Bodies
  private readonly unfolded: Float64Array
  /** A piece on a stone begins as it lies on it. */
  private readonly beginnings: readonly number[]
  private readonly tried: Tried[] = []
  private minimiser: Minimiser
  private stages = trial
  private stage = 0
  private inStage = 0
  private iterations = 0
  private move: Mm = Number.POSITIVE_INFINITY
  private marked = Number.POSITIVE_INFINITY
  private rests = false

  constructor(
    readonly piece: Piece,
    tension: Tension = 'usual',
    /** Iterations it may take. */
    readonly budget = 4000,
  ) {
    this.energy = new Energy(piece, tensionOf[tension], this.stages[0] as Stage)
    this.bodies = new Bodies(piece)
    this.unfolded = this.bodies.save()
    this.beginnings = piece.solids.length > 0 ? [1] : beginnings
    this.bodies.flatten(this.beginnings[0] as number)
    this.minimiser = this.enter()
  }

  get progress(): Progress {
    return {
      iterations: this.iterations,
      moveMm: this.move,
      settled: this.rests,
      spent: this.iterations >= this.budget,
    }
  }

  /** Goes on for so many iterations, or until it is at rest or the budget is used up. */
  run(iterations: number): Progress {
    for (let i = 0; i < iterations; i++) {
      const { settled, spent } = this.progress
      if (settled || spent) break
      this.step()
    }
    return this.progress
  }

  private enter(): Minimiser {
    const stage = this.stages[this.stage] as Stage
    const thick = this.stages === trial && this.beginnings[this.tried.length] === 1
    this.energy.strengths = thick ? { ...stage, room: stage.room * roomier } : stage
    this.inStage = 0
    this.marked = Number.POSITIVE_INFINITY
    return new Minimiser(minimised(this.energy, this.bodies))
  }

  private step(): void {
    this.move = this.minimiser.iterate()
    this.iterations++
    this.inStage++
    let still = this.minimiser.stuck
    if (this.inStage % window === 0) {
      const { energy } = this.minimiser
      still ||= this.marked - energy < restShare * Math.abs(energy)
      this.marked = energy
    }
    if (!still && this.inStage < (this.stages[this.stage] as Stage).iterations) return
    if (this.stage + 1 < this.stages.length) {
      this.stage++
      this.minimiser = this.enter()
    } else if (this.stages === trial) this.nextTrial()
    else {
      this.rests = true
      turnToEye(this.piece)
    }
  }

  private nextTrial(): void {
    const { tried, piece, bodies } = this
    tried.push({
      bodies: bodies.save(),
      energy: this.minimiser.energy,
      depthMm: depthOf(piece),
      gaping: gapingThreads(piece),
    })
    this.stage = 0
    const next = this.beginnings[tried.length]
    if (next === undefined) {
      bodies.restore(bestOf(tried).bodies)
      this.stages = hardening
    } else {
      bodies.restore(this.unfolded)
      bodies.flatten(next)
    }
    this.minimiser = this.enter()
  }

  pressed(nearMm: Mm = 0): Press[] {
    return this.energy.pressed(nearMm)
  }
}

function bestOf(tried: readonly Tried[]): Tried {
  const least = Math.min(...tried.map(({ energy }) => energy))
  return tried
    .filter(({ energy }) => energy <= least * nearly)
    .reduce((a, b) => (b.gaping < a.gaping || (b.gaping === a.gaping && b.depthMm < a.depthMm) ? b : a))
}

function depthOf({ at }: Piece): Mm {
  let [low, high] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY]
  for (let p = 2; p < at.length; p += 3) {
    low = Math.min(low, at[p] as number)
    high = Math.max(high, at[p] as number)
  }
  return high - low
}

function minimised(energy: Energy, bodies: Bodies): Minimised {
  const kept = bodies.save()
  return {
    size: bodies.count * freedoms,
    evaluate(slope) {
      const now = energy.evaluate()
      bodies.gather(energy.onPoints, energy.onSolids, slope)
      return now
    },
    move: (step, by) => bodies.move(step, by),
    keep: () => bodies.saveTo(kept),
    putBack: () => bodies.restore(kept),
  }
}
