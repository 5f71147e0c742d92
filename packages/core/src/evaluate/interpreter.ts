/** Does a program's steps on the stitch machine, with repeats, parts and options, and telling what each line did. */

import { counted } from '../measure/counted'
import { type Expression, evaluate, evaluateCount, evaluateLength } from '../notation/expression'
import { DoesNotDivide, LineFault, Runaway, SkippedLine, type Span } from '../notation/fault'
import type { Line } from '../notation/line'
import { nearest } from '../notation/nearest'
import type { Cycle } from '../notation/parse-block'
import { settingsWith, type ThreadWays } from '../notation/parse-thread'
import type { StatementReport } from '../report/report'
import { fitLength } from '../sizing/repeats'
import type { Action } from '../stitch/action'
import { beadOf } from '../stitch/hole'
import type { PlaceTold } from '../stitch/place-told'
import type { StitchMachine } from '../stitch/stitch-machine'
import { findTold } from '../stitch/target'
import { travelTo } from '../stitch/travel'
import type { ThreadSettings } from '../thread/settings'
import type { Faults } from './faults'
import { plainPitch } from './plain-pitch'
import { type Part, partsUsed, type Sheet, type Step } from './program'

/** The most lines a pattern may do, repeats counted out: a bound on what a slip in a number can cost. */
const maxDone = 200_000

/** Turns of a repeat that are told one by one where they differ. */
const maxTold = 1000

/** What one line did, over all the times it was done. */
interface Tally {
  readonly line: Line
  readonly part: string
  /** The lines of the uses it is done in, outermost first, and its own: the order in which the text has them. */
  readonly path: readonly number[]
  /** Its place among the statements as they came to be done; `told` puts them in the order of the text. */
  readonly at: number
  /** What holds it: a repeat, or a part that is made more than once. */
  readonly within: Tally | undefined
  times: number
  stitches: number
  threadMm: number
  readonly added: Map<string, number>
  totals: Record<string, number>
  needleIn: string
  action: Action
  /** Each time's, while they are few enough to be told. */
  readonly turns: Action[]
}

export function workThrough(
  sheet: Sheet,
  machine: StitchMachine,
  options: ReadonlyMap<string, boolean>,
  faults: Faults,
): StatementReport[] {
  return new Worker(sheet, machine, options, faults).run()
}

class Worker {
  private readonly tallies = new Map<string, Tally>()
  private readonly totals = new Map<string, number>()
  private readonly parts: ReadonlyMap<string, Part>
  private readonly inUse: string[] = []
  /** The lines of the uses in hand, outermost first, and the repeat. */
  private readonly uses: number[] = []
  private readonly usual: ThreadSettings
  private within: Tally | undefined
  private done = 0
  private stopped = false

  constructor(
    private readonly sheet: Sheet,
    private readonly machine: StitchMachine,
    private readonly options: ReadonlyMap<string, boolean>,
    private readonly faults: Faults,
  ) {
    this.usual = machine.settings
    this.parts = new Map(sheet.parts.filter((part) => part.name).map((part) => [part.name, part]))
  }

  run(): StatementReport[] {
    // A part that others use is made where it is used, and not by itself.
    const used = new Set(this.sheet.parts.flatMap((part) => partsUsed(part.steps)))
    this.refuseCircles(used)
    for (const part of this.sheet.parts) {
      if (used.has(part.name) && part.name) continue
      const times = part.times ? this.count(part.times, 'The number of parts') : 1
      const head = times > 1 ? part.line : undefined
      for (let i = 0; i < times && !this.stopped; i++) {
        this.machine.settings = this.settingsOf(part.ways)
        this.machine.partSettings.set(part.name, this.machine.settings)
        this.machine.beginPart(part.name)
        const tally = head && (this.known(head) ?? this.tellRepeat(head, times, { of: 'part' }))
        this.holding(tally, () => this.steps(part.steps))
      }
    }
    return this.told()
  }

