/**
 * Numbers as a pattern writes them: plain, with a length's unit, by name, or computed.
 * Read once, evaluated for every size and colourway.
 */
import type { Bead } from '../catalogue/bead'
import type { Stone } from '../catalogue/stone'
import { mmPerInch } from '../measure/units'
import type { Cursor } from './cursor'
import { shown } from './cursor'
import { DoesNotDivide, LineFault, type Span } from './fault'
import type { Item } from './line'
import { nearest } from './nearest'

/** A count (or plain number), or a length in mm. */
export interface Value {
  readonly amount: number
  readonly unit: 'count' | 'mm'
}

export type Expression =
  | { readonly type: 'number'; readonly value: Value; readonly span: Span }
  | { readonly type: 'name'; readonly name: string; readonly span: Span }
  | { readonly type: 'call'; readonly name: string; readonly args: readonly Argument[]; readonly span: Span }
  | { readonly type: 'minus'; readonly of: Expression; readonly span: Span }
  | {
      readonly type: 'sum'
      readonly sign: '+' | '-' | '*' | '/'
      readonly left: Expression
      readonly right: Expression
      readonly span: Span
    }

/** An argument of a call: a role, a value, or a named value such as `multiple 4`. */
export type Argument =
  | { readonly type: 'role'; readonly role: string; readonly span: Span }
  | { readonly type: 'value'; readonly of: Expression; readonly span: Span }
  | { readonly type: 'named'; readonly name: string; readonly of: Expression; readonly span: Span }

/** A multiple that is being tried for a ring; `further` multiples beyond the best count, to see that it holds there too. */
export interface SettledFit {
  readonly multiple: number
  readonly further: number
}

/** What an expression may look up. */
export interface Scope {
  value(name: string, span: Span): Value | undefined
  names(): Iterable<string>
  /** The bead that counts are worked out with: the one that is used, or the one the pattern was written for. */
  sizingBead(role: string, span: Span): Bead | undefined
  /** Evaluates what is part of an arc's count. */
  inArc<Answer>(work: () => Answer): Answer
  /** The bead's letter that a letter stands for in this turn. */
  roleOf(letter: string): string
  /** How many of a role make up a run that is written as so many. */
  runOf(role: string, written: number): number
  stone(role: string, span: Span): Stone | undefined
  /** What the count of a fit that asks for no multiple must divide by, as the rounds that follow have shown. */
  settledFit(): SettledFit | undefined
  /** Told of each fit that was evaluated, for the notes beside the line. */
  call(call: Extract<Expression, { type: 'call' }>): Value
}

const unitLengths: Readonly<Record<string, number>> = { mm: 1, cm: 10, m: 1000, in: mmPerInch }

/** Terms of one sum, and factors of one product: each is a step deeper for whoever evaluates it. */
const maxTerms = 64

/** `3`, `14 mm`, `n/4`, `2 * (n + 1)`, `fit(S, A, multiple 4)`. */
export const readExpression = (cursor: Cursor): Expression => readChain(cursor, ['+', '-'], readProduct)

const readProduct = (cursor: Cursor): Expression => readChain(cursor, ['*', '/'], readFactor)

function readChain(
  cursor: Cursor,
  signs: readonly Extract<Expression, { type: 'sum' }>['sign'][],
  readTerm: (cursor: Cursor) => Expression,
): Expression {
  let left = readTerm(cursor)
  for (let terms = 1; ; terms++) {
    const mark = cursor.peek()
    const sign = mark?.kind === 'Mark' ? signs.find((each) => each === mark.text) : undefined
    if (!mark || !sign) return left
    if (terms >= maxTerms)
      throw new LineFault(
        mark,
        `This goes on for more than ${maxTerms} numbers.`,
        'Evaluate some of them apart: let half = ..., and use half here.',
      )
    cursor.next()
    const right = readTerm(cursor)
    left = { type: 'sum', sign, left, right, span: { from: left.span.from, to: right.span.to } }
  }
}

function readFactor(cursor: Cursor): Expression {
  const minus = cursor.take('Mark', '-')
  if (minus) {
    let negative = true
    while (cursor.take('Mark', '-')) negative = !negative
    const of = readFactor(cursor)
    return negative ? { type: 'minus', of, span: { from: minus.from, to: of.span.to } } : of
  }
  const group = cursor.take('Group')
  if (group) {
    const inner = cursor.inside(group)
    const expression = readExpression(inner)
    inner.finish()
    return expression
  }
  const number = cursor.take('Number')
  if (number) {
    const unit = cursor.peek()
    const mm = unit?.kind === 'Word' ? unitLengths[unit.text] : undefined
    if (unit && mm !== undefined) {
      cursor.next()
      return {
        type: 'number',
        value: { amount: Number(number.text) * mm, unit: 'mm' },
        span: { from: number.from, to: unit.to },
      }
    }
    return { type: 'number', value: { amount: Number(number.text), unit: 'count' }, span: number }
  }
  // `L(A)`: a call may be named by a letter.
  const word =
    cursor.take('Word') ??
    (cursor.peek()?.kind === 'Name' && cursor.peek(1)?.kind === 'Group' ? cursor.next() : undefined)
  if (word) {
    const brackets = cursor.take('Group')
    if (!brackets) return { type: 'name', name: word.text, span: word }
    return {
      type: 'call',
      name: word.text,
      args: readArguments(cursor.inside(brackets)),
      span: { from: word.from, to: brackets.to },
    }
  }
  const found = cursor.peek()
  throw found
    ? new LineFault(
        found,
        `Expected a number, found "${shown(found)}".`,
        'Write a number, a length such as 14 mm, or a name set with let or size.',
      )
    : new LineFault(
        cursor.end,
        'Expected a number here.',
        'Write a number, a length such as 14 mm, or a name set with let or size.',
      )
}

