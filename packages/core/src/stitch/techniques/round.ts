import { divisors } from '../../measure/whole'
import { asStitches, type BeadList, pickedRoles, readBeadList, rolesIn, type Stitch } from '../../notation/bead-list'
import { evaluateCount } from '../../notation/expression'
import { DoesNotDivide, LineFault, type Span, whatIsOver } from '../../notation/fault'
import { type IntoWords, readInto } from '../../notation/parse-into'
import { sharedOut } from '../../sizing/shared-out'
import type { StitchGap } from '../../thread/stitch-gap'
import type { IntoTold, MoveTold, StitchTold } from '../action'
import { anchorsOf, edgeNamed, middleOf } from '../anchors'
import { doMoves } from '../do-moves'
import { beadOf, type Hole } from '../hole'
import { type Mark, readMark } from '../mark'
import { type Group, holesOf, plainGroup, type Rail } from '../rail'
import type { StitchMachine } from '../stitch-machine'
import { findTold } from '../target'
import type { Technique } from '../technique'

export interface RoundWords {
  readonly list: BeadList
  readonly into: IntoWords
  readonly stepsUp: boolean
  readonly name: Mark | undefined
}

/**
 * `round C`, `round C x6, -`, `round 5C into every 4th bead`, `round 5C into middles as arcs`: at each anchor of the rail, picks up
 * the next group of the list and passes through the anchor; a closed round then steps up through the first group it added, as far
 * as the next round will need.
 */