  /** Parts that use each other are made nowhere: each waits to be used by another. */
  private refuseCircles(used: ReadonlySet<string>): void {
    const made = new Set<string>()
    const visit = (part: Part) => {
      if (made.has(part.name)) return
      made.add(part.name)
      for (const name of partsUsed(part.steps)) {
        const of = this.parts.get(name)
        if (of) visit(of)
      }
    }
    for (const part of this.sheet.parts) if (!used.has(part.name) || !part.name) visit(part)
    const left = this.sheet.parts.filter(({ name }) => !made.has(name))
    const [first] = left
    if (!first?.line) return
    const names = left.map(({ name }) => `"${name}"`)
    this.faults.add(
      'error',
      first.line,
      left.length === 1
        ? `The part ${names[0]} uses itself, so it is never made.`
        : `The parts ${names.join(', ')} use each other, so none of them is made.`,
      'Take one of their "use" lines away.',
    )
  }

  private settingsOf(ways: ThreadWays): ThreadSettings {
    if (Object.keys(ways).length === 0) return this.usual
    try {
      return settingsWith(this.usual, ways, this.machine)
    } catch (error) {
      this.faults.caught(error)
      return this.usual
    }
  }

  /** The statements in the order of the text, whenever they were first done. */
  private told(): StatementReport[] {
    const tallies = [...this.tallies.values()].sort((a, b) => byPath(a.path, b.path))
    const places = new Int32Array(tallies.length)
    for (const [place, { at }] of tallies.entries()) places[at] = place
    const { work, lines } = this.machine
    const { refilled } = this.machine.roles
    work.renumberStatements(places)
    lines.length = 0
    for (const { line } of tallies) lines.push(line.number)
    for (const [i, each] of refilled.entries()) refilled[i] = { ...each, statement: places[each.statement] as number }
    const held = new Map<Tally, number>()
    for (const tally of tallies)
      for (let { within } = tally; within; { within } = within) held.set(within, (held.get(within) ?? 0) + 1)
    return tallies.map((tally) => {
      const { line, part, times, stitches, threadMm, added, totals, needleIn, turns } = tally
      const holds = (action: Action): Action =>
        action.type === 'repeat' ? { ...action, held: held.get(tally) ?? 0 } : action
      const action = holds(tally.action)
      return {
        line: line.number,
        text: line.text,
        part,
        times,
        stitches,
        added: Object.fromEntries(added),
        totals,
        threadMm,
        needleIn,
        action,
        turns: turns.length < 2 || turns.every((turn, i) => sameDoing(turn, tally.action, i)) ? [] : turns.map(holds),
      }
    })
  }

  /** Does what a repeat holds. */
  private holding(tally: Tally | undefined, work: () => void): void {
    const outer = this.within
    this.within = tally
    try {
      work()
    } finally {
      this.within = outer
    }
  }

  private keyOf = (line: Line): string => [...this.uses, line.number].join(' ')

  private known = (line: Line): Tally | undefined => this.tallies.get(this.keyOf(line))

  /** @returns false when the rest is to be left out */
  private steps(steps: readonly Step[]): boolean {
    for (const [i, step] of steps.entries()) {
      if (this.stopped) return false
      switch (step.type) {
        case 'line':
          this.line(step, following(steps, i))
          break
        case 'block':
          this.block(step)
          break
        case 'use':
          this.use(step)
          break
        case 'failed':
          markLost(step.line, this.machine, step.line.number)
          break
        case 'skip':
          if (this.leftOut(step)) return false
          break
      }
    }
    return true
  }

  private line({ statement }: Extract<Step, { type: 'line' }>, next: Step | undefined): void {
    const { machine } = this
    const { line } = statement
    if (!this.room(line.keywordSpan)) return
    const from = machine.work.passes
    const beads = machine.work.beads
    const known = this.known(line)
    machine.statement = known?.at ?? this.tallies.size
    machine.lines[machine.statement] = line.number
    machine.nextInto = next?.type === 'line' ? next.statement.into : undefined
    let action: Action
    try {
      action = statement.work(machine)
    } catch (error) {
      this.caught(error)
      machine.takeBack(beads, from)
      markLost(line, machine, error instanceof SkippedLine ? error.becauseOfLine : line.number)
      return
    }
    const tally: Tally = known ?? {
      line,
      part: machine.part,
      path: [...this.uses, line.number],
      at: this.tallies.size,
      within: this.within,
      times: 0,
      stitches: 0,
      threadMm: 0,
      added: new Map(),
      totals: {},
      needleIn: '',
      action,
      turns: [],
    }
    const { action: told } = tally
    if (known && told.type === 'round' && action.type === 'round' && told.fresh === true && !action.fresh)
      tally.action = { ...action, fresh: 'the first time' }
    this.tallies.set(this.keyOf(line), tally)
    if (machine.work.passes > from) machine.work.doings.push(from)
    for (let bead = beads; bead < machine.work.beads; ) {
      const first = bead
      const role = machine.work.role(bead)
      while (bead < machine.work.beads && machine.work.role(bead) === role) bead++
      const letter = machine.roles.letterOf(role)
      for (const counts of [tally.added, this.totals]) counts.set(letter, (counts.get(letter) ?? 0) + bead - first)
    }
    tally.times++
    tally.stitches += stitchesOf(action)
    tally.threadMm += machine.pathMm(from, machine.work.passes)
    tally.totals = Object.fromEntries(this.totals)
    const { needle } = machine.work
    tally.needleIn = needle === undefined ? '' : machine.letterOfBead(beadOf(needle))
    if (tally.turns.length < maxTold) tally.turns.push(action)
  }

