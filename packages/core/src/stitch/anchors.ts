/** The anchors of a round: which holes of the rail it passes, one after the other. */

import type { Stitch } from '../notation/bead-list'
import { evaluateCount } from '../notation/expression'
import { DoesNotDivide, LineFault, type Span, whatIsOver } from '../notation/fault'
import type { IntoWords } from '../notation/parse-into'
import type { TargetWords } from '../notation/parse-target'
import { sharedOut } from '../sizing/shared-out'
import { beadOf, type Hole, hole, wayOf } from './hole'
import { type Group, gathered, holesOf, type OddEdge, plainGroup, type Rail, turnedBack } from './rail'
import type { StitchMachine } from './stitch-machine'
import { find } from './target'
import { walkedAlong } from './walked-along'

interface Anchors {
  /** What each stitch passes. An empty one passes nothing: its bead is turned in at the edge. */
  readonly anchors: readonly (readonly Hole[])[]
  /** Of a fresh ring: what the round leaves for the other edge. */
  readonly skipped: readonly Group[]
  /** Stitches beyond the last anchor, into what this round has added first. */
  readonly beyond?: number
  /** Of an odd fresh ring: the stitch, counted through the whole round, that skips two beads and makes it even, and how many that are. */
  readonly evens?: { readonly stitch: number; readonly skips: number }
  /** Of the edge that the round grows on, and of the one it leaves. */
  readonly odd?: OddEdge | undefined
  readonly oddSkipped?: OddEdge | undefined
}

export function anchorsOf(
  rail: Rail,
  into: IntoWords,
  stitches: readonly Stitch[],
  machine: StitchMachine,
  span: Span,
): Anchors {
  if (into.type === 'gaps')
    return rail.closed ? gaps(rail, stitches, machine, span) : gapsBack(rail, stitches, machine, span)
  const anchors = chosen(rail, into, machine, span)
  if (anchors.length === 0)
    throw machine.missing(
      span,
      'There is nothing on this edge for the round to go into.',
      'Name other beads after "into".',
    )
  return { anchors: anchors.map((h) => [h]), skipped: [] }
}

/** An open rail is walked back the way it came. */
const along = (rail: Rail, holes: readonly Hole[]): readonly Hole[] =>
  rail.closed ? holes : [...holes].reverse().map((h) => h ^ 1)

function chosen(
  rail: Rail,
  into: Exclude<IntoWords, { type: 'gaps' }>,
  machine: StitchMachine,
  span: Span,
): readonly Hole[] {
  switch (into.type) {
    case 'every': {
      const each = into.each ? evaluateCount(into.each, machine, 'The step', 1) : 1
      const holes = into.of ? walkFromNeedle(rail, [into.of], machine) : holesOf(rail)
      if (rail.closed && holes.length % each !== 0) {
        const below = Math.floor(holes.length / each) * each
        throw new DoesNotDivide(
          into.each?.span ?? span,
          `The edge has ${holes.length} beads, and ${each} go to a stitch${whatIsOver(holes.length, each)}.`,
          `${below > 0 ? `${below} or ` : ''}${below + each} beads would do.`,
        )
      }
      return along(rail, holes).filter((_, i) => (i + 1) % each === 0)
    }
    case 'spread': {
      const holes = into.of ? walkFromNeedle(rail, [into.of], machine) : holesOf(rail)
      const count = evaluateCount(into.count, machine, 'The number of beads', 1)
      if (count > holes.length)
        throw new LineFault(
          into.count.span,
          `There are ${holes.length} beads to go into, and not ${count}.`,
          `Give a number from 1 to ${holes.length}.`,
        )
      const all = along(rail, holes)
      return Array.from({ length: count }, (_, i) => all[sharedOut(holes.length, count, i + 1) - 1] as Hole)
    }
    case 'middles': {
      const groups = into.of === undefined ? rail.groups : machine.marks.groupsOf.get(into.of)
      if (!groups)
        throw new LineFault(
          span,
          `No round is marked "${into.of}".`,
          'Mark it where it is made: round 5C into every 4th bead as arcs.',
        )
      const holes = groups.map((group) => group.holes[middleOf(group)] as Hole)
      return along(rail, into.of === undefined ? holes : fromNeedle(rail, holes, machine))
    }
    case 'nth': {
      const nth = evaluateCount(into.nth, machine, 'The place', 1)
      const holes = rail.groups.map((group) => {
        const h = group.holes[nth - 1]
        if (h === undefined) {
          throw new LineFault(
            into.nth.span,
            `The last round added ${group.holes.length} bead${group.holes.length === 1 ? '' : 's'} a stitch; there is no number ${nth}.`,
            `Use a number from 1 to ${group.holes.length}.`,
          )
        }
        return h
      })
      return along(rail, holes)
    }
    case 'bore': {
      const holes = holesOf(rail).map((h) => {
        if (into.bore === 1 && machine.boresOf(beadOf(h)) === 1) {
          const letter = machine.letterOfBead(beadOf(h))
          throw new LineFault(span, `${letter} has one bore only.`, 'Only two-hole beads have a second.')
        }
        return hole(beadOf(h), into.bore, wayOf(h))
      })
      return along(rail, holes)
    }
    case 'target':
      return along(rail, walkFromNeedle(rail, into.targets, machine))
  }
}

