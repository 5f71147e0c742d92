/**
 * The stitch machine: what the statements of a pattern work on. It holds the work, the rails of the part in hand and the marks,
 * and knows the pattern's roles in the size and colourway being evaluated. Techniques speak to it and to nothing else.
 */
import type { Bead } from '../catalogue/bead'
import type { Stone } from '../catalogue/stone'
import type { Mm } from '../measure/units'
import { maxBeads } from '../notation/bead-list'
import type { Argument, Scope, SettledFit, Value } from '../notation/expression'
import { LineFault, Runaway, type Span } from '../notation/fault'
import { nearest } from '../notation/nearest'
import type { IntoWords } from '../notation/parse-into'
import type { ThreadChoice } from '../notation/parse-thread'
import type { Counting } from '../sizing/counting'
import { coverRun } from '../sizing/cover-run'
import { callFunction } from '../sizing/functions'
import type { FitVerdict } from '../sizing/ring-fit'
import type { StoneHold } from '../sizing/stone-hold'
import { maxPassesThrough } from '../thread/crowding'
import type { ThreadSettings } from '../thread/settings'
import { stitchGapLength } from '../thread/stitch-gap'
import type { Edge } from './action'
import { beadOf, entryOf, exitOf, type Hole } from './hole'
import type { Mark } from './mark'
import { type Group, holesOf, type Rail, turned, turnedBack } from './rail'
import { Work } from './work'

export type Role =
  | {
      readonly type: 'bead'
      readonly letter: string
      readonly bead: Bead
      readonly nominal: Bead
      readonly counting: Counting
      readonly label: string
      readonly span: Span
    }
  | {
      readonly type: 'item'
      readonly letter: string
      readonly name: string
      readonly count: number
      readonly label: string
      readonly span: Span
    }
  | {
      readonly type: 'stone'
      readonly letter: string
      readonly stone: Stone
      readonly label: string
      readonly span: Span
    }

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

/** A run that the pattern writes of one bead, filled to its length with another. */
export interface Refilled {
  readonly statement: number
  readonly role: string
  readonly written: number
  readonly count: number
  /** Longer, or below nought shorter, than the run it stands for. */
  readonly misfitMm: Mm
}

/** Something said about a line that is neither an error nor an action: a fit with its neighbours, a warning. */
export type Remark = {
  readonly severity: 'warning' | 'note'
  readonly span: Span
  readonly message: string
  readonly mend?: string
}

/** A line that cannot be evaluated because an earlier one is at fault. */
export class SkippedLine extends LineFault {
  constructor(
    span: Span,
    readonly becauseOfLine: number,
  ) {
    super(span, `Skipped: it depends on line ${becauseOfLine}.`, `Mend line ${becauseOfLine} first.`)
  }
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
  readonly work = new Work()
  readonly remarks: Remark[] = []
  /** What was marked, newest last; more than one where a repeat marks again. */
  private readonly marks = new Map<string, (readonly Hole[])[]>()
  /** What the next round will take for its anchors, so that the one before steps up to it. */
  nextInto: IntoWords | undefined
  /** Stones that lie in a ring, each with the statement that laid it there first. */
  readonly placed = new Map<string, number>()
  readonly fits: Fit[] = []
  readonly refilled: Refilled[] = []
  readonly used = new Set<string>()
  /** Letters that stand for another from turn to turn. */
  readonly standsFor = new Map<string, string>()
  /** Of each part that is made by itself. */
  readonly partSettings = new Map<string, ThreadSettings>()
  /** Of each thread: how it is handled. */
  readonly threadSettings: ThreadSettings[] = []
  readonly values = new Map<string, Value>()

  /** The edges of the part in hand; the front is worked first. */
  edges: Partial<Record<Edge, Rail>> = {}
  edge: Edge = 'front'
  roundsOn: Record<Edge, number> = { front: 0, back: 0 }
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
  /** What `rail` has gathered for the rounds in hand. */
  gathered: readonly Hole[] | undefined
  /** The ring the part in hand began with. */
  ring: { readonly beads: number; readonly lengthMm: Mm; readonly acrossMm: Mm } | undefined

