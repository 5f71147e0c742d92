/** Finding a place that a pattern names: roles and marks to the holes they mean. */
import { maxBeads } from '../notation/bead-list'
import { type Expression, evaluateCount } from '../notation/expression'
import { LineFault } from '../notation/fault'
import { nearest } from '../notation/nearest'
import type { TargetStep, TargetWords } from '../notation/parse-target'
import { beadOf, type Hole, hole, wayOf } from './hole'
import type { PlaceStep, PlaceTold } from './place-told'
import { runsOf } from './runs'
import type { StitchMachine } from './stitch-machine'

/** @returns at least one hole, in the order of the rail or mark, or of their picking up for a role */
export const find = (target: TargetWords, machine: StitchMachine): readonly Hole[] => findTold(target, machine).holes

export interface Found {
  readonly holes: readonly Hole[]
  readonly told: PlaceTold
}

/** The same with how the place is told: its numbers are worked out, and counted from the first. */
export function findTold(target: TargetWords, machine: StitchMachine): Found {
  let [holes, steps] = baseOf(target, machine)
  machine.spend(holes.length, target.span)
  const told = target.steps.slice(0, target.steps.length - steps.length).map((step) => toldStep(step, holes, machine))
  for (const step of steps) {
    told.push(toldStep(step, holes, machine))
    holes = narrow(holes, step, machine)
    machine.spend(holes.length, step.span)
  }
  const beads = runsOf(holes.map((h) => machine.letterOfBead(beadOf(h))))
  return { holes, told: { base: target.base, steps: told, beads } }
}

/** @param holes what it is a step into */
function toldStep(step: TargetStep, holes: readonly Hole[], machine: StitchMachine): PlaceStep {
  const placeOf = (of: Expression) => placeIn(holes, evaluateCount(of, machine, 'The place', -maxBeads), step, machine)
  switch (step.type) {
    case 'role':
      return { type: 'role', role: step.role }
    case 'index':
      return { type: 'nth', nth: placeOf(step.of) }
    case 'range':
      return { type: 'range', from: placeOf(step.from), to: placeOf(step.to) }
    case 'half':
      return { type: 'half', second: step.second }
    case 'word':
      return { type: 'word', word: step.word }
    case 'next':
      return { type: 'next', count: evaluateCount(step.of, machine, 'The number of beads', 1) }
    case 'bore':
      return { type: 'bore', bore: step.bore === 1 ? 2 : 1 }
    case 'in':
      return { type: 'in', place: findTold(step.target, machine).told }
  }
}

function baseOf(target: TargetWords, machine: StitchMachine): [holes: readonly Hole[], steps: readonly TargetStep[]] {
  const { base, steps, span } = target
  if ('role' in base) {
    const role = machine.roles.numberOf(base.role, span)
    const found = machine.beadsOf(role)
    if (found.length === 0) {
      throw machine.missing(
        span,
        `No ${base.role} has been picked up yet.`,
        'Put this line below the one that picks it up.',
      )
    }
    return [found.map((bead) => hole(bead)), steps]
  }
  const [first, ...rest] = steps
  // `bezel.front` is a mark of its own; `c.prev` is the c before the last.
  if (first?.type === 'word') {
    const whole = machine.marked(`${base.name}.${first.word}`)
    if (whole) return [whole, rest]
    if (first.word === 'prev') {
      const other = steps.findIndex((step) => step.type !== 'word' || step.word !== 'prev')
      const back = other < 0 ? steps.length : other
      const before = machine.marked(base.name, back)
      if (before) return [before, steps.slice(back)]
      throw machine.missing(
        span,
        `There is no "${base.name}" ${back === 1 ? 'before the last one' : `${back} before the last one`}.`,
        'Mark it in the turn before.',
      )
    }
  }
  const holes = machine.marked(base.name)
  if (holes && holes.length > 0) {
    if (first?.type !== 'next') return [holes, steps]
    return [machine.marks.nextOf(base.name, holes, evaluateCount(first.of, machine, 'The number of beads', 1)), rest]
  }
  const known = machine.markNames()
  const guess = nearest(base.name, known)
  throw new LineFault(
    span,
    `Nothing is marked "${base.name}".`,
    guess
      ? `Did you mean "${guess}"?`
      : known.length > 0
        ? `Marked here: ${known.join(', ')}.`
        : 'Mark it where it is made, for example: loop 9C as bail.',
  )
}

