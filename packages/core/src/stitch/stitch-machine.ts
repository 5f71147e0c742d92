/**
 * The stitch machine: what the statements of a pattern work on. It holds the work, and beside it the roles of the pattern, its marks and the
 * edges of the part in hand. Techniques speak to it and to nothing else.
 */
import type { Bead } from '../catalogue/bead'
import type { Stone } from '../catalogue/stone'
import type { Mm } from '../measure/units'
import { maxBeads } from '../notation/bead-list'
import type { Argument, Scope, SettledFit, Value } from '../notation/expression'
import { LineFault, Runaway, SkippedLine, type Span } from '../notation/fault'
import type { IntoWords } from '../notation/parse-into'
import type { ThreadChoice } from '../notation/parse-thread'
import { callFunction } from '../sizing/functions'
import type { FitVerdict } from '../sizing/ring-fit'
import type { StoneHold } from '../sizing/stone-hold'
import type { ThreadSettings } from '../thread/settings'
import { Edges } from './edges'
import { beadOf, entryOf, exitOf, type Hole } from './hole'
import { Marks } from './marks'
import { holesOf, type Rail } from './rail'
import { Roles } from './roles'
import { Work } from './work'

/** What the last statement that picked up beads left to be gone round again. */
export interface Trail {
  readonly what: 'ring' | 'round' | 'loop' | 'run'
  /** Passes from..to of the work. */
  readonly from: number
  readonly to: number
}

/** How a stone sits in the ring that was strung for it. */
export interface Fit {
  readonly stone: string
  readonly beads: number
  readonly ease: number
  /** By the edges drawn over it where the form is sound, otherwise by the length of the ring. */
  readonly verdict: FitVerdict
}

/** Something said about a line that is neither an error nor an action: a fit with its neighbours, a warning. */
export type Remark = {
  readonly severity: 'warning' | 'note'
  readonly span: Span
  readonly message: string
  readonly mend?: string
}

/** The most beads that may be looked at in finding places and ways: some seconds at the very worst. */
const maxEffort = 2_000_000

/** The most passes a pattern may lay: a bound on what a slip in a number can cost. */
export const maxPasses = 1_000_000

/** What the computed form has found: used in place of the plain rules. */
export interface Formed {
  /** Of each pass: its bead and the gap before it. Of no use when the pattern has come to another number of passes. */
  readonly laid: Float64Array | undefined
  /** Of a repeat, by its line. */
  readonly pitches: Readonly<Record<number, Mm>>
  /** Of a repeat whose length the thread does not decide, by its line: from and to. */
  readonly loose?: Readonly<Record<number, readonly [Mm, Mm]>> | undefined
  /** How its stones are held, by their letters. */
  readonly held?: Readonly<Record<string, StoneHold>>
  /** How much longer the thread is than by the plain rules, where it could not be measured on this form. */
  readonly stretch?: number
  /** It has been computed, and nothing can be read off it. */
  readonly unsound?: boolean
}

export class StitchMachine implements Scope {
  readonly work: Work
  readonly roles: Roles
  readonly marks: Marks
  readonly edges: Edges
  readonly remarks: Remark[] = []
  /** What the next round will take for its anchors, so that the one before steps up to it. */
  nextInto: IntoWords | undefined
  /** Stones that lie in a ring, each with the statement that laid it there first. */
  readonly placed = new Map<string, number>()
  readonly fits: Fit[] = []
  /** Of each part that is made by itself. */
  readonly partSettings = new Map<string, ThreadSettings>()
  /** Of each thread: how it is handled. */
  readonly threadSettings: ThreadSettings[] = []
  readonly values = new Map<string, Value>()

  trail: Trail | undefined
  /** How far `go` has gone along the trail. */
  along = 0
  /** What stands round a core, for the next row: its outer radius, that which counts are worked out with, and its beads. */
  standing:
    | { readonly radiusMm: Mm; readonly sizedMm: Mm; readonly holes: readonly Hole[]; readonly course: number }
    | undefined
  finished = false
  statement = 0
  /** The lines of the statements so far. */
  readonly lines: number[] = []
  part = ''

  /** What lines at fault would have made: lines that hang on it are left unevaluated rather than blamed. */
  readonly lostNames = new Map<string, number>()
  lostLine: number | undefined

  /** A multiple is only being tried: the first count that does not come out even settles that it will not do. */
  readonly trying: boolean
  /** Fits that ask for no multiple were met. */
  openFits = false