  /** What the parts before this one left to work on. */
  private readonly past: Pick<StitchMachine, 'edges' | 'roundsOn' | 'ring' | 'gathered'>[] = []

  /** What lines at fault would have made: lines that hang on it are left unevaluated rather than blamed. */
  readonly lostRoles = new Map<string, number>()
  readonly lostNames = new Map<string, number>()
  lostLine: number | undefined

  readonly roles = new Map<string, Role>()
  private readonly letters: Role[] = []
  private readonly indexOf = new Map<string, number>()
  private readonly most = new Map<number, number>()
  private readonly byRole = new Map<number, number[]>()
  private sorted = 0
  private readonly stepped = new Map<string, number>()
  private spent = 0

  constructor(
    /** The shop's, as the pattern would have them; a part may say otherwise. */
    public settings: ThreadSettings,
    readonly thread: Pick<ThreadChoice, 'thread' | 'strands' | 'needleMm'>,
    /** See Scope.settledFit; undefined until it has to be looked for. */
    private readonly settled: SettledFit | undefined = undefined,
    readonly formed: Formed | undefined = undefined,
  ) {}

  /** A multiple is only being tried: the first count that does not come out even settles that it will not do. */
  get trying(): boolean {
    return this.settled !== undefined
  }

  /** Fits that ask for no multiple were met. */
  openFits = false

  settledFit(): SettledFit | undefined {
    this.openFits = true
    return this.settled
  }

  declare(role: Role): void {
    this.indexOf.set(role.letter, this.letters.length)
    this.letters.push(role)
    this.roles.set(role.letter, role)
  }

  // --- looking up -----------------------------------------------------------------------------------------------

  value(name: string, span: Span): Value | undefined {
    const lost = this.lostNames.get(name)
    if (lost !== undefined) throw new SkippedLine(span, lost)
    return this.values.get(name)
  }
  names = (): Iterable<string> => this.values.keys()

  bead(letter: string, span?: Span): Bead | undefined {
    const role = this.found(letter, span)
    return role?.type === 'bead' ? role.bead : undefined
  }

  /** Within an arc's count, which may follow a bead where nothing else does. */
  private arcs = 0

  inArc<Answer>(work: () => Answer): Answer {
    this.arcs++
    try {
      return work()
    } finally {
      this.arcs--
    }
  }

  sizingBead(letter: string, span?: Span): Bead | undefined {
    const role = this.found(letter, span)
    return role?.type === 'bead' ? this.sizedBy(role) : undefined
  }

  private sizedBy = ({ bead, nominal, counting }: Extract<Role, { type: 'bead' }>): Bead =>
    counting === 'none' || (counting === 'arcs' && this.arcs === 0) ? nominal : bead

  /** The base row is strung as it is written. */
  private base = false

  asWritten<Answer>(work: () => Answer): Answer {
    this.base = true
    try {
      return work()
    } finally {
      this.base = false
    }
  }

  runOf(letter: string, written: number): number {
    const role = this.roles.get(letter)
    if (this.base || written < 2 || role?.type !== 'bead' || role.counting !== 'runs') return written
    const { best: count, candidates } = coverRun(role.nominal, written, role.bead)
    const misfitMm = candidates.find((each) => each.count === count)?.misfitMm ?? 0
    const known = this.refilled.some(
      (each) => each.statement === this.statement && each.role === letter && each.written === written,
    )
    if (!known) this.refilled.push({ statement: this.statement, role: letter, written, count, misfitMm })
    return count
  }

  stone(letter: string, span?: Span): Stone | undefined {
    const role = this.found(letter, span)
    return role?.type === 'stone' ? role.stone : undefined
  }

  private found(letter: string, span: Span | undefined): Role | undefined {
    const lost = this.lostRoles.get(letter)
    if (span && lost !== undefined) throw new SkippedLine(span, lost)
    return this.roles.get(letter)
  }

  call(call: { readonly name: string; readonly args: readonly Argument[]; readonly span: Span }): Value {
    const { value, remarks, roles } = callFunction(call, this)
    this.remarks.push(...remarks)
    for (const role of roles) this.used.add(role)
    return value
  }