function readArguments(cursor: Cursor): Argument[] {
  const args: Argument[] = []
  while (!cursor.done) {
    const role = cursor.peek(1)?.kind === 'Group' ? undefined : cursor.take('Name')
    if (role) args.push({ type: 'role', role: role.text, span: role })
    else {
      const word = cursor.peek()
      const after = cursor.peek(1)
      if (word?.kind === 'Word' && after && startsValue(after)) {
        cursor.next()
        const of = readExpression(cursor)
        args.push({ type: 'named', name: word.text, of, span: { from: word.from, to: of.span.to } })
      } else {
        const of = readExpression(cursor)
        args.push({ type: 'value', of, span: of.span })
      }
    }
    if (cursor.done) break
    cursor.expect('Comma', 'a comma', 'Separate the parts in brackets by commas.')
  }
  return args
}

const startsValue = (item: Item) => item.kind === 'Number' || item.kind === 'Word'

/** Evaluates an expression; every fault points at the part that is to blame. */
export function evaluate(expression: Expression, scope: Scope): Value {
  switch (expression.type) {
    case 'number':
      return expression.value
    case 'name': {
      const value = scope.value(expression.name, expression.span)
      if (value) return value
      const guess = nearest(expression.name, scope.names())
      throw new LineFault(
        expression.span,
        `"${expression.name}" has no value here.`,
        guess ? `Did you mean "${guess}"?` : `Set it first, for example: let ${expression.name} = 12.`,
        guess,
      )
    }
    case 'call':
      return scope.call(expression)
    case 'minus': {
      const value = evaluate(expression.of, scope)
      return { amount: -value.amount, unit: value.unit }
    }
    case 'sum':
      return combine(expression, evaluate(expression.left, scope), evaluate(expression.right, scope))
  }
}

function combine(expression: Extract<Expression, { type: 'sum' }>, left: Value, right: Value): Value {
  const { sign, span } = expression
  const units = left.unit === right.unit ? left.unit : undefined
  switch (sign) {
    case '+':
    case '-':
      if (!units) {
        throw new LineFault(
          span,
          'A count and a length cannot be added or taken away.',
          'Give both a unit, or neither.',
        )
      }
      return { amount: sign === '+' ? left.amount + right.amount : left.amount - right.amount, unit: units }
    case '*':
      if (units === 'mm')
        throw new LineFault(span, 'Two lengths multiplied are not a length.', 'One of them must be a plain number.')
      return { amount: left.amount * right.amount, unit: left.unit === 'mm' || right.unit === 'mm' ? 'mm' : 'count' }
    case '/':
      if (right.amount === 0)
        throw new LineFault(expression.right.span, 'Nothing can be divided by 0.', 'Give another number.')
      if (left.unit === 'count' && right.unit === 'mm') {
        throw new LineFault(
          span,
          'A count cannot be divided by a length.',
          'Divide a length by a length to get a count.',
        )
      }
      return { amount: left.amount / right.amount, unit: units ? 'count' : 'mm' }
  }
}

/** A whole count of at least `least`; says what would make it whole where it is a division. */
export function evaluateCount(expression: Expression, scope: Scope, what: string, least = 0): number {
  const value = evaluate(expression, scope)
  if (value.unit !== 'count') {
    throw new LineFault(
      expression.span,
      `${what} is a length (${value.amount} mm), not a count.`,
      "Divide it by a bead's length, or leave the unit away.",
    )
  }
  const nearestWhole = Math.round(value.amount)
  if (Math.abs(value.amount - nearestWhole) > 1e-9) {
    throw new DoesNotDivide(
      expression.span,
      `${what} comes to ${Number(value.amount.toFixed(3))}, which is not a whole count.`,
      divisionMend(expression, scope),
    )
  }
  if (nearestWhole < least) {
    throw new LineFault(
      expression.span,
      `${what} comes to ${nearestWhole}; it must be at least ${least}.`,
      `Give ${least} or more.`,
    )
  }
  return nearestWhole
}

function divisionMend(expression: Expression, scope: Scope): string {
  if (expression.type === 'sum' && expression.sign === '/') {
    const top = evaluate(expression.left, scope).amount
    const by = evaluate(expression.right, scope).amount
    if (Number.isInteger(by) && by > 0) {
      const below = Math.floor(top / by) * by
      return `${top} does not divide by ${by}: ${below} or ${below + by} would. Ask for it with fit(..., multiple ${by}).`
    }
  }
  return 'Change the numbers so that they divide.'
}

/** A length in mm above 0; plain numbers are taken as mm. */
export function evaluateLength(expression: Expression, scope: Scope, what: string): number {
  const { amount } = evaluate(expression, scope)
  if (!(amount > 0) || !Number.isFinite(amount)) {
    throw new LineFault(
      expression.span,
      `${what} comes to ${Number(amount.toFixed(3))} mm; it must be above 0.`,
      'Give the measure in mm, cm or in.',
    )
  }
  return amount
}