export const roundTechnique: Technique<RoundWords> = {
  word: 'round',
  read(cursor) {
    const list = readBeadList(cursor, 'round')
    let into = readInto(cursor)
    const name = readMark(cursor)
    into ??= readInto(cursor)
    let stepsUp = true
    if (cursor.take('Word', 'no')) {
      const step = cursor.expect('Word', '"step"', 'Write: no step.')
      if (step.text !== 'step')
        throw new LineFault(step, `Expected "step" after "no", found "${step.text}".`, 'Write: no step.', 'step')
      stepsUp = false
    }
    return { list, into: into ?? { type: 'gaps' }, stepsUp, name }
  },

  into: ({ into }) => into,

  work({ list, into, stepsUp, name }, machine, span) {
    const { work } = machine
    machine.needle('round', span)
    for (const { role, span: at } of rolesIn(list)) machine.roles.numberOf(role, at)
    const written = asStitches(list, machine)
    if (!machine.edges.rails[machine.edges.inHand]) {
      const named = edgeNamed(into, machine)
      if (named) machine.standOn(named)
    }
    const rail = machine.rail('round', span)
    const found = anchorsOf(rail, into, written, machine, list.span)
    // One stitch of the whole round is not like the others of its kind.
    const stitches = found.evens ? wholeRound(written, found.anchors.length) : written
    // Before the round: it may take the name of what it goes into.
    const intoTold = toldInto(into, rail, found.anchors, machine)
    const { skipped, odd } = found
    const beyond = Math.max(0, found.beyond ?? 0)
    // Stitches beyond the last anchor go into what this round has added; until then they stand empty.
    const reached = found.anchors.slice(0, found.anchors.length + Math.min(0, found.beyond ?? 0))
    const left = rail.groups.slice(reached.length)
    const anchors = takenAtOnce([...reached, ...Array<readonly Hole[]>(beyond).fill([])], stitches, rail, list.span)
    const n = anchors.length
    const picks = stitches.map((stitch) => pickedRoles(stitch.moves).length)
    const added = picks.reduce((sum, each) => sum + each, 0) * (n / stitches.length)
    if (added === 0)
      throw new LineFault(list.span, 'This round picks up nothing at all.', 'Use "reinforce" to go round once more.')
    machine.makeRoom(added, anchors.reduce((sum, anchor) => sum + anchor.length, 0) + added, span)

    const peyote = into.type === 'gaps'
    const stitchGap = peyote ? 'peyote' : 'netting'
    if (peyote && rail.fresh) settleFirstRow(anchors, rail, machine)
    const below = work.seat(beadOf(anchors.find((anchor) => anchor.length > 0)?.[0] as Hole)).course
    // Along a rail gathered by hand, beads lie where the thread lays them.
    const course = below < 0 || rail.course < 0 ? -1 : work.courses.length
    const begun = work.passes
    const groups: Group[] = []
    /** What each stitch of the list does, as it is told. */
    const done: MoveTold[][] = []
    const closing = anchors.findLast((anchor) => anchor.length > 0)
    let before = rail.closed && closing ? lastTurn(closing, machine) : work.turnOf(beadOf(work.needle as Hole))
    let firstDone = -1
    for (let i = 0; i < n; i++) {
      const given = anchors[i] as readonly Hole[]
      const edge = given.length === 0 && !rail.closed
      const anchor = given.length > 0 || edge ? given : groups[i - (n - beyond)]?.stands
      if (!anchor)
        throw new LineFault(
          list.span,
          'Over an odd number of beads the last stitch goes into what the first has picked up, and that is nothing.',
          'Begin the list with a bead, and take each stitch over one.',
        )
      const stitch = stitches[i % stitches.length] as Stitch
      const next =
        anchor[0] === undefined ? (rail.closed ? before : before > 0.5 ? 1 : 0) : work.turnOf(beadOf(anchor[0]))
      if (stitch.moves.length > 0) {
        const gap = rail.closed ? forward(before, next) : next - before
        // The first bead of flat work stands on the bead that the row before ended with.
        const along = (k: number, of: number) => (rail.closed || i > 0 ? (k + 1) / (of + 1) : k / of)
        const isFirst = done[i % stitches.length] === undefined
        const told: MoveTold[] = []
        const group = doMoves(
          stitch.moves,
          machine,
          stitchGap,
          course < 0
            ? undefined
            : (k, of) => ({ course, turn: before + gap * along(k, of), lift: peyote ? 1 : archAt(k, of) }),
          isFirst ? told : undefined,
        )
        if (isFirst) done[i % stitches.length] = told
        if (group.holes.length > 0) groups.push(group)
        if (firstDone < 0 && group.holes.length > 0) firstDone = work.passes
      }
      if (!edge) passGroup(anchor, stitchGap, machine)
      else if (stitch.moves.length > 0) turnIn(groups[groups.length - 1], machine)
      if (anchor.length > 0) before = lastTurn(anchor, machine)
    }
    if (course >= 0) {
      const kind = peyote ? 'gaps' : 'arcs'
      work.begin({ kind, on: below, side: rail.side, stitches: n, from: begun, to: work.passes })
    }
    const first = groups[0] as Group
    const steps = stepsUp && rail.closed && odd === undefined
    const upPast = steps ? picks.findIndex((each) => each > 0) : 0
    if (steps) {
      // Past the anchors of any stitches that added nothing, to the first group that was added.
      for (const anchor of anchors.slice(0, upPast)) passGroup(anchor, stitchGap, machine)
      passGroup(first.holes.slice(0, reachOf(first, machine)), stitchGap, machine)
    }

    machine.trail = { what: 'round', from: firstDone, to: work.passes }
    if (name) {
      machine.marks.add(
        name,
        groups.flatMap((group) => group.holes),
        rail.closed,
      )
      machine.marks.groupsOf.set(
        name.name,
        name.all ? [...(machine.marks.groupsOf.get(name.name) ?? []), ...groups] : groups,
      )
    }
    machine.edges.rails[machine.edges.inHand] = {
      ...rail,
      fresh: false,
      course,
      perRingBead: groups.length / rail.ringCount,
      groups: steps
        ? [...groups.slice(1), first]
        : rail.closed && odd
          ? [...(rail.fresh ? [] : left), ...groups.slice(beyond)]
          : groups,
      odd,
    }
    const other = machine.edges.inHand === 'front' ? 'back' : 'front'
    // Peyote leaves every second bead of a ring for its other edge; any other round leaves the ring itself.
    if (rail.fresh && rail.closed && !machine.edges.rails[other]) {
      const side = -rail.side as 1 | -1
      const left = {
        fresh: false,
        perRingBead: skipped.length / rail.ringCount,
        groups: skipped,
        odd: found.oddSkipped,
      }
      const standing = peyote ? undefined : runsBetween(holesOf(rail), anchors, picks)
      machine.edges.rails[other] = { ...rail, side, ...(peyote ? left : {}), ...(standing ? { standing } : {}) }
    }
    machine.edges.roundsOn[machine.edges.inHand]++
    return {
      type: 'round',
      stitches: n,
      cycle: toldTogether(stitches, done, found.evens),
      turns: n / stitches.length,
      added,
      round: machine.edges.roundsOn[machine.edges.inHand],
      edge: machine.edges.inHand,
      standing: groups.length,
      closed: rail.closed,
      into: intoTold,
      fresh: rail.fresh,
      ends: steps
        ? 'steps up'
        : rail.closed
          ? odd
            ? 'runs on'
            : 'stays'
          : anchors.at(-1)?.length === 0
            ? 'turned in'
            : 'turns',
      upThrough: steps ? reachOf(first, machine) : 0,
      upPast,
      name,
    }
  },
}

