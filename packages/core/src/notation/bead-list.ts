/**
 * Lists of beads to pick up: `3A`, `A B`, `(2A B) x 6`, `C x6, -`, nested.
 *
 * In a run of beads (ring, loop) commas only separate. In a round each part between commas is one stitch, `x` repeats the
 * stitch, and `-` is a stitch that picks up nothing. After a bracket `x` repeats the bracket; otherwise all since the comma.
 */
import type { Cursor } from './cursor'
import { shown } from './cursor'
import { type Expression, readExpression, reckonCount, type Scope } from './expression'
import { LineFault, type Span } from './fault'

/** The most beads one pattern may have. */
export const mostBeads = 200_000

interface Beads {
  readonly type: 'beads'
  readonly count: Expression | undefined
  readonly role: string
  readonly span: Span
}
interface Nothing {
  readonly type: 'nothing'
  readonly span: Span
}
interface Bracket {
  readonly type: 'bracket'
  readonly parts: readonly Part[]
  readonly times: Expression | undefined
  readonly span: Span
}
type Element = Beads | Nothing | Bracket

interface Part {
  readonly elements: readonly Element[]
  readonly times: Expression | undefined
  readonly span: Span
}

export interface BeadList {
  readonly parts: readonly Part[]
  readonly span: Span
}

/** One stitch of a round: the roles to pick up, in order; empty where nothing is picked up. */
export type Stitch = readonly string[]

const startsList = (cursor: Cursor): boolean => {
  const item = cursor.peek()
  return !!item && (item.kind === 'Name' || item.kind === 'Number' || item.kind === 'Group' || item.text === '-')
}

export function readBeadList(cursor: Cursor, word: string): BeadList {
  if (!startsList(cursor)) {
    const found = cursor.peek()
    const message = found
      ? `After "${word}" comes a list of beads, not "${shown(found)}".`
      : `"${word}" needs a list of beads.`
    throw new LineFault(found ?? cursor.end, message, `For example: ${word} 3A B.`)
  }
  const parts = readParts(cursor)
  const first = parts[0] as Part
  const last = parts[parts.length - 1] as Part
  return { parts, span: { from: first.span.from, to: last.span.to } }
}

function readParts(cursor: Cursor): Part[] {
  const parts = [readPart(cursor)]
  while (cursor.take('Comma')) {
    if (cursor.done)
      throw new LineFault(cursor.end, 'The list stops after a comma.', 'Take the comma away, or go on with the list.')
    parts.push(readPart(cursor))
  }
  return parts
}

function readPart(cursor: Cursor): Part {
  const elements: Element[] = []
  let times: Expression | undefined
  while (startsList(cursor)) elements.push(readElement(cursor))
  if (cursor.take('Times')) times = readTimes(cursor)
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
  return { elements, times, span: { from: first.span.from, to: (times ?? last).span.to } }
}

/** The number after `x`: a number, a name, or a quotient such as n/4. */
const readTimes = (cursor: Cursor): Expression => readExpression(cursor)

function readElement(cursor: Cursor): Element {
  const nothing = cursor.take('Mark', '-')
  if (nothing) return { type: 'nothing', span: nothing }
  const group = cursor.take('Group')
  if (group) {
    const inner = cursor.inside(group)
    const parts = readParts(inner)
    inner.finish()
    const times = cursor.take('Times') ? readTimes(cursor) : undefined
    return { type: 'bracket', parts, times, span: { from: group.from, to: times?.span.to ?? group.to } }
  }
  const number = cursor.take('Number')
  const count: Expression | undefined = number && {
    type: 'number',
    value: { amount: Number(number.text), unit: 'count' },
    span: number,
  }
  if (number && cursor.peek()?.kind === 'Group') {
    const bracket = readElement(cursor) as Bracket
    if (bracket.times)
      throw new LineFault(
        bracket.span,
        'This bracket is counted twice.',
        'Use either the number before it or the x after it.',
      )
    return { ...bracket, times: count, span: { from: number.from, to: bracket.span.to } }
  }
  const name = cursor.expect(
    'Name',
    number ? `a bead's letter after ${number.text}` : "a bead's letter",
    'For example: 3A.',
  )
  return { type: 'beads', count, role: name.text, span: { from: (number ?? name).from, to: name.to } }
}

