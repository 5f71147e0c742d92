/** A place as a line names it, with its numbers worked out: what every language says it from. */
import { reckonCount } from '../notation/expression'
import type { TargetStep, TargetWords } from '../notation/target-words'
import { type Run, runsOf } from './action'
import type { Bench } from './bench'
import { beadOf, type Hole } from './hole'

export interface PlaceTold {
  readonly base: { readonly role: string } | { readonly name: string }
  readonly steps: readonly PlaceStep[]
  /** The beads it comes to, in order. */
  readonly beads: readonly Run[]
}

export type PlaceStep =
  | { readonly type: 'role'; readonly role: string }
  | { readonly type: 'nth'; readonly nth: number }
  | { readonly type: 'word'; readonly word: string }
  | { readonly type: 'next'; readonly count: number }
  | { readonly type: 'bore'; readonly bore: 1 | 2 }
  | { readonly type: 'in'; readonly place: PlaceTold }

export function toldPlace({ base, steps }: TargetWords, holes: readonly Hole[], bench: Bench): PlaceTold {
  return {
    base,
    steps: steps.map((step) => toldStep(step, bench)),
    beads: runsOf(holes.map((h) => bench.letterOf(bench.work.role(beadOf(h))))),
  }
}

function toldStep(step: TargetStep, bench: Bench): PlaceStep {
  switch (step.type) {
    case 'role':
      return { type: 'role', role: step.role }
    case 'index':
      return { type: 'nth', nth: reckonCount(step.of, bench, 'The place') }
    case 'word':
      return { type: 'word', word: step.word }
    case 'next':
      return { type: 'next', count: reckonCount(step.of, bench, 'The number of beads', 1) }
    case 'bore':
      return { type: 'bore', bore: step.bore === 1 ? 2 : 1 }
    case 'in':
      return { type: 'in', place: toldPlace(step.target, [], bench) }
  }
}

/** How many beads a place comes to. */
export const beadsOf = ({ beads }: PlaceTold): number => beads.reduce((sum, { count }) => sum + count, 0)
