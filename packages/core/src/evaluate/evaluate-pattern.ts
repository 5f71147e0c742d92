import type { Bead } from '../catalogue/bead'
import type { Stone } from '../catalogue/stone'
import { needles } from '../catalogue/thread'
import { type Mm, sayLength } from '../measure/units'
import type { SizeWords } from '../notation/declarations'
import { evaluate, type SettledFit } from '../notation/expression'
import type { Span } from '../notation/fault'
import { nearest } from '../notation/nearest'
import { longestSource, type Parsed, parsePattern } from '../notation/parse'
import { beadOf } from '../notation/parse-bead'
import { stoneOf } from '../notation/parse-stone'
import { settingsWith, type ThreadChoice, threadOf, usualThread } from '../notation/parse-thread'
import type { EvaluatedPattern } from '../report/evaluated-pattern'
import type { Report, StatementReport } from '../report/report'
import type { Counting } from '../sizing/counting'
import { readMadeSize } from '../sizing/made-size'
import { type Formed, StitchMachine } from '../stitch/stitch-machine'
import { planThread } from '../thread/plan'
import { type ThreadSettings, usualThreadSettings } from '../thread/settings'
import { crowdingOf } from './crowding'
import { Faults } from './faults'
import { workThrough } from './interpreter'
import { readSheet, type Sheet } from './program'
import { furtherLengthsBegin } from './thread-begins'

/** What is chosen outside the text: a size, options, the beads of a colourway, the shop's ways. */
export interface Choices {
  /** A size's name; the pattern's default when absent. */
  readonly size?: string
  /** Measures that its size would set, mm, set otherwise: a pattern graded. */
  readonly measures?: Readonly<Record<string, Mm>>
  /** Options by name; as the pattern has them when absent. */
  readonly options?: Readonly<Record<string, boolean>>
  /** The beads really used, by role; the nominal bead where a role is absent. */
  readonly beads?: Readonly<Record<string, Bead>>
  /** Of roles whose bead is not the nominal one: which counts follow it; all, where a role is absent. */
  readonly counting?: Readonly<Record<string, Counting>>
  readonly settings?: ThreadSettings
  /** Read off the computed form; see form/form-pattern.ts. */
  readonly formed?: Formed
}

/**
 * Reads a pattern and works it through, line by line. Never throws for what is written in it: every fault is a diagnostic in its
 * line, and the other lines are evaluated all the same.
 */
export function evaluatePattern(source: string | Parsed, choices: Choices = {}): EvaluatedPattern {
  return settledEvaluation(typeof source === 'string' ? parsePattern(source.slice(0, longestSource)) : source, choices)
    .evaluated
}

/** The same, with what its fits that ask for no multiple were found to divide by. */
export function settledEvaluation(
  parsed: Parsed,
  choices: Choices,
): { readonly evaluated: EvaluatedPattern; readonly settled: SettledFit | undefined } {
  const first = evaluateOnce(parsed, choices, undefined)
  if (!first.mayFit) return { evaluated: first.evaluated, settled: undefined }
  // The rounds that follow a ring settle what its count must divide by: the least that lets every line come out even.
  for (const multiple of multiples) {
    const settled = { multiple, further: 0 }
    const next = evaluateOnce(parsed, choices, settled)
    // A count may come out even by chance: what the ring must divide by lets the count after it come out even too.
    if (!next.mayFit && !evaluateOnce(parsed, choices, { multiple, further: 1 }).mayFit)
      return { evaluated: next.evaluated, settled }
  }
  return { evaluated: first.evaluated, settled: undefined }
}

/** The stones that a pattern declares, as they are in one of its sizes; without working it through. */
export function stonesDeclared(source: string, size: string): ReadonlyMap<string, Stone> {
  const parsed = parsePattern(source)
  const faults = new Faults(parsed)
  const sheet = readSheet(parsed.lines, faults)
  const machine = new StitchMachine(usualThreadSettings, usualThread, undefined)
  setOut(sheet, chooseSize(sheet.sizes, size || undefined, faults), {}, machine, faults)
  return new Map(
    [...machine.roles.byLetter.values()].flatMap((role) =>
      role.type === 'stone' ? [[role.letter, role.stone] as const] : [],
    ),
  )
}