/** How many beads a list picks up; reckoned before anything is laid out, so that a slip of the hand costs nothing. */
function tally(parts: readonly Part[], scope: Scope): number {
  let total = 0
  for (const part of parts) {
    let once = 0
    for (const element of part.elements) {
      if (element.type === 'beads')
        once += element.count ? reckonCount(element.count, scope, 'The number of beads', 1) : 1
      else if (element.type === 'bracket') once += tally(element.parts, scope) * times(element.times, scope)
    }
    // A stitch that picks up nothing still takes a turn, so it counts towards the limit.
    total += Math.max(once, 1) * times(part.times, scope)
  }
  return total
}

const times = (expression: Expression | undefined, scope: Scope) =>
  expression ? reckonCount(expression, scope, 'The number of times', 0) : 1

function checkSize(list: BeadList, scope: Scope): void {
  const total = tally(list.parts, scope)
  if (total > mostBeads) {
    throw new LineFault(
      list.span,
      `This list comes to ${total.toLocaleString('en-GB')} beads; a pattern may have ${mostBeads.toLocaleString('en-GB')}.`,
      'Make the piece in parts, or check the numbers.',
    )
  }
}

/** The list as one run of roles, as it is strung. */
export function asRun(list: BeadList, scope: Scope): string[] {
  checkSize(list, scope)
  const run: string[] = []
  lay(list.parts, scope, run)
  return run
}

function lay(parts: readonly Part[], scope: Scope, into: string[]): void {
  for (const part of parts) {
    const turns = times(part.times, scope)
    for (let turn = 0; turn < turns; turn++) {
      for (const element of part.elements) {
        if (element.type === 'nothing') {
          throw new LineFault(element.span, '"-" picks up nothing, which only a round can do.', 'Take it away.', '')
        }
        if (element.type === 'beads') {
          const count = element.count ? reckonCount(element.count, scope, 'The number of beads', 1) : 1
          for (let i = 0; i < count; i++) into.push(element.role)
        } else {
          const repeats = times(element.times, scope)
          for (let i = 0; i < repeats; i++) lay(element.parts, scope, into)
        }
      }
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
    if (part.elements.length === 1 && only?.type === 'bracket') {
      const repeats = turns * times(only.times, scope)
      for (let i = 0; i < repeats; i++) layStitches(only.parts, scope, into)
      continue
    }
    const stitch: string[] = []
    for (const element of part.elements) {
      if (element.type === 'nothing') {
        if (part.elements.length > 1) {
          throw new LineFault(
            element.span,
            'A stitch either picks up beads or "-".',
            'Put a comma between them to make two stitches.',
          )
        }
      } else if (element.type === 'bracket') {
        const repeats = times(element.times, scope)
        for (let i = 0; i < repeats; i++) lay(element.parts, scope, stitch)
      } else {
        const count = element.count ? reckonCount(element.count, scope, 'The number of beads', 1) : 1
        for (let i = 0; i < count; i++) stitch.push(element.role)
      }
    }
    for (let turn = 0; turn < turns; turn++) into.push(stitch)
  }
}

/** Each role a list names, with its place, so that an unknown one can be pointed at. */
export function rolesIn(list: BeadList): { role: string; span: Span }[] {
  const found: { role: string; span: Span }[] = []
  const walk = (parts: readonly Part[]) => {
    for (const part of parts) {
      for (const element of part.elements) {
        if (element.type === 'beads') found.push({ role: element.role, span: element.span })
        else if (element.type === 'bracket') walk(element.parts)
      }
    }
  }
  walk(list.parts)
  return found
}