/** Places that are named, in the direction of a walk along them whatever way their beads were picked up. */
const walkFromNeedle = (rail: Rail, targets: readonly TargetWords[], machine: StitchMachine): readonly Hole[] => {
  const holes = targets.flatMap((target) => find(target, machine))
  return fromNeedle(rail, rail.closed ? walkedAlong(holes, machine.work) : holes, machine)
}

/** What a round goes into where its part has no edge yet: the beads that the line names are one. */
export function edgeNamed(into: IntoWords, machine: StitchMachine): Rail | undefined {
  const named =
    into.type === 'target'
      ? into.targets
      : into.type === 'every' || into.type === 'spread'
        ? into.of && [into.of]
        : undefined
  const groups = into.type === 'middles' && into.of !== undefined ? machine.marks.groupsOf.get(into.of) : undefined
  const found = groups
    ? groups.flatMap(({ holes }) => [...holes])
    : walkedAlong(
        (named ?? []).flatMap((target) => find(target, machine)),
        machine.work,
      )
  if (found.length === 0) return undefined
  return {
    closed: true,
    groups: found.map((h) => plainGroup([h])),
    fresh: false,
    ringCount: found.length,
    perRingBead: 1,
    course: -1,
    side: 1,
  }
}

/** Of places that are named, a closed round begins with the one behind that at which the needle is. */
function fromNeedle(rail: Rail, holes: readonly Hole[], machine: StitchMachine): readonly Hole[] {
  const { needle } = machine.work
  if (!rail.closed || needle === undefined) return holes
  const at = holes.findIndex((h) => beadOf(h) === beadOf(needle))
  return at < 0 ? holes : [...holes.slice(at + 1), ...holes.slice(0, at + 1)]
}

export const middleOf = (group: Group): number => Math.floor((group.holes.length - 1) / 2)

/** Groups of a ring in the order in which it is walked from the needle on. */
function inOrderOf(rail: Rail, groups: readonly Group[]): Group[] {
  const places = new Map(holesOf(rail).map((h, i) => [h, i]))
  const place = ({ holes }: Group) => places.get(holes[0] as Hole) ?? 0
  return [...groups].sort((a, b) => place(a) - place(b))
}

/** Every second group of a fresh ring, as wide as the stitches are (peyote, two-drop); the groups of a round. */
function gaps(rail: Rail, stitches: readonly Stitch[], machine: StitchMachine, span: Span): Anchors {
  if (!rail.fresh) {
    const anchors = rail.groups.map((group) => group.stands)
    if (rail.odd?.type !== 'spiral') return { anchors, skipped: [] }
    const { more, after } = rail.odd
    return { anchors, skipped: [], beyond: more, odd: { type: 'spiral', more: after, after: more } }
  }
  if (rail.standing) return { anchors: inOrderOf(rail, rail.standing).map(({ stands }) => stands), skipped: [] }
  const drop = dropOf(stitches)
  const holes = holesOf(rail)
  // A ring that may be of any count near its stone is one that comes round evenly.
  const wanted = machine.openFits ? 2 * drop : drop
  if (holes.length % wanted !== 0) {
    const step = 2 * drop
    const below = Math.floor(holes.length / step) * step
    const how = wanted === 2 ? 'an even number' : `a multiple of ${wanted}`
    throw new DoesNotDivide(
      span,
      `The ring has ${holes.length} beads; ${drop === 1 ? 'peyote' : `${drop} beads a stitch`} in the round needs ${how}.`,
      waysOut(below, step, holes.length, machine),
    )
  }
  const groups = gathered(holes, drop)
  if (groups.length < 2)
    throw new LineFault(
      span,
      `A stitch of ${drop} beads skips as many of the ring and passes the next ${drop}; it has only ${holes.length}.`,
      `Begin with a ring of ${2 * drop} beads or more, or go into other beads: into every bead.`,
    )
  const anchors = groups.filter((_, i) => i % 2 === 1)
  const skipped = groups.filter((_, i) => i % 2 === 0).map(plainGroup)
  if (groups.length % 2 === 0) return { anchors, skipped }
  const evened = evenedOut(groups, stitches)
  if (evened) return evened
  machine.remark(
    'note',
    span,
    `${holes.length} beads are an odd number${drop === 1 ? '' : ` of ${drop}`}: the rounds run on in a spiral, without a step up.`,
    waysOut(Math.floor(holes.length / (2 * drop)) * 2 * drop, 2 * drop, holes.length, machine).replace(
      'would do',
      'would step up',
    ),
  )
  // The last stitch of the first round is into what its first stitch added.
  return {
    anchors,
    skipped,
    beyond: 1,
    odd: { type: 'spiral', more: 0, after: 1 },
    oddSkipped: { type: 'spiral', more: 0, after: -1 },
  }
}

