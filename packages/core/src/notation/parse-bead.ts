import { type Bead, normalSize } from '../catalogue/bead'
import { beadKinds, nominalBead, nominalSizes } from '../catalogue/nominal-beads'
import { trim } from '../measure/units'
import type { Cursor } from './cursor'
import { type Expression, evaluateLength, readExpression, type Scope } from './expression'
import { LineFault, type Span } from './fault'
import { nearest } from './nearest'

/** Measures that a line may give of its own bead, and what they are called there. */
const measures = {
  L: { field: 'lengthMm', unit: 'mm', usual: 1.5 },
  d: { field: 'acrossMm', unit: 'mm', usual: 2.1 },
  hole: { field: 'boreMm', unit: 'mm', usual: 0.8 },
  mass: { field: 'massMg', unit: 'mg', usual: 9 },
} as const

/** A bead as written: its size may hang on the size of the pattern. */
export interface BeadWords {
  readonly kind: string
  /** "11/0", "5 x 5 x 1.9 mm"; or what it is called in the sizes of the pattern. */
  readonly size: string | Expression
  /** What is said of the kind and the size. */
  readonly span: Span
  readonly own: readonly { readonly measure: Measure; readonly figure: number; readonly span: Span }[]
}

type Measure = keyof typeof measures

/** `round 11/0, L = 1.45 mm, d = 2.2 mm`, `bicone core`: a bead by its kind and size, with nominal figures but for those that are given. */
export function readBead(cursor: Cursor): BeadWords {
  const words = readKind(cursor)
  const own: BeadWords['own'][number][] = []
  while (cursor.peek()?.kind === 'Comma') {
    cursor.next()
    const name = cursor.peek()
    const measure = name && Object.hasOwn(measures, name.text) ? (name.text as Measure) : undefined
    if (!name || !measure)
      throw new LineFault(
        name ?? cursor.end,
        name ? `"${name.text}" is not a measure of a bead.` : 'Expected a measure of the bead here.',
        'For example: bead A round 11/0, L = 1.45 mm, d = 2.2 mm. Known: L, d, hole, mass.',
      )
    cursor.next()
    const { unit, usual } = measures[measure]
    const example = `For example: ${measure} = ${usual} ${unit}.`
    if (!cursor.take('Mark', '=')) throw new LineFault(name, `${measure} has no figure.`, example)
    const number = cursor.expect('Number', 'a figure', example)
    if (!cursor.take('Word', unit)) throw new LineFault(number, `${measure} is told in ${unit}.`, example)
    own.push({ measure, figure: Number(number.text), span: number })
  }
  return { ...words, own }
}

/** The bead in one size of the pattern. */
export function beadOf({ kind, size, span, own }: BeadWords, scope: Scope): Bead {
  const asked =
    typeof size === 'string' ? size : `${trim(evaluateLength(size, scope, `The size of the ${kind}`), 2)} mm`
  let bead = nominalBead(kind, asked)
  if (!bead)
    throw new LineFault(
      typeof size === 'string' ? span : size.span,
      `There is no ${kind} in size ${normalSize(asked)} in the catalogue.`,
      `Sizes: ${nominalSizes(kind).join(', ')}.`,
    )
  for (const { measure, figure, span: at } of own) {
    const { field, unit } = measures[measure]
    // Twice or half the nominal figure is another bead, or a slip.
    if (figure > 2 * bead[field] || figure < bead[field] / 2)
      throw new LineFault(
        at,
        `No ${bead.kind} ${bead.size} has ${measure} = ${figure} ${unit}.`,
        `For example: ${measure} = ${trim(bead[field], 2)} ${unit}.`,
      )
    bead = { ...bead, [field]: figure }
  }
  return bead
}

function readKind(cursor: Cursor): Omit<BeadWords, 'own'> {
  const first = cursor.peek()
  const words: string[] = []
  for (let at = 0; cursor.peek(at)?.kind === 'Word'; at++) words.push((cursor.peek(at) as { text: string }).text)
  // The longest kind that it begins with; what stands behind is the name of a size.
  const kind = beadKinds.find((known) => words.join(' ') === known || words.join(' ').startsWith(`${known} `))
  const last = cursor.peek(words.length - 1)
  const span = { from: first?.from ?? cursor.end.from, to: words.length > 0 && last ? last.to : cursor.end.to }
  if (words.length === 0)
    throw new LineFault(first ?? cursor.end, 'Expected the kind of bead here.', 'For example: cylinder 11/0.')
  if (!kind) {
    const guess = nearest(words.join(' '), beadKinds)
    throw new LineFault(
      span,
      `"${words.join(' ')}" is not a kind of bead in the catalogue.`,
      guess ? `Did you mean "${guess}"?` : `Kinds: ${beadKinds.join(', ')}.`,
      guess,
    )
  }
  for (const _ of kind.split(' ')) cursor.next()
  return { kind, ...readSize(cursor, kind, span) }
}

function readSize(cursor: Cursor, kind: string, span: Span): Pick<BeadWords, 'size' | 'span'> {
  const sizes = nominalSizes(kind)
  const first = cursor.peek()
  if (!first || first.kind === 'String' || first.kind === 'Comma')
    throw new LineFault(first ?? cursor.end, `Which size of ${kind}?`, `Sizes: ${sizes.join(', ')}.`)
  if (cursor.take('Size')) return { size: first.text, span: first }
  if (first.kind === 'Word') return { size: readExpression(cursor), span: first }
  let [text, to] = ['', span.to]
  for (let item = cursor.peek(); item; item = cursor.peek()) {
    const unit = item.kind === 'Word' && item.text === 'mm'
    if (item.kind !== 'Number' && item.kind !== 'Times' && !unit) break
    text += item.text
    to = item.to
    cursor.next()
    if (unit) break
  }
  if (!text) throw new LineFault(first, `Which size of ${kind}?`, `Sizes: ${sizes.join(', ')}.`)
  return { size: text, span: { from: first.from, to } }
}
