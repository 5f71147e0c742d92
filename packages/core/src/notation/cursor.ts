import { LineFault, type Span } from './fault'
import { deepestNesting, type Item, type ItemKind } from './line'

/** Reads the items of a line, or of a bracket, from left to right. */
export class Cursor {
  private at = 0

  /**
   * @param whole the line or bracket being read: faults about something missing point at its end
   */
  constructor(
    readonly items: readonly Item[],
    readonly whole: Span,
    readonly depth = 0,
  ) {}

  peek(ahead = 0): Item | undefined {
    return this.items[this.at + ahead]
  }

  get done(): boolean {
    return this.at >= this.items.length
  }

  next(): Item {
    const item = this.items[this.at]
    if (!item) throw new LineFault(this.end, 'The line ends too early.')
    this.at++
    return item
  }

  /** The last character of what has been read, for faults about what is missing. */
  get end(): Span {
    const last = this.items[this.items.length - 1]
    const to = last ? last.to : this.whole.to
    return { from: Math.max(to - 1, this.whole.from), to }
  }

  /** Takes the next item when it is of this kind (and text). */
  take(kind: ItemKind, text?: string): Item | undefined {
    const item = this.peek()
    if (item?.kind !== kind || (text !== undefined && item.text !== text)) return undefined
    this.at++
    return item
  }

  /** Takes the next item or says what was expected in its place. */
  expect(kind: ItemKind, what: string, mend?: string): Item {
    const taken = this.take(kind)
    if (taken) return taken
    const found = this.peek()
    if (found?.kind === 'Name' && kind === 'Word')
      throw new LineFault(
        found,
        `Expected ${what} in lower case, found "${shown(found)}".`,
        mend ?? 'Capital letters are beads.',
        found.text.toLowerCase(),
      )
    throw found
      ? new LineFault(found, `Expected ${what}, found "${shown(found)}".`, mend)
      : new LineFault(this.end, `Expected ${what} here.`, mend)
  }

  /** The items inside a bracket. */
  inside(bracket: Item): Cursor {
    if (!bracket.closed) {
      const mark = bracket.kind === 'Group' ? ')' : ']'
      throw new LineFault(
        { from: bracket.from, to: bracket.from + 1 },
        `This bracket is never closed.`,
        `Add "${mark}" where it ends.`,
      )
    }
    if (this.depth + 1 >= deepestNesting) {
      throw new LineFault(
        bracket,
        `Brackets are nested more than ${deepestNesting} deep.`,
        'Write the inner groups on lines of their own.',
      )
    }
    return new Cursor(bracket.items, { from: bracket.from, to: bracket.to }, this.depth + 1)
  }

  /** Everything must have been read. */
  finish(): void {
    const extra = this.peek()
    if (!extra) return
    if (extra.kind === 'Close') {
      throw new LineFault(
        extra,
        `This "${extra.text}" closes nothing.`,
        'Take it away, or open the bracket before it.',
        '',
      )
    }
    if (extra.kind === 'OpenString') {
      throw new LineFault(
        extra,
        'This text in quotes is never closed.',
        'Add a " at its end.',
        `${extra.text.trimEnd()}"`,
      )
    }
    throw new LineFault(
      extra,
      `"${shown(extra)}" is not expected here.`,
      'Take it away, or put it on a line of its own.',
    )
  }
}

export const shown = (item: Item): string => (item.text.length > 24 ? `${item.text.slice(0, 24)}...` : item.text)

/** The text between quotes; an unclosed one is a fault. */
export function readString(cursor: Cursor, what: string): string {
  const open = cursor.take('OpenString')
  if (open) {
    throw new LineFault(open, 'This text in quotes is never closed.', 'Add a " at its end.', `${open.text.trimEnd()}"`)
  }
  return cursor.expect('String', what, 'Put it in quotes, like "edge".').text.slice(1, -1).trim()
}