/**
 * An odd ring with a stitch that is taken over two: that one skips two beads and passes the next, as every other skips one, and the round comes
 * out even. Where there are several it is the last.
 */
function evenedOut(groups: readonly (readonly Hole[])[], stitches: readonly Stitch[]): Anchors | undefined {
  const places = (groups.length + 1) / 2
  const cycle = stitches.reduce((sum, { over }) => sum + over, 0)
  if (cycle === 0 || places % cycle !== 0) return undefined
  const all = Array.from(
    { length: (places / cycle) * stitches.length },
    (_, i) => stitches[i % stitches.length] as Stitch,
  )
  const stitch = all.findLastIndex(({ over }) => over === 2)
  if (stitch < 0) return undefined
  const before = all.slice(0, stitch + 1).reduce((sum, { over }) => sum + over, 0) - 1
  const passed = Array.from({ length: places }, (_, i) => (i < before ? 2 * i + 1 : 2 * i))
  const two = 2 * before - 2
  const skipped = groups.flatMap((group, i) => {
    if (i === two) return [plainGroup([...group, ...(groups[i + 1] as readonly Hole[])])]
    return (i < two ? i % 2 === 0 : i > two + 1 && i % 2 === 1) ? [plainGroup(group)] : []
  })
  return {
    anchors: passed.map((i) => groups[i] as readonly Hole[]),
    skipped,
    evens: { stitch, skips: (groups[two] as readonly Hole[]).length + (groups[two + 1] as readonly Hole[]).length },
  }
}

/** Flat peyote: back along the row, every second group of the first, the groups added after that. */
function gapsBack(rail: Rail, stitches: readonly Stitch[], machine: StitchMachine, span: Span): Anchors {
  if (!rail.fresh) {
    // Two-drop goes on in twos; where a row has been widened, the next goes between the beads of each gap.
    const drop = dropOf(stitches)
    const alike = rail.groups.every(({ stands }) => stands.length === drop)
    const back = [...rail.groups].reverse().flatMap((group) => {
      const { stands } = turnedBack(group)
      return alike ? [stands] : stands.map((h) => [h])
    })
    const { needle } = machine.work
    // What the needle has come out of is not the next: a bead that was turned in at the edge.
    const out = needle !== undefined && back[0]?.some((h) => beadOf(h) === beadOf(needle))
    const anchors = out ? back.slice(1) : back
    if (rail.odd?.type !== 'edge') return { anchors, skipped: [] }
    return rail.odd.turns
      ? { anchors: [...anchors, []], skipped: [], odd: { type: 'edge', turns: false } }
      : { anchors, skipped: [], odd: { type: 'edge', turns: true } }
  }
  const holes = along(rail, holesOf(rail))
  const drop = dropOf(stitches)
  if (holes.length % drop !== 0) {
    const below = Math.floor(holes.length / (2 * drop)) * 2 * drop
    throw new LineFault(
      span,
      `The row has ${holes.length} beads; ${drop} beads a stitch go back along a multiple of ${drop}.`,
      `${below} or ${below + 2 * drop} would do.`,
    )
  }
  const groups = gathered(holes, drop)
  if (groups.length < 2)
    throw machine.missing(span, 'There is nothing to go back along yet.', `String ${2 * drop} beads or more first.`)
  const anchors = groups.filter((_, i) => i % 2 === 1)
  if (groups.length % 2 === 0) return { anchors, skipped: [] }
  return { anchors: [...anchors, []], skipped: [], odd: { type: 'edge', turns: false } }
}

/** How wide a stitch is on a fresh ring: two-drop and wider only where every stitch that adds is as wide. */
function dropOf(stitches: readonly Stitch[]): number {
  const widths = new Set(
    stitches.flatMap(({ moves }) => {
      const picks = moves.filter((move) => move.type === 'pick')
      const standing = picks.filter((move) => move.stands)
      return picks.length === 0 ? [] : [standing.length || picks.length]
    }),
  )
  const [only] = widths
  return widths.size === 1 && only !== undefined ? only : 1
}

/** What a ring that does not come out even could be, and what each would do to its size. */
function waysOut(below: number, step: number, count: number, machine: StitchMachine): string {
  const each = machine.edges.ring ? machine.edges.ring.lengthMm / machine.edges.ring.beads : 0
  const say = (n: number) => {
    const change = (n - count) * each
    return each > 0 ? `${n} (${change > 0 ? '+' : ''}${change.toFixed(1)} mm)` : String(n)
  }
  const counts = [below, below + step].filter((n) => n >= 3).map(say)
  return `${counts.join(' or ')} would do${step === 2 ? '; or take one stitch over two beads, which keeps the size' : ''}.`
}
