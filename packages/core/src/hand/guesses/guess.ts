import { beadOf, type Hole } from '../../stitch/hole'
import type { StitchMachine } from '../../stitch/stitch-machine'
import { type HandPass, holesPassed } from '../hand-pass'

/** A hand's work, as those who guess at it look at it. */
export interface Hand {
  readonly passes: readonly HandPass[]
  readonly holes: readonly Hole[]
  /** Beads that were there before. */
  readonly beads: number
  /** The first passes that pick up, as they stand in a list, and what comes after them. */
  readonly picked: readonly string[]
  readonly rest: readonly Hole[]
  /** Nothing but picks, then nothing but passes. */
  readonly plain: boolean
}

/** Lines that might begin with what a hand has done. Any may be wrong: each is tried before it is told. */
export type Guess = (hand: Hand, machine: StitchMachine) => Iterable<string>

export function handOf(passes: readonly HandPass[], beads: number): Hand {
  const holes = holesPassed(passes, beads)
  const first = passes.findIndex(({ type }) => type === 'pass')
  const picks = first < 0 ? passes : passes.slice(0, first)
  return {
    passes,
    holes,
    beads,
    picked: picks.map(itemOf),
    rest: holes.slice(picks.length),
    plain: passes.slice(picks.length).every(({ type }) => type === 'pass'),
  }
}

/** A bead picked up, as it stands in a list. */
export const itemOf = (pass: HandPass): string =>
  pass.type === 'pick' ? (pass.bore === 1 ? `${pass.role}:2` : pass.role) : ''

export const isOwn = (h: Hole, hand: Hand): boolean => beadOf(h) >= hand.beads