  letterOf = (roleIndex: number): string => (this.letters[roleIndex] as Role).letter

  /** A role that beads can be picked up of; faults name what was meant. */
  /** The bead's letter that a letter stands for in this turn; most stand for themselves. */
  roleOf = (letter: string): string => this.standsFor.get(letter) ?? letter

  beadRole(written: string, span: Span): number {
    const letter = this.roleOf(written)
    const role = this.roles.get(letter)
    if (role?.type === 'bead') {
      this.used.add(letter)
      return this.indexOf.get(letter) as number
    }
    if (role?.type === 'item') {
      throw new LineFault(
        span,
        `${letter} is a finding; it is attached, not picked up.`,
        `Use: attach ${letter} to NAME.`,
      )
    }
    if (role) throw new LineFault(span, `${letter} is a stone; it is placed, not picked up.`, `Use: place ${letter}.`)
    const lost = this.lostRoles.get(letter)
    if (lost !== undefined) throw new SkippedLine(span, lost)
    const known = [...this.roles.values()].filter((each) => each.type === 'bead').map((each) => each.letter)
    const guess = nearest(letter, known)
    throw new LineFault(
      span,
      `There is no bead ${letter} in this pattern.`,
      guess
        ? `Did you mean ${guess}?`
        : known.length > 0
          ? `Beads here: ${known.join(', ')}. Or declare it: bead ${letter} cylinder 11/0.`
          : `Declare it first: bead ${letter} cylinder 11/0.`,
    )
  }

  private beadAt = (roleIndex: number): Bead => (this.letters[roleIndex] as Extract<Role, { type: 'bead' }>).bead

  boreOfRole = (roleIndex: number): Mm => this.beadAt(roleIndex).boreMm
  lengthOf = (roleIndex: number): Mm => this.beadAt(roleIndex).lengthMm
  acrossOf = (roleIndex: number): Mm => this.beadAt(roleIndex).acrossMm
  /** Of a role, the bead that counts are worked out with. */
  sizingBeadAt = (roleIndex: number): Bead => this.sizedBy(this.letters[roleIndex] as Extract<Role, { type: 'bead' }>)

  /** The thread laid between two passes, without ends. */
  pathMm(from: number, to: number): Mm {
    const laid = this.formed?.laid
    if (laid && to <= laid.length) return laid.subarray(from, to).reduce((sum, each) => sum + each, 0)
    const plain = this.work.pathLength(from, to, this.lengthOf, (stitchGap, before, after) =>
      stitchGapLength(stitchGap, this.acrossOf(before), this.acrossOf(after)),
    )
    return plain * (this.formed?.stretch ?? 1)
  }

  /** How often thread and needle go through a bead of a role. */
  maxPassesOf(roleIndex: number): number {
    const known = this.most.get(roleIndex)
    if (known !== undefined) return known
    const { thread, needleMm, strands } = this.thread
    const most = maxPassesThrough(this.boreOfRole(roleIndex), thread.acrossMm, needleMm, strands)
    this.most.set(roleIndex, most)
    return most
  }

  /** No more thread goes through. */
  isFull = (h: Hole): boolean => this.work.passesThrough(h) >= this.maxPassesOf(this.work.role(beadOf(h)))

  /** What walking through a hole costs in thread. */
  walkCost = (h: Hole): Mm => {
    const bead = this.beadAt(this.work.role(beadOf(h)))
    return bead.lengthMm + 0.2 * bead.acrossMm
  }

  boresOf = (bead: number): 1 | 2 => this.boresOfRole(this.work.role(bead))
  boresOfRole = (role: number): 1 | 2 => this.beadAt(role).bores

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

