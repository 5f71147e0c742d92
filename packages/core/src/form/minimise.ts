/**
 * Least energy by limited-memory quasi-Newton steps (L-BFGS; Nocedal and Wright, Numerical Optimization, 7.2), a step at a time, so that
 * whoever runs it may look in between. No step moves anything farther than `farthest`, so that nothing jumps over its neighbour.
 */
import type { Mm } from '../measure/units'

/** What is minimised: some state that can be moved, put back, and asked for its energy and slope. */
export interface Minimised {
  readonly size: number
  /** Writes the slope, and answers the energy. */
  evaluate(slope: Float64Array): number
  move(step: Float64Array, by: number): void
  keep(): void
  putBack(): void
}

const memory = 5
const farthest: Mm = 0.25

export class Minimiser {
  energy: number
  readonly slope: Float64Array
  private readonly next: Float64Array
  private readonly step: Float64Array
  /** The last moves and what they changed of the slope, one written over the oldest. */
  private readonly moves: Float64Array[]
  private readonly changes: Float64Array[]
  private readonly weights = new Float64Array(memory)
  private readonly shares = new Float64Array(memory)
  private known = 0
  private last = -1
  private scale = 1
  evaluations = 1
  /** No step makes it less. */
  stuck = false

  constructor(private readonly what: Minimised) {
    this.slope = new Float64Array(what.size)
    this.next = new Float64Array(what.size)
    this.step = new Float64Array(what.size)
    this.moves = Array.from({ length: memory }, () => new Float64Array(what.size))
    this.changes = Array.from({ length: memory }, () => new Float64Array(what.size))
    this.energy = what.evaluate(this.slope)
  }

  /** What was learnt of the energy no longer holds: it has been changed. */
  forget(): void {
    this.known = 0
    this.energy = this.what.evaluate(this.slope)
    this.evaluations++
    this.stuck = false
  }

  /** @returns how far the farthest freedom has moved, 0 where it is stuck */
  iterate(): Mm {
    const { what, slope, next, step } = this
    this.direct()
    let down = dot(step, slope)
    if (!(down < 0)) {
      this.known = 0
      this.direct()
      down = dot(step, slope)
    }
    const most = largest(step)
    if (most < 1e-12) {
      this.stuck = true
      return 0
    }
    let by = Math.min(1, farthest / most)
    what.keep()
    for (let tries = 0; tries < 12; tries++) {
      what.move(step, by)
      const energy = what.evaluate(next)
      this.evaluations++
      if (energy <= this.energy + 1e-4 * by * down) {
        this.learn(by, energy)
        return most * by
      }
      // The least of the parabola through what is known.
      const least = (-down * by * by) / (2 * (energy - this.energy - down * by))
      what.putBack()
      by = Math.min(Math.max(least, 0.1 * by), 0.5 * by)
    }
    if (this.known > 0) {
      this.known = 0
      return this.iterate()
    }
    this.stuck = true
    return 0
  }

  private learn(by: number, energy: number): void {
    const { slope, next, step } = this
    const place = this.last === memory - 1 ? 0 : this.last + 1
    const move = this.moves[place] as Float64Array
    const change = this.changes[place] as Float64Array
    let both = 0
    let square = 0
    for (let i = 0; i < slope.length; i++) {
      const s = (step[i] as number) * by
      const y = (next[i] as number) - (slope[i] as number)
      move[i] = s
      change[i] = y
      both += s * y
      square += y * y
      slope[i] = next[i] as number
    }
    this.energy = energy
    if (both <= 1e-10 * square) {
      // Ground that curves the other way teaches nothing; its place has been written over.
      if (this.known === memory) this.known--
      return
    }
    this.weights[place] = 1 / both
    this.scale = both / square
    this.last = place
    this.known = Math.min(this.known + 1, memory)
  }

  /** Downhill, as the last moves have shown the ground to curve. */
  private direct(): void {
    const { slope, step, moves, changes, weights, shares, known, last } = this
    const place = (k: number) => (last - k + memory) % memory
    for (let i = 0; i < step.length; i++) step[i] = -(slope[i] as number)
    let both = known > 0 ? dot(moves[last] as Float64Array, step) : 0
    for (let k = 0; k < known; k++) {
      const at = place(k)
      const share = both * (weights[at] as number)
      shares[at] = share
      both = addThenDot(step, changes[at] as Float64Array, -share, moves[place(k + 1)] as Float64Array)
    }
    const scale = known === 0 ? 0.02 : this.scale
    for (let i = 0; i < step.length; i++) step[i] = (step[i] as number) * scale
    if (known > 0) both = dot(changes[place(known - 1)] as Float64Array, step)
    for (let k = known - 1; k >= 0; k--) {
      const at = place(k)
      const by = (shares[at] as number) - both * (weights[at] as number)
      both = addThenDot(step, moves[at] as Float64Array, by, changes[place(k - 1)] as Float64Array)
    }
  }
}

/** Adds a multiple of one vector to another, and answers what a third then has in common with it: one way through memory for both. */
function addThenDot(a: Float64Array, b: Float64Array, times: number, c: Float64Array): number {
  let [even, odd] = [0, 0]
  for (let i = 0; i < a.length; i += 2) {
    const first = (a[i] as number) + times * (b[i] as number)
    const second = (a[i + 1] as number) + times * (b[i + 1] as number)
    a[i] = first
    a[i + 1] = second
    even += first * (c[i] as number)
    odd += second * (c[i + 1] as number)
  }
  return even + odd
}

/** In two sums, so that neither waits for the other; every state has an even number of freedoms. */
function dot(a: Float64Array, b: Float64Array): number {
  let [even, odd] = [0, 0]
  for (let i = 0; i < a.length; i += 2) {
    even += (a[i] as number) * (b[i] as number)
    odd += (a[i + 1] as number) * (b[i + 1] as number)
  }
  return even + odd
}

function largest(a: Float64Array): number {
  let most = 0
  for (let i = 0; i < a.length; i++) most = Math.max(most, Math.abs(a[i] as number))
  return most
}
