/** A pattern's lines, read: what it is made of, and what is done, with repeats and parts as a tree. */

import { Cursor } from '../notation/cursor'
import { type Declaration, readDeclaration, type SizeWords } from '../notation/declarations'
import type { Expression } from '../notation/expression'
import { LineFault } from '../notation/fault'
import { deepestNesting, type Line } from '../notation/line'
import { nearest } from '../notation/nearest'
import { type BlockHead, readBlockHead } from '../notation/parse-block'
import type { ThreadWays } from '../notation/parse-thread'
import { refuseSlips } from '../notation/slips'
import { isBlockWord, isDeclarationWord, isStatementWord, statementWords } from '../notation/words'
import type { Statement } from '../stitch/technique'
import { readStitchLine } from '../stitch/techniques'
import type { Faults } from './faults'

export type Step =
  | { readonly type: 'line'; readonly statement: Statement }
  | { readonly type: 'block'; readonly line: Line; readonly head: BlockHead; readonly body: Step[] }
  | { readonly type: 'skip'; readonly line: Line; readonly option: string; readonly when: 'on' | 'off' }
  | { readonly type: 'use'; readonly line: Line; readonly part: string }
  | { readonly type: 'failed'; readonly line: Line }

export interface Part {
  readonly name: string
  readonly times: Expression | undefined
  readonly ways: ThreadWays
  readonly line: Line | undefined
  readonly steps: Step[]
}

type Declared<Word extends Declaration['word']> = {
  readonly declaration: Extract<Declaration, { word: Word }>
  readonly line: Line
}

export interface Sheet {
  title: string
  makes: number
  pair: boolean
  sizes: SizeWords[]
  options: Declared<'option'>[]
  roles: Declared<'bead' | 'stone' | 'item'>[]
  thread: Declared<'thread'> | undefined
  parts: Part[]
  /** Letters whose line is at fault, with that line. */
  lostRoles: Map<string, number>
}

/** Lines whose text is for people. */
const noteWords: ReadonlySet<string> = new Set(['pattern', 'note', 'check', 'caution'])

/** Fewer lines than these may be a pattern that has just been begun. */
const leastProse = 3

/** Running text, of which no line is one of the notation: a letter, or a recipe that was pasted. */
const isProse = (lines: readonly Line[]): boolean =>
  lines.length >= leastProse &&
  lines.every(({ keyword, text }) => !isStatementWord(keyword) && text.split(' ').filter(isPlainWord).length >= 3)

const isPlainWord = (word: string): boolean => /^\p{L}{2,}[,.:;!?]?$/u.test(word)

export function readSheet(lines: readonly Line[], faults: Faults): Sheet {
  const sheet: Sheet = {
    title: '',
    makes: 1,
    pair: false,
    sizes: [],
    options: [],
    roles: [],
    thread: undefined,
    parts: [],
    lostRoles: new Map(),
  }
  if (lines.length === 0 || isProse(lines)) {
    const first = lines[0] ?? { from: 0, to: 1 }
    faults.add(
      'error',
      first,
      lines.length === 0
        ? 'There is nothing in this pattern yet.'
        : 'This is running text, not a pattern in the notation.',
      'Begin with its name, its beads and a line of work, for example: pattern First ring, bead A cylinder 11/0, ring 12A.',
    )
    return sheet
  }
  let part: Part = { name: '', times: undefined, ways: {}, line: undefined, steps: [] }
  sheet.parts.push(part)
  /** Blocks that are still open, outermost first. */
  let open: Extract<Step, { type: 'block' }>[] = []
  const here = () => open[open.length - 1]?.body ?? part.steps
  const leaveOpen = () => {
    for (const block of open) {
      faults.add(
        'error',
        block.line.keywordSpan,
        `This "${block.line.keyword}" has no end.`,
        'Write "end" below its last line.',
      )
    }
    open = []
  }
  for (const line of lines) {
    try {
      const { keyword } = line
      if (!noteWords.has(keyword)) refuseSlips(line)
      if (!isStatementWord(keyword)) throw unknownWord(line)
      if (keyword === 'part') {
        leaveOpen()
        const declaration = readDeclaration(line) as Extract<Declaration, { word: 'part' }>
        if (sheet.parts.some(({ name }) => name === declaration.name))
          faults.add('error', line, `There is a part "${declaration.name}" already.`, 'Give this one another name.')
        part = { name: declaration.name, times: declaration.times, ways: declaration.ways, line, steps: [] }
        sheet.parts.push(part)
      } else if (isDeclarationWord(keyword)) enter(readDeclaration(line), line, sheet)
      else if (isBlockWord(keyword)) {
        if (open.length + 1 >= deepestNesting)
          throw new LineFault(
            line.keywordSpan,
            `Repeats are nested more than ${deepestNesting} deep.`,
            'Put the inner ones into a part of their own.',
          )
        const cursor = new Cursor(line.items, line)
        const head = readBlockHead(keyword, cursor)
        cursor.finish()
        const block: Step = { type: 'block', line, head, body: [] }
        here().push(block)
        open.push(block)
      } else if (keyword === 'end') {
        new Cursor(line.items, line).finish()
        if (!open.pop())
          throw new LineFault(line.keywordSpan, 'There is nothing for this "end" to end.', 'Take it away.', '')
      } else if (keyword === 'skip') here().push(readSkip(line))
      else if (keyword === 'use') here().push(readUse(line))
      else here().push({ type: 'line', statement: readStitchLine(line) })
    } catch (error) {
      faults.caught(error)
      const letter = line.items[0]
      // A word that is none may well be one of these with a slip in it.
      if (
        (['bead', 'stone', 'item'].includes(line.keyword) || !isStatementWord(line.keyword)) &&
        letter?.kind === 'Name'
      )
        sheet.lostRoles.set(letter.text, line.number)
      else if (isBlockWord(line.keyword)) {
        // Its lines are still read, and its end still ends it; how often it is done is not known, so once.
        const once: BlockHead = {
          type: 'repeat',
          times: { type: 'number', value: { amount: 1, unit: 'count' }, span: line },
        }
        const block: Step = { type: 'block', line, head: once, body: [] }
        // What is nested deeper than anything may be is read to its end, and not done.
        if (open.length + 1 < deepestNesting) here().push(block)
        open.push(block)
      } else here().push({ type: 'failed', line })
    }
  }
  leaveOpen()
  if (!sheet.title && lines.length > 0) {
    faults.add(
      'warning',
      { from: 0, to: 1 },
      'The pattern has no name.',
      'Begin with a line such as: pattern Windlass pendant.',
    )
  }
  return sheet
}

