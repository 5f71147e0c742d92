import { DoesNotDivide, type Fault, LineFault, SkippedLine, type Span } from '../notation/fault'
import type { Parsed } from '../notation/parse'

/** More than this many faults help nobody; the rest are counted in one more. */
const maxFaults = 500

/** Gathers what is wrong with a pattern, with its places. The same thing said twice of one place is said once. */
export class Faults {
  private readonly list = new Map<string, Fault>()
  private left = 0
  /** Places of the faults that were caught. */
  private readonly blamed = new Set<number>()
  /** Lines that were left out, by the line at fault. */
  private readonly skipped = new Map<number, { readonly first: Span; readonly lines: Set<number> }>()
  /** Some count did not come out even. */
  uneven = false

  constructor(private readonly parsed: Parsed) {}

  add(severity: Fault['severity'], span: Span, message: string, mend?: string, insert?: string): void {
    const key = `${severity} ${span.from} ${message}`
    if (this.list.has(key)) return
    if (this.list.size >= maxFaults) {
      this.left++
      return
    }
    const { line, column } = this.parsed.index.at(span.from)
    this.list.set(key, {
      severity,
      line,
      column,
      length: Math.max(1, span.to - span.from),
      message,
      ...(mend === undefined ? {} : { mend }),
      ...(insert === undefined ? {} : { edit: { from: span.from, to: span.to, insert } }),
    })
  }

  /** Lines are left out, so that what they would have used is not known. */
  get hasErrors(): boolean {
    return [...this.list.values()].some(({ severity }) => severity === 'error')
  }

  /** A fault of one line, or something worse that is not ours to hide. */
  caught(error: unknown): void {
    if (error instanceof SkippedLine) {
      const of = this.skipped.get(error.becauseOfLine) ?? { first: error.span, lines: new Set() }
      of.lines.add(this.parsed.index.at(error.span.from).line)
      this.skipped.set(error.becauseOfLine, of)
    } else if (error instanceof LineFault) {
      if (error instanceof DoesNotDivide) this.uneven = true
      // A line that is done again and again is at fault once, whatever its numbers are by then.
      if (this.blamed.has(error.span.from)) return
      this.blamed.add(error.span.from)
      this.add('error', error.span, error.message, error.mend, error.insert)
    } else throw error
  }

  sorted(): Fault[] {
    // However many lines hang on one at fault, it is said once, at the first of them.
    for (const [because, { first, lines }] of this.skipped)
      this.add(
        'note',
        first,
        `Left out until line ${because} is fixed: ${lines.size === 1 ? 'this line' : `${lines.size} lines, from here to line ${Math.max(...lines)}`}.`,
        `Fix line ${because} first.`,
      )
    const rank = { error: 0, warning: 1, note: 2 }
    const all = [...this.list.values()].sort(
      (a, b) => a.line - b.line || rank[a.severity] - rank[b.severity] || a.column - b.column,
    )
    if (this.left > 0) {
      all.push({
        severity: 'error',
        line: 1,
        column: 1,
        length: 1,
        message: `There are ${this.left} more errors than can be shown.`,
        mend: 'Fix these first.',
      })
    }
    return all
  }
}
