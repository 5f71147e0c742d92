import type { Bead } from '../catalogue/bead'
import { type Declaration, readDeclaration, type SizeWords } from '../notation/declarations'
import { reckon } from '../notation/expression'
import { type Fault, LineFault, type Span } from '../notation/fault'
import type { Line } from '../notation/line'
import { nearest } from '../notation/nearest'
import { longestSource, type Parsed, parsePattern } from '../notation/parse'
import { stoneOf } from '../notation/stone-words'
import { threadOf, usualThread } from '../notation/thread-words'
import { declarationWords, isStatementWord, statementWords } from '../notation/words'
import type { Action } from '../stitch/action'
import { Bench, type Role, Unreckoned } from '../stitch/bench'
import { beadOf } from '../stitch/hole'
import type { Statement } from '../stitch/technique'
import { readStitchLine } from '../stitch/techniques'
import type { Work } from '../stitch/work'
import { planThread } from '../thread/plan'
import { type ThreadSettings, usualThreadSettings } from '../thread/settings'
import type { Report, StatementReport } from './report'

/** What is chosen outside the text: a size, the beads of a colourway, the shop's ways. */
export interface Choices {
  /** A size's name; the pattern's default when absent. */
  readonly size?: string
  /** The beads really used, by role; the nominal bead where a role is absent. */
  readonly beads?: Readonly<Record<string, Bead>>
  readonly settings?: ThreadSettings
}

/** A pattern reckoned: the report, and the work it was read off for drawing. */
export interface Reckoned {
  readonly report: Report
  readonly work: Work
  readonly roles: ReadonlyMap<string, Role>
  readonly letterOf: (role: number) => string
}

/**
 * Reads a pattern and works it through, line by line. Never throws for what is written in it: every fault is a diagnostic in its
 * line, and the other lines are reckoned all the same.
 */
export function reckonPattern(source: string | Parsed, choices: Choices = {}): Reckoned {
  const parsed = typeof source === 'string' ? parsePattern(source.slice(0, longestSource)) : source
  const faults = new Faults(parsed)
  if (parsed.source.length >= longestSource) {
    faults.add(
      'error',
      { from: 0, to: 1 },
      `The text is longer than ${longestSource.toLocaleString('en-GB')} characters.`,
      'A pattern is a few pages; check what was pasted.',
    )
  }
  const sheet = readSheet(parsed.lines, faults)
  const settings = choices.settings ?? usualThreadSettings
  const size = chooseSize(sheet.sizes, choices.size, faults)

  const bench = benchFor(sheet, size, choices, settings, faults)
  const statements = workThrough(sheet, bench, faults)
  for (const remark of bench.remarks) faults.add(remark.severity, remark.span, remark.message, remark.mend)
  warnOfUnused(bench, faults)

  const threadChoice = threadIn(sheet, bench, faults)
  const threads = bench.work.threads.map((from, i) => {
    const to = bench.work.threads[i + 1] ?? bench.work.passes
    const ends = threadChoice.tailMm === undefined ? {} : { tailMm: threadChoice.tailMm }
    return planThread(bench.pathMm(from, to), threadChoice.strands, settings, ends)
  })
  const diagnostics = faults.sorted()
  const report: Report = {
    pattern: sheet.title,
    makes: sheet.makes,
    pair: sheet.pair,
    size: size?.name ?? '',
    sizes: sheet.sizes.map((each) => each.name),
    ...totalsOf(bench, sheet.makes),
    fits: bench.fits,
    threadChoice,
    thread: {
      pathMm: sum(threads.map((plan) => plan.pathMm)),
      totalMm: sum(threads.map((plan) => plan.totalMm)),
      cuts: threads.flatMap((plan) => plan.cutsMm),
    },
    threads,
    statements,
    diagnostics,
    sound: !diagnostics.some((fault) => fault.severity === 'error'),
  }
  return { report, work: bench.work, roles: bench.roles, letterOf: bench.letterOf }
}

const sum = (numbers: readonly number[]) => numbers.reduce((a, b) => a + b, 0)

/** Gathers faults with their places. */
class Faults {
  private readonly list: Fault[] = []

  constructor(private readonly parsed: Parsed) {}

  add(severity: Fault['severity'], span: Span, message: string, mend?: string, insert?: string): void {
    const { line, column } = this.parsed.index.at(span.from)
    this.list.push({
      severity,
      line,
      column,
      length: Math.max(1, span.to - span.from),
      message,
      ...(mend === undefined ? {} : { mend }),
      ...(insert === undefined ? {} : { edit: { from: span.from, to: span.to, insert } }),
    })
  }

  /** A fault of one line, or something worse that is not ours to hide. */
  caught(error: unknown): void {
    if (error instanceof Unreckoned) this.add('note', error.span, error.message, error.mend)
    else if (error instanceof LineFault) this.add('error', error.span, error.message, error.mend, error.insert)
    else throw error
  }