/** What a ring may have to divide by: parity with motifs, corners, two-drop and later divisions of them. */
const multiples = [4, 6, 8, 10, 12, 14, 16, 18, 20, 24, 28, 30, 32, 36, 40, 48]

/** Larger patterns say for themselves what their rings must divide by: working them again and again would hold up the typing. */
const maxToRefit = { passes: 20_000, effort: 200_000 }

/** A text that has been read, with a machine that knows its beads and measures; nothing of it is worked yet. */
export interface SetOut {
  readonly sheet: Sheet
  readonly machine: StitchMachine
  readonly options: ReadonlyMap<string, boolean>
  readonly faults: Faults
  readonly size: SizeWords | undefined
}

export function setOutPattern(parsed: Parsed, choices: Choices, settled: SettledFit | undefined): SetOut {
  const faults = new Faults(parsed)
  const sheet = readSheet(parsed.lines, faults)
  const made = readMadeSize(choices.size ?? '')
  const size = chooseSize(sheet.sizes, made.name, faults)
  const options = chooseOptions(sheet, choices.options ?? {}, faults)
  const worked = sheet.thread?.declaration.thread
  const thread = worked ? { ...worked, needleMm: needles[worked.needle] ?? usualThread.needleMm } : usualThread
  const machine = new StitchMachine(choices.settings ?? usualThreadSettings, thread, settled, choices.formed)
  setOut(sheet, size, choices, machine, faults)
  machine.settings = settingsIn(sheet, machine, faults)
  return { sheet, machine, options, faults, size }
}

/** @returns `mayFit` when some count did not come out even and another ring might mend it */
function evaluateOnce(
  parsed: Parsed,
  choices: Choices,
  settled: SettledFit | undefined,
): { evaluated: EvaluatedPattern; mayFit: boolean } {
  const { sheet, machine, options, faults, size } = setOutPattern(parsed, choices, settled)
  if (parsed.source.length >= longestSource) {
    const longest = longestSource.toLocaleString('en-GB')
    faults.add(
      'error',
      { from: 0, to: 1 },
      `The text is longer than ${longest} characters.`,
      'A pattern is a few pages; check what was pasted.',
    )
  }
  const { settings } = machine
  const statements = workThrough(sheet, machine, options, faults)
  for (const remark of machine.remarks) faults.add(remark.severity, remark.span, remark.message, remark.mend)
  warnOfUnused(machine, [...options.values()].includes(false), faults)

  const threadChoice = threadIn(sheet, machine, faults)
  const { crowding, tooFull } = crowdingOf(machine, threadChoice, statements)
  for (const { line, message, mend } of tooFull) faults.add('warning', lineSpan(parsed, line), message, mend)
  const threads = threadsOf(machine, threadChoice.strands, statements)
  const totalMm = sum(threads.map((plan) => plan.totalMm))
  const { lengthMm } = threadChoice
  if (sheet.thread && lengthMm !== undefined && lengthMm < totalMm) {
    faults.add(
      'error',
      sheet.thread.line,
      `${sayLength(lengthMm)} of thread are less than the ${sayLength(totalMm)} that are needed.`,
      `Give at least ${sayLength(Math.ceil(totalMm / 10) * 10)}.`,
    )
  }
  const diagnostics = faults.sorted()
  const report: Report = {
    pattern: sheet.title,
    makes: sheet.makes,
    pair: sheet.pair,
    size: size?.name ?? '',
    sizes: sheet.sizes.map((each) => each.name),
    options: Object.fromEntries(options),
    ...totalsOf(machine, sheet.makes),
    fits: machine.fits,
    refilled: machine.roles.refilled,
    threadChoice,
    threadSettings: settings,
    thread: {
      pathMm: sum(threads.map((plan) => plan.pathMm)),
      totalMm,
      cuts: threads.flatMap((plan) => plan.cutsMm),
    },
    threads,
    crowding,
    parts: partsOf(statements, machine, settings),
    statements,
    diagnostics,
    sound: !diagnostics.some((fault) => fault.severity === 'error'),
  }
  const small = machine.work.passes <= maxToRefit.passes && machine.effort <= maxToRefit.effort
  const evaluated = {
    report,
    work: machine.work,
    roles: machine.roles.byLetter,
    letterOf: machine.roles.letterOf,
    tension: settings.tension,
  }
  return { evaluated, mayFit: faults.uneven && machine.openFits && small }
}

