/**
 * Lists of what to do with beads: `3A`, `A B`, `(2A B) x 6`, `C x6, -`, `C C^ C`, `2A C >below C <2A`, `A over 2`, nested.
 *
 * In a run of beads (ring, pick, loop) commas only separate. In a round each part between commas is one stitch, `x` repeats the
 * stitch, and `-` is a stitch that picks up nothing. After a bracket `x` repeats the bracket; otherwise all since the comma.
 */
import { type Cursor, shown } from './cursor'
import { type Expression, evaluateCount, readExpression, type Scope } from './expression'
import { LineFault, type Span } from './fault'
import { readTarget, type TargetWords } from './parse-target'

/** The most beads one pattern may have. */
export const maxBeads = 200_000

/** One thing done within a group: picks up a bead, passes one that is there, or goes back through beads of this group. */
export type Move =
  | {
      readonly type: 'pick'
      readonly role: string
      readonly bore: 0 | 1
      readonly stands: boolean
      readonly span: Span
    }
  | { readonly type: 'pass'; readonly target: TargetWords; readonly span: Span }
  | { readonly type: 'back'; readonly count: number; readonly role: string | undefined; readonly span: Span }

/** One stitch of a round; nothing to do where nothing is picked up. `over` beads of the rail are taken at once. */
export interface Stitch {
  readonly moves: readonly Move[]
  readonly over: number
}

interface Beads {
  readonly type: 'beads'
  readonly count: Expression | undefined
  readonly move: Extract<Move, { type: 'pick' }>
  readonly span: Span
}
interface Nothing {
  readonly type: 'nothing'
  readonly span: Span
}
interface Other {
  readonly type: 'other'
  readonly move: Exclude<Move, { type: 'pick' }>
  readonly span: Span
}
interface Bracket {
  readonly type: 'bracket'
  readonly parts: readonly Part[]
  readonly times: Expression | undefined
  readonly span: Span
}
type Element = Beads | Nothing | Other | Bracket

interface Part {
  readonly elements: readonly Element[]
  readonly times: Expression | undefined
  readonly over: Expression | undefined
  readonly span: Span
}

export interface BeadList {
  readonly parts: readonly Part[]
  readonly span: Span
}

const startsElement = (cursor: Cursor): boolean => {
  const item = cursor.peek()
  if (!item) return false
  if (item.kind === 'Name' || item.kind === 'Number' || item.kind === 'Group') return true
  if (countsBeads(cursor)) return true
  return item.kind === 'Mark' && (item.text === '-' || item.text === '>' || item.text === '<')
}

/** Words that follow a list; any other word before a letter is a count: `k A`. */
const afterLists = new Set([
  ...['as', 'over', 'into', 'no', 'back', 'end', 'between', 'keep', 'for', 'with', 'to', 'twice', 'x'],
])

const countsBeads = (cursor: Cursor): boolean => {
  const [item, next] = [cursor.peek(), cursor.peek(1)]
  return item?.kind === 'Word' && !afterLists.has(item.text) && (next?.kind === 'Name' || next?.kind === 'Group')
}

export function readBeadList(cursor: Cursor, word: string): BeadList {
  if (!startsElement(cursor)) {
    const found = cursor.peek()
    const message = found
      ? `After "${word}" comes a list of beads, not "${shown(found)}".`
      : `"${word}" needs a list of beads.`
    throw new LineFault(found ?? cursor.end, message, `For example: ${word} 3A B.`)
  }
  const parts = readParts(cursor, word === 'round' || word === 'row')
  const first = parts[0] as Part
  const last = parts[parts.length - 1] as Part
  return { parts, span: { from: first.span.from, to: last.span.to } }
}

/** @param stitches the parts are stitches of a round, which may be taken `over` several beads */
function readParts(cursor: Cursor, stitches: boolean): Part[] {
  const parts = [readPart(cursor, stitches)]
  while (cursor.take('Comma')) {
    if (cursor.done) {
      throw new LineFault(cursor.end, 'The list stops after a comma.', 'Take the comma away, or go on with the list.')
    }
    parts.push(readPart(cursor, stitches))
  }
  return parts
}

