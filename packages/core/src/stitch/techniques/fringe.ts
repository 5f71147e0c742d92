import { asRun, type BeadList, readBeadList, rolesIn } from '../../notation/bead-list'
import { type Expression, evaluate, evaluateCount, readExpression } from '../../notation/expression'
import { LineFault, type Span } from '../../notation/fault'
import { readTarget, type TargetWords } from '../../notation/parse-target'
import { strung } from '../course'
import { beadOf, type Hole } from '../hole'
import { type Mark, readMark } from '../mark'
import { runsOf } from '../runs'
import type { StitchMachine } from '../stitch-machine'
import { findTold } from '../target'
import type { Technique } from '../technique'
import { travelTo } from '../travel'

interface FringeWords {
  readonly list: BeadList
  readonly end: BeadList | undefined
  readonly between: BeadList | undefined
  readonly keep: Expression | undefined
  readonly graded: { readonly name: string; readonly values: readonly Expression[] } | undefined
  readonly into: TargetWords | undefined
  readonly name: Mark | undefined
}

/**
 * `fringe 8A B end 3C between A`, `fringe (k A) B end C for k in 6, 8, 6 into edge`: a strand that hangs: picks up the list and the end, and
 * goes back up the list past the end. What is `between` is picked up from one strand to the next. `keep 1` leaves that many at the top out of the way back.
 */
export const fringeTechnique: Technique<FringeWords> = {
  word: 'fringe',
  read(cursor) {
    const list = readBeadList(cursor, 'fringe')
    let end: BeadList | undefined
    let between: BeadList | undefined
    let keep: Expression | undefined
    let graded: FringeWords['graded']
    let into: TargetWords | undefined
    let name: Mark | undefined
    while (!cursor.done) {
      if (cursor.take('Word', 'end')) end = readBeadList(cursor, 'end')
      else if (cursor.take('Word', 'between')) between = readBeadList(cursor, 'between')
      else if (cursor.take('Word', 'keep')) keep = readExpression(cursor)
      else if (cursor.take('Word', 'into')) into = readTarget(cursor)
      else if (cursor.take('Word', 'for')) {
        const count = cursor.expect('Word', 'a name', 'For example: for k in 6, 8, 6.').text
        if (!cursor.take('Word', 'in'))
          throw new LineFault(cursor.peek() ?? cursor.end, 'Expected "in" here.', 'For example: for k in 6, 8, 6.')
        const values = [readExpression(cursor)]
        while (cursor.take('Comma')) values.push(readExpression(cursor))
        graded = { name: count, values }
      } else {
        const mark = readMark(cursor)
        if (mark === undefined) break
        name = mark
      }
    }
    return { list, end, between, keep, graded, into, name }
  },
  work({ list, end, between: spacing, keep: kept, graded, into, name }, machine, span) {
    machine.needle('fringe', span)
    for (const { role, span: at } of [list, end, spacing].flatMap((each) => (each ? rolesIn(each) : [])))
      machine.roles.numberOf(role, at)
    const hung = into && findTold(into, machine)
    const found = hung?.holes
    const asked = graded?.values.map((value) => evaluate(value, machine)) ?? [undefined]
    // A profile is hung from the end at which the needle is.
    const fromEnd =
      found !== undefined &&
      found[found.length - 1] !== undefined &&
      beadOf(found[found.length - 1] as Hole) === beadOf(machine.work.needle as Hole)
    const places = found && (fromEnd ? [...found].reverse() : found)
    const values = fromEnd ? [...asked].reverse() : asked
    if (places && graded && places.length !== values.length) {
      throw new LineFault(
        into?.span ?? span,
        `There are ${places.length} beads to hang from and ${values.length} strands.`,
        `Give ${places.length} numbers after "in".`,
      )
    }
    const keep = kept ? evaluateCount(kept, machine, 'The number of beads') : 0
    const between = spacing ? asRun(spacing, machine) : []
    const from = machine.work.passes
    const strands = []
    const all: Hole[] = []
    for (let i = 0; i < (places?.length ?? values.length); i++) {
      const place = places?.[i]
      if (i > 0)
        for (const letter of between)
          all.push(machine.work.pick(machine.roles.numberOf(letter, span), 'ring', machine.statement, strung))
      if (place !== undefined) {
        if (i > 0 && between.length > 0) machine.work.pass(fromEnd ? place ^ 1 : place, 'ring', machine.statement)
        else travelTo(place, machine, into?.span ?? span)
      }
      const value = values[i % values.length]
      if (graded && value) machine.values.set(graded.name, value)
      const strand = { beads: asRun(list, machine), end: end ? asRun(end, machine) : [] }
      all.push(...hang(strand, keep, machine, span))
      strands.push({ beads: runsOf(strand.beads), end: runsOf(strand.end) })
    }
    if (graded) machine.values.delete(graded.name)
    machine.marks.add(name, all)
    machine.trail = { what: 'run', from, to: machine.work.passes }
    return {
      type: 'fringe',
      strands,
      keep,
      between: runsOf(between),
      into: hung?.told,
      fromEnd: places !== undefined && fromEnd,
      name,
    }
  },
}

function hang(
  strand: { beads: readonly string[]; end: readonly string[] },
  keep: number,
  machine: StitchMachine,
  span: Span,
): Hole[] {
  const { work } = machine
  const { beads, end } = strand
  machine.makeRoom(beads.length + end.length, beads.length, span)
  // Without end beads the last of the strand turns the thread.
  const turning = end.length > 0 ? 0 : 1
  if (beads.length - turning < keep)
    throw new LineFault(span, `A strand of ${beads.length} cannot keep ${keep} out of the way back.`, 'Keep fewer.')
  const pick = (letter: string) => work.pick(machine.roles.numberOf(letter, span), 'ring', machine.statement, strung)
  const down = beads.map(pick)
  const tip = end.map(pick)
  const up = down.slice(keep, down.length - turning).reverse()
  for (const [i, h] of up.entries()) work.pass(h ^ 1, i === 0 ? 'fringe turn' : 'ring', machine.statement)
  return [...down, ...tip]
}
