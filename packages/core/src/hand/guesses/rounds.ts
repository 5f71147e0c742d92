/** Rounds and rows: the same stitch again and again along an edge. */
import type { Move, Stitch } from '../../notation/bead-list'
import { LineFault } from '../../notation/fault'
import { ordinal } from '../../notation/ordinal'
import { parsePattern } from '../../notation/parse'
import type { IntoWords } from '../../notation/parse-into'
import { anchorsOf, edgeNamed } from '../../stitch/anchors'
import { beadOf, boreOf, type Hole, wayOf } from '../../stitch/hole'
import { holesOf } from '../../stitch/rail'
import type { StitchMachine } from '../../stitch/stitch-machine'
import { readStitchLine } from '../../stitch/techniques'
import { type MoveItem, moveList } from '../move-list'
import { periodOf, shortStitch, shortStitches } from '../shorten'
import { type Guess, type Hand, isOwn, itemOf } from './guess'
import { runsOfPicks } from './strung'

/** Wider steps along an edge than this are said by marks. */
const widestStep = 12
/** A stitch is taken over so many beads at the most. */
const widestOver = 4

export const roundGuess: Guess = function* (hand, machine) {
  if (machine.work.needle === undefined || hand.picked.length + hand.rest.length === 0) return
  const word = machine.edges.rail && !machine.edges.rail.closed ? 'row' : 'round'
  /** Beads that were gone into already: who says the same in more words is not heard. */
  const told = new Set<string>()
  for (const into of intos(hand, machine)) {
    for (const list of listsFor(into, hand, machine, told)) {
      yield `${word} ${list.text}${into && ` ${into}`}`
      if (word === 'round' && list.done && hand.rest.length > 0)
        yield `${word} ${list.text}${into && ` ${into}`} no step`
    }
  }
}

/** What a round may go into, by the first bead that the hand has passed. */
function* intos(hand: Hand, machine: StitchMachine): Iterable<string> {
  const into = hand.rest.find((h) => !isOwn(h, hand))
  yield ''
  yield 'into every bead'
  yield 'into middles'
  for (let each = 2; each <= widestStep; each++) yield `into every ${ordinal(each)} bead`
  const widest = Math.max(0, ...(machine.edges.rail?.groups.map(({ holes }) => holes.length) ?? []))
  for (let nth = 1; nth <= Math.min(widest, widestStep); nth++) yield `into ${ordinal(nth)} of each`
  if (into === undefined) return
  const beads = runsOfPicks(hand).length
  if (beads > 0) yield `into ${beads} beads`
  yield `into ${machine.letterOfBead(beadOf(into))}`
  if (boreOf(into) === 1) yield 'into holes 2'
  for (const name of machine.markNames()) {
    if (!machine.marked(name)?.some((h) => beadOf(h) === beadOf(into))) continue
    yield `into ${name}`
    if (machine.marks.groupsOf.has(name)) yield `into middles of ${name}`
    for (let each = 2; each <= widestStep; each++) yield `into every ${ordinal(each)} bead of ${name}`
  }
}

/** Lists whose stitches, one after the other at what the round goes into, begin with what the hand has done. */
function* listsFor(into: string, hand: Hand, machine: StitchMachine, told: Set<string>): Iterable<RoundList> {
  const words = intoWords(into)
  if (!words) return
  const widths = new Set([1, hand.picked.length])
  for (const width of widths) {
    const anchors = anchorsAt(words, width, machine)
    if (!anchors) continue
    const key = anchors.map((anchor) => anchor.join('+')).join()
    if (told.has(key)) continue
    told.add(key)
    const stitches = stitchesAlong(anchors, hand)
    // Each over as many beads of an edge is what goes into every so-many-th of them.
    const alike = words.type !== 'gaps' && stitches.every(({ over }) => over > 1 && over === stitches[0]?.over)
    if (!alike) yield* listsOf(stitches, anchors.length)
    if (words.type === 'gaps') yield* evenedLists(hand, machine)
  }
}

/** An odd ring with one stitch taken over two of its beads: as any other skips one, this one skips two. */
function* evenedLists(hand: Hand, machine: StitchMachine): Iterable<RoundList> {
  const { rail } = machine.edges
  if (!rail?.fresh || !rail.closed || rail.groups.length % 2 === 0) return
  const beads = holesOf(rail)
  const stitches = stitchesAlong(
    beads.map((h) => [h]),
    hand,
  ).map(({ list, over }) => ({ list, over: over - 1 }))
  if (stitches.filter(({ over }) => over === 2).length === 1 && stitches.every(({ over }) => over === 1 || over === 2))
    yield* listsOf(stitches, (beads.length + 1) / 2)
}