  private block({ line, head, body }: Extract<Step, { type: 'block' }>): void {
    const { machine } = this
    // Also one that holds nothing: there may be any number of them within one another.
    if (!this.room(line.keywordSpan)) return
    try {
      switch (head.type) {
        case 'repeat': {
          const times = this.bounded(evaluateCount(head.times, machine, 'The number of repeats'), head.times.span)
          this.holding(this.tellRepeat(line, times), () => {
            for (let i = 0; i < times && !this.stopped; i++) this.steps(body)
          })
          return
        }
        case 'range': {
          const from = evaluateCount(head.from, machine, 'The first number', -1_000_000)
          const to = evaluateCount(head.to, machine, 'The last number', -1_000_000)
          const by = to >= from ? 1 : -1
          this.holding(this.tellRepeat(line, this.bounded(Math.abs(to - from) + 1, line.keywordSpan)), () => {
            for (let k = from; by * (to - k) >= 0 && !this.stopped; k += by)
              this.turn(head.name, { amount: k, unit: 'count' }, body)
          })
          return
        }
        case 'for':
          this.holding(this.tellRepeat(line, turnsOf(head)), () => {
            for (let i = 0; i < turnsOf(head); i++) this.turnOf(head, i, body)
          })
          return
        case 'until':
          this.until(head, line, body)
          return
        case 'at': {
          const { holes: places, told } = findTold(head.target, machine)
          const tally = this.tellRepeat(line, places.length, { at: told })
          for (const [i, h] of places.entries()) {
            if (this.stopped) return
            const from = machine.work.passes
            machine.statement = tally.at
            travelTo(h, machine, head.target.span)
            tally.threadMm += machine.pathMm(from, machine.work.passes)
            if (machine.work.passes > from) machine.work.doings.push(from)
            this.holding(tally, () => (head.cycle ? this.turnOf(head.cycle, i, body) : this.steps(body)))
          }
        }
      }
    } catch (error) {
      this.caught(error)
    }
  }

  private caught(error: unknown): void {
    this.faults.caught(error)
    if (error instanceof Runaway || (error instanceof DoesNotDivide && this.machine.trying)) this.stopped = true
  }

  /** The head of a repeat has its own place among the statements, before the lines it holds. */
  private tellRepeat(
    line: Line,
    times: number,
    { at, of }: { readonly at?: PlaceTold; readonly of?: 'part' } = {},
  ): Tally {
    const action: Action = { type: 'repeat', times, held: 0, at, of }
    const tally: Tally = this.known(line) ?? {
      line,
      part: this.machine.part,
      path: [...this.uses, line.number],
      at: this.tallies.size,
      within: this.within,
      times: 0,
      stitches: 0,
      threadMm: 0,
      added: new Map(),
      totals: Object.fromEntries(this.totals),
      needleIn: '',
      action,
      turns: [],
    }
    this.tallies.set(this.keyOf(line), tally)
    tally.times++
    if (tally.turns.length < maxTold) tally.turns.push(action)
    return tally
  }

