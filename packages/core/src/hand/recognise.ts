/**
 * What a hand is probably doing: lines of the notation whose passes begin with those that were made. Lines are guessed at freely and
 * then tried; none is told that does not do what the hand has done.
 */

import { type Guess, handOf } from './guesses/guess'
import { roundGuess, squareGuess } from './guesses/rounds'
import { fringeGuess, joinGuess, loopGuess, standGuess, strungGuess, weaveGuess } from './guesses/strung'
import { againGuess, throughGuess, toGuess } from './guesses/walked'
import { beginsWith, type HandPass } from './hand-pass'
import type { SoFar, Tried } from './so-far'
import { spell } from './spell'

const guesses: readonly Guess[] = [
  roundGuess,
  squareGuess,
  strungGuess,
  loopGuess,
  weaveGuess,
  joinGuess,
  fringeGuess,
  standGuess,
  againGuess,
  toGuess,
  throughGuess,
]

export interface Recognised extends Tried {
  /** Passes that the line makes beyond those made by hand. */
  readonly more: number
  /** Nothing is left to do, but for stepping up. */
  readonly done: boolean
}

/**
 * @returns the shortest first; of equally short ones those that the hand has done, then in the order of the guesses, rounds before loops
 */
export function recognise(soFar: SoFar, passes: readonly HandPass[]): Recognised[] {
  if (passes.length === 0) return []
  const { machine } = soFar
  const hand = handOf(passes, machine.work.beads)
  const looking = machine.copy()
  const found = new Map<string, Recognised>()
  const take = (tried: Tried | undefined) => {
    if (!tried || found.has(tried.line) || !beginsWith(tried.passes, passes)) return
    const more = tried.passes.length - passes.length
    found.set(tried.line, { ...tried, more, done: more === 0 || more < tried.stepsUp })
  }
  // At the beginning beads are strung; later the same is a plain picking up.
  const spelled = machine.work.needle === undefined ? undefined : spell(soFar, passes)
  if (spelled?.length === 1) take(spelled[0])
  for (const guess of guesses) for (const line of guess(hand, looking)) if (!found.has(line)) take(soFar.try(line))
  return [...found.values()].sort((a, b) => a.tokens - b.tokens || Number(b.done) - Number(a.done))
}
