import { type Expression, evaluateCount, evaluateLength, readExpression } from '../../notation/expression'
import { LineFault, type Span } from '../../notation/fault'
import { fitStand } from '../../sizing/stand'
import { entryOf, exitOf, type Hole } from '../hole'
import { type Mark, readMark } from '../mark'
import { plainGroup } from '../rail'
import type { Technique } from '../technique'
import type { Work } from '../work'

interface StandWords {
  readonly role: string
  readonly at: Span
  /** A stone's letter, a diameter, or the row that stands already. */
  readonly core: { readonly stone: string; readonly span: Span } | { readonly across: Expression } | 'row'
  readonly count: Expression | undefined
  readonly name: Mark | undefined
}

/** `stand A round S`, `stand A round 12 mm x 20`, `stand row A x row + 6`: circular brick stitch, its count by sizing unless it is given. */
export const standTechnique: Technique<StandWords> = {
  word: 'stand',
  read(cursor) {
    const example = 'For example: stand A round S, then stand row A.'
    const row = cursor.take('Word', 'row') !== undefined
    const role = cursor.expect('Name', "a bead's letter", example)
    let core: StandWords['core'] = 'row'
    if (!row) {
      if (!cursor.take('Word', 'round'))
        throw new LineFault(cursor.peek() ?? cursor.end, 'Stand it round what?', example)
      const stone = cursor.take('Name')
      core = stone ? { stone: stone.text, span: stone } : { across: readExpression(cursor) }
    }
    const count = cursor.take('Times') ? readExpression(cursor) : undefined
    return { role: role.text, at: role, core, count, name: readMark(cursor) }
  },
  work({ role: given, at, core, count: written, name }, machine, span) {
    const { work } = machine
    const role = machine.roles.numberOf(given, at)
    const letter = machine.roles.actual(given)
    const bead = machine.bead(letter)
    if (!bead) throw new LineFault(at, `${letter} is not a bead.`, "Give a bead's letter.")
    const before = core === 'row' ? machine.standing : undefined
    if (core === 'row' && !before)
      throw machine.missing(
        span,
        'There is no standing row yet for another to stand on.',
        'Begin with: stand A round S.',
      )
    const radius = core === 'row' ? (before?.radiusMm ?? 0) : radiusOf(core)
    const { acrossMm } = machine.thread.thread
    const sizedRadius = before?.sizedMm ?? radius
    const fit = fitStand(sizedRadius, machine.sizingBead(letter) ?? bead, acrossMm)
    const count = written ? countFrom(written) : fit.count
    if (!written) {
      const more = fit.oneMore
        ? ` The gap left over, ${fit.gapMm.toFixed(1)} mm, may take one more: x ${fit.count + 1}.`
        : ''
      machine.remark('note', at, `${fit.count} ${letter} stand round a radius of ${radius.toFixed(1)} mm.${more}`)
    }
    machine.makeRoom(count, count + 2, span)
    machine.threadUp(span)
    const from = work.passes
    const room = fitStand(radius, bead, acrossMm)
    const topsMm = (2 * Math.PI * room.outerRadiusMm) / Math.max(1, room.count)
    const course = work.begin({ kind: 'standing', on: before?.course, radiusMm: radius, topsMm })
    if (core !== 'row' && 'stone' in core) work.cores.set(course, core.stone)
    const holes = Array.from({ length: count }, (_, i) => {
      // Down onto what it stands on, and up again: the thread to the next runs at the top, where the row above hangs on it.
      const down = work.pick(role, 'brick', machine.statement, { course, turn: (i + 0.5) / count, lift: 0 })
      work.pass(down ^ 1, 'ring', machine.statement)
      return down ^ 1
    })
    // The last is drawn to the first: down through it and up again.
    const first = holes[0] as number
    work.pass(first ^ 1, 'brick', machine.statement)
    work.pass(first, 'ring', machine.statement)
    if (before) for (const [i, h] of holes.entries()) standOn(h, (i + 0.5) / count, before.holes, work)
    machine.standing = { radiusMm: room.outerRadiusMm, sizedMm: fit.outerRadiusMm, holes, course }
    machine.edges.rails = {
      front: {
        closed: true,
        upright: true,
        groups: holes.map((h) => plainGroup([h])),
        fresh: false,
        ringCount: count,
        perRingBead: 1,
        course,
        side: 1,
      },
    }
    machine.edges.inHand = 'front'
    machine.marks.add(name, holes)
    machine.trail = { what: 'run', from, to: work.passes }
    return {
      type: 'stand',
      role: letter,
      stitches: count,
      increases: before ? Math.max(0, count - before.holes.length) : 0,
      row: core === 'row',
      name,
    }

    /** "row" is the number of beads in the row beneath. */
    function countFrom(written: Expression): number {
      if (before) machine.values.set('row', { amount: before.holes.length, unit: 'count' })
      try {
        return evaluateCount(written, machine, 'The number of beads', 3)
      } finally {
        machine.values.delete('row')
      }
    }

    function radiusOf(core: Exclude<StandWords['core'], 'row'>): number {
      if ('across' in core) return evaluateLength(core.across, machine, 'The core') / 2
      const outline = machine.stone(core.stone, core.span)?.outline
      if (outline?.shape !== 'round') {
        throw new LineFault(
          core.span,
          outline ? `${core.stone} is not round.` : `There is no stone ${core.stone}.`,
          'Beads stand round a round core: stone S round 12 mm, or a diameter.',
        )
      }
      machine.roles.used.add(core.stone)
      machine.placed.set(core.stone, machine.statement)
      return outline.diameter / 2
    }
  },
}

/** Its foot is held under the thread between the two beads of the row beneath that it comes to stand between. */
function standOn(h: Hole, turn: number, row: readonly Hole[], work: Work): void {
  const left = (Math.round(turn * row.length) - 1 + row.length) % row.length
  const right = (left + 1) % row.length
  work.ties.push(entryOf(h), exitOf(row[left] as Hole), exitOf(row[right] as Hole))
}
