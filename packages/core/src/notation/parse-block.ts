/** The heads of blocks: how often, or where, the lines up to `end` are done. */
import type { Cursor } from './cursor'
import { type Expression, readExpression } from './expression'
import { LineFault, type Span } from './fault'
import { readTarget, type TargetWords } from './parse-target'

export type BlockHead =
  | { readonly type: 'repeat'; readonly times: Expression }
  | ({ readonly type: 'for' } & Cycle)
  | { readonly type: 'range'; readonly name: string; readonly from: Expression; readonly to: Expression }
  | {
      readonly type: 'until'
      readonly length: Expression
      /** Read off the computed form where it is not written. */
      readonly pitch: Expression | undefined
      readonly ends: Expression | undefined
      readonly multiple: Expression | undefined
    }
  | { readonly type: 'at'; readonly target: TargetWords; readonly cycle: Cycle | undefined }

/** What a name, or a bead's letter, stands for from turn to turn. */
export type Cycle =
  | { readonly name: string; readonly values: readonly Expression[] }
  | {
      readonly letter: string
      readonly span: Span
      readonly roles: readonly { readonly role: string; readonly span: Span }[]
    }

/** `repeat 13`, `for k in 1 to 9`, `for k in 6, 8, 6`, `until length 180 mm, pitch 8.4 mm, multiple 2`, `at each K in frame:2`, and letters by turn: `for X in B, C`, `at each K in frame for X in B, C`. */
export function readBlockHead(keyword: string, cursor: Cursor): BlockHead {
  switch (keyword) {
    case 'repeat': {
      const times = readExpression(cursor)
      cursor.take('Word', 'times')
      return { type: 'repeat', times }
    }
    case 'for':
      return readFor(cursor)
    case 'until':
      return readUntil(cursor)
    default: {
      if (!cursor.take('Word', 'each'))
        throw new LineFault(
          cursor.peek() ?? cursor.end,
          'Expected "each" after "at".',
          'For example: at each K in frame:2.',
        )
      const target = readTarget(cursor)
      if (!cursor.take('Word', 'for')) return { type: 'at', target, cycle: undefined }
      const head = readFor(cursor)
      if (head.type !== 'for')
        throw new LineFault(
          target.span,
          'At each of these places a list is gone through.',
          'For example: at each K in frame for k in 3, 5.',
        )
      const { type: _, ...cycle } = head
      return { type: 'at', target, cycle }
    }
  }
}

function readFor(cursor: Cursor): Extract<BlockHead, { type: 'for' | 'range' }> {
  const letter = cursor.take('Name')
  if (letter) return { type: 'for', letter: letter.text, span: letter, roles: readLetters(cursor) }
  const name = cursor.expect('Word', 'a name', 'For example: for k in 1 to 9.').text
  if (!cursor.take('Word', 'in'))
    throw new LineFault(cursor.peek() ?? cursor.end, 'Expected "in" here.', 'For example: for k in 1 to 9.')
  const first = readExpression(cursor)
  if (cursor.take('Word', 'to')) return { type: 'range', name, from: first, to: readExpression(cursor) }
  const values = [first]
  while (cursor.take('Comma')) values.push(readExpression(cursor))
  return { type: 'for', name, values }
}

function readLetters(cursor: Cursor): { role: string; span: Span }[] {
  const example = 'For example: for X in B, C.'
  if (!cursor.take('Word', 'in')) throw new LineFault(cursor.peek() ?? cursor.end, 'Expected "in" here.', example)
  const roles: { role: string; span: Span }[] = []
  do {
    const role = cursor.expect('Name', "a bead's letter", example)
    roles.push({ role: role.text, span: role })
  } while (cursor.take('Comma'))
  return roles
}

function readUntil(cursor: Cursor): BlockHead {
  const example = 'For example: until length 180 mm, pitch 8.4 mm, even.'
  const found: { length?: Expression; pitch?: Expression; ends?: Expression; multiple?: Expression } = {}
  do {
    const key = cursor.expect('Word', 'length, pitch, ends, even or multiple', example)
    if (key.text === 'length' || key.text === 'pitch' || key.text === 'ends' || key.text === 'multiple')
      found[key.text] = readExpression(cursor)
    else if (key.text === 'even') found.multiple = { type: 'number', value: { amount: 2, unit: 'count' }, span: key }
    else throw new LineFault(key, `"${key.text}" does not say how long.`, example)
  } while (cursor.take('Comma'))
  const { length, pitch, ends, multiple } = found
  if (!length) throw new LineFault(cursor.end, '"until" needs a length.', example)
  return { type: 'until', length, pitch, ends, multiple }
}
