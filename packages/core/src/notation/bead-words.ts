import { type Bead, normalSize } from '../catalogue/bead'
import { beadKinds, nominalBead, nominalSizes } from '../catalogue/nominal-beads'
import type { Cursor } from './cursor'
import { LineFault } from './fault'
import { nearest } from './nearest'

/** `cylinder 11/0`, `faceted round 3 mm`, `twin tile 5 x 5 x 1.9 mm`: a bead by its kind and size, nominal figures. */
export function readBead(cursor: Cursor): Bead {
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