  private readonly byRole = new Map<number, number[]>()
  private sorted = 0
  private spent = 0

  constructor(
    /** The shop's, as the pattern would have them; a part may say otherwise. */
    public settings: ThreadSettings,
    readonly thread: Pick<ThreadChoice, 'thread' | 'strands' | 'needleMm'>,
    /** See Scope.settledFit; undefined until it has to be looked for. */
    private readonly settled: SettledFit | undefined = undefined,
    readonly formed: Formed | undefined = undefined,
    from?: Pick<StitchMachine, 'work' | 'roles' | 'marks' | 'edges'>,
  ) {
    this.trying = settled !== undefined
    this.work = from?.work ?? new Work()
    this.roles = from?.roles ?? new Roles(thread)
    this.marks = from?.marks ?? new Marks()
    this.edges = from?.edges ?? new Edges()
  }

  /** Another machine that stands where this one does: what is worked on it leaves this one as it is. */
  copy(): StitchMachine {
    const { work, roles, marks, edges } = this
    const copy = new StitchMachine(this.settings, this.thread, this.settled, this.formed, {
      work: work.copy(),
      roles: roles.copy(),
      marks: marks.copy(),
      edges: edges.copy(),
    })
    for (const name of ['placed', 'partSettings', 'values', 'lostNames'] as const)
      for (const [key, value] of this[name]) (copy[name] as Map<string, unknown>).set(key, value)
    copy.threadSettings.push(...this.threadSettings)
    copy.lines.push(...this.lines)
    const { nextInto, trail, along, standing, finished, statement, part, lostLine, openFits } = this
    return Object.assign(copy, { nextInto, trail, along, standing, finished, statement, part, lostLine, openFits })
  }

  settledFit(): SettledFit | undefined {
    this.openFits = true
    return this.settled
  }

  // --- looking up -----------------------------------------------------------------------------------------------

  value(name: string, span: Span): Value | undefined {
    const lost = this.lostNames.get(name)
    if (lost !== undefined) throw new SkippedLine(span, lost)
    return this.values.get(name)
  }
  names = (): Iterable<string> => this.values.keys()
  bead = (letter: string, span?: Span): Bead | undefined => this.roles.bead(letter, span)
  stone = (letter: string, span?: Span): Stone | undefined => this.roles.stone(letter, span)
  sizingBead = (letter: string, span?: Span): Bead | undefined => this.roles.sizingBead(letter, span)
  inArc = <Answer>(work: () => Answer): Answer => this.roles.inArc(work)
  roleOf = (letter: string): string => this.roles.actual(letter)
  runOf = (letter: string, written: number): number => this.roles.runOf(letter, written, this.statement)

  call(call: { readonly name: string; readonly args: readonly Argument[]; readonly span: Span }): Value {
    const { value, remarks, roles } = callFunction(call, this)
    this.remarks.push(...remarks)
    for (const role of roles) this.roles.used.add(role)
    return value
  }

  /** The thread laid between two passes, without ends. */
  pathMm(from: number, to: number): Mm {
    const laid = this.formed?.laid
    if (laid && to <= laid.length) return laid.subarray(from, to).reduce((sum, each) => sum + each, 0)
    return this.work.pathLength(from, to, this.roles.lengths, this.roles.across) * (this.formed?.stretch ?? 1)
  }

  /** No more thread goes through. */
  isFull = (h: Hole): boolean => this.work.passesThrough(h) >= this.roles.maxPassesOf(this.work.role(beadOf(h)))

  /** What walking through a hole costs in thread. */
  walkCost = (h: Hole): Mm => {
    const role = this.work.role(beadOf(h))
    return this.roles.lengthOf(role) + 0.2 * this.roles.acrossOf(role)
  }

  letterOfBead = (bead: number): string => this.roles.letterOf(this.work.role(bead))
  boresOf = (bead: number): 1 | 2 => this.roles.boresOf(this.work.role(bead))

  /** Every bead of a role picked up so far, in order. */
  beadsOf(role: number): readonly number[] {
    for (; this.sorted < this.work.beads; this.sorted++) {
      const of = this.work.role(this.sorted)
      const known = this.byRole.get(of)
      if (known) known.push(this.sorted)
      else this.byRole.set(of, [this.sorted])
    }
    return this.byRole.get(role) ?? []
  }