  sorted(): Fault[] {
    const rank = { error: 0, warning: 1, note: 2 }
    return this.list.sort((a, b) => a.line - b.line || rank[a.severity] - rank[b.severity] || a.column - b.column)
  }
}

/** A pattern's lines, read. */
interface Sheet {
  title: string
  makes: number
  pair: boolean
  sizes: SizeWords[]
  roles: { readonly declaration: Extract<Declaration, { word: 'bead' | 'stone' }>; readonly line: Line }[]
  thread: { readonly declaration: Extract<Declaration, { word: 'thread' }>; readonly line: Line } | undefined
  /** Parts and statements, as they stand. */
  steps: ({ readonly part: string; readonly line: Line } | Statement | { readonly failed: Line })[]
  lostRoles: Map<string, number>
}

function readSheet(lines: readonly Line[], faults: Faults): Sheet {
  const sheet: Sheet = {
    title: '',
    makes: 1,
    pair: false,
    sizes: [],
    roles: [],
    thread: undefined,
    steps: [],
    lostRoles: new Map(),
  }
  for (const line of lines) {
    try {
      if (!isStatementWord(line.keyword)) throw unknownWord(line)
      if ((declarationWords as readonly string[]).includes(line.keyword)) enter(readDeclaration(line), line, sheet)
      else sheet.steps.push(readStitchLine(line))
    } catch (error) {
      faults.caught(error)
      const letter = line.items[0]
      if ((line.keyword === 'bead' || line.keyword === 'stone') && letter?.kind === 'Name')
        sheet.lostRoles.set(letter.text, line.number)
      else sheet.steps.push({ failed: line })
    }
  }
  if (!sheet.title && lines.length > 0) {
    faults.add(
      'warning',
      { from: 0, to: 1 },
      'The pattern has no name.',
      'Begin with a line such as: pattern Windlass pendant.',
    )
  }
  return sheet
}

function enter(declaration: Declaration, line: Line, sheet: Sheet): void {
  switch (declaration.word) {
    case 'pattern':
      sheet.title = declaration.title
      return
    case 'makes':
      sheet.makes = declaration.count
      sheet.pair = declaration.pair
      return
    case 'size':
      if (sheet.sizes.some((size) => size.name === declaration.size.name)) {
        throw new LineFault(
          line,
          `There is a size "${declaration.size.name}" already.`,
          'Give each size a name of its own.',
        )
      }
      sheet.sizes.push(declaration.size)
      return
    case 'bead':
    case 'stone':
      if (sheet.roles.some((each) => each.declaration.role === declaration.role)) {
        throw new LineFault(
          line,
          `${declaration.role} has been declared already.`,
          'Give each bead a letter of its own.',
        )
      }
      sheet.roles.push({ declaration, line })
      return
    case 'thread':
      if (sheet.thread) throw new LineFault(line, 'The thread has been declared already.', 'Keep one of the two lines.')
      sheet.thread = { declaration, line }
      return
    case 'part':
      sheet.steps.push({ part: declaration.name, line })
  }
}

function unknownWord(line: Line): LineFault {
  if (!line.keyword) {
    const text = line.text.length > 24 ? `${line.text.slice(0, 24)}...` : line.text
    return new LineFault(
      line.keywordSpan,
      `A line begins with a word such as ring or round, not "${text}".`,
      'Say what to do with these beads: ring, round, loop...',
    )
  }
  const guess = nearest(line.keyword, statementWords)
  return new LineFault(
    line.keywordSpan,
    `"${line.keyword.slice(0, 40)}" is not a word of the notation.`,
    guess ? `Did you mean "${guess}"?` : `Words: ${statementWords.join(', ')}.`,
    guess,
  )
}

function chooseSize(sizes: readonly SizeWords[], wanted: string | undefined, faults: Faults): SizeWords | undefined {
  const usual = sizes.find((size) => size.usual) ?? sizes[0]
  if (!wanted) return usual
  const found = sizes.find((size) => size.name === wanted)
  if (!found) {
    const names = sizes.map((size) => size.name).join(', ')
    faults.add(
      'error',
      { from: 0, to: 1 },
      `This pattern has no size "${wanted}".`,
      names ? `Sizes: ${names}.` : 'It has one size only.',
    )
  }
  return found ?? usual
}