  /** What is gone through comes round again where there are more turns. */
  private turnOf(cycle: Cycle, turn: number, body: readonly Step[]): void {
    const { machine } = this
    if (!('letter' in cycle)) {
      this.turn(cycle.name, evaluate(cycle.values[turn % cycle.values.length] as Expression, machine), body)
      return
    }
    if (this.stopped) return
    const { letter, span, roles } = cycle
    if (machine.roles.byLetter.has(letter))
      throw new LineFault(span, `${letter} is declared already.`, 'Take a letter that is free, for example X.')
    const { role, span: at } = roles[turn % roles.length] as (typeof roles)[number]
    machine.roles.numberOf(role, at)
    const before = machine.roles.standsFor.get(letter)
    machine.roles.standsFor.set(letter, machine.roles.actual(role))
    this.steps(body)
    if (before) machine.roles.standsFor.set(letter, before)
    else machine.roles.standsFor.delete(letter)
  }

  private turn(name: string, value: ReturnType<typeof evaluate>, body: readonly Step[]): void {
    if (this.stopped) return
    const { values } = this.machine
    const before = values.get(name)
    values.set(name, value)
    this.steps(body)
    if (before) values.set(name, before)
    else values.delete(name)
  }

  private until(
    head: Extract<Extract<Step, { type: 'block' }>['head'], { type: 'until' }>,
    line: Line,
    body: readonly Step[],
  ): void {
    const { machine } = this
    const length = evaluateLength(head.length, machine, 'The length')
    if (evaluate(head.length, machine).unit === 'count')
      throw new LineFault(head.length.span, 'This length has no unit.', `Say mm, cm or in: until length ${length} mm.`)
    if (!addsBeads(body))
      throw new LineFault(
        line.keywordSpan,
        'Nothing is picked up in this repeat, so it never gets any longer.',
        'Put a line that picks up beads between "until" and "end".',
      )
    const ends = head.ends ? evaluate(head.ends, machine).amount : 0
    const multiple = head.multiple ? evaluateCount(head.multiple, machine, 'The multiple', 1) : 1
    if (ends >= length)
      throw new LineFault(
        head.length.span,
        `The ends (${ends} mm) leave nothing of ${length} mm.`,
        'Give a greater length.',
      )
    const formed = machine.formed?.pitches[line.number]
    const written = head.pitch ? evaluateLength(head.pitch, machine, 'The pitch') : undefined
    const tally = this.tellRepeat(line, 1)
    // Without a pitch the first repeat is done to see what one of them comes to.
    let done = 0
    let pitch = written ?? formed
    if (pitch === undefined) {
      const before = { beads: machine.work.beads, courses: machine.work.courses.length }
      this.holding(tally, () => this.steps(body))
      done = 1
      const plain = plainPitch(machine, before.beads, before.courses)
      pitch = plain.pitch
      if (plain.guessed && machine.formed?.unsound)
        this.faults.add(
          'error',
          line,
          'How long one of these repeats is cannot be told: the form is not sound, and no plain rule knows it.',
          'Measure a few and say it: until length 180 mm, pitch 4.5 mm.',
        )
    }
    const loose = written === undefined ? machine.formed?.loose?.[line.number] : undefined
    if (loose) {
      const [low, high] = loose.map((mm) => mm.toFixed(2))
      this.faults.add(
        'error',
        line,
        `How long one of these repeats is depends on how tightly it is pulled: anywhere from ${low} to ${high} mm.`,
        `Work twenty, measure them, and say it: until length ${Number(length.toFixed(1))} mm, pitch ${pitch.toFixed(2)} mm.`,
      )
    }
    const fit = fitLength(length, pitch, ends, multiple)
    const times = this.bounded(fit.best, line.keywordSpan)
    const action: Action = {
      type: 'repeat',
      times,
      held: 0,
      at: undefined,
      of: undefined,
      pitch: written !== undefined ? 'written' : formed !== undefined ? 'form' : 'estimate',
    }
    if (tally.times === 1) tally.action = action
    if (tally.times <= maxTold) tally.turns[tally.turns.length - 1] = action
    const told = fit.candidates
      .map(({ count, lengthMm }) => `${count} give ${Number(lengthMm.toFixed(1))} mm`)
      .join(', ')
    const from =
      written !== undefined || loose
        ? ''
        : formed !== undefined
          ? ` The form has ${pitch.toFixed(2)} mm a repeat.`
          : ` By a plain estimate of ${pitch.toFixed(2)} mm a repeat, until the form has settled.`
    machine.remark(
      'note',
      line.keywordSpan,
      `${counted(times, 'repeat')} for ${Number(length.toFixed(1))} mm: ${told}.${from}`,
    )
    this.holding(tally, () => {
      for (let i = done; i < times && !this.stopped; i++) this.steps(body)
    })
  }

