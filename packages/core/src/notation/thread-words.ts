import { needles, type ThreadKind, threadKinds } from '../catalogue/thread'
import type { Mm } from '../measure/units'
import type { Cursor } from './cursor'
import { shown } from './cursor'
import { type Expression, readExpression, reckonLength, type Scope } from './expression'
import { LineFault } from './fault'
import { nearest } from './nearest'

export interface ThreadChoice {
  readonly thread: ThreadKind
  readonly strands: 1 | 2
  readonly needle: number
  readonly needleMm: Mm
  readonly tailMm: Mm | undefined
  /** What the pattern says is enough; checked against what is needed. */
  readonly lengthMm: Mm | undefined
}

export interface ThreadWords {
  readonly thread: ThreadKind
  readonly strands: 1 | 2
  readonly needle: number
  readonly tail: Expression | undefined
  readonly length: Expression | undefined
}

const kinds = [...new Set(threadKinds.map((thread) => thread.kind))]

/** What a pattern that says nothing is stitched with. */
export const usualThread: ThreadChoice = {
  thread: threadKinds[1] as ThreadKind,
  strands: 1,
  needle: 12,
  needleMm: needles[12] as number,
  tailMm: undefined,
  lengthMm: undefined,
}

/** `braid 6 lb, single, needle 12, tail 15 cm` */
export function readThread(cursor: Cursor): ThreadWords {
  const kind = cursor.expect('Word', 'the kind of thread', `Kinds: ${kinds.join(', ')}.`)
  const ofKind = threadKinds.filter((thread) => thread.kind === kind.text)
  if (ofKind.length === 0) {
    const guess = nearest(kind.text, kinds)
    throw new LineFault(
      kind,
      `"${kind.text}" is not a thread in the catalogue.`,
      guess ? `Did you mean "${guess}"?` : `Kinds: ${kinds.join(', ')}.`,
      guess,
    )
  }
  const sizes = ofKind.map((thread) => thread.size).join(', ')
  const size = cursor.peek()
  if (!size || size.kind === 'Comma') throw new LineFault(kind, `Which size of ${kind.text}?`, `Sizes: ${sizes}.`)
  cursor.next()
  const unit = cursor.peek()
  const text = unit?.kind === 'Word' ? `${Number(size.text)} ${cursor.next().text}` : size.text
  const thread = ofKind.find((known) => known.size.toLowerCase() === text.toLowerCase())
  if (!thread)
    throw new LineFault(
      { from: size.from, to: unit?.to ?? size.to },
      `There is no ${kind.text} in size ${text}.`,
      `Sizes: ${sizes}.`,
    )

  let strands: 1 | 2 = 1
  let needle = usualThread.needle
  let tail: Expression | undefined
  let length: Expression | undefined
  while (cursor.take('Comma')) {
    const word = cursor.expect(
      'Word',
      'single, double, needle, tail or length',
      'For example: single, needle 12, tail 15 cm.',
    )
    if (word.text === 'single') strands = 1
    else if (word.text === 'double' || word.text === 'doubled') strands = 2
    else if (word.text === 'tail') tail = readExpression(cursor)
    else if (word.text === 'length') length = readExpression(cursor)
    else if (word.text === 'needle') {
      const number = cursor.expect('Number', 'the needle size', `Sizes: ${Object.keys(needles).join(', ')}.`)
      needle = Number(number.text)
      if (needles[needle] === undefined)
        throw new LineFault(
          number,
          `There is no needle ${number.text} in the catalogue.`,
          `Sizes: ${Object.keys(needles).join(', ')}.`,
        )
    } else {
      throw new LineFault(
        word,
        `"${shown(word)}" does not describe a thread.`,
        'Say single, double, needle 12 or tail 15 cm.',
        nearest(word.text, ['single', 'double', 'needle', 'tail']),
      )
    }
  }
  return { thread, strands, needle, tail, length }
}

export const threadOf = (words: ThreadWords, scope: Scope): ThreadChoice => ({
  thread: words.thread,
  strands: words.strands,
  needle: words.needle,
  needleMm: needles[words.needle] as number,
  tailMm: words.tail && reckonLength(words.tail, scope, 'The tail'),
  lengthMm: words.length && reckonLength(words.length, scope, 'The length'),
})
