import { reckonCount } from '../notation/expression'
import type { TargetStep, TargetWords } from '../notation/target-words'
import type { Bench } from './bench'
import { beadOf, type Hole } from './hole'
import type { PlaceStep, PlaceTold } from './place-told'
import { runsOf } from './runs'

/** @param holes what the place has come to */
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