function enter(declaration: Declaration, line: Line, sheet: Sheet): void {
  switch (declaration.word) {
    case 'pattern':
      sheet.title = declaration.title
      return
    case 'makes':
      sheet.makes = declaration.count
      sheet.pair = declaration.pair
      return
    case 'size':
      if (sheet.sizes.some((size) => size.name === declaration.size.name)) {
        throw new LineFault(
          line,
          `There is a size "${declaration.size.name}" already.`,
          'Give each size a name of its own.',
        )
      }
      sheet.sizes.push(declaration.size)
      return
    case 'option':
      if (sheet.options.some((each) => each.declaration.name === declaration.name)) {
        throw new LineFault(
          line,
          `There is an option "${declaration.name}" already.`,
          'Give each option a name of its own.',
        )
      }
      sheet.options.push({ declaration, line })
      return
    case 'bead':
    case 'stone':
    case 'item':
      if (sheet.roles.some((each) => each.declaration.role === declaration.role)) {
        throw new LineFault(
          line,
          `${declaration.role} has been declared already.`,
          'Give each bead a letter of its own.',
        )
      }
      sheet.roles.push({ declaration, line })
      return
    case 'thread':
      if (sheet.thread) throw new LineFault(line, 'The thread has been declared already.', 'Keep one of the two lines.')
      sheet.thread = { declaration, line }
      return
    case 'part':
      return
  }
}

/** `skip if rim off`: leaves out the rest of the part, or of the block, when an option stands so. */
function readSkip(line: Line): Step {
  const cursor = new Cursor(line.items, line)
  const example = 'For example: skip if rim off.'
  cursor.take('Word', 'if')
  const option = cursor.expect('Word', 'the name of an option', example).text
  const when = cursor.expect('Word', 'on or off', example)
  if (when.text !== 'on' && when.text !== 'off')
    throw new LineFault(when, `An option is on or off, not "${when.text}".`, example)
  cursor.finish()
  return { type: 'skip', line, option, when: when.text }
}

/** `use petal`: does another part's lines here. */
function readUse(line: Line): Step {
  const cursor = new Cursor(line.items, line)
  const part = cursor.expect('Word', 'the name of a part', 'For example: use petal.').text
  cursor.finish()
  return { type: 'use', line, part }
}

function unknownWord(line: Line): LineFault {
  if (!line.keyword) {
    const text = line.text.length > 24 ? `${line.text.slice(0, 24)}...` : line.text
    return new LineFault(
      line.keywordSpan,
      `A line begins with a word such as ring or round, not "${text}".`,
      'Say what to do with these beads: ring, round, loop...',
    )
  }
  const guess = nearest(line.keyword, statementWords)
  return new LineFault(
    line.keywordSpan,
    `"${line.keyword.slice(0, 40)}" is not a word of the notation.`,
    guess ? `Did you mean "${guess}"?` : `Words: ${statementWords.join(', ')}.`,
    guess,
  )
}

/** The names of the parts that some steps use. */
export const partsUsed = (steps: readonly Step[]): string[] =>
  steps.flatMap((step) => (step.type === 'use' ? [step.part] : step.type === 'block' ? partsUsed(step.body) : []))
