/** What a pattern's letters stand for, in the size and colourway being evaluated. */
import type { Bead } from '../catalogue/bead'
import type { Stone } from '../catalogue/stone'
import type { Mm } from '../measure/units'
import { LineFault, SkippedLine, type Span } from '../notation/fault'
import { nearest } from '../notation/nearest'
import type { ThreadChoice } from '../notation/parse-thread'
import type { Counting } from '../sizing/counting'
import { coverRun } from '../sizing/cover-run'
import { maxPassesThrough } from '../thread/crowding'

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

type BeadRole = Extract<Role, { type: 'bead' }>

/** A run that the pattern writes of one bead, filled to its length with another. */
export interface Refilled {
  readonly statement: number
  readonly role: string
  readonly written: number
  readonly count: number
  /** Longer, or below 0 shorter, than the run it stands for. */
  readonly misfitMm: Mm
}

export class Roles {
  readonly byLetter = new Map<string, Role>()
  /** Letters whose line is at fault, with that line. */
  readonly lost = new Map<string, number>()
  readonly used = new Set<string>()
  /** Letters that stand for another from turn to turn. */
  readonly standsFor = new Map<string, string>()
  readonly refilled: Refilled[] = []

  /** Of the beads of each role; of what is no bead, not a number. */
  readonly lengths: Mm[] = []
  readonly across: Mm[] = []
  private readonly letters: Role[] = []
  private readonly indexOf = new Map<string, number>()
  private readonly most = new Map<number, number>()
  /** Within an arc's count, which may follow a bead where nothing else does. */
  private arcs = 0
  /** The base row is strung as it is written. */
  private base = false

  constructor(private readonly thread: Pick<ThreadChoice, 'thread' | 'strands' | 'needleMm'>) {}

  copy(): Roles {
    const copy = new Roles(this.thread)
    for (const role of this.letters) copy.declare(role)
    for (const [letter, line] of this.lost) copy.lost.set(letter, line)
    for (const letter of this.used) copy.used.add(letter)
    for (const [letter, other] of this.standsFor) copy.standsFor.set(letter, other)
    copy.refilled.push(...this.refilled)
    return copy
  }

  declare(role: Role): void {
    this.indexOf.set(role.letter, this.letters.length)
    this.letters.push(role)
    this.lengths.push(role.type === 'bead' ? role.bead.lengthMm : Number.NaN)
    this.across.push(role.type === 'bead' ? role.bead.acrossMm : Number.NaN)
    this.byLetter.set(role.letter, role)
  }

  private found(letter: string, span: Span | undefined): Role | undefined {
    const lost = this.lost.get(letter)
    if (span && lost !== undefined) throw new SkippedLine(span, lost)
    return this.byLetter.get(letter)
  }

  bead(letter: string, span?: Span): Bead | undefined {
    const role = this.found(letter, span)
    return role?.type === 'bead' ? role.bead : undefined
  }

  stone(letter: string, span?: Span): Stone | undefined {
    const role = this.found(letter, span)
    return role?.type === 'stone' ? role.stone : undefined
  }

  /** The bead that counts are worked out with. */
  sizingBead(letter: string, span?: Span): Bead | undefined {
    const role = this.found(letter, span)
    return role?.type === 'bead' ? this.sizedBy(role) : undefined
  }

  private sizedBy = ({ bead, nominal, counting }: BeadRole): Bead =>
    counting === 'none' || (counting === 'arcs' && this.arcs === 0) ? nominal : bead

  inArc<Answer>(work: () => Answer): Answer {
    this.arcs++
    try {
      return work()
    } finally {
      this.arcs--
    }
  }

  asWritten<Answer>(work: () => Answer): Answer {
    this.base = true
    try {
      return work()
    } finally {
      this.base = false
    }
  }

  /** How many of a role make up a run that is written as so many. */
  runOf(letter: string, written: number, statement: number): number {
    const role = this.byLetter.get(letter)
    if (this.base || written < 2 || role?.type !== 'bead' || role.counting !== 'runs') return written
    const { best: count, candidates } = coverRun(role.nominal, written, role.bead)
    const misfitMm = candidates.find((each) => each.count === count)?.misfitMm ?? 0
    const known = this.refilled.some(
      (each) => each.statement === statement && each.role === letter && each.written === written,
    )
    if (!known) this.refilled.push({ statement, role: letter, written, count, misfitMm })
    return count
  }

  /** The bead's letter that a letter stands for in this turn; most stand for themselves. */
  actual = (letter: string): string => this.standsFor.get(letter) ?? letter

  /** The number of a bead's role, by its letter; faults name what was meant. */
  numberOf(written: string, span: Span): number {
    const letter = this.actual(written)
    const role = this.byLetter.get(letter)
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
    const lost = this.lost.get(letter)
    if (lost !== undefined) throw new SkippedLine(span, lost)
    const known = [...this.byLetter.values()].filter((each) => each.type === 'bead').map((each) => each.letter)
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

  letterOf = (role: number): string => (this.letters[role] as Role).letter

  private beadAt = (role: number): Bead => (this.letters[role] as BeadRole).bead

  boreOf = (role: number): Mm => this.beadAt(role).boreMm
  boresOf = (role: number): 1 | 2 => this.beadAt(role).bores
  lengthOf = (role: number): Mm => this.lengths[role] as Mm
  acrossOf = (role: number): Mm => this.across[role] as Mm
  /** Of a role, the bead that counts are worked out with. */
  sizingBeadAt = (role: number): Bead => this.sizedBy(this.letters[role] as BeadRole)

  /** How often thread and needle go through a bead of a role. */
  maxPassesOf(role: number): number {
    const known = this.most.get(role)
    if (known !== undefined) return known
    const { thread, needleMm, strands } = this.thread
    const most = maxPassesThrough(this.boreOf(role), thread.acrossMm, needleMm, strands)
    this.most.set(role, most)
    return most
  }
}
