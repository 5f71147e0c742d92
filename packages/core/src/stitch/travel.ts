/**
 * The way through existing beads: the shortest walk along holes that thread joins, so that nothing shows and no gap is crossed.
 */
import TinyQueue from 'tinyqueue'
import type { Mm } from '../measure/units'
import { LineFault, type Span } from '../notation/fault'
import { beadOf, entryOf, exitOf, type Hole } from './hole'
import type { StitchMachine } from './stitch-machine'
import type { Work } from './work'

/**
 * @param cost what passing a hole costs, mm of thread
 * @param isTarget the hole after which the walk may stop
 * @returns the holes to pass in order, or undefined where no thread leads there
 */
/** Each bead that a search comes to weighs as much as so many that are merely listed. */
const searchWeight = 12

function shortestWay(
  machine: StitchMachine,
  span: Span,
  from: Hole,
  cost: (h: Hole) => Mm,
  isTarget: (h: Hole) => boolean,
): Hole[] | undefined {
  const { work } = machine
  const best = new Map<Hole, Mm>()
  const cameFrom = new Map<Hole, Hole>()
  const done = new Set<Hole>()
  // Equal costs leave in the order they came, so that a walk is the same every time.
  let order = 0
  const queue = new TinyQueue<{ h: Hole; at: Mm; order: number }>([], (a, b) => a.at - b.at || a.order - b.order)
  const reach = (h: Hole, at: Mm, via: Hole) => {
    const known = best.get(h)
    if (at === Infinity || (known !== undefined && known <= at)) return
    best.set(h, at)
    cameFrom.set(h, via)
    queue.push({ h, at, order: order++ })
  }
  const follow = (h: Hole, at: Mm) => {
    for (const end of neighbours(work, exitOf(h))) reach(end, at + cost(end), h)
  }
  follow(from, 0)
  for (let next = queue.pop(); next; next = queue.pop()) {
    const { h } = next
    if (done.has(h)) continue
    done.add(h)
    machine.spend(searchWeight, span)
    if (isTarget(h)) {
      const way: Hole[] = []
      for (let at: Hole | undefined = h; at !== undefined && at !== from; at = cameFrom.get(at)) way.push(at)
      return way.reverse()
    }
    follow(h, best.get(h) as Mm)
  }
  return undefined
}

/**
 * The shortest way that stays off beads no more thread goes through; where there is none, the shortest of all, whose crowding the
 * report then tells.
 */
export function wayTo(
  machine: StitchMachine,
  from: Hole,
  span: Span,
  isTarget: (h: Hole) => boolean,
): Hole[] | undefined {
  const { walkCost } = machine
  const free = shortestWay(machine, span, from, (h) => (machine.isFull(h) ? Infinity : walkCost(h)), isTarget)
  return free ?? shortestWay(machine, span, from, walkCost, isTarget)
}

/** Travels to a bead; nothing to do where the needle is there already. */
export function travelTo(h: Hole, machine: StitchMachine, span: Span): number {
  const needle = machine.needle('to', span)
  if (beadOf(needle) === beadOf(h)) return 0
  const way = wayTo(machine, needle, span, (at) => beadOf(at) === beadOf(h))
  if (!way) throw new LineFault(span, 'No thread leads there from here.', 'Finish here and begin a new part there.')
  machine.makeRoom(0, way.length, span)
  for (const at of way) machine.work.pass(at, 'travel', machine.statement)
  return way.length
}

/**
 * A hole at the other end of a strip, turned so that the strip is not twisted when it closes: gone into at the end that fewer beads lead to. A
 * hole that thread leads to already, within a few beads, is passed as it was first: its other end is what wants holding.
 */
export function enteredUntwisted(h: Hole, machine: StitchMachine, span: Span): Hole {
  const { work } = machine
  const done = new Set<number>()
  const queue = new TinyQueue<{ end: number; at: number }>(
    [{ end: exitOf(machine.needle('join', span)), at: 0 }],
    (a, b) => a.at - b.at,
  )
  for (let next = queue.pop(); next; next = queue.pop()) {
    const { end, at } = next
    if (done.has(end)) continue
    done.add(end)
    machine.spend(1, span)
    if (beadOf(end) === beadOf(h)) return end === exitOf(h) && at > nearBeads ? h ^ 1 : h
    const bead = beadOf(end)
    // Through its own bore to the other end; over to another bore of it; along the thread.
    for (const other of [end ^ 1, ...(machine.boresOf(bead) === 2 ? [end ^ 2] : [])])
      queue.push({ end: other, at: at + 1 })
    for (const other of work.joinedTo(end)) queue.push({ end: other, at: at + aGap })
  }
  return h
}

const nearBeads = 4
/** What a gap between beads counts, next to a bead: beads are counted and not measured, for an edge of small beads is no shorter a way round. */
const aGap = 0.25

/** Holes the needle may enter when it comes out at `end`: those that thread already joins to it, its own bead's turns too. */
const neighbours = (work: Work, end: number): Hole[] => work.joinedTo(end).map(entryOf)
