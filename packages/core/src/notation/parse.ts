import type { Tree } from '@lezer/common'
import { type Line, LineIndex, readLines } from './line'
import { parser } from './parser'

export interface Parsed {
  readonly source: string
  readonly tree: Tree
  readonly index: LineIndex
  readonly lines: readonly Line[]
}

/** The longest text that is read at all; longer is refused whole by the report. */
export const longestSource = 2_000_000

/** @param tree a tree the editor keeps up to date, so that a keystroke does not parse anew */
export function parsePattern(source: string, tree: Tree = parser.parse(source)): Parsed {
  const index = new LineIndex(source)
  return { source, tree, index, lines: readLines(tree, source, index) }
}
