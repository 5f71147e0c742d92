import { type Bead, normalSize } from '../catalogue/bead'
import { beadKinds, nominalBead, nominalSizes } from '../catalogue/nominal-beads'
import type { Cursor } from './cursor'
import { LineFault } from './fault'
import { nearest } from './nearest'

/** Measures that a line may give of its own bead, and what they are called there. */
const measures = {
  L: { field: 'lengthMm', unit: 'mm' },
  d: { field: 'acrossMm', unit: 'mm' },
  hole: { field: 'boreMm', unit: 'mm' },
  mass: { field: 'massMg', unit: 'mg' },
} as const

/** `round 11/0, L = 1.45 mm, d = 2.2 mm`: a bead by its kind and size, with nominal figures but for those that are given. */
export function readBead(cursor: Cursor): Bead {
  let bead = readNominal(cursor)
  while (cursor.peek()?.kind === 'Comma') {
    cursor.next()
    const name = cursor.peek()
    const measure =
      name && Object.hasOwn(measures, name.text) ? measures[name.text as keyof typeof measures] : undefined
    if (!name || !measure)
      throw new LineFault(
        name ?? cursor.end,
        name ? `"${name.text}" is not a measure of a bead.` : 'Expected a measure of the bead here.',
        'For example: bead A round 11/0, L = 1.45 mm, d = 2.2 mm. Known: L, d, hole, mass.',
      )
    cursor.next()
    const { field, unit } = measure
    const example = `For example: ${name.text} = ${Number(bead[field].toFixed(2))} ${unit}.`
    if (!cursor.take('Mark', '=')) throw new LineFault(name, `${name.text} has no figure.`, example)
    const number = cursor.expect('Number', 'a figure', example)
    if (!cursor.take('Word', unit)) throw new LineFault(number, `${name.text} is told in ${unit}.`, example)
    const figure = Number(number.text)
    // Twice or half the nominal figure is another bead, or a slip.
    if (figure > 2 * bead[field] || figure < bead[field] / 2)
      throw new LineFault(number, `No ${bead.kind} ${bead.size} has ${name.text} = ${number.text} ${unit}.`, example)
    bead = { ...bead, [field]: figure }
  }
  return bead
}

function readNominal(cursor: Cursor): Bead {
  const words: string[] = []
  const first = cursor.peek()
  for (let word = cursor.take('Word'); word; word = cursor.take('Word')) words.push(word.text)
  const last = cursor.peek(-1)
  const kind = words.join(' ')
  const span = { from: first?.from ?? cursor.end.from, to: words.length > 0 && last ? last.to : cursor.end.to }
  if (!kind) throw new LineFault(first ?? cursor.end, 'Expected the kind of bead here.', 'For example: cylinder 11/0.')
  if (!beadKinds.includes(kind)) {
    const guess = nearest(kind, beadKinds)
    throw new LineFault(
      span,
      `"${kind}" is not a kind of bead in the catalogue.`,
      guess ? `Did you mean "${guess}"?` : `Kinds: ${beadKinds.join(', ')}.`,
      guess,
    )
  }
  const sizeItem = cursor.take('Size')
  let text = sizeItem?.text ?? ''
  let to = sizeItem?.to ?? span.to
  if (!sizeItem) {
    for (let item = cursor.peek(); item; item = cursor.peek()) {
      const unit = item.kind === 'Word' && item.text === 'mm'
      if (item.kind !== 'Number' && item.kind !== 'Times' && !unit) break
      text += item.text
      to = item.to
      cursor.next()
      if (unit) break
    }
  }
  const sizes = nominalSizes(kind)
  if (!text) throw new LineFault(cursor.peek() ?? cursor.end, `Which size of ${kind}?`, `Sizes: ${sizes.join(', ')}.`)
  const bead = nominalBead(kind, text)
  if (!bead) {
    throw new LineFault(
      { from: (sizeItem ?? { from: span.to + 1 }).from, to },
      `There is no ${kind} in size ${normalSize(text)} in the catalogue.`,
      `Sizes: ${sizes.join(', ')}.`,
    )
  }
  return bead
}