/** How far into its first group a round steps up: to what the next round takes for its anchor. */
function reachOf(first: Group, machine: StitchMachine): number {
  const next = machine.nextInto
  if (next?.type === 'middles' && next.of === undefined) return middleOf(first) + 1
  if (next?.type === 'nth') return Math.min(evaluateCount(next.nth, machine, 'The place', 1), first.holes.length)
  const last = first.stands[first.stands.length - 1]
  return first.holes.indexOf(last as Hole) + 1
}

/** The last bead of a row that has none to go into: round the thread at the edge, and back through it. */
function turnIn(last: Group | undefined, machine: StitchMachine): void {
  for (const [i, h] of [...(last?.holes ?? [])].reverse().entries())
    machine.work.pass(h ^ 1, i === 0 ? 'brick' : 'ring', machine.statement)
}

function passGroup(group: readonly Hole[], stitchGap: 'peyote' | 'netting', machine: StitchMachine): void {
  let next: StitchGap = stitchGap
  for (const h of group) {
    machine.work.pass(h, next, machine.statement)
    next = 'ring'
  }
}

const lastTurn = (group: readonly Hole[], machine: StitchMachine) =>
  machine.work.turnOf(beadOf(group[group.length - 1] as Hole))

/** How far on from one share of the way round to another, going forward. */
const forward = (from: number, to: number) => {
  const gap = (to - from) % 1
  return gap <= 0 ? gap + 1 : gap
}

/** How high a bead stands in an arc of so many: the middle ones are at the top. */
const archAt = (k: number, of: number) => Math.sin((Math.PI * (k + 1)) / (of + 1))

/** On a first row the beads passed and the beads left come to lie half a bead to either side of it. */
function settleFirstRow(anchors: readonly (readonly Hole[])[], rail: Rail, machine: StitchMachine): void {
  const passed = new Set(anchors.flat().map(beadOf))
  for (const h of holesOf(rail)) {
    const bead = beadOf(h)
    machine.work.reseat(bead, { ...machine.work.seat(bead), lift: (passed.has(bead) ? 0.5 : -0.5) * rail.side })
  }
}

/**
 * Of a ring whose every stitch adds as many beads as it skips, as two-drop does into beads that are named: the runs that it skips. They stand up
 * for a peyote round on the other edge.
 */
function runsBetween(
  ring: readonly Hole[],
  anchors: readonly (readonly Hole[])[],
  picks: readonly number[],
): Group[] | undefined {
  const passed = new Set(anchors.flat())
  const runs: Hole[][] = [[]]
  for (const h of ring) {
    if (passed.has(h)) runs.push([])
    else runs.at(-1)?.push(h)
  }
  // The ring is closed: what is left behind the last anchor comes before the first.
  const tail = runs.pop() ?? []
  runs[0] = [...tail, ...(runs[0] ?? [])]
  const alike =
    runs.length === anchors.length && runs.every((run, i) => run.length > 0 && run.length === picks[i % picks.length])
  return alike ? runs.map(plainGroup) : undefined
}

/** The anchors, with those that a stitch "over 2" takes together left out but for its last; checks that the list goes round. */
function takenAtOnce(
  anchors: readonly (readonly Hole[])[],
  stitches: readonly Stitch[],
  rail: Rail,
  span: Span,
): readonly (readonly Hole[])[] {
  const cycle = stitches.reduce((sum, stitch) => sum + stitch.over, 0)
  if (stitches.length === 0 || anchors.length % cycle !== 0) throw notWhole(cycle, anchors.length, rail, span)
  if (cycle === stitches.length) return anchors
  const taken: (readonly Hole[])[] = []
  for (let at = 0, i = 0; at < anchors.length; i++) {
    at += (stitches[i % stitches.length] as Stitch).over
    taken.push(anchors[at - 1] as readonly Hole[])
  }
  return taken
}