  private use({ line, part: name }: Extract<Step, { type: 'use' }>): void {
    const part = this.parts.get(name)
    if (!part) {
      const guess = nearest(name, this.parts.keys())
      this.faults.add(
        'error',
        line,
        `There is no part "${name}".`,
        guess ? `Did you mean "${guess}"?` : 'Begin one with: part NAME.',
      )
      return
    }
    if (this.inUse.includes(name) || this.machine.part === name) {
      this.faults.add('error', line, `The part "${name}" would use itself.`, 'Take this line away.')
      return
    }
    this.inUse.push(name)
    const times = part.times ? this.count(part.times, 'The number of parts') : 1
    this.holding(times > 1 ? this.tellRepeat(line, times) : this.within, () => {
      this.uses.push(line.number)
      for (let i = 0; i < times && !this.stopped; i++) this.steps(part.steps)
      this.uses.pop()
    })
    this.inUse.pop()
  }

  private leftOut({ line, option, when }: Extract<Step, { type: 'skip' }>): boolean {
    const state = this.options.get(option)
    if (state === undefined) {
      const guess = nearest(option, this.options.keys())
      this.faults.add(
        'error',
        line,
        `There is no option "${option}".`,
        guess ? `Did you mean "${guess}"?` : `Declare it: option ${option} on.`,
      )
      return false
    }
    return state === (when === 'on')
  }

  private count(expression: Expression, what: string): number {
    try {
      return this.bounded(evaluateCount(expression, this.machine, what), expression.span)
    } catch (error) {
      this.faults.caught(error)
      return 1
    }
  }

  private bounded(times: number, span: Span): number {
    if (times <= maxDone) return times
    throw new LineFault(
      span,
      `${times.toLocaleString('en-GB')} times are more than any piece has.`,
      'Check the number.',
    )
  }

  private room(span: Span): boolean {
    if (++this.done <= maxDone) return true
    this.stopped = true
    this.faults.add(
      'error',
      span,
      `The pattern comes to more than ${maxDone.toLocaleString('en-GB')} lines, repeats counted out.`,
      'Check the numbers of the repeats.',
    )
    return false
  }
}

/** Words whose lines may pick up beads. */
const adding: ReadonlySet<string> = new Set([
  ...['ring', 'string', 'pick', 'round', 'row', 'square', 'loop', 'weave', 'join', 'stand', 'fringe'],
])

/** Whether some of these steps may pick up beads; what another part does is taken to. */
const addsBeads = (steps: readonly Step[]): boolean =>
  steps.some(
    (step) =>
      step.type === 'use' ||
      step.type === 'failed' ||
      (step.type === 'block' && addsBeads(step.body)) ||
      (step.type === 'line' && adding.has(step.statement.line.keyword)),
  )

const turnsOf = (cycle: Cycle) => ('letter' in cycle ? cycle.roles.length : cycle.values.length)

const stitchesOf = (action: Action) => ('stitches' in action ? action.stitches : action.type === 'loop' ? 1 : 0)

/** Whether a turn is told in the words of the first; the number of a round, and that it is the first on a ring, are no part of them. */
const sameDoing = (turn: Action, first: Action, at: number) =>
  !(at > 0 && turn.type === 'round' && turn.fresh) &&
  JSON.stringify({ ...turn, round: 0, fresh: false }) === JSON.stringify({ ...first, round: 0, fresh: false })

/** What comes after a step; the last of a block is followed by its first again. */
const following = (steps: readonly Step[], i: number): Step | undefined =>
  steps.slice(i + 1).find((step) => step.type !== 'skip') ?? steps[0]

const byPath = (a: readonly number[], b: readonly number[]): number => {
  const at = a.findIndex((line, i) => line !== b[i])
  return at < 0 ? a.length - b.length : (a[at] as number) - (b[at] ?? -1)
}

/** What a line at fault would have made is missed by the lines below it, not by their writer. */
function markLost(line: Line, machine: StitchMachine, because: number): void {
  if (line.keyword === 'ring' || line.keyword === 'string') {
    machine.beginPart(machine.part)
    machine.lostLine = because
  }
  machine.lostLine ??= because
  const name = line.items[0]
  if (line.keyword === 'let' && name?.kind === 'Word') machine.lostNames.set(name.text, because)
}
