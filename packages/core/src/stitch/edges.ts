/** The edges that rounds are worked on: those of the part in hand, and those that the parts before it have left. */
import type { Mm } from '../measure/units'
import type { Edge } from './action'
import { beadOf, type Hole } from './hole'
import { holesOf, type Rail, turned, turnedBack } from './rail'

type Left = Pick<Edges, 'rails' | 'roundsOn' | 'ring' | 'gathered'>

export class Edges {
  private inOrder: Partial<Record<Edge, Rail>> = {}
  /** The front is worked first. */
  private side: Edge = 'front'
  /** The hole of an edge that the needle has come to last. The edge is turned there when it is wanted: a thread may come to each of its beads. */
  private come: Hole | undefined
  roundsOn: Record<Edge, number> = { front: 0, back: 0 }
  /** What `rail` has gathered for the rounds in hand. */
  gathered: readonly Hole[] | undefined
  /** The ring that the part in hand began with. */
  ring: { readonly beads: number; readonly lengthMm: Mm; readonly acrossMm: Mm } | undefined

  private past: Left[] = []

  copy(): Edges {
    const copy = new Edges()
    copy.inOrder = { ...this.inOrder }
    copy.side = this.side
    copy.come = this.come
    copy.roundsOn = { ...this.roundsOn }
    copy.gathered = this.gathered
    copy.ring = this.ring
    copy.past = [...this.past]
    return copy
  }

  get rails(): Partial<Record<Edge, Rail>> {
    this.turnToNeedle()
    return this.inOrder
  }

  set rails(rails: Partial<Record<Edge, Rail>>) {
    this.inOrder = rails
    this.come = undefined
  }

  get inHand(): Edge {
    this.turnToNeedle()
    return this.side
  }

  set inHand(side: Edge) {
    this.turnToNeedle()
    this.side = side
  }

  get rail(): Rail | undefined {
    return this.rails[this.inHand]
  }

  /** The holes of an edge. */
  holesOf(edge: Edge): readonly Hole[] | undefined {
    const rail = this.rails[edge]
    return rail && holesOf(rail)
  }

  /** Makes a rail the edge in hand, begun behind the bead that the needle is in. */
  standOn(given: Rail, needle: Hole | undefined): void {
    this.rails = { front: given }
    this.gathered = undefined
    this.inHand = 'front'
    this.roundsOn = { front: 0, back: 0 }
    this.standAt(needle)
  }

  /** When the needle has come to a bead of an edge, rounds go on from there: of this part, or of an earlier one while this has none. */
  standAt(needle: Hole | undefined): void {
    if (needle === undefined) return
    const at = beadOf(needle)
    if (Object.keys(this.inOrder).length === 0) {
      const stood = this.past.findLast(({ rails }) => Object.values(rails).some((rail) => placesOf(rail).has(at)))
      if (stood) {
        const { rails, ...left } = stood
        Object.assign(this, { ...left, rails: { ...rails }, roundsOn: { ...stood.roundsOn } })
      }
    }
    const edge = this.edgeWith(at)
    if (!edge) return
    if (edge !== this.side || wayInto(this.inOrder[edge] as Rail, needle) === undefined) this.turnToNeedle()
    this.side = edge
    this.come = needle
  }

  private edgeWith(bead: number): Edge | undefined {
    return (['front', 'back'] as const).find((edge) => {
      const rail = this.inOrder[edge]
      return rail && placesOf(rail).has(bead)
    })
  }

  private turnToNeedle(): void {
    const needle = this.come
    const rail = this.inOrder[this.side]
    this.come = undefined
    if (needle === undefined || !rail) return
    const back = wayInto(rail, needle) === 'back'
    const faced = back ? turnedRound(rail) : rail
    this.inOrder[this.side] = turned(faced, (placesOf(faced).get(beadOf(needle)) ?? -1) + 1)
  }

  /** A part begins, with no edge of its own yet. */
  beginPart(): void {
    const { rails, roundsOn, ring, gathered } = this
    if (Object.keys(rails).length > 0) this.past.push({ rails, roundsOn, ring, gathered })
    this.rails = {}
    this.gathered = undefined
    this.inHand = 'front'
    this.roundsOn = { front: 0, back: 0 }
    this.ring = undefined
  }
}

/** An open row begins at its other end then, so that what was told of its odd end is over. */
const turnedRound = (rail: Rail): Rail => ({
  ...rail,
  groups: rail.groups.map(turnedBack).reverse(),
  ...(rail.closed ? {} : { odd: undefined }),
})

/** A closed edge is walked the way the needle has come into it; an open row from the end at which the needle is. */
function wayInto(rail: Rail, needle: Hole): 'on' | 'back' | undefined {
  if (!rail.closed) {
    const at = placesOf(rail).get(beadOf(needle))
    if (at === rail.groups.length - 1) return 'on'
    return at === 0 ? 'back' : undefined
  }
  if (rail.upright) return undefined
  const holes = holesIn(rail)
  return holes.has(needle ^ 1) ? 'back' : holes.has(needle) ? 'on' : undefined
}

const places = new WeakMap<Rail['groups'], ReadonlyMap<number, number>>()

/** By bead that rounds go on behind: its group. */
function placesOf({ groups }: Rail): ReadonlyMap<number, number> {
  const known = places.get(groups)
  if (known) return known
  // The first of them is meant.
  const found = new Map([...groups.entries()].reverse().map(([i, { stands }]) => [beadOf(stands.at(-1) as Hole), i]))
  places.set(groups, found)
  return found
}

const holesSeen = new WeakMap<Rail['groups'], ReadonlySet<Hole>>()

function holesIn(rail: Rail): ReadonlySet<Hole> {
  const known = holesSeen.get(rail.groups)
  if (known) return known
  const found = new Set(holesOf(rail))
  holesSeen.set(rail.groups, found)
  return found
}