function readPart(cursor: Cursor, stitches: boolean): Part {
  const elements: Element[] = []
  while (startsElement(cursor)) elements.push(readElement(cursor, stitches))
  const over = stitches && cursor.take('Word', 'over') ? readExpression(cursor) : undefined
  const times = cursor.take('Times') ? readExpression(cursor) : undefined
  const first = elements[0]
  const last = elements[elements.length - 1]
  if (!first || !last) {
    const found = cursor.peek()
    throw new LineFault(
      found ?? cursor.end,
      found ? `Expected beads, found "${shown(found)}".` : 'Expected beads here.',
      'For example: 3A B.',
    )
  }
  return { elements, times, over, span: { from: first.span.from, to: (times ?? over ?? last).span.to } }
}

function readElement(cursor: Cursor, stitches: boolean): Element {
  const nothing = cursor.take('Mark', '-')
  if (nothing) return { type: 'nothing', span: nothing }
  const pass = cursor.take('Mark', '>')
  if (pass) {
    const target = readTarget(cursor)
    const span = { from: pass.from, to: target.span.to }
    return { type: 'other', move: { type: 'pass', target, span }, span }
  }
  const back = cursor.take('Mark', '<')
  if (back) return readBack(cursor, back)
  const group = cursor.take('Group')
  if (group) {
    const inner = cursor.inside(group)
    const parts = readParts(inner, stitches)
    inner.finish()
    const times = cursor.take('Times') ? readExpression(cursor) : undefined
    return { type: 'bracket', parts, times, span: { from: group.from, to: times?.span.to ?? group.to } }
  }
  const number = cursor.take('Number') ?? (countsBeads(cursor) ? cursor.next() : undefined)
  const count: Expression | undefined =
    number &&
    (number.kind === 'Word'
      ? { type: 'name', name: number.text, span: number }
      : { type: 'number', value: { amount: Number(number.text), unit: 'count' }, span: number })
  if (number && cursor.peek()?.kind === 'Group') {
    const inside = readElement(cursor, stitches)
    if (inside.type !== 'bracket') throw new LineFault(inside.span, 'Expected a bracket here.', 'For example: 3(A B).')
    const bracket = inside
    if (bracket.times) {
      throw new LineFault(
        bracket.span,
        'This bracket is counted twice.',
        'Use either the number before it or the x after it.',
      )
    }
    return { ...bracket, times: count, span: { from: number.from, to: bracket.span.to } }
  }
  const name = cursor.expect(
    'Name',
    number ? `a bead's letter after ${number.text}` : "a bead's letter",
    'For example: 3A.',
  )
  let to = name.to
  let bore: 0 | 1 = 0
  if (cursor.take('Mark', ':')) {
    const which = cursor.expect('Number', '1 or 2 for the bore', 'For example: A:2.')
    if (which.text !== '1' && which.text !== '2') {
      throw new LineFault(which, `There is no bore ${which.text}.`, 'A bead has bore 1, and a two-hole bead bore 2.')
    }
    bore = which.text === '2' ? 1 : 0
    to = which.to
  }
  const raised = cursor.take('Mark', '^')
  const span = { from: (number ?? name).from, to: raised?.to ?? to }
  return {
    type: 'beads',
    count,
    move: { type: 'pick', role: name.text, bore, stands: raised !== undefined, span: name },
    span,
  }
}

/** `<2A`: back through the last two A of this group; `<3`: through its last three beads, whatever they are. */
function readBack(cursor: Cursor, mark: Span): Element {
  const number = cursor.take('Number')
  const name = cursor.take('Name')
  const span = { from: mark.from, to: (name ?? number)?.to ?? mark.to }
  const count = number ? Number(number.text) : 1
  if ((!number && !name) || !Number.isInteger(count) || count < 1) {
    throw new LineFault(span, '"<" says how many beads of this group to go back through.', 'For example: <2A, or <3.')
  }
  return { type: 'other', move: { type: 'back', count, role: name?.text, span }, span }
}

/** How many beads a list picks up; evaluated before anything is laid out, so that a slip of the hand costs nothing. */
function tally(parts: readonly Part[], scope: Scope): number {
  let total = 0
  for (const part of parts) {
    let once = 0
    for (const element of part.elements) {
      if (element.type === 'beads') once += beadCount(element, scope)
      else if (element.type === 'bracket') once += tally(element.parts, scope) * times(element.times, scope)
      else if (element.type === 'other') once += element.move.type === 'back' ? element.move.count : 1
    }
    // A stitch that picks up nothing still takes a turn, so it counts towards the limit.
    total += Math.max(once, 1) * times(part.times, scope)
  }
  return total
}

