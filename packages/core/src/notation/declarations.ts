/** The lines that say what a pattern is made of: read once, in the order they stand. */

import { Cursor, readString } from './cursor'
import { type Expression, readExpression } from './expression'
import { LineFault, type Span } from './fault'
import type { Line } from './line'
import { type BeadWords, readBead } from './parse-bead'
import { readStone, type StoneWords } from './parse-stone'
import { readThread, readWays, type ThreadWays, type ThreadWords } from './parse-thread'
import type { DeclarationWord } from './words'

export type Declaration =
  | { readonly word: 'pattern'; readonly title: string }
  | { readonly word: 'makes'; readonly count: number; readonly pair: boolean }
  | { readonly word: 'size'; readonly size: SizeWords }
  | { readonly word: 'bead'; readonly role: string; readonly bead: BeadWords; readonly label: string }
  | { readonly word: 'stone'; readonly role: string; readonly stone: StoneWords; readonly label: string }
  | { readonly word: 'thread'; readonly thread: ThreadWords }
  | { readonly word: 'option'; readonly name: string; readonly on: boolean }
  | {
      readonly word: 'item'
      readonly role: string
      readonly name: string
      readonly count: number
      readonly label: string
    }
  | {
      readonly word: 'part'
      readonly name: string
      readonly times: Expression | undefined
      readonly ways: ThreadWays
    }

export interface SizeWords {
  readonly name: string
  readonly settings: readonly { readonly name: string; readonly of: Expression; readonly span: Span }[]
  readonly usual: boolean
}

export function readDeclaration(line: Line): Declaration {
  const cursor = new Cursor(line.items, line)
  const read = readers[line.keyword as DeclarationWord]
  const declaration = read(cursor, line)
  cursor.finish()
  return declaration
}

const readers: Readonly<Record<DeclarationWord, (cursor: Cursor, line: Line) => Declaration>> = {
  pattern(cursor, line) {
    // A title is free text: everything up to the end of the line.
    while (!cursor.done) cursor.next()
    const title = line.text.slice('pattern'.length).trim()
    if (!title)
      throw new LineFault(line.keywordSpan, 'The pattern has no name.', 'For example: pattern Windlass pendant.')
    if (title.length > 120) throw new LineFault(line, 'The name is longer than 120 characters.', 'Shorten it.')
    return { word: 'pattern', title }
  },

  makes(cursor) {
    if (cursor.take('Word', 'pair')) return { word: 'makes', count: 2, pair: true }
    const number = cursor.expect('Number', 'a number or "pair"', 'For example: makes 1, makes pair.')
    const count = Number(number.text)
    if (!Number.isInteger(count) || count < 1 || count > 1000) {
      throw new LineFault(number, `A pattern cannot make ${number.text} pieces.`, 'Give a whole number from 1 to 1000.')
    }
    return { word: 'makes', count, pair: false }
  },

  size(cursor) {
    const name = cursor.expect('Word', 'the name of the size', 'For example: size classic  width = 18 mm.')
    const settings: { name: string; of: Expression; span: Span }[] = []
    let usual = false
    while (!cursor.done) {
      const key = cursor.expect('Word', 'a setting such as width = 18 mm')
      if (key.text === 'default') usual = true
      else {
        if (!cursor.take('Mark', '=')) {
          throw new LineFault(key, `"${key.text}" has no value.`, `For example: ${key.text} = 18 mm.`)
        }
        settings.push({ name: key.text, of: readExpression(cursor), span: key })
      }
      cursor.take('Comma')
    }
    return { word: 'size', size: { name: name.text, settings, usual } }
  },

  bead(cursor) {
    const role = readRole(cursor, 'bead A cylinder 11/0 "frame"')
    const bead = readBead(cursor)
    return { word: 'bead', role, bead, label: readLabel(cursor) }
  },

  stone(cursor) {
    const role = readRole(cursor, 'stone S round 14 mm, height 6 mm')
    const stone = readStone(cursor)
    return { word: 'stone', role, stone, label: readLabel(cursor) }
  },

  thread: (cursor) => ({ word: 'thread', thread: readThread(cursor) }),

  option(cursor) {
    const example = 'For example: option rim on.'
    const name = cursor.expect('Word', 'the name of the option', example).text
    const state = cursor.take('Word')
    if (state && state.text !== 'on' && state.text !== 'off') {
      throw new LineFault(state, `An option is on or off, not "${state.text}".`, example)
    }
    return { word: 'option', name, on: state?.text !== 'off' }
  },

  item(cursor) {
    const example = 'item J jump ring 5 mm x 1'
    const role = readRole(cursor, example)
    const words: string[] = []
    while (cursor.peek()?.kind === 'Word' || cursor.peek()?.kind === 'Number') words.push(cursor.next().text)
    if (words.length === 0)
      throw new LineFault(cursor.peek() ?? cursor.end, `What is ${role}?`, `For example: ${example}.`)
    let count = 1
    if (cursor.take('Times')) {
      const number = cursor.expect('Number', 'how many', `For example: ${example}.`)
      count = Number(number.text)
      if (!Number.isInteger(count) || count < 1 || count > 1000) {
        throw new LineFault(
          number,
          `A piece does not take ${number.text} of it.`,
          'Give a whole number from 1 to 1000.',
        )
      }
    }
    return { word: 'item', role, name: words.join(' '), count, label: readLabel(cursor) }
  },

  part(cursor) {
    const name = cursor.expect('Word', 'the name of the part', 'For example: part bezel.').text
    const times = cursor.take('Times') ? readExpression(cursor) : undefined
    return { word: 'part', name, times, ways: readWays(cursor) }
  },
}

function readRole(cursor: Cursor, example: string): string {
  const found = cursor.peek()
  if (found?.kind === 'Word') {
    const upper = found.text.toUpperCase()
    throw new LineFault(
      found,
      `"${found.text}" is not a letter for a bead: those are upper case.`,
      `For example: ${example}.`,
      found.text.length === 1 ? upper : undefined,
    )
  }
  return cursor.expect('Name', 'the letter', `For example: ${example}.`).text
}

const readLabel = (cursor: Cursor): string => (cursor.done ? '' : readString(cursor, 'a name in quotes, or nothing'))
