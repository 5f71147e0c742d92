/**
 * Places in the work, as a pattern names them: `B`, `any B`, `bail`, `wall.first`, `boxes.F[3]`, `frame:2`, `middle of bail`,
 * `K in frame`, `frame next 2`, `base[3..9]`, `first half of base`. Read once; found on the bench when the line is worked.
 */
import { type Cursor, shown } from './cursor'
import { type Expression, readExpression } from './expression'
import { LineFault, type Span } from './fault'

export type TargetStep =
  | { readonly type: 'role'; readonly role: string; readonly span: Span }
  | { readonly type: 'word'; readonly word: string; readonly span: Span }
  | { readonly type: 'index'; readonly of: Expression; readonly span: Span }
  | { readonly type: 'range'; readonly from: Expression; readonly to: Expression; readonly span: Span }
  | { readonly type: 'half'; readonly second: boolean; readonly span: Span }
  | { readonly type: 'next'; readonly of: Expression; readonly span: Span }
  | { readonly type: 'bore'; readonly bore: 0 | 1; readonly span: Span }
  | { readonly type: 'in'; readonly target: TargetWords; readonly span: Span }

export interface TargetWords {
  readonly base: { readonly role: string } | { readonly name: string }
  readonly steps: readonly TargetStep[]
  readonly span: Span
}

const placeWords = ['first', 'middle', 'last']

export function readTarget(cursor: Cursor): TargetWords {
  const opening = cursor.peek()
  const place = cursor.peek()
  let before: TargetStep | undefined
  if (place?.kind === 'Word' && placeWords.includes(place.text) && cursor.peek(1)?.text === 'of') {
    cursor.next()
    cursor.next()
    before = { type: 'word', word: place.text, span: place }
  } else if (
    place &&
    (place.text === 'first' || place.text === 'second') &&
    cursor.peek(1)?.text === 'half' &&
    cursor.peek(2)?.text === 'of'
  ) {
    for (let i = 0; i < 3; i++) cursor.next()
    before = { type: 'half', second: place.text === 'second', span: place }
  }
  cursor.take('Word', 'any')
  cursor.take('Word', 'the')
  const found = cursor.peek()
  if (!found || (found.kind !== 'Name' && found.kind !== 'Word')) {
    throw new LineFault(
      found ?? cursor.end,
      found ? `Expected a place, found "${shown(found)}".` : 'Expected a place here.',
      'For example: any B, wall.first, bail.middle, frame[3].',
    )
  }
  cursor.next()
  const base = found.kind === 'Name' ? { role: found.text } : { name: found.text }
  const steps: TargetStep[] = []
  let to = found.to
  for (let step = readStep(cursor); step; step = readStep(cursor)) {
    steps.push(step)
    to = step.span.to
  }
  if (before) steps.push(before)
  return { base, steps, span: { from: (before ? (opening ?? found) : found).from, to } }
}

/** `tip, base[3..9]`: places one after the other. */
export function readTargets(cursor: Cursor): readonly TargetWords[] {
  const targets = [readTarget(cursor)]
  while (cursor.take('Comma')) targets.push(readTarget(cursor))
  return targets
}

function readStep(cursor: Cursor): TargetStep | undefined {
  const at = cursor.peek()
  if (at?.kind === 'Index') {
    cursor.next()
    const inside = cursor.inside(at)
    const of = readExpression(inside)
    if (inside.take('Mark', '.')) {
      inside.expect('Mark', 'two dots', 'For example: base[3..9].')
      const to = readExpression(inside)
      inside.finish()
      return { type: 'range', from: of, to, span: at }
    }
    inside.finish()
    return { type: 'index', of, span: at }
  }
  if (at?.kind === 'Word' && at.text === 'next') {
    cursor.next()
    const of = readExpression(cursor)
    return { type: 'next', of, span: { from: at.from, to: of.span.to } }
  }
  if (at?.kind === 'Word' && at.text === 'in' && cursor.peek(1)) {
    cursor.next()
    const target = readTarget(cursor)
    return { type: 'in', target, span: { from: at.from, to: target.span.to } }
  }
  if (at?.kind !== 'Mark') return undefined
  if (at.text === '.') {
    cursor.next()
    const name = cursor.take('Name')
    if (name) return { type: 'role', role: name.text, span: name }
    const word = cursor.expect('Word', 'first, middle, last or a letter')
    return { type: 'word', word: word.text, span: word }
  }
  if (at.text === ':') {
    cursor.next()
    const number = cursor.expect('Number', '1 or 2 for the bore', 'For example: frame:2.')
    if (number.text !== '1' && number.text !== '2') {
      throw new LineFault(number, `There is no bore ${number.text}.`, 'A bead has bore 1, and a two-hole bead bore 2.')
    }
    return { type: 'bore', bore: number.text === '2' ? 1 : 0, span: number }
  }
  return undefined
}