/** Sets out the size's values and the roles with the beads chosen for them. */
function benchFor(
  sheet: Sheet,
  size: SizeWords | undefined,
  choices: Choices,
  settings: ThreadSettings,
  faults: Faults,
): Bench {
  const bench = new Bench(settings)
  for (const [letter, line] of sheet.lostRoles) bench.lostRoles.set(letter, line)
  const attempt = (act: () => void) => {
    try {
      act()
    } catch (error) {
      faults.caught(error)
      return false
    }
    return true
  }
  for (const setting of size?.settings ?? []) attempt(() => bench.values.set(setting.name, reckon(setting.of, bench)))
  for (const other of sheet.sizes) {
    for (const setting of other.settings) {
      if (size && !size.settings.some((each) => each.name === setting.name)) {
        faults.add(
          'warning',
          setting.span,
          `Size "${size.name}" does not set "${setting.name}".`,
          'Every size sets the same things.',
        )
      }
    }
  }
  for (const { declaration, line } of sheet.roles) {
    const { role: letter, label } = declaration
    const span = line.items[0] ?? line
    const made = attempt(() => {
      if (declaration.word === 'bead') {
        const bead = choices.beads?.[letter] ?? declaration.bead
        bench.declare({ type: 'bead', letter, bead, nominal: declaration.bead, label, span })
      } else bench.declare({ type: 'stone', letter, stone: stoneOf(declaration.stone, bench), label, span })
    })
    if (!made) bench.lostRoles.set(letter, line.number)
  }
  return bench
}

function workThrough(sheet: Sheet, bench: Bench, faults: Faults): StatementReport[] {
  const reports: StatementReport[] = []
  const totals = new Map<string, number>()
  for (const step of sheet.steps) {
    if ('failed' in step) {
      markLost(step.failed, bench)
      continue
    }
    if ('part' in step) {
      bench.beginPart(step.part)
      continue
    }
    const from = bench.work.passes
    bench.statement = reports.length
    let action: Action
    try {
      action = step.work(bench)
    } catch (error) {
      faults.caught(error)
      markLost(step.line, bench)
      continue
    }
    const added = new Map<string, number>()
    for (let pass = from; pass < bench.work.passes; pass++) {
      if (!bench.work.isNew(pass)) continue
      const letter = bench.letterOf(bench.work.role(beadOf(bench.work.holeAt(pass))))
      added.set(letter, (added.get(letter) ?? 0) + 1)
    }
    for (const [letter, count] of added) totals.set(letter, (totals.get(letter) ?? 0) + count)
    reports.push({
      line: step.line.number,
      text: step.line.text,
      part: bench.part,
      stitches: action.type === 'round' ? action.stitches : action.type === 'loop' ? 1 : 0,
      added: Object.fromEntries(added),
      totals: Object.fromEntries(totals),
      threadMm: bench.pathMm(from, bench.work.passes),
      action,
    })
  }
  return reports
}

/** What a line at fault would have made is missed by the lines below it, not by their writer. */
function markLost(line: Line, bench: Bench): void {
  if (line.keyword === 'ring') {
    bench.beginPart(bench.part)
    bench.lostRing = line.number
  }
  const name = line.items[0]
  if (line.keyword === 'let' && name?.kind === 'Word') bench.lostNames.set(name.text, line.number)
}

function warnOfUnused(bench: Bench, faults: Faults): void {
  for (const role of bench.roles.values()) {
    if (bench.used.has(role.letter) && (role.type === 'bead' || bench.placed.has(role.letter))) continue
    const message =
      role.type === 'stone'
        ? `${role.letter} is declared but never placed.`
        : `${role.letter} is declared but never picked up.`
    faults.add(
      'warning',
      role.span,
      message,
      role.type === 'stone' ? `Add: place ${role.letter}.` : 'Use it, or take the line away, so that nobody buys it.',
    )
  }
}

function threadIn(sheet: Sheet, bench: Bench, faults: Faults) {
  if (!sheet.thread) return usualThread
  try {
    const choice = threadOf(sheet.thread.declaration.thread, bench)
    for (const role of bench.roles.values()) {
      if (role.type === 'bead' && role.bead.boreMm < choice.needleMm) {
        faults.add(
          'error',
          role.span,
          `Needle ${choice.needle} is ${choice.needleMm} mm across and does not go through ${role.letter} (hole ${role.bead.boreMm} mm).`,
          'Use a finer needle.',
        )
      }
    }
    return choice
  } catch (error) {
    faults.caught(error)
    return usualThread
  }
}

function totalsOf(bench: Bench, makes: number): Pick<Report, 'beads' | 'stones'> {
  const counts = new Map<string, number>()
  for (let bead = 0; bead < bench.work.beads; bead++) {
    const letter = bench.letterOf(bench.work.role(bead))
    counts.set(letter, (counts.get(letter) ?? 0) + 1)
  }
  const beads: Report['beads'][number][] = []
  const stones: Report['stones'][number][] = []
  for (const role of bench.roles.values()) {
    if (role.type === 'bead') {
      const each = counts.get(role.letter) ?? 0
      const { kind, size } = role.bead
      beads.push({
        role: role.letter,
        kind,
        size,
        label: role.label,
        each,
        total: each * makes,
        totalMg: each * makes * role.bead.massMg,
        bead: role.bead,
      })
    } else {
      const each = bench.placed.has(role.letter) ? 1 : 0
      stones.push({ role: role.letter, label: role.label, each, total: each * makes, stone: role.stone })
    }
  }
  return { beads, stones }
}
