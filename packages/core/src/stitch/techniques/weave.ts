import { asRun, type BeadList, readBeadList, rolesIn } from '../../notation/bead-list'
import { type Expression, evaluateCount, readExpression } from '../../notation/expression'
import { LineFault } from '../../notation/fault'
import { readTarget, type TargetWords } from '../../notation/parse-target'
import { strung } from '../course'
import type { Hole } from '../hole'
import { type Mark, readMark } from '../mark'
import { runsOf } from '../runs'
import { findTold } from '../target'
import type { Technique } from '../technique'
import { enteredUntwisted } from '../travel'

/**
 * `weave 12 units of 3A`, `weave 12 units of 3A twice`: a right-angle strip. Each unit picks up the list, closes through the bead it shares with the unit before,
 * and steps on to the bead opposite; the first, with nothing on the needle, strings that shared bead too. Thread goes round by turns one way
 * and the other, so every second unit picks its list up from the end: what is named first stays on one edge, what is named last on the other.
 */
export const weaveTechnique: Technique<{
  units: Expression
  list: BeadList
  twice: boolean
  name: Mark | undefined
}> = {
  word: 'weave',
  read(cursor) {
    const units = readExpression(cursor)
    for (const word of ['units', 'of']) {
      if (!cursor.take('Word', word) && !(word === 'units' && cursor.take('Word', 'unit'))) {
        throw new LineFault(
          cursor.peek() ?? cursor.end,
          `Expected "${word}" here.`,
          'For example: weave 12 units of 3A.',
        )
      }
    }
    const list = readBeadList(cursor, 'weave')
    const twice = cursor.take('Word', 'twice') !== undefined
    return { units, list, twice, name: readMark(cursor) }
  },
  work({ units: written, list, twice, name }, machine, span) {
    const { work } = machine
    for (const { role, span: at } of rolesIn(list)) machine.roles.numberOf(role, at)
    const bracket = list.parts
      .flatMap(({ elements }) => elements)
      .find((each) => each.type === 'bracket' && !each.times)
    if (bracket && list.parts.some(({ elements }) => elements.length > 1))
      throw new LineFault(
        bracket.span,
        'Brackets mean nothing in a unit: its beads are picked up one after the other.',
        'Write the list without them, or repeat the bracket: (A C) x 2.',
      )
    const run = asRun(list, machine)
    const units = evaluateCount(written, machine, 'The number of units', 1)
    if (run.length < 2) throw new LineFault(list.span, 'A unit picks up two beads or more.', 'For example: 3A.')
    machine.makeRoom(units * run.length + 1, units * (twice ? 2 : 1) * (run.length + 1) + 1, span)
    machine.threadUp(span)
    const roles = run.map((letter) => machine.roles.numberOf(letter, list.span))
    const holes: Hole[] = []
    const begun = work.passes
    const middle = Math.ceil(run.length / 2)
    const begins = work.needle === undefined ? run[middle - 1] : undefined
    for (let unit = 0; unit < units; unit++) {
      let shared = work.needle
      if (shared === undefined) {
        shared = work.pick(roles[middle - 1] as number, 'ring', machine.statement, strung)
        holes.push(shared)
      }
      const picked = (unit % 2 === 0 ? roles : [...roles].reverse()).map((role) =>
        work.pick(role, 'right angle', machine.statement, strung),
      )
      work.pass(shared, 'right angle', machine.statement)
      if (twice) for (const h of [...picked, shared]) work.pass(h, 'right angle', machine.statement)
      for (const h of picked.slice(0, middle)) work.pass(h, 'right angle', machine.statement)
      holes.push(...picked)
    }
    machine.marks.add(name, holes)
    machine.trail = { what: 'run', from: begun, to: work.passes }
    machine.along = 0
    machine.edges.rails = {}
    return { type: 'weave', units, beads: runsOf(run), stitches: units, begins, twice, name }
  },
}

/** `join to strip.first with A, A`: closes a strip into a band, or joins two components, with new beads between. */
export const joinTechnique: Technique<{ target: TargetWords; list: BeadList | undefined }> = {
  word: 'join',
  read(cursor) {
    cursor.take('Word', 'to')
    const target = readTarget(cursor)
    return { target, list: cursor.take('Word', 'with') ? readBeadList(cursor, 'with') : undefined }
  },
  work({ target, list }, machine, span) {
    const { work } = machine
    const from = machine.needle('join', span)
    for (const { role, span: at } of list ? rolesIn(list) : []) machine.roles.numberOf(role, at)
    const run = list ? asRun(list, machine) : []
    const { holes, told } = findTold(target, machine)
    const [to] = holes as [Hole]
    // Found before anything new is on the thread: a strip that closes must not be twisted.
    const into = enteredUntwisted(to, machine, span)
    machine.makeRoom(run.length, 2, span)
    const half = Math.ceil(run.length / 2)
    const begun = work.passes
    const pick = (letter: string) =>
      work.pick(machine.roles.numberOf(letter, span), 'right angle', machine.statement, strung)
    const first = run.slice(0, half).map(pick)
    work.pass(into, 'right angle', machine.statement)
    const second = run.slice(half).map(pick)
    work.pass(from, 'right angle', machine.statement)
    machine.marks.add(undefined, [...first, ...second])
    machine.trail = { what: 'loop', from: begun, to: work.passes }
    machine.along = 0
    machine.standWhereNeedleIs()
    return { type: 'join', target: told, back: into !== to, beads: runsOf(run) }
  },
}