function narrow(holes: readonly Hole[], step: TargetStep, machine: StitchMachine): readonly Hole[] {
  const placeOf = (of: Expression) => placeIn(holes, evaluateCount(of, machine, 'The place', -maxBeads), step, machine)
  const at = (of: Expression) => holes[placeOf(of) - 1] as Hole
  switch (step.type) {
    case 'role': {
      const role = machine.roles.numberOf(step.role, step.span)
      return some(
        holes.filter((h) => machine.work.role(beadOf(h)) === role),
        step,
        `There is no ${step.role} in it.`,
      )
    }
    case 'in': {
      // In the order of what they are in: of an edge, from the needle on.
      const wanted = new Set(holes.map(beadOf))
      return some(
        find(step.target, machine).filter((h) => wanted.has(beadOf(h))),
        step,
        'There is none of them in it.',
      )
    }
    case 'next':
      throw new LineFault(
        step.span,
        '"next" goes on along something that is marked.',
        'For example: through frame next 2.',
      )
    case 'bore':
      return holes.map((h) => {
        if (step.bore === 1 && machine.boresOf(beadOf(h)) === 1) {
          const letter = machine.letterOfBead(beadOf(h))
          throw new LineFault(step.span, `${letter} has one bore only.`, 'Only two-hole beads have a second.')
        }
        return hole(beadOf(h), step.bore, wayOf(h))
      })
    case 'index':
      return [at(step.of)]
    case 'range': {
      const [from, to] = [placeOf(step.from), placeOf(step.to)]
      if (machine.marks.comesRound(holes)) {
        const count = from <= to ? to - from + 1 : holes.length - from + 1 + to
        return Array.from({ length: count }, (_, i) => holes[(from - 1 + i) % holes.length] as Hole)
      }
      return from <= to ? holes.slice(from - 1, to) : holes.slice(to - 1, from).reverse()
    }
    case 'half': {
      const half = Math.ceil(holes.length / 2)
      return some(step.second ? holes.slice(half) : holes.slice(0, half), step, 'It is empty.')
    }
    case 'word': {
      const last = holes.length - 1
      const at =
        step.word === 'first'
          ? 0
          : step.word === 'last'
            ? last
            : step.word === 'middle'
              ? Math.floor(last / 2)
              : undefined
      if (at === undefined) {
        throw new LineFault(step.span, `"${step.word}" is not a place in it.`, 'Say first, middle or last.')
      }
      return some([holes[at] as Hole], step, 'It is empty.')
    }
  }
}

function some(holes: readonly Hole[], at: { span: TargetWords['span'] }, otherwise: string): readonly Hole[] {
  if (holes.length === 0) throw new LineFault(at.span, otherwise, 'Name another place.')
  return holes
}

/** A place from 1, counted back from the end where it is less than nought, and on from the first where what it is in comes round. */
function placeIn(
  holes: readonly Hole[],
  at: number,
  step: { span: TargetWords['span'] },
  machine: StitchMachine,
): number {
  const n = holes.length
  const place = at < 0 ? n + 1 + at : at
  if (place >= 1 && place <= n) return place
  if (at !== 0 && n > 0 && machine.marks.comesRound(holes)) return ((((place - 1) % n) + n) % n) + 1
  throw new LineFault(
    step.span,
    `There ${n === 1 ? 'is 1 bead' : `are ${n} beads`} there; it has no number ${at}.`,
    `Use a number from 1 to ${n}, or from -1 back to -${n}.`,
  )
}
