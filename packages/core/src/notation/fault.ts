/** What is wrong with a pattern, where, and how to mend it. Columns and lines count from 1. */
export interface Fault {
  readonly severity: 'error' | 'warning' | 'note'
  readonly line: number
  readonly column: number
  /** Characters concerned; at least 1, so that there is something to underline. */
  readonly length: number
  readonly message: string
  /** What to do about it, in a sentence; absent only where nothing can be computed. */
  readonly mend?: string
  /** The mend as an edit of the text, by offsets from its beginning. */
  readonly edit?: { readonly from: number; readonly to: number; readonly insert: string }
}

/** A place in the text, as offsets from its beginning. */
export interface Span {
  readonly from: number
  readonly to: number
}

/** Thrown by the reader or the doing of one line; it ends that line and no other. */
export class LineFault extends Error {
  constructor(
    readonly span: Span,
    message: string,
    readonly mend?: string,
    readonly insert?: string,
  ) {
    super(message)
    this.name = 'LineFault'
  }
}

/** A count that does not come out even: another count of the ring may mend it. */
export class DoesNotDivide extends LineFault {}

/** ": 20 is 3 x 6 and 2 over"; nothing where there are fewer than one list takes. */
export const whatIsOver = (count: number, each: number): string =>
  count < each ? '' : `: ${count} is ${Math.floor(count / each)} x ${each} and ${count % each} over`

/** A line that cannot be evaluated because an earlier one is at fault. */
export class SkippedLine extends LineFault {
  constructor(
    span: Span,
    readonly becauseOfLine: number,
  ) {
    super(span, `Skipped: it depends on line ${becauseOfLine}.`, `Fix line ${becauseOfLine} first.`)
  }
}

/** What would never come to an end: nothing after it is worked any more. */
export class Runaway extends LineFault {}