/** The list does not go round evenly: says what would, and which ring counts would make it so. */
function notWhole(cycle: number, anchors: number, rail: Rail, span: Span): LineFault {
  if (cycle === 0) return new LineFault(span, 'This round has no stitches.', 'Give it a bead: round A.')
  const perRingBead = rail.fresh ? anchors / rail.ringCount : rail.perRingBead
  const step = cycle / perRingBead
  const below = Math.floor(rail.ringCount / step) * step
  const rings = [below, below + step].filter((count) => count > 0 && Number.isInteger(count) && count % 2 === 0)
  const lists = divisors(anchors).filter((n) => n <= 12)
  const ways = [
    `A list of ${orOf(lists)} stitches would go round`,
    ...(rail.closed && rings.length > 0 ? [`so would a ring of ${orOf(rings)} beads`] : []),
    ...(anchors % cycle === 1 ? ['or take one stitch over two beads'] : []),
  ]
  return new DoesNotDivide(
    span,
    `There are ${anchors} stitches in this round and the list has ${cycle}${whatIsOver(anchors, cycle)}.`,
    `${ways.join('; ')}.`,
  )
}

const orOf = (numbers: readonly number[]) =>
  numbers.length < 2 ? numbers.join('') : `${numbers.slice(0, -1).join(', ')} or ${numbers[numbers.length - 1]}`

/** The list as often as it goes round. */
function wholeRound(stitches: readonly Stitch[], anchors: number): Stitch[] {
  const cycle = stitches.reduce((sum, { over }) => sum + over, 0)
  return Array.from({ length: (anchors / cycle) * stitches.length }, (_, i) => stitches[i % stitches.length] as Stitch)
}

/** Equal stitches in a row are told once with their number. */
function toldTogether(
  stitches: readonly Stitch[],
  done: readonly (readonly MoveTold[])[],
  evens: { readonly stitch: number; readonly skips: number } | undefined,
): StitchTold[] {
  const told: { stitch: StitchTold; key: string; times: number }[] = []
  for (const [i, { moves: written, over }] of stitches.entries()) {
    const picks = written.filter((move) => move.type === 'pick')
    const marked = picks.flatMap(({ stands }, at) => (stands ? [at + 1] : []))
    const standing = marked.length > 0 && marked.length < picks.length ? marked : undefined
    const skips = evens?.stitch === i ? evens.skips : undefined
    const stitch = { moves: done[i] ?? [], times: 1, over: skips ? 1 : over, skips, standing }
    const key = stitches.length > 1 ? JSON.stringify(stitch) : ''
    const last = told[told.length - 1]
    if (last?.key === key) last.times++
    else told.push({ stitch, key, times: 1 })
  }
  return told.map(({ stitch, times }) => ({ ...stitch, times }))
}

function toldInto(
  into: IntoWords,
  rail: Rail,
  anchors: readonly (readonly Hole[])[],
  machine: StitchMachine,
): IntoTold {
  const same = (counts: readonly number[]) => (counts.every((each) => each === counts[0]) ? counts[0] : undefined)
  switch (into.type) {
    case 'gaps':
      return { type: 'gaps', wide: same(anchors.map(({ length }) => length).filter((length) => length > 0)) }
    case 'every': {
      const own = rail.course < 0 ? 'rail' : rail.fresh ? (rail.closed ? 'ring' : 'row') : 'round'
      return {
        type: 'every',
        each: into.each ? evaluateCount(into.each, machine, 'The step', 1) : 1,
        of: into.of ? findTold(into.of, machine).told : own,
      }
    }
    case 'spread': {
      const own = rail.course < 0 ? 'rail' : rail.fresh ? (rail.closed ? 'ring' : 'row') : 'round'
      const found = into.of && findTold(into.of, machine)
      const of = found?.holes.length ?? holesOf(rail).length
      const steps = anchors.map((_, i) => sharedOut(of, anchors.length, i + 1) - sharedOut(of, anchors.length, i))
      return { type: 'spread', steps, of: found?.told ?? own }
    }
    case 'middles': {
      const groups = into.of === undefined ? rail.groups : (machine.marks.groupsOf.get(into.of) ?? [])
      return { type: 'group', nth: 'middle', of: same(groups.map(({ holes }) => holes.length)), name: into.of }
    }
    case 'nth': {
      const of = same(rail.groups.map(({ holes }) => holes.length))
      return { type: 'group', nth: evaluateCount(into.nth, machine, 'The place', 1), of, name: undefined }
    }
    case 'bore':
      return { type: 'bore' }
    case 'target':
      return { type: 'target', targets: into.targets.map((target) => findTold(target, machine).told) }
  }
}

/** `row A`: the same along an open row, as flat work is spoken of. */
export const rowTechnique: Technique<RoundWords> = { ...roundTechnique, word: 'row' }
