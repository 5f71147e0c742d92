/** Finding a place that a pattern names: roles and marks to the holes they mean. */
import { reckonCount } from '../notation/expression'
import { LineFault } from '../notation/fault'
import { nearest } from '../notation/nearest'
import type { TargetStep, TargetWords } from '../notation/target-words'
import type { Bench } from './bench'
import { beadOf, type Hole, hole, wayOf } from './hole'

/** @returns at least one hole, in the order of the rail or mark, or of their picking up for a role */
export function find(target: TargetWords, bench: Bench): readonly Hole[] {
  let [holes, steps] = baseOf(target, bench)
  bench.spend(holes.length, target.span)
  for (const step of steps) {
    holes = narrow(holes, step, bench)
    bench.spend(holes.length, step.span)
  }
  return holes
}

function baseOf(target: TargetWords, bench: Bench): [holes: readonly Hole[], steps: readonly TargetStep[]] {
  const { base, steps, span } = target
  if ('role' in base) {
    const role = bench.beadRole(base.role, span)
    const found = bench.beadsOf(role)
    if (found.length === 0) {
      throw new LineFault(
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
    const whole = bench.marked(`${base.name}.${first.word}`)
    if (whole) return [whole, rest]
    if (first.word === 'prev') {
      const before = bench.marked(base.name, 1)
      if (before) return [before, rest]
      throw new LineFault(span, `There is no "${base.name}" before the last one.`, 'Mark it in the turn before.')
    }
  }
  const holes = bench.marked(base.name)
  if (holes && holes.length > 0) {
    if (first?.type !== 'next') return [holes, steps]
    return [bench.nextOf(base.name, holes, reckonCount(first.of, bench, 'The number of beads', 1)), rest]
  }
  const known = bench.markNames()
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

function narrow(holes: readonly Hole[], step: TargetStep, bench: Bench): readonly Hole[] {
  switch (step.type) {
    case 'role': {
      const role = bench.beadRole(step.role, step.span)
      return some(
        holes.filter((h) => bench.work.role(beadOf(h)) === role),
        step,
        `There is no ${step.role} in it.`,
      )
    }
    case 'in': {
      // In the order of what they are in: of an edge, from the needle on.
      const wanted = new Set(holes.map(beadOf))
      return some(
        find(step.target, bench).filter((h) => wanted.has(beadOf(h))),
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
        if (step.bore === 1 && bench.boresOf(beadOf(h)) === 1) {
          const letter = bench.letterOf(bench.work.role(beadOf(h)))
          throw new LineFault(step.span, `${letter} has one bore only.`, 'Only two-hole beads have a second.')
        }
        return hole(beadOf(h), step.bore, wayOf(h))
      })
    case 'index': {
      const at = reckonCount(step.of, bench, 'The place')
      const h = holes[at - 1]
      if (h === undefined) {
        throw new LineFault(
          step.span,
          `There ${holes.length === 1 ? 'is 1 bead' : `are ${holes.length} beads`} there; it has no number ${at}.`,
          `Use a number from 1 to ${holes.length}.`,
        )
      }
      return [h]
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