  /** Takes back what a line at fault has done so far. */
  takeBack(beads: number, passes: number): void {
    if (beads === this.work.beads && passes === this.work.passes) return
    this.work.takeBack(beads, passes)
    this.byRole.clear()
    this.sorted = 0
  }

  /** What bears a name: a mark (or the one `before` it), an edge of the part in hand, or an edge of a part by its name. */
  marked = (name: string, before = 0): readonly Hole[] | undefined =>
    name === 'front' || name === 'back' ? this.edges.holesOf(name) : this.marks.get(name, before)

  markNames = (): string[] => [...this.marks.names(), ...Object.keys(this.edges.rails)]

  /** The way to go into a hole from where the needle is: the end that thread already leads to, or as it was first passed. */
  facing(h: Hole): Hole {
    const { needle } = this.work
    if (needle === undefined) return h
    const joined = this.work.joinedTo(exitOf(needle))
    return !joined.includes(entryOf(h)) && joined.includes(exitOf(h)) ? h ^ 1 : h
  }

  get effort(): number {
    return this.spent
  }

  /** Counts what looking for places and ways costs, in beads looked at; refuses what would never come to an end. */
  spend(beads: number, span: Span): void {
    this.spent += beads
    if (this.spent > maxEffort) {
      throw new Runaway(
        span,
        'Finding the places in this pattern takes too long: the same beads are looked for again and again.',
        'Mark places with "as" and go to those, or make the piece in parts.',
      )
    }
  }

  // --- doing ----------------------------------------------------------------------------------------------------

  remark(severity: 'warning' | 'note', span: Span, message: string, mend?: string): void {
    this.remarks.push(mend === undefined ? { severity, span, message } : { severity, span, message, mend })
  }

  /** Called before beads are added or passed: refuses what would run away. */
  makeRoom(beads: number, passes: number, span: Span): void {
    if (this.work.beads + beads > maxBeads) {
      throw new Runaway(
        span,
        `The pattern comes to ${(this.work.beads + beads).toLocaleString('en-GB')} beads here; ${maxBeads.toLocaleString('en-GB')} are the most.`,
        'Make the piece in parts, or check the numbers.',
      )
    }
    if (this.work.passes + passes > maxPasses) {
      throw new Runaway(
        span,
        'The thread passes through more beads here than any piece could hold.',
        'Check the numbers of this line.',
      )
    }
  }

  /** What a line needs is not there: it may be because a line above it is left out, and is no fault of its own then. */
  missing(span: Span, message: string, mend: string): LineFault {
    return this.lostLine === undefined ? new LineFault(span, message, mend) : new SkippedLine(span, this.lostLine)
  }

  /** A thread to work with: the one in hand, or a new one at the beginning of a part. */
  threadUp(span: Span): void {
    if (this.finished) {
      throw new LineFault(
        span,
        'The thread has been finished off above.',
        'Begin a new part, or move "finish" below this line.',
      )
    }
    if (this.work.threads.length === 0) this.beginThread()
  }

  needle(word: string, span: Span): Hole {
    this.threadUp(span)
    const needle = this.work.needle
    if (needle === undefined) {
      throw this.missing(
        span,
        `There is nothing on the needle yet for "${word}" to begin from.`,
        'String a ring first, for example: ring 36A.',
      )
    }
    return needle
  }

  rail(word: string, span: Span): Rail {
    const { rail } = this.edges
    if (!rail) {
      throw this.missing(
        span,
        `There is no ring in this part for "${word}" to work on.`,
        'String one first, for example: ring 36A.',
      )
    }
    return rail
  }

  /** Makes a rail the edge in hand, begun behind the bead the needle is in. */
  standOn(rail: Rail): void {
    this.edges.standOn(rail, this.work.needle)
  }

  /** When the needle has come to a bead of an edge, rounds go on from there. */
  standWhereNeedleIs(): void {
    this.edges.standAt(this.work.needle)
  }

  beginPart(name: string): void {
    // The edges of the part just done stay known by its name.
    for (const [edge, rail] of Object.entries(this.edges.rails))
      if (this.part) this.marks.keepEdge(`${this.part}.${edge}`, holesOf(rail))
    this.edges.beginPart()
    this.part = name
    this.lostLine = undefined
    if (this.finished) {
      this.finished = false
      this.beginThread()
      this.trail = undefined
    }
  }

  /** @param tail of the thread before, where the needle goes on with it */
  beginThread(tail?: Hole): void {
    this.work.newThread(tail)
    this.threadSettings.push(this.settings)
  }
}
