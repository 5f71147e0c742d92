/** The work as it stands behind a line of a text, ready for one more line to be tried on it. */
import { type Choices, setOutPattern, settledEvaluation } from '../evaluate/evaluate-pattern'
import { workThrough } from '../evaluate/interpreter'
import { type Part, partsUsed, type Step } from '../evaluate/program'
import { LineFault } from '../notation/fault'
import type { Line } from '../notation/line'
import { type Parsed, parsePattern } from '../notation/parse'
import type { StitchMachine } from '../stitch/stitch-machine'
import type { Statement } from '../stitch/technique'
import { readStitchLine } from '../stitch/techniques'
import { type HandPass, passesOf } from './hand-pass'
import { tokensIn } from './tokens'

/** What a line would do. */
export interface Tried {
  readonly line: string
  readonly tokens: number
  readonly passes: readonly HandPass[]
  /** The line before it would step up less far, or farther, as it does for what this one goes into. */
  readonly restepped: boolean
  /** Its last passes step up, as far as the line after it will want. */
  readonly stepsUp: number
  /** Things the shop would tell about it: that a fit is loose, say. */
  readonly remarks: readonly string[]
  /** As the work would be then. */
  readonly machine: StitchMachine
}

/** Why nothing can be worked on there, and the line with which it could, where there is one. */
export interface NoWork {
  readonly why: string
  readonly mend?: string
}

export class SoFar {
  private constructor(
    readonly machine: StitchMachine,
    /** The line before, which steps up to what the next one goes into, and the work as it was without it. */
    readonly last: { readonly statement: Statement; readonly before: StitchMachine } | undefined,
  ) {}

  /** As it would stand with a line that was tried. */
  static behind = ({ machine }: Tried): SoFar => new SoFar(machine, undefined)

  /**
   * @param behind the last line that is worked, from 1; all of the text unless it is given. Within a repeat, the repeat is worked to its end.
   */
  static of(source: string | Parsed, choices: Choices = {}, behind?: number): SoFar | NoWork {
    const parsed = typeof source === 'string' ? parsePattern(source) : source
    const { evaluated, settled } = settledEvaluation(parsed, choices)
    const fault = evaluated.report.diagnostics.find(
      ({ severity, line }) => severity === 'error' && (behind === undefined || line <= behind),
    )
    if (fault) return { why: `Line ${fault.line} has an error. Fix it first, then go on stitching.` }
    const worked = workUpTo(parsed, choices, settled, behind)
    if (typeof worked === 'string') return { why: worked }
    if (worked.machine.finished) return { why: 'The thread has been finished off.', mend: 'new thread' }
    return new SoFar(worked.machine, worked.last)
  }

  /** @returns undefined where the line is at fault, or steps up otherwise than the thread lies */
  try(text: string): Tried | undefined {
    const line = lineOf(text)
    if (!line) return undefined
    try {
      const statement = readStitchLine(line)
      const { into } = statement
      const restep = this.last && (into?.type === 'middles' || into?.type === 'nth')
      const machine = (restep && this.last ? this.last.before : this.machine).copy()
      if (restep && this.last) {
        machine.nextInto = into
        this.last.statement.work(machine)
      }
      const from = machine.work.passes
      const begun = this.machine.work.passes
      machine.nextInto = undefined
      machine.statement = machine.lines.length
      const told = machine.remarks.length
      const action = statement.work(machine)
      return {
        line: text,
        tokens: tokensIn(line),
        passes: passesOf(machine.work, from, machine.work.passes, machine.roles.letterOf),
        restepped: from !== begun,
        stepsUp: action.type === 'round' ? action.upThrough : 0,
        remarks: machine.remarks.slice(told).map(({ message }) => message),
        machine,
      }
    } catch (error) {
      if (error instanceof LineFault) return undefined
      throw error
    }
  }
}

/** A line by itself, read. */
function lineOf(text: string): Line | undefined {
  const { lines } = parsePattern(text)
  return lines.length === 1 ? lines[0] : undefined
}

/** @returns why nothing can be worked on there, where that is so */
function workUpTo(
  parsed: Parsed,
  choices: Choices,
  settled: Parameters<typeof setOutPattern>[2],
  behind: number | undefined,
): { machine: StitchMachine; last: SoFar['last'] } | string {
  const { sheet, machine, options, faults } = setOutPattern(parsed, choices, settled)
  const { parts } = sheet
  const used = new Set(parts.flatMap(({ steps }) => partsUsed(steps)))
  const at = behind === undefined ? parts.length - 1 : parts.findLastIndex(({ line }) => (line?.number ?? 0) <= behind)
  const part = parts[at] as Part
  if (used.has(part.name))
    return `The part "${part.name}" is made where others use it. Stitch in one that is made by itself.`
  if (part.times) return `The part "${part.name}" is made several times. Stitch in one that is made once.`
  const steps = behind === undefined ? part.steps : part.steps.filter((step) => lineNumber(step) <= behind)
  let last: SoFar['last']
  const end = steps.at(-1)
  // The work before the last line, as it stood when that line was worked.
  const watched: Step[] =
    end?.type === 'line' && end.statement.into
      ? [
          {
            type: 'line',
            statement: {
              ...end.statement,
              work(machine) {
                last = { statement: end.statement, before: machine.copy() }
                return end.statement.work(machine)
              },
            },
          },
        ]
      : steps.slice(-1)
  const cut = { ...part, steps: [...steps.slice(0, -1), ...watched] }
  const worked = [...parts.slice(0, at).filter(({ name }) => !used.has(name)), cut]
  // The parts that these use, wherever they stand; one that is used farther down only is not made here.
  for (let i = 0; i < worked.length; i++)
    for (const name of partsUsed(worked[i]?.steps ?? [])) {
      const other = parts.find((each) => each.name === name)
      if (other && !worked.includes(other)) worked.push(other)
    }
  workThrough({ ...sheet, parts: worked }, machine, options, faults)
  return { machine, last }
}

const lineNumber = (step: Step): number => (step.type === 'line' ? step.statement.line : step.line).number
