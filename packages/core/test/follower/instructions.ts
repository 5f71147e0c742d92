/** What a written pattern can tell a stitcher to do, whatever the language it is told in. */

/** Letters, one for each bead. */
export type Beads = readonly string[]

/** What is made is called by a name; `all`: with what has been called so before. */
export interface Name {
  readonly name: string
  readonly all: boolean
}

export type Place =
  | { readonly type: 'letter'; readonly letter: string }
  | { readonly type: 'named'; readonly name: string; readonly before: number }
  | { readonly type: 'part edge'; readonly part: string; readonly edge: string }
  | { readonly type: 'letters of'; readonly letter: string; readonly of: Place }
  | { readonly type: 'nth'; readonly nth: number | 'first' | 'middle' | 'last'; readonly of: Place }
  | { readonly type: 'next'; readonly count: number; readonly of: Place }
  | { readonly type: 'range'; readonly from: number; readonly to: number; readonly of: Place }
  | { readonly type: 'half'; readonly second: boolean; readonly of: Place }
  | { readonly type: 'hole'; readonly second: boolean; readonly of: Place }

export type Move =
  | { readonly type: 'pick'; readonly beads: Beads }
  | { readonly type: 'pass'; readonly place: Place; readonly way: 'near' | 'back' | 'straight' }
  | { readonly type: 'back'; readonly count: number; readonly letter: string | undefined }

export type PassOn =
  | { readonly type: 'skipping'; readonly wide: number }
  | { readonly type: 'standing'; readonly wide: number | 'all' }
  | { readonly type: 'every'; readonly each: number; readonly of: Place | 'edge' }
  | { readonly type: 'counting'; readonly steps: readonly number[]; readonly of: Place | 'edge' }
  | { readonly type: 'group'; readonly nth: number | 'middle'; readonly name: string | undefined }
  | { readonly type: 'other hole' }
  | { readonly type: 'next of'; readonly places: readonly Place[] }

export interface Stitch {
  readonly moves: readonly Move[]
  readonly over: number
  /** Beads of the ring that it skips, where it says so itself. */
  readonly skips?: number | undefined
  /** Of the beads it picks up those that stand up, from 1. */
  readonly standing: readonly number[] | undefined
}

export type Instruction =
  | { readonly type: 'ring'; readonly beads: Beads; readonly again: boolean; readonly name: Name | undefined }
  | { readonly type: 'string'; readonly beads: Beads; readonly name: Name | undefined }
  | {
      readonly type: 'round'
      readonly stitches: readonly Stitch[]
      readonly on: PassOn
      readonly firstTime: PassOn | undefined
      readonly ends: 'steps up' | 'stays' | 'runs on' | 'turns' | 'turned in'
      readonly upThrough: number
      readonly upPast: number
      readonly name: Name | undefined
    }
  | { readonly type: 'square'; readonly stitches: readonly Beads[]; readonly name: Name | undefined }
  | { readonly type: 'other edge'; readonly beads: number; readonly edge: 'front' | 'back' }
  | { readonly type: 'to'; readonly beads: number; readonly place: Place }
  | {
      readonly type: 'loop'
      readonly beads: Beads
      readonly over: number
      readonly back: boolean
      readonly name: Name | undefined
    }
  | { readonly type: 'again'; readonly times: number }
  | { readonly type: 'pick'; readonly moves: readonly Move[]; readonly name: Name | undefined }
  | { readonly type: 'through'; readonly passes: readonly Extract<Move, { type: 'pass' }>[] }
  | { readonly type: 'turn' }
  | { readonly type: 'go'; readonly beads: number; readonly back: boolean }
  | {
      readonly type: 'weave'
      readonly units: number
      readonly begins: string | undefined
      readonly beads: Beads
      readonly on: number
      readonly twice: boolean
      readonly turned: boolean
      readonly name: Name | undefined
    }
  | {
      readonly type: 'join'
      readonly place: Place
      readonly back: boolean
      readonly first: Beads
      readonly second: Beads
    }
  | { readonly type: 'stand'; readonly letter: string; readonly count: number; readonly name: Name | undefined }
  | {
      readonly type: 'fringe'
      readonly strands: readonly { readonly beads: Beads; readonly end: Beads }[]
      readonly keep: number
      readonly between: Beads
      readonly from: Place | undefined
      readonly lastFirst: boolean
      readonly name: Name | undefined
    }
  | { readonly type: 'rail'; readonly places: readonly Place[]; readonly name: Name | undefined }
  | { readonly type: 'new thread'; readonly place: Place | undefined }
  | { readonly type: 'tail' }
  | { readonly type: 'finish' }
  /** The steps from the next on, so many of them: so often, by the times that it is come to; or at each of these places. */
  | {
      readonly type: 'repeat'
      readonly steps: number
      readonly times: readonly number[]
      readonly at: Place | undefined
      readonly part?: boolean
    }
  /** Steps by their numbers, so often. */
  | {
      readonly type: 'steps again'
      readonly from: number
      readonly to: number
      readonly times: number
      /** What changes in a step each time, from the first time on. */
      readonly changing: readonly { readonly step: number; readonly changes: string }[]
    }
  | { readonly type: 'nothing' }

/** How a language is read. */
export interface Reader {
  /** The letter of the bead that the needle is said to come out of. */
  needle(text: string): string
  /** @throws Error for a sentence that says nothing it knows */
  read(text: string): Instruction
  /** Of a text that tells several turns: what each says. */
  turns(text: string): readonly string[]
}

export class NotUnderstood extends Error {
  constructor(text: string) {
    super(`Nobody can follow this: ${text}`)
  }
}
