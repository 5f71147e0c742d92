import type { ThreadSettings } from '../thread/settings'
import type { Mark } from './mark'
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
      readonly name: Mark | undefined
    }
  | {
      readonly type: 'round'
      /** Stitches, with or without a bead. */
      readonly stitches: number
      /** The stitches of one turn of the list, equal neighbours told together. */
      readonly cycle: readonly StitchTold[]
      readonly turns: number
      readonly added: number
      /** From 1, on its edge. */
      readonly round: number
      readonly edge: Edge
      /** Groups that now stand up for the next round. */
      readonly standing: number
      readonly closed: boolean
      readonly into: IntoTold
      /** Nothing had been stitched on the ring or row yet: of peyote it passes every second bead. */
      readonly fresh: boolean | 'the first time'
      /** What the thread does at its end. "Runs on": over an odd count the rounds are a spiral. "Turned in": its last bead has none to go into. */
      readonly ends: 'steps up' | 'stays' | 'runs on' | 'turns' | 'turned in'
      /** Beads that it steps up through. */
      readonly upThrough: number
      /** Before those it passes again what so many stitches without a bead have passed first. */
      readonly upPast: number
      readonly name: Mark | undefined
    }
  | {
      readonly type: 'square'
      readonly stitches: number
      /** What each stitch of one turn of the list picks up. */
      readonly cycle: readonly (readonly Run[])[]
      readonly turns: number
      /** From 1, on its edge. */
      readonly round: number
      readonly name: Mark | undefined
    }
  | {
      readonly type: 'other edge'
      readonly edge: Edge
      readonly passed: number
      /** It is the ring itself: nothing has been stitched on it from this side. */
      readonly fresh: boolean
    }
  | { readonly type: 'to'; readonly target: PlaceTold; readonly passed: number }
  /** Laid in; or, where it lies in a ring already, in a further one of so many beads. */
  | { readonly type: 'place'; readonly role: string; readonly another: number | undefined }
  | {
      readonly type: 'loop'
      /** Beads it closes round again. */
      readonly over: number
      readonly back: boolean
      readonly beads: readonly Run[]
      readonly name: Mark | undefined
      readonly through: string
    }
  | {
      readonly type: 'reinforce'
      readonly times: number
      readonly what: 'ring' | 'round' | 'loop' | 'run'
      readonly passed: number
    }
  | { readonly type: 'string'; readonly beads: readonly Run[]; readonly name: Mark | undefined }
  | {
      readonly type: 'pick'
      readonly beads: readonly Run[]
      readonly name: Mark | undefined
      /** All that it does, in order, where it does more than pick up. */
      readonly moves: readonly MoveTold[]
    }
  | {
      readonly type: 'through'
      readonly passed: number
      readonly targets: readonly PassedPlace[]
    }
  | { readonly type: 'turn' | 'under' }
  /** The face that is in hand from here on. */
  | { readonly type: 'turn over'; readonly face: Edge }
  | { readonly type: 'hangs'; readonly target: PlaceTold }
  | { readonly type: 'go'; readonly beads: number; readonly back: boolean }
  | {
      readonly type: 'weave'
      readonly units: number
      readonly beads: readonly Run[]
      readonly stitches: number
      /** With nothing on the needle the first unit picks up the bead it shares, too. */
      readonly begins: string | undefined
      /** The thread goes round each unit twice. */
      readonly twice: boolean
      readonly name: Mark | undefined
    }
  | {
      readonly type: 'join'
      readonly target: PlaceTold
      /** The bead there is passed the other way than it was first. */
      readonly back: boolean
      readonly beads: readonly Run[]
    }
  | {
      readonly type: 'stand'
      readonly role: string
      readonly stitches: number
      readonly increases: number
      readonly row: boolean
      readonly name: Mark | undefined
    }
  | {
      readonly type: 'fringe'
      readonly strands: readonly { readonly beads: readonly Run[]; readonly end: readonly Run[] }[]
      readonly keep: number
      /** Picked up from one strand to the next. */
      readonly between: readonly Run[]
      /** Where each hangs, one after the other; where the needle is, if nowhere is said. */
      readonly into: PlaceTold | undefined
      /** They are hung from the last of those to the first. */
      readonly fromEnd: boolean
      readonly name: Mark | undefined
    }
  | { readonly type: 'rail'; readonly name: string; readonly beads: number; readonly targets: readonly PlaceTold[] }
  | { readonly type: 'attach'; readonly item: string; readonly target: PlaceTold }
  | { readonly type: 'caution'; readonly about: CautionAbout }
  /** So many of the next statements are done so often, or once at each of so many places; or a part is made so often. */
  | {
      readonly type: 'repeat'
      readonly times: number
      readonly held: number
      readonly at: PlaceTold | undefined
      readonly of: 'part' | undefined
      /** Of a repeat to a length: where the pitch was taken from that its times follow from. */
      readonly pitch?: 'written' | 'form' | 'estimate'
    }
  | { readonly type: 'new thread'; readonly at: PlaceTold | undefined; readonly tail: boolean }
  | { readonly type: 'finish'; readonly ending: ThreadSettings['ending'] }
  | { readonly type: 'check' | 'note'; readonly text: string }
  | { readonly type: 'let'; readonly name: string; readonly amount: number; readonly unit: 'count' | 'mm' }

