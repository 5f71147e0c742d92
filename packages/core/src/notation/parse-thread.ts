import { needles, type ThreadKind, threadKinds } from '../catalogue/thread'
import type { Mm } from '../measure/units'
import type { ThreadSettings } from '../thread/settings'
import type { Cursor } from './cursor'
import { shown } from './cursor'
import { type Expression, evaluateLength, readExpression, type Scope } from './expression'
import { LineFault } from './fault'
import { nearest } from './nearest'

export interface ThreadChoice {
  readonly thread: ThreadKind
  readonly strands: 1 | 2
  readonly needle: number
  readonly needleMm: Mm
  /** What the pattern says is enough; checked against what is needed. */
  readonly lengthMm: Mm | undefined
}

export interface ThreadWords {
  readonly thread: ThreadKind
  readonly strands: 1 | 2
  readonly needle: number
  readonly length: Expression | undefined
  readonly ways: ThreadWays
}

/** How thread is handled, where a pattern or a part says so; the shop's way otherwise. */
export interface ThreadWays {
  readonly tail?: Expression
  readonly start?: ThreadSettings['start']
  readonly tension?: ThreadSettings['tension']
  readonly closing?: ThreadSettings['closing']
  readonly ending?: ThreadSettings['ending']
}

const kinds = [...new Set(threadKinds.map((thread) => thread.kind))]

/** What a pattern that says nothing is stitched with. */
export const usualThread: ThreadChoice = {
  thread: threadKinds[1] as ThreadKind,
  strands: 1,
  needle: 12,
  needleMm: needles[12] as number,
  lengthMm: undefined,
}

/** `braid 6 lb, single, needle 12, tail 15 cm, start middle` */
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
  let length: Expression | undefined
  let ways: ThreadWays = {}
  while (cursor.take('Comma')) {
    const way = readWay(cursor)
    if (way) {
      ways = { ...ways, ...way }
      continue
    }
    const word = cursor.expect(
      'Word',
      'single, double, needle, tail or length',
      'For example: single, needle 12, tail 15 cm.',
    )
    if (word.text === 'single') strands = 1
    else if (word.text === 'double' || word.text === 'doubled') strands = 2
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
        'Say single, double, needle 12, tail 15 cm, start middle, firm, close knot or end weave.',
        nearest(word.text, ['single', 'double', 'needle', ...wayWords]),
      )
    }
  }
  return { thread, strands, needle, length, ways }
}

const tensions = ['firm', 'usual', 'relaxed'] as const
const closings = ['knot and pass again', 'pass again', 'knot', 'stop bead'] as const
const endings = ['hitch and weave', 'weave', 'melt', 'glue'] as const
const wayWords: readonly string[] = ['tail', 'start', 'close', 'end', ...tensions]

/** `tail 40 cm`, `start middle`, `firm`, `close knot`, `end glue`; undefined where the line says something else. */
function readWay(cursor: Cursor): ThreadWays | undefined {
  const tension = tensions.find((each) => cursor.take('Word', each))
  if (tension) return { tension }
  if (cursor.take('Word', 'tail')) return { tail: readExpression(cursor) }
  if (cursor.take('Word', 'start')) {
    const start = cursor.expect('Word', 'end or middle', 'For example: start middle.')
    if (start.text !== 'end' && start.text !== 'middle')
      throw new LineFault(
        start,
        `A thread starts at its end or in its middle, not "${start.text}".`,
        'For example: start middle.',
      )
    return { start: start.text }
  }
  const closing = oneOf(cursor, 'close', 'to close a ring', closings)
  if (closing) return { closing }
  const ending = oneOf(cursor, 'end', 'to end a thread', endings)
  return ending && { ending }
}

/** One of several ways behind a word, whose names may be several words; undefined where the word is not there. */
function oneOf<Way extends string>(cursor: Cursor, word: string, does: string, ways: readonly Way[]): Way | undefined {
  const begun = cursor.take('Word', word)
  if (!begun) return undefined
  const words: string[] = []
  let to = begun.to
  for (let next = cursor.take('Word'); next; next = cursor.take('Word')) {
    words.push(next.text)
    to = next.to
  }
  const way = ways.find((each) => each === words.join(' '))
  if (!way)
    throw new LineFault(
      { from: begun.from, to },
      `"${[word, ...words].join(' ')}" is not a way ${does}.`,
      `Say ${ways.map((each) => `${word} ${each}`).join(', ')}.`,
    )
  return way
}

/** Behind the name of a part: `part strap, start middle, tail 40 cm`. */
export function readWays(cursor: Cursor): ThreadWays {
  let ways: ThreadWays = {}
  while (cursor.take('Comma')) {
    const way = readWay(cursor)
    if (!way) {
      const found = cursor.peek()
      throw new LineFault(
        found ?? cursor.end,
        found ? `"${shown(found)}" does not say how thread is handled.` : 'The line stops after a comma.',
        'Say tail 15 cm, start middle, firm, usual, relaxed, close knot or end weave.',
      )
    }
    ways = { ...ways, ...way }
  }
  return ways
}

/** The shop's settings with what a pattern or a part says instead. */
export const settingsWith = (
  settings: ThreadSettings,
  { tail, ...ways }: ThreadWays,
  scope: Scope,
): ThreadSettings => ({
  ...settings,
  ...ways,
  ...(tail ? { tailMm: evaluateLength(tail, scope, 'The tail') } : {}),
})

export const threadOf = (words: ThreadWords, scope: Scope): ThreadChoice => ({
  thread: words.thread,
  strands: words.strands,
  needle: words.needle,
  needleMm: needles[words.needle] as number,
  lengthMm: words.length && evaluateLength(words.length, scope, 'The length'),
})
