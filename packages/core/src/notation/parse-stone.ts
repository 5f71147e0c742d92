import type { Stone, StoneProfile, StoneShape } from '../catalogue/stone'
import { sayLength } from '../measure/units'
import type { Cursor } from './cursor'
import { type Expression, evaluateLength, readExpression, type Scope } from './expression'
import { LineFault, type Span } from './fault'
import { nearest } from './nearest'

const shapes = ['round', 'oval', 'triangle', 'square', 'rectangle', 'navette', 'drop', 'girth'] as const
const profiles: Readonly<Record<string, StoneProfile>> = {
  flat: 'flat',
  pointed: 'pointed',
  domed: 'domed',
  bead: 'bead',
  // As shops call them: a domed top on a flat back, and a cut stone with a pointed back.
  cabochon: 'domed',
  faceted: 'pointed',
}
/** Where a pattern does not say how high its stone is. */
const usualHeightMm = 5

/** A stone as written: its measures may hang on the size. */
export interface StoneWords {
  readonly shape: (typeof shapes)[number]
  readonly measures: readonly Expression[]
  readonly corner: Expression | undefined
  readonly height: Expression | undefined
  readonly profile: StoneProfile
  readonly span: Span
}

/** `round 14 mm`, `oval 13 x 18 mm, height 5 mm, domed`, `square width, r = 3 mm`, `girth 61 mm`. */
export function readStone(cursor: Cursor): StoneWords {
  let profile: StoneProfile = 'flat'
  let word = cursor.expect('Word', 'the shape of the stone', `Shapes: ${shapes.join(', ')}.`)
  // "cabochon oval 13 x 18 mm"; without a shape it is round.
  const called = (shapes as readonly string[]).includes(word.text) ? undefined : profiles[word.text]
  if (called) {
    profile = called
    cursor.take('Word', 'back')
    const next = cursor.peek()
    const named = next?.kind === 'Word' && (shapes as readonly string[]).includes(next.text)
    word = named ? cursor.next() : { ...word, text: 'round' }
  }
  const shape = shapes.find((known) => known === word.text)
  if (!shape) {
    const guess = nearest(word.text, shapes)
    throw new LineFault(
      word,
      `"${word.text}" is not a stone shape.`,
      guess ? `Did you mean "${guess}"?` : `Shapes: ${shapes.join(', ')}.`,
      guess,
    )
  }
  const measures = [readExpression(cursor)]
  while (cursor.take('Times')) measures.push(readExpression(cursor))
  let corner: Expression | undefined
  let height: Expression | undefined
  cursor.take('Comma')
  while (!cursor.done && cursor.peek()?.kind === 'Word') {
    const key = cursor.next()
    if (key.text === 'r' || key.text === 'corner') {
      cursor.take('Mark', '=')
      corner = readExpression(cursor)
    } else if (key.text === 'height') {
      cursor.take('Mark', '=')
      height = readExpression(cursor)
    } else {
      const known = profiles[key.text]
      if (!known) {
        throw new LineFault(
          key,
          `"${key.text}" does not describe a stone.`,
          'Say height 5 mm, r = 2 mm, flat, pointed, domed or bead.',
          nearest(key.text, Object.keys(profiles)),
        )
      }
      profile = known
      cursor.take('Word', 'back')
    }
    if (!cursor.take('Comma')) break
  }
  const last = cursor.peek(-1)
  return { shape, measures, corner, height, profile, span: { from: word.from, to: last?.to ?? word.to } }
}

/** Larger ones are slips of a unit. */
const maxStoneMm = 200

/** The stone in one size; a plain number is taken as mm. */
export function stoneOf(words: StoneWords, scope: Scope): Stone {
  const wanted =
    words.shape === 'oval' || words.shape === 'rectangle' || words.shape === 'navette' || words.shape === 'drop' ? 2 : 1
  if (words.measures.length !== wanted) {
    throw new LineFault(
      words.span,
      wanted === 2 ? `${words.shape} needs a width and a length.` : `${words.shape} needs one measure.`,
      wanted === 2 ? `For example: ${words.shape} 13 x 18 mm.` : `For example: ${words.shape} 14 mm.`,
    )
  }
  // "13 x 18 mm": the unit stands once, behind the last measure, and plain numbers are mm anyway.
  const lengths = words.measures.map((measure) => evaluateLength(measure, scope, 'The measure of the stone'))
  const largest = lengths.findIndex((mm) => mm > maxStoneMm)
  if (largest >= 0 && words.shape !== 'girth')
    throw new LineFault(
      words.measures[largest]?.span ?? words.span,
      `A stone of ${sayLength(lengths[largest] as number)} is larger than any that beads are stitched round.`,
      `At most ${sayLength(maxStoneMm)}; check the unit.`,
    )
  const heightMm = words.height ? evaluateLength(words.height, scope, 'The height of the stone') : usualHeightMm
  return { outline: outlineOf(words, lengths, scope), heightMm, profile: words.profile }
}

function outlineOf(words: StoneWords, lengths: readonly number[], scope: Scope): StoneShape {
  const [first = 0, second = first] = lengths
  const width = Math.min(first, second)
  const length = Math.max(first, second)
  const corner = words.corner ? evaluateLength(words.corner, scope, 'The corner radius') : width / 8
  if (corner > width / 2 + 1e-9) {
    throw new LineFault(
      words.corner?.span ?? words.span,
      `A corner of ${corner} mm does not fit a stone ${width} mm wide.`,
      `At most ${width / 2} mm.`,
    )
  }
  switch (words.shape) {
    case 'round':
      return { shape: 'round', diameter: first }
    case 'girth':
      return { shape: 'girth', girth: first }
    case 'triangle':
      return { shape: 'triangle', width: first }
    case 'square':
      return { shape: 'square', width: first, corner }
    case 'rectangle':
      return { shape: 'rectangle', width, length, corner }
    case 'oval':
    case 'navette':
    case 'drop':
      return { shape: words.shape, width, length }
  }
}
