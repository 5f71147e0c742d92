/** What a colourway does to the eye and to the hand that stitches it: in plain words, with the figures behind them. */

import type { Touching } from '../report/measures'
import { difference, lightness } from './difference'

/** What a role is dressed in. */
export interface RoleColour {
  readonly role: string
  readonly itemId: number
  /** As the pattern calls it: "pale", "deep rose". */
  readonly label: string
  /** Kind and size: what beads are told apart by when their colours are alike. */
  readonly shape: string
  readonly colourName: string
  readonly colour: string
  readonly finish: string
  /** Beads of it in a kit. */
  readonly count: number
}

export type Verdict = 'confuses' | 'near' | 'apart' | 'accent'

export interface NeighbourJudgement {
  readonly roles: readonly [string, string]
  readonly places: number
  /** CIEDE2000. */
  readonly difference: number
  readonly verdict: Verdict
  /** The beads themselves are of one kind and size, so that only colour tells them apart. */
  readonly alike: boolean
}

export interface Judgement {
  /** Most confusing first: of one kind and size before others, near in colour before far. */
  readonly neighbours: readonly NeighbourJudgement[]
  /** Roles that share an item: their beads lie in one heap. */
  readonly merged: readonly { readonly roles: readonly string[]; readonly colourName: string; readonly count: number }[]
  readonly ramps: readonly Ramp[]
  /** Transparent beads that a thread of another lightness would show through. */
  readonly showing: readonly { readonly role: string; readonly difference: number }[]
}

/** Shades of one thing that the labels put in an order, light to dark. */
export interface Ramp {
  readonly roles: readonly string[]
  /** L* of each. */
  readonly lightness: readonly number[]
  /** Each is darker than the one before, by enough to be seen. */
  readonly runs: boolean
}

/** Apart enough not to be taken for each other while stitching. */
export const apartFrom = 10

/** Apart enough to read as an accent. */
export const accentFrom = 25

/** A step of a ramp that is seen as one. */
const rampStep = 4

/** Thread nearer than this in colour does not show through a transparent bead. */
const threadShows = 20

export function judge(
  roles: readonly RoleColour[],
  touching: readonly Touching[],
  thread: string | undefined,
): Judgement {
  const byRole = new Map(roles.map((each) => [each.role, each]))
  const neighbours = touching.flatMap(({ roles: [a, b], places }): NeighbourJudgement[] => {
    const [one, other] = [byRole.get(a), byRole.get(b)]
    if (!one || !other || a === b || one.itemId === other.itemId) return []
    const apart = difference(one.colour, other.colour)
    const alike = one.shape === other.shape
    return [{ roles: [a, b], places, difference: apart, verdict: verdictOf(apart), alike }]
  })
  return {
    neighbours: neighbours.sort(
      (a, b) => Number(b.alike) - Number(a.alike) || a.difference - b.difference || b.places - a.places,
    ),
    merged: mergedIn(roles),
    ramps: rampsIn(roles),
    showing: thread === undefined ? [] : showingIn(roles, thread),
  }
}

export const verdictOf = (apart: number): Verdict =>
  apart < apartFrom / 2 ? 'confuses' : apart < apartFrom ? 'near' : apart < accentFrom ? 'apart' : 'accent'

function mergedIn(roles: readonly RoleColour[]): Judgement['merged'] {
  const byItem = new Map<number, RoleColour[]>()
  for (const each of roles) byItem.set(each.itemId, [...(byItem.get(each.itemId) ?? []), each])
  return [...byItem.values()].flatMap((shared) => {
    const [first] = shared
    if (!first || shared.length < 2) return []
    const count = shared.reduce((sum, each) => sum + each.count, 0)
    return [{ roles: shared.map(({ role }) => role), colourName: first.colourName, count }]
  })
}

/** How dark a label says a shade is. */
const shades: readonly (readonly [words: RegExp, rank: number])[] = [
  [/\b(palest|lightest)\b/, 0],
  [/\b(pale|light|shallow)\b/, 1],
  [/\b(middle|medium|mid)\b/, 2],
  [/\b(deep|dark)\b/, 3],
  [/\b(deepest|darkest)\b/, 4],
]

/** Roles whose labels name shades run light to dark; what stands between a pale and a deep one without a word of its own is the middle. */
function rampsIn(roles: readonly RoleColour[]): Ramp[] {
  const ranked = roles.flatMap((each) => {
    const rank = shades.find(([words]) => words.test(each.label))?.[1]
    return rank === undefined ? [] : [{ each, rank }]
  })
  if (new Set(ranked.map(({ rank }) => rank)).size < 2) return []
  const ordered = ranked.sort((a, b) => a.rank - b.rank)
  const light = ordered.map(({ each }) => lightness(each.colour))
  return [
    {
      roles: ordered.map(({ each }) => each.role),
      lightness: light,
      runs: light.every((l, i) => i === 0 || (light[i - 1] as number) - l >= rampStep),
    },
  ]
}

function showingIn(roles: readonly RoleColour[], thread: string): Judgement['showing'] {
  return roles.flatMap(({ role, finish, colour }) => {
    if (!/transparent|crystal|cut glass|silver lined/.test(finish)) return []
    const apart = difference(colour, thread)
    return apart >= threadShows ? [{ role, difference: apart }] : []
  })
}

/** The threads on the shelf by how little they show through these beads, best first. */
export function threadsFor<Thread extends { readonly colour: string }>(
  roles: readonly Pick<RoleColour, 'colour' | 'count'>[],
  threads: readonly Thread[],
): { readonly thread: Thread; readonly difference: number }[] {
  const beads = roles.reduce((sum, { count }) => sum + count, 0)
  if (beads === 0) return []
  return threads
    .map((thread) => ({
      thread,
      difference: roles.reduce((sum, each) => sum + each.count * difference(each.colour, thread.colour), 0) / beads,
    }))
    .sort((a, b) => a.difference - b.difference)
}
