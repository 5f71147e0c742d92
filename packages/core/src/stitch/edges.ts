/** The edges that rounds are worked on: those of the part in hand, and those that the parts before it have left. */
import type { Mm } from '../measure/units'
import type { Edge } from './action'
import { beadOf, type Hole } from './hole'
import { type Group, holesOf, type Rail, turned, turnedBack } from './rail'

type Left = Pick<Edges, 'rails' | 'roundsOn' | 'ring' | 'gathered'>

export class Edges {
  /** The front is worked first. */
  rails: Partial<Record<Edge, Rail>> = {}
  inHand: Edge = 'front'
  roundsOn: Record<Edge, number> = { front: 0, back: 0 }
  /** What `rail` has gathered for the rounds in hand. */
  gathered: readonly Hole[] | undefined
  /** The ring that the part in hand began with. */
  ring: { readonly beads: number; readonly lengthMm: Mm; readonly acrossMm: Mm } | undefined

  private past: Left[] = []

  copy(): Edges {
    const copy = new Edges()
    copy.rails = { ...this.rails }
    copy.inHand = this.inHand
    copy.roundsOn = { ...this.roundsOn }
    copy.gathered = this.gathered
    copy.ring = this.ring
    copy.past = [...this.past]
    return copy
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
    if (Object.keys(this.rails).length === 0) {
      const stood = this.past.findLast(({ rails }) =>
        Object.values(rails).some((rail) => rail.groups.some(({ stands }) => beadOf(stands.at(-1) as Hole) === at)),
      )
      if (stood) Object.assign(this, { ...stood, rails: { ...stood.rails }, roundsOn: { ...stood.roundsOn } })
    }
    for (const edge of ['front', 'back'] as const) {
      const rail = this.rails[edge]
      const stands = (group: Group) => beadOf(group.stands[group.stands.length - 1] as Hole) === at
      if (!rail?.groups.some(stands)) continue
      // A closed edge is walked the way the needle has come into it; an open row from the end at which the needle is.
      const back = rail.closed
        ? !rail.upright && holesOf(rail).includes(needle ^ 1)
        : rail.groups.findIndex(stands) === 0 && rail.groups.length > 1
      const groups = back ? rail.groups.map(turnedBack).reverse() : rail.groups
      this.inHand = edge
      this.rails[edge] = turned(
        { ...rail, groups, ...(back && !rail.closed ? { odd: undefined } : {}) },
        groups.findIndex(stands) + 1,
      )
      return
    }
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
