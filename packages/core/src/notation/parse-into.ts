import { type Cursor, shown } from './cursor'
import { type Expression, readExpression } from './expression'
import { LineFault } from './fault'
import { readTarget, readTargets, type TargetWords } from './parse-target'

/** Which holes of the rail a round takes for its anchors. */
export type IntoWords =
  | { readonly type: 'gaps' }
  | { readonly type: 'every'; readonly each: Expression | undefined; readonly of: TargetWords | undefined }
  /** So many beads, spread as evenly as whole beads allow. */
  | { readonly type: 'spread'; readonly count: Expression; readonly of: TargetWords | undefined }
  | { readonly type: 'middles'; readonly of: string | undefined }
  | { readonly type: 'nth'; readonly nth: Expression }
  | { readonly type: 'bore'; readonly bore: 0 | 1 }
  | { readonly type: 'target'; readonly targets: readonly TargetWords[] }

/** `into every bead`, `into every 4th bead`, `into 9 beads of base`, `into middles`, `into 2nd of each`, `into B`, `into holes 2`, `into frame`. */
export function readInto(cursor: Cursor): IntoWords | undefined {
  if (!cursor.take('Word', 'into')) return undefined
  if (cursor.take('Word', 'gaps')) return { type: 'gaps' }
  if (cursor.take('Word', 'middles')) {
    const of = cursor.take('Word', 'of')
      ? cursor.expect('Word', 'the name of a round', 'For example: into middles of arcs.').text
      : undefined
    return { type: 'middles', of }
  }
  if (cursor.take('Word', 'holes')) {
    const number = cursor.expect('Number', '1 or 2', 'For example: into holes 2.')
    return { type: 'bore', bore: number.text === '1' ? 0 : 1 }
  }
  if (cursor.take('Word', 'every')) {
    const each = cursor.peek()?.kind === 'Number' || cursor.peek()?.kind === 'Group' ? readOrdinal(cursor) : undefined
    const word = cursor.expect('Word', '"bead"', 'For example: into every 4th bead.')
    if (word.text !== 'bead')
      throw new LineFault(word, `Expected "bead", found "${shown(word)}".`, 'For example: into every 4th bead.', 'bead')
    return { type: 'every', each, of: cursor.take('Word', 'of') ? readTarget(cursor) : undefined }
  }
  if (cursor.peek(1)?.text === 'beads') {
    const count = readExpression(cursor)
    cursor.next()
    return { type: 'spread', count, of: cursor.take('Word', 'of') ? readTarget(cursor) : undefined }
  }
  if (cursor.peek()?.kind === 'Number' || (cursor.peek(1)?.text === 'of' && cursor.peek(2)?.text === 'each')) {
    const nth = readOrdinal(cursor)
    for (const wanted of ['of', 'each']) {
      if (!cursor.take('Word', wanted)) {
        throw new LineFault(cursor.peek() ?? cursor.end, `Expected "${wanted}" here.`, 'For example: into 2nd of each.')
      }
    }
    return { type: 'nth', nth }
  }
  return { type: 'target', targets: readTargets(cursor) }
}

/** `4th`, `2nd`, or a plain number or name. */
function readOrdinal(cursor: Cursor): Expression {
  const expression = readExpression(cursor)
  const ending = cursor.peek()
  if (ending?.kind === 'Word' && ['st', 'nd', 'rd', 'th'].includes(ending.text)) cursor.next()
  return expression
}