function intoWords(into: string): IntoWords | undefined {
  const [line] = parsePattern(`round A ${into}`).lines
  return line && readStitchLine(line).into
}

/** @param width of the stitches: two-drop goes into two beads at once */
function anchorsAt(into: IntoWords, width: number, machine: StitchMachine): readonly (readonly Hole[])[] | undefined {
  const rail = machine.edges.rail ?? edgeNamed(into, machine)
  const role = [...machine.roles.byLetter.values()].find(({ type }) => type === 'bead')
  if (!rail || !role) return undefined
  const span = { from: 0, to: 1 }
  const pick: Move = { type: 'pick', role: role.letter, bore: 0, stands: false, span }
  const stitch: Stitch = { moves: Array.from({ length: width }, () => pick), over: 1 }
  try {
    return anchorsOf(rail, into, [stitch], machine, span).anchors
  } catch (error) {
    if (error instanceof LineFault) return undefined
    throw error
  }
}

interface RoundList {
  readonly text: string
  /** The hand has been all the way round. */
  readonly done: boolean
}

interface StitchMade {
  readonly list: string
  /** Anchors taken at once. */
  readonly over: number
}

/** What the hand did from one anchor to the next. None where it went anywhere else. */
function stitchesAlong(anchors: readonly (readonly Hole[])[], hand: Hand): StitchMade[] {
  const stitches: StitchMade[] = []
  const { passes, holes } = hand
  let moves: MoveItem[] = []
  let next = 0
  for (let at = 0; at < passes.length && next < anchors.length; ) {
    const h = holes[at] as Hole
    const pass = passes[at]
    const bead = beadOf(h)
    if (pass?.type === 'pick') {
      moves.push({ bead, letter: pass.role, pick: true, back: false, text: itemOf(pass) })
      at++
      continue
    }
    const reached = anchors.findIndex(
      (anchor, i) =>
        i >= next && i < next + widestOver && anchor.length > 0 && anchor.every((each, k) => holes[at + k] === each),
    )
    const whole = reached >= 0
    // The hand has come into the first bead of an anchor of several.
    const begun = !whole && at + (anchors[next]?.length ?? 0) > passes.length && anchors[next]?.[0] === h
    if (whole || begun) {
      const over = whole ? reached - next + 1 : 1
      const list = moves.length === 0 ? ['-'] : moveList(moves)
      if (!list) return []
      stitches.push({ list: shortStitch(list), over })
      moves = []
      next += over
      at += anchors[next - 1]?.length ?? 1
      continue
    }
    const own = moves.find((move) => move.pick && move.bead === bead)
    if (!own || wayOf(h) !== -1) return []
    moves.push({ bead, letter: own.letter, pick: false, back: true, text: undefined })
    at++
  }
  // A stitch in hand that is not done is taken to be one more of those that were made; the first of all to be done.
  if (stitches.length === 0 && moves.length > 0 && hand.rest.length === 0) {
    const list = moveList(moves)
    if (list) stitches.push({ list: shortStitch(list), over: 1 })
  }
  return stitches
}

/** One turn of the stitches: the whole round's where it is done; otherwise the shortest that begins so, and those that come out even. */
function* listsOf(made: readonly StitchMade[], places: number): Iterable<RoundList> {
  if (made.length === 0) return
  const stitches = made.map(({ list, over }) => (over > 1 ? `${list} over ${over}` : list))
  if (made.reduce((sum, { over }) => sum + over, 0) >= places) {
    yield { text: shortStitches(stitches.slice(0, periodOf(stitches))), done: true }
    return
  }
  let told = 0
  for (let period = 1; period <= stitches.length && told < maxLists; period++) {
    if (!stitches.every((stitch, i) => stitch === stitches[i % period])) continue
    told++
    yield { text: shortStitches(stitches.slice(0, period)), done: false }
  }
  // Filled up with the first stitch until the list goes into the round evenly.
  const [first] = stitches
  let filled = 0
  for (let turn = stitches.length + 1; turn <= places && first && filled < maxLists; turn++) {
    if (places % turn !== 0) continue
    filled++
    const whole = [...stitches, ...Array.from({ length: turn - stitches.length }, () => first)]
    yield { text: shortStitches(whole), done: false }
  }
}

/** Lists of one kind that are tried. */
const maxLists = 3

/** `square A`: through the beads below as often as it picks up, and through its own again. */
export const squareGuess: Guess = function* (hand, machine) {
  const { rail } = machine.edges
  if (!rail || rail.closed || hand.rest.length === 0) return
  const groups = runsOfPicks(hand).map(shortStitch)
  for (let period = 1; period <= groups.length; period++) {
    if (!groups.every((group, i) => group === groups[i % period])) continue
    yield `square ${shortStitches(groups.slice(0, period))}`
    return
  }
}
