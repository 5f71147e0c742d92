/**
 * Line ends, commas and stray closing brackets: the tokens that depend on what the line is doing.
 *
 * They are what makes the grammar recover line by line: a bracket left open is closed at the end of its line, and a list
 * runs on over a line end only after a comma, and only when the next line does not itself begin a statement.
 */
import { ExternalTokenizer, type InputStream } from '@lezer/lr'
import { Close, Comma, GroupEnd, IndexEnd, lineEnd, missingClose } from './parser.terms'
import { isStatementWord } from './words'

const newline = 10
const comma = 44
const isBlank = (code: number) => code === 32 || code === 9 || code === 13
const isSmallLetter = (code: number) => code >= 97 && code <= 122

/** Looks past a comma for a line end; gives the length to take in so that the list runs on, or 0 to stay on the line. */
function continuation(input: InputStream): number {
  let at = 1
  let crossed = false
  for (;;) {
    const code = input.peek(at)
    if (isBlank(code)) at++
    else if (code === newline) {
      crossed = true
      at++
    } else if (code === 35 /* # */) {
      while (input.peek(at) !== newline && input.peek(at) !== -1) at++
    } else break
  }
  if (!crossed || input.peek(at) === -1) return 0
  let word = ''
  for (let next = input.peek(at); isSmallLetter(next) && word.length < 20; next = input.peek(at + word.length)) {
    word += String.fromCharCode(next)
  }
  return isStatementWord(word) ? 0 : at
}

export const lineTokens = new ExternalTokenizer(
  (input, stack) => {
    const code = input.next
    if (code === newline || code === -1) {
      if (stack.canShift(missingClose)) input.acceptToken(missingClose)
      else if (code === newline) {
        input.advance()
        input.acceptToken(lineEnd)
      }
    } else if (code === comma) {
      const taken = continuation(input)
      input.advance()
      if (taken > 1) for (let i = 1; i < taken; i++) input.advance()
      input.acceptToken(Comma)
    } else if (code === 41 /* ) */ || code === 93 /* ] */) {
      // A closing bracket that closes nothing here is kept as an item, for the reader to point at.
      const end = code === 41 ? GroupEnd : IndexEnd
      const token = stack.canShift(end) ? end : Close
      input.advance()
      input.acceptToken(token)
    }
  },
  { contextual: true },
)
