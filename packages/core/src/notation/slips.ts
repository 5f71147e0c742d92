/** Slips of typing that are told for what they are, before a line is read: a reader of lists would only say that something is not expected. */
import { LineFault } from './fault'
import type { Item, Line } from './line'
import { statementWords } from './words'

/** Slashes that look like the one on the keyboard. */
const otherSlashes = /[\u2044\u2215\uff0f]/
const minusSigns = /[\u2010-\u2015\u2212]/

const keywords: ReadonlySet<string> = new Set(statementWords)

/** @throws LineFault at the first slip */
export function refuseSlips(line: Line): void {
  const [capital] = line.keyword === '' ? (/^\p{L}+/u.exec(line.text) ?? []) : []
  const lower = capital?.toLowerCase()
  if (capital && lower && capital !== lower && keywords.has(lower))
    throw new LineFault(
      { from: line.from, to: line.from + capital.length },
      `Words are in lower case: "${lower}", not "${capital}".`,
      'Capital letters are beads.',
      lower,
    )
  refuseIn(line.items)
}

function refuseIn(items: readonly Item[]): void {
  for (const [i, item] of items.entries()) {
    refuseIn(item.items)
    const { kind, text } = item
    if (kind === 'Unknown' && otherSlashes.test(text))
      throw new LineFault(item, `"${text}" only looks like a slash.`, 'Type the slash of the keyboard: 11/0.', '/')
    if (kind === 'Unknown' && minusSigns.test(text))
      throw new LineFault(item, `"${text}" only looks like a minus sign.`, 'Type the one of the keyboard: -.', '-')
    if (kind === 'Mark' && text === ';')
      throw new LineFault(item, 'A ";" does not end a statement.', 'Write each statement on a line of its own.', '\n')
    if (kind === 'Mark' && text === '*' && items[i - 1]?.kind === 'Name')
      throw new LineFault(
        item,
        '"*" is not used between beads.',
        'A number of beads stands before its letter: 12A. To repeat a list, write x: (A B) x 12.',
      )
    // The tokenizer knows the letters A to Z as beads; a capital of any other kind begins a word.
    if (kind === 'Word' && /^\p{Lu}/u.test(text))
      throw new LineFault(item, `"${text}" cannot name a bead.`, 'Beads are named by the plain capital letters A to Z.')
  }
}