/** What a stitch of a round does before it passes on: nothing, where it is a decrease. */
export interface StitchTold {
  readonly moves: readonly MoveTold[]
  readonly times: number
  /** On an odd ring: it skips so many beads, where the others skip one. */
  readonly skips?: number | undefined
  /** It is taken over so many of what the round passes. */
  readonly over: number
  /** Of the beads it picks up those that stand up, from 1; undefined where all do. */
  readonly standing: readonly number[] | undefined
}

/** What a round passes at each stitch. */
export type IntoTold =
  /** Beads that stand up: so many together, undefined where that differs. */
  | { readonly type: 'gaps'; readonly wide: number | undefined }
  | { readonly type: 'every'; readonly each: number; readonly of: PlaceTold | 'ring' | 'row' | 'round' | 'rail' }
  /** From one stitch to the next so many beads on. */
  | {
      readonly type: 'spread'
      readonly steps: readonly number[]
      readonly of: Extract<IntoTold, { type: 'every' }>['of']
    }
  /** One bead of each group, counted from 1; `of` so many, undefined where that differs. */
  | {
      readonly type: 'group'
      readonly nth: number | 'middle'
      readonly of: number | undefined
      readonly name: string | undefined
    }
  | { readonly type: 'bore' }
  | { readonly type: 'target'; readonly targets: readonly PlaceTold[] }

/** One thing after the other within a line. */
export type MoveTold =
  | { readonly type: 'pick'; readonly beads: readonly Run[] }
  | { readonly type: 'pass'; readonly target: PlaceTold }
  /** Back through beads that it has picked up itself, so many of a letter or of all. */
  | { readonly type: 'back'; readonly count: number; readonly role: string | undefined }

/** What is picked up by moves. */
export const pickedIn = (moves: readonly MoveTold[]): Run[] =>
  moves.flatMap((move) => (move.type === 'pick' ? move.beads : []))

/** What a step can do harm with. */
export type CautionAbout = 'flame' | 'glue' | 'pliers' | 'magnet' | 'nickel'

/** `back`: against the way it was first passed. `straight`: the way it was first passed, even where its other end is the nearer. */
export type PassedPlace = PlaceTold & { readonly way: 'near' | 'back' | 'straight' }

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

/** Beads of one stitch of a round: what a fresh ring is skipped and passed by. */
export const widthOf = ({ into }: Extract<Action, { type: 'round' }>): number =>
  into.type === 'gaps' ? (into.wide ?? 1) : 1
