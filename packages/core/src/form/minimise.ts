/**
 * Least energy by limited-memory quasi-Newton steps (L-BFGS; Nocedal and Wright, Numerical Optimization, 7.2), a step at a time, so that
 * whoever runs it may look in between. No step moves anything farther than `farthest`, so that nothing jumps over its neighbour.
 */
import type { Mm } from '../measure/units'
import type { Columns, Kernel } from './kernel/kernel'

/** What is minimised: some state that can be moved, put back, and asked for its energy and slope. */
export interface Minimised {
  /** How many freedoms it has: an even number. */
  readonly size: number
  /** Writes the slope into one of the minimiser's columns, and answers the energy. */
  evaluate(into: 'slope' | 'next'): number
  /** Moves it by so many times what stands in the column of the step. */
  move(by: number): void
  keep(): void
  putBack(): void
}

const memory = 5
const farthest: Mm = 0.25

/** What a minimiser needs in the kernel's memory. */
export const minimiserColumns = (size: number): Columns => ({
  slope: size,
  next: size,
  step: size,
  moves: memory * size,
  changes: memory * size,
  weights: memory,
  shares: memory,
  learnt: 2,
})

export class Minimiser {
  energy: number
  private known = 0
  private last = -1
  private scale = 1
  /** No step makes it less. */
  stuck = false

  constructor(
    private readonly kernel: Kernel,
    private readonly what: Minimised,
  ) {
    this.energy = what.evaluate('slope')
  }

  /** @returns how far the farthest freedom has moved, 0 where it is stuck */
  iterate(): Mm {
    const { what } = this
    const { loops } = this.kernel
    this.direct()
    let down = loops.downhill(what.size)
    if (!(down < 0)) {
      this.known = 0
      this.direct()
      down = loops.downhill(what.size)
    }
    const most = loops.largest(what.size)
    if (most < 1e-12) {
      this.stuck = true
      return 0
    }
    let by = Math.min(1, farthest / most)
    what.keep()
    for (let tries = 0; tries < 12; tries++) {
      what.move(by)
      const energy = what.evaluate('next')
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
    const { kernel, what } = this
    const place = this.last === memory - 1 ? 0 : this.last + 1
    kernel.loops.learn(what.size, place, by)
    const learnt = kernel.floats('learnt')
    const both = learnt[0] as number
    const square = learnt[1] as number
    this.energy = energy
    if (both <= 1e-10 * square) {
      // Ground that curves the other way teaches nothing; its place has been written over.
      if (this.known === memory) this.known--
      return
    }
    kernel.floats('weights')[place] = 1 / both
    this.scale = both / square
    this.last = place
    this.known = Math.min(this.known + 1, memory)
  }

  /** Downhill, as the last moves have shown the ground to curve. */
  private direct(): void {
    const { known, last, scale } = this
    this.kernel.loops.direct(this.what.size, memory, known, last, known === 0 ? 0.02 : scale)
  }
}