function threadsOf(machine: StitchMachine, strands: 1 | 2, statements: readonly StatementReport[]): Report['threads'] {
  const { threads, tails, passes } = machine.work
  const pathOf = (i: number) => machine.pathMm(threads[i] as number, threads[i + 1] ?? passes)
  return threads.flatMap((from, i) => {
    if (tails.has(i)) return []
    // What is worked with its tail is cut with it.
    let tailMm = 0
    for (let k = i + 1; tails.has(k); k++) tailMm += pathOf(k)
    const settings = machine.threadSettings[i] as ThreadSettings
    const plan = planThread(pathOf(i) + tailMm, strands, settings)
    const begins = furtherLengthsBegin(machine, from, threads[i + 1] ?? passes, plan.pathMm, plan.cutsMm.length)
    return [{ ...plan, furtherFrom: begins.map((statement) => statements[statement]?.line ?? 1) }]
  })
}

/** The shop's ways with thread, and what the pattern says instead. */
function settingsIn(sheet: Sheet, machine: StitchMachine, faults: Faults): ThreadSettings {
  if (!sheet.thread) return machine.settings
  try {
    return settingsWith(machine.settings, sheet.thread.declaration.thread.ways, machine)
  } catch (error) {
    faults.caught(error)
    return machine.settings
  }
}

/** Beads and thread by part, in order. */
function partsOf(
  statements: readonly StatementReport[],
  machine: StitchMachine,
  usual: ThreadSettings,
): Report['parts'] {
  const parts = new Map<string, { added: Map<string, number>; threadMm: number }>()
  for (const { part: name, added, threadMm } of statements) {
    const part = parts.get(name) ?? { added: new Map<string, number>(), threadMm: 0 }
    parts.set(name, part)
    part.threadMm += threadMm
    for (const [role, count] of Object.entries(added)) part.added.set(role, (part.added.get(role) ?? 0) + count)
  }
  return [...parts].map(([name, { added, threadMm }]) => {
    const own = machine.partSettings.get(name)
    return {
      name,
      added: Object.fromEntries(added),
      threadMm,
      ...(own && own !== usual ? { threadSettings: own } : {}),
    }
  })
}

/** The statement that stands on a line. */
function lineSpan(parsed: Parsed, number: number): Span {
  const line = parsed.lines.find((each) => each.number === number)
  return line ? { from: line.from, to: line.to } : { from: 0, to: 1 }
}

const sum = (numbers: readonly number[]) => numbers.reduce((a, b) => a + b, 0)

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

function chooseOptions(sheet: Sheet, wanted: Readonly<Record<string, boolean>>, faults: Faults): Map<string, boolean> {
  const options = new Map(sheet.options.map(({ declaration }) => [declaration.name, declaration.on]))
  for (const [name, on] of Object.entries(wanted)) {
    if (options.has(name)) options.set(name, on)
    else {
      const guess = nearest(name, options.keys())
      faults.add(
        'error',
        { from: 0, to: 1 },
        `This pattern has no option "${name}".`,
        guess ? `Did you mean "${guess}"?` : 'It is left out.',
      )
    }
  }
  return options
}