const beadCount = (element: Beads, scope: Scope) =>
  element.count ? evaluateCount(element.count, scope, 'The number of beads', 1) : 1

const times = (expression: Expression | undefined, scope: Scope) =>
  expression ? evaluateCount(expression, scope, 'The number of times', 0) : 1

function checkSize(list: BeadList, scope: Scope): void {
  const total = tally(list.parts, scope)
  if (total > maxBeads) {
    throw new LineFault(
      list.span,
      `This list comes to ${total.toLocaleString('en-GB')} beads; a pattern may have ${maxBeads.toLocaleString('en-GB')}.`,
      'Make the piece in parts, or check the numbers.',
    )
  }
}

/** The list as one run of things to do, as it is strung. */
export function asMoves(list: BeadList, scope: Scope): Move[] {
  checkSize(list, scope)
  const moves: Move[] = []
  layMoves(list.parts, scope, moves)
  return moves
}

/** The list as beads to string, and nothing else. */
export function asRun(list: BeadList, scope: Scope): string[] {
  return asMoves(list, scope).map((move) => {
    if (move.type === 'pick' && move.bore === 0) return move.role
    if (move.type === 'pick')
      throw new LineFault(move.span, 'Here beads are picked up by their first hole.', 'Use pick for the second.')
    throw new LineFault(move.span, 'Here beads are only picked up.', 'Passing beads on the way is for pick and round.')
  })
}

function layMoves(parts: readonly Part[], scope: Scope, into: Move[]): void {
  for (const part of parts) {
    if (part.over) throw new LineFault(part.over.span, '"over" is for the stitches of a round.', 'Take it away.')
    const turns = times(part.times, scope)
    for (let turn = 0; turn < turns; turn++) for (const element of part.elements) layElement(element, scope, into)
  }
}

function layElement(element: Element, scope: Scope, into: Move[]): void {
  switch (element.type) {
    case 'nothing':
      throw new LineFault(element.span, '"-" picks up nothing, which only a round can do.', 'Take it away.', '')
    case 'beads': {
      const role = scope.roleOf(element.move.role)
      const move = role === element.move.role ? element.move : { ...element.move, role }
      const count = scope.runOf(role, beadCount(element, scope))
      for (let i = 0; i < count; i++) into.push(move)
      return
    }
    case 'other':
      into.push(element.move)
      return
    case 'bracket': {
      const repeats = times(element.times, scope)
      for (let i = 0; i < repeats; i++) layMoves(element.parts, scope, into)
    }
  }
}

/** The list as the stitches of a round. */
export function asStitches(list: BeadList, scope: Scope): Stitch[] {
  checkSize(list, scope)
  const stitches: Stitch[] = []
  layStitches(list.parts, scope, stitches)
  return stitches
}

function layStitches(parts: readonly Part[], scope: Scope, into: Stitch[]): void {
  for (const part of parts) {
    const turns = times(part.times, scope)
    const [only] = part.elements
    if (part.elements.length === 1 && only?.type === 'bracket' && !part.over) {
      const repeats = turns * times(only.times, scope)
      for (let i = 0; i < repeats; i++) layStitches(only.parts, scope, into)
      continue
    }
    const moves: Move[] = []
    for (const element of part.elements) {
      if (element.type === 'nothing') {
        if (part.elements.length > 1) {
          throw new LineFault(
            element.span,
            'A stitch either picks up beads or "-".',
            'Put a comma between them to make two stitches.',
          )
        }
      } else layElement(element, scope, moves)
    }
    const stitch = { moves, over: part.over ? evaluateCount(part.over, scope, 'The beads taken at once', 1) : 1 }
    for (let turn = 0; turn < turns; turn++) into.push(stitch)
  }
}

/** Each role a list picks up, with its place, so that an unknown one can be pointed at. */
export function rolesIn(list: BeadList): { role: string; span: Span }[] {
  const found: { role: string; span: Span }[] = []
  const walk = (parts: readonly Part[]) => {
    for (const part of parts) {
      for (const element of part.elements) {
        if (element.type === 'beads') found.push({ role: element.move.role, span: element.span })
        else if (element.type === 'bracket') walk(element.parts)
      }
    }
  }
  walk(list.parts)
  return found
}

/** The roles that some moves pick up, in order. */
export const pickedRoles = (moves: readonly Move[]): string[] =>
  moves.flatMap((move) => (move.type === 'pick' ? [move.role] : []))
