import type { IntoWords } from '../notation/into-words'
import type { ThreadSettings } from '../thread/settings'
import type { PlaceTold } from './place-told'
import type { Run } from './runs'

/**
 * What a statement did, as plain data: what the written pattern is told from and the screen reads beside the line.
 * Roles are their letters.
 */
export type Action =
  | {
      readonly type: 'ring'
      readonly pattern: readonly Run[]
      readonly repeats: number
      readonly beads: number
      readonly closing: ThreadSettings['closing']
    }
  | {
      readonly type: 'round'
      /** Stitches, with or without a bead. */
      readonly stitches: number
      /** The stitches of one turn of the list, equal neighbours told together. */
      readonly cycle: readonly { readonly beads: readonly Run[]; readonly times: number; readonly over: number }[]
      readonly turns: number
      readonly added: number
      /** From 1, on its edge. */
      readonly round: number
      readonly edge: Edge
      /** Groups that now stand up for the next round. */
      readonly standing: number
      readonly closed: boolean
      readonly into: IntoWords['type']
      /** Nothing had been stitched on the ring or row yet: of peyote it passes every second bead. */
      readonly fresh: boolean | 'the first time'
      /** What the thread does at its end. "Runs on": over an odd count the rounds are a spiral. "Turned in": its last bead has none to go into. */
      readonly ends: 'steps up' | 'stays' | 'runs on' | 'turns' | 'turned in'
      /** Beads that it steps up through. */
      readonly upThrough: number
    }
  | { readonly type: 'other edge'; readonly edge: Edge; readonly passed: number }
  | { readonly type: 'to'; readonly target: PlaceTold; readonly passed: number }
  | { readonly type: 'place'; readonly role: string }
  | {
      readonly type: 'loop'
      /** Beads it closes round again. */
      readonly over: number
      readonly back: boolean
      readonly beads: readonly Run[]
      readonly name: string | undefined
      readonly through: string
    }
  | {
      readonly type: 'reinforce'
      readonly times: number
      readonly what: 'ring' | 'round' | 'loop' | 'run'
      readonly passed: number
    }
  | { readonly type: 'string'; readonly beads: readonly Run[]; readonly name: string | undefined }
  | {
      readonly type: 'pick'
      readonly beads: readonly Run[]
      readonly name: string | undefined
      /** All that it does, in order, where it does more than pick up. */
      readonly moves: readonly MoveTold[]
    }
  | {
      readonly type: 'through'
      readonly passed: number
      /** Each in turn; `back` against the way it was first passed. */
      readonly targets: readonly (PlaceTold & { readonly back: boolean })[]
    }
  | { readonly type: 'turn' | 'under' }
  /** The face that is in hand from here on. */
  | { readonly type: 'turn over'; readonly face: Edge }
  | { readonly type: 'hangs'; readonly target: PlaceTold }
  | { readonly type: 'go'; readonly beads: number; readonly back: boolean }
  | { readonly type: 'weave'; readonly units: number; readonly beads: readonly Run[]; readonly stitches: number }
  | { readonly type: 'join'; readonly target: PlaceTold; readonly beads: readonly Run[] }
  | {
      readonly type: 'stand'
      readonly role: string
      readonly stitches: number
      readonly increases: number
      readonly row: boolean
    }
  | {
      readonly type: 'fringe'
      readonly strands: readonly { readonly beads: readonly Run[]; readonly end: readonly Run[] }[]
      readonly keep: number
    }
  | { readonly type: 'rail'; readonly name: string; readonly beads: number }
  | { readonly type: 'attach'; readonly item: string; readonly target: PlaceTold }
  | { readonly type: 'caution'; readonly about: CautionAbout }
  /** The lines from the next to `lastLine` are done so often, or once at each of so many places. */
  | {
      readonly type: 'repeat'
      readonly times: number
      readonly lastLine: number
      readonly places: boolean
      /** Of a repeat to a length: where the pitch was taken from that its times follow from. */
      readonly pitch?: 'written' | 'form' | 'estimate'
    }
  | { readonly type: 'new thread' }
  | { readonly type: 'finish' }
  | { readonly type: 'check' | 'note'; readonly text: string }
  | { readonly type: 'let'; readonly name: string; readonly amount: number; readonly unit: 'count' | 'mm' }

/** One thing after the other within a line. */
export type MoveTold =
  | { readonly type: 'pick'; readonly beads: readonly Run[] }
  | { readonly type: 'pass'; readonly target: PlaceTold }
  /** Back through beads that it has picked up itself, so many of a letter or of all. */
  | { readonly type: 'back'; readonly count: number; readonly role: string | undefined }

/** What a step can do harm with. */
export type CautionAbout = 'flame' | 'glue' | 'pliers' | 'magnet' | 'nickel'

/** The edge first worked is the front, and so is the face. */
export type Edge = 'front' | 'back'

/** A list of beads that is another one from its other end. */
export const readsOtherwiseBackwards = (runs: readonly Run[]): boolean =>
  runs.some(({ role, count }, i) => {
    const other = runs[runs.length - 1 - i] as Run
    return role !== other.role || count !== other.count
  })

/** What is picked up for a ring, and how often: of one bead only, all of them at once. */
export function plainRing(ring: Extract<Action, { type: 'ring' }>): { pattern: readonly Run[]; times: number } {
  const [only] = ring.pattern
  return ring.pattern.length === 1 && only
    ? { pattern: [{ role: only.role, count: ring.beads }], times: 1 }
    : { pattern: ring.pattern, times: ring.repeats }
}

/** The shortest list whose repetition gives `roles`, and how often: A A B A A B -> (A A B) x 2. */
export function shortestCycle<T>(
  list: readonly T[],
  same: (a: T, b: T) => boolean,
): { cycle: readonly T[]; repeats: number } {
  const n = list.length
  for (let length = 1; length <= n / 2; length++) {
    if (n % length !== 0) continue
    let fits = true
    for (let i = length; i < n && fits; i++) fits = same(list[i] as T, list[i - length] as T)
    if (fits) return { cycle: list.slice(0, length), repeats: n / length }
  }
  return { cycle: list, repeats: 1 }
}