/** Sets out the size's values and the roles with the beads chosen for them. */
function setOut(
  sheet: Sheet,
  size: SizeWords | undefined,
  choices: Choices,
  machine: StitchMachine,
  faults: Faults,
): void {
  for (const [letter, line] of sheet.lostRoles) machine.roles.lost.set(letter, line)
  const attempt = (act: () => void) => {
    try {
      act()
    } catch (error) {
      faults.caught(error)
      return false
    }
    return true
  }
  for (const setting of size?.settings ?? [])
    attempt(() => machine.values.set(setting.name, evaluate(setting.of, machine)))
  const known = new Set(sheet.sizes.flatMap((each) => each.settings.map(({ name }) => name)))
  const made = readMadeSize(choices.size ?? '').measures
  for (const name of Object.keys(made))
    if (!known.has(name))
      faults.add(
        'error',
        { from: 0, to: 1 },
        `This pattern is not made to a "${name}".`,
        known.size > 0 ? `It is made to: ${[...known].join(', ')}.` : 'It comes in its own sizes only.',
      )
  for (const [name, amount] of Object.entries({ ...made, ...choices.measures }))
    machine.values.set(name, { amount, unit: 'mm' })
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
        const nominal = beadOf(declaration.bead, machine)
        const bead = choices.beads?.[letter] ?? nominal
        const counting = choices.counting?.[letter] ?? 'all'
        machine.roles.declare({ type: 'bead', letter, bead, nominal, counting, label, span })
      } else if (declaration.word === 'stone') {
        machine.roles.declare({ type: 'stone', letter, stone: stoneOf(declaration.stone, machine), label, span })
      } else
        machine.roles.declare({ type: 'item', letter, name: declaration.name, count: declaration.count, label, span })
    })
    if (!made) machine.roles.lost.set(letter, line.number)
  }
}

/** @param partly an option is off, so that what it would use may well be unused */
function warnOfUnused(machine: StitchMachine, partly: boolean, faults: Faults): void {
  if (partly || faults.hasErrors) return
  for (const role of machine.roles.byLetter.values()) {
    if (machine.roles.used.has(role.letter) && (role.type !== 'stone' || machine.placed.has(role.letter))) continue
    const { letter } = role
    if (role.type === 'stone')
      faults.add('warning', role.span, `${letter} is declared but never placed.`, `Add: place ${letter}.`)
    else if (role.type === 'item')
      faults.add('warning', role.span, `${letter} is declared but never attached.`, `Add: attach ${letter} to NAME.`)
    else
      faults.add(
        'warning',
        role.span,
        `${letter} is declared but never picked up.`,
        'Use it, or take the line away, so that nobody buys it.',
      )
  }
}

function threadIn(sheet: Sheet, machine: StitchMachine, faults: Faults): ThreadChoice {
  if (!sheet.thread) return usualThread
  try {
    const choice = threadOf(sheet.thread.declaration.thread, machine)
    for (const role of machine.roles.byLetter.values()) {
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

function totalsOf(machine: StitchMachine, makes: number): Pick<Report, 'beads' | 'stones' | 'items'> {
  const counts: number[] = []
  for (let bead = 0; bead < machine.work.beads; bead++) {
    const role = machine.work.role(bead)
    counts[role] = (counts[role] ?? 0) + 1
  }
  const eachOf = new Map<string, number>()
  counts.forEach((count, role) => {
    eachOf.set(machine.roles.letterOf(role), count)
  })
  const beads: Report['beads'][number][] = []
  const stones: Report['stones'][number][] = []
  const items: Report['items'][number][] = []
  for (const role of machine.roles.byLetter.values()) {
    const { letter, label } = role
    if (role.type === 'bead') {
      const each = eachOf.get(letter) ?? 0
      const { kind, size } = role.bead
      beads.push({
        role: letter,
        kind,
        size,
        label,
        each,
        total: each * makes,
        totalMg: each * makes * role.bead.massMg,
        bead: role.bead,
      })
    } else if (role.type === 'stone') {
      const each = machine.placed.has(letter) ? 1 : 0
      stones.push({ role: letter, label, each, total: each * makes, stone: role.stone })
    } else {
      const each = machine.roles.used.has(letter) ? role.count : 0
      items.push({ role: letter, name: role.name, label, each, total: each * makes })
    }
  }
  return { beads, stones, items }
}