  /** @param closed they come round to their beginning, so that places beyond the last are counted on from the first */
  mark(mark: Mark | undefined, holes: readonly Hole[], closed = false): void {
    if (closed) this.closed.add(holes)
    this.marks.set('new', [holes])
    if (!mark) return
    const known = this.marks.get(mark.name) ?? []
    this.marks.set(mark.name, known)
    const last = known.at(-1)
    if (!mark.all) known.push(holes)
    else if (last && this.collecting.has(last)) for (const h of holes) (last as Hole[]).push(h)
    else {
      const together = [...(last ?? []), ...holes]
      this.collecting.add(together)
      known.splice(-1, 1, together)
    }
  }

  /** What still grows: it is added to in place, and handed out as it is then. */
  private readonly collecting = new WeakSet<readonly Hole[]>()

  private readonly closed = new WeakSet<readonly Hole[]>()

  comesRound = (holes: readonly Hole[]): boolean => this.closed.has(holes)

  /** The groups of a round that was marked, for `middles of NAME`. */
  readonly groupsOf = new Map<string, readonly Group[]>()

  /** What bears a name: a mark (or the one `before` it), an edge of the part in hand, or an edge of a part by its name. */
  marked(name: string, before = 0): readonly Hole[] | undefined {
    if (name === 'front' || name === 'back') {
      const rail = this.edges[name]
      return rail && holesOf(rail)
    }
    const known = this.marks.get(name)
    const holes = known?.[known.length - 1 - before]
    return holes && this.collecting.has(holes) ? [...holes] : holes
  }

  /** The next holes of a mark, from where the last such step along it ended; round again at its end. */
  nextOf(name: string, holes: readonly Hole[], count: number): Hole[] {
    const from = this.stepped.get(name) ?? 0
    this.stepped.set(name, (from + count) % holes.length)
    return Array.from({ length: Math.min(count, maxPasses) }, (_, i) => holes[(from + i) % holes.length] as Hole)
  }

  markNames = (): string[] => [...[...this.marks.keys()].filter((name) => name !== 'new'), ...Object.keys(this.edges)]

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
    const rail = this.edges[this.edge]
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
  standOn(given: Rail): void {
    this.edges = { front: given }
    this.gathered = undefined
    this.edge = 'front'
    this.roundsOn = { front: 0, back: 0 }
    this.standWhereNeedleIs()
  }

  /** When the needle has come to a bead of an edge, rounds go on from there: of this part, or of an earlier one while this has none. */
  standWhereNeedleIs(): void {
    const { needle } = this.work
    if (needle === undefined) return
    const at = beadOf(needle)
    if (Object.keys(this.edges).length === 0) {
      const stood = this.past.findLast(({ edges }) =>
        Object.values(edges).some((rail) => rail.groups.some(({ stands }) => beadOf(stands.at(-1) as Hole) === at)),
      )
      if (stood) Object.assign(this, { ...stood, edges: { ...stood.edges }, roundsOn: { ...stood.roundsOn } })
    }
    for (const edge of ['front', 'back'] as const) {
      const rail = this.edges[edge]
      const stands = (group: Group) => beadOf(group.stands[group.stands.length - 1] as Hole) === at
      if (!rail?.groups.some(stands)) continue
      // A rail gathered by hand is walked the way the needle has come into it; an open row from the end at which the needle is.
      const back = rail.closed
        ? rail.course < 0 && holesOf(rail).includes(needle ^ 1)
        : rail.groups.findIndex(stands) === 0 && rail.groups.length > 1
      const groups = back ? rail.groups.map(turnedBack).reverse() : rail.groups
      this.edge = edge
      this.edges[edge] = turned(
        { ...rail, groups, ...(back && !rail.closed ? { odd: undefined } : {}) },
        groups.findIndex(stands) + 1,
      )
      return
    }
  }

  beginPart(name: string): void {
    // The edges of the part just done stay known by its name.
    for (const [edge, rail] of Object.entries(this.edges))
      if (this.part) this.marks.set(`${this.part}.${edge}`, [holesOf(rail)])
    const { edges, roundsOn, ring, gathered } = this
    if (Object.keys(edges).length > 0) this.past.push({ edges, roundsOn, ring, gathered })
    this.part = name
    this.edges = {}
    this.gathered = undefined
    this.edge = 'front'
    this.roundsOn = { front: 0, back: 0 }
    this.ring = undefined
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
