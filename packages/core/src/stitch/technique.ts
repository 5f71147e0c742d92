import type { Cursor } from '../notation/cursor'
import type { Span } from '../notation/fault'
import type { Line } from '../notation/line'
import type { IntoWords } from '../notation/parse-into'
import type { StitchWord } from '../notation/words'
import type { Action } from './action'
import type { StitchMachine } from './stitch-machine'

/**
 * One word of the notation that does something: how its line is read, once, and what it does in the stitch machine, for every size and
 * colourway. A new technique is a file like this and a word in words.ts.
 */
export interface Technique<Words> {
  readonly word: StitchWord
  read(cursor: Cursor, line: Line): Words
  work(words: Words, machine: StitchMachine, span: Span): Action
  /** Of a round: its anchors. */
  into?(words: Words): IntoWords
}

/** A line read, ready to be worked. */
export interface Statement {
  readonly line: Line
  /** Of a round: what it will take for its anchors, so that the line before can step up to it. */
  readonly into?: IntoWords | undefined
  work(machine: StitchMachine): Action
}

export function readStatement<Words>(technique: Technique<Words>, cursor: Cursor, line: Line): Statement {
  const words = technique.read(cursor, line)
  cursor.finish()
  const span = { from: line.from, to: line.to }
  return { line, into: technique.into?.(words), work: (machine) => technique.work(words, machine, span) }
}
