/**
 * The lines of a pattern as their readers take them: a keyword and its items, with their places in the text.
 * One step from the syntax tree, so that nothing after it knows the parser.
 */
import type { SyntaxNode, Tree } from '@lezer/common'
import type { Span } from './fault'

export type ItemKind =
  | 'Word'
  | 'Name'
  | 'Number'
  | 'Size'
  | 'String'
  | 'OpenString'
  | 'Mark'
  | 'Comma'
  | 'Times'
  | 'Unknown'
  | 'Close'
  | 'Group'
  | 'Index'

export interface Item extends Span {
  readonly kind: ItemKind
  readonly text: string
  /** Of a group or an index. */
  readonly items: readonly Item[]
  /** False for a bracket that its line leaves open. */
  readonly closed: boolean
}

export interface Line extends Span {
  /** From 1. */
  readonly number: number
  readonly keyword: string
  /** The keyword's place; of a stray line its first item's. */
  readonly keywordSpan: Span
  readonly items: readonly Item[]
  /** All of the statement as it was written, without its comment. */
  readonly text: string
}

/** Brackets deeper than this are refused: nobody stitches them, and reading them would cost without bound. */
export const deepestNesting = 32

/** Offsets to lines and columns, found by bisection. */
export class LineIndex {
  private readonly starts: number[] = [0]

  constructor(source: string) {
    for (let at = source.indexOf('\n'); at !== -1; at = source.indexOf('\n', at + 1)) this.starts.push(at + 1)
  }

  /** Line and column, both from 1. */
  at(offset: number): { line: number; column: number } {
    let low = 0
    let high = this.starts.length
    while (high - low > 1) {
      const middle = (low + high) >> 1
      if ((this.starts[middle] as number) <= offset) low = middle
      else high = middle
    }
    return { line: low + 1, column: offset - (this.starts[low] as number) + 1 }
  }
}

export function readLines(tree: Tree, source: string, index: LineIndex): Line[] {
  const lines: Line[] = []
  for (let node = tree.topNode.firstChild; node; node = node.nextSibling) {
    if (node.name !== 'Statement') continue
    const items: Item[] = []
    let keyword = ''
    let keywordSpan: Span = { from: node.from, to: node.from + 1 }
    for (let child = node.firstChild; child; child = child.nextSibling) {
      if (child.name === 'Keyword') {
        keyword = source.slice(child.from, child.to)
        keywordSpan = { from: child.from, to: child.to }
      } else if (child.name === 'Stray') {
        const first = child.firstChild
        if (first) items.push(readItem(first, source, 0))
      } else if (child.name !== 'Comment') items.push(readItem(child, source, 0))
    }
    const first = items[0]
    if (keyword === '' && first) keywordSpan = { from: first.from, to: first.to }
    lines.push({
      number: index.at(node.from).line,
      from: node.from,
      to: node.to,
      keyword,
      keywordSpan,
      items,
      text: source.slice(node.from, node.to).replace(/\s+/g, ' ').trim(),
    })
  }
  return lines
}

function readItem(node: SyntaxNode, source: string, depth: number): Item {
  const kind = node.name as ItemKind
  const items: Item[] = []
  let closed = true
  if (kind === 'Group' || kind === 'Index') {
    closed = false
    for (let child = node.firstChild; child; child = child.nextSibling) {
      if (child.name === 'GroupEnd' || child.name === 'IndexEnd') closed = true
      else if (child.name === '(' || child.name === '[' || child.name === 'Comment') continue
      else if (depth < deepestNesting) items.push(readItem(child, source, depth + 1))
    }
  }
  return { kind, from: node.from, to: node.to, text: source.slice(node.from, node.to), items, closed }
}
