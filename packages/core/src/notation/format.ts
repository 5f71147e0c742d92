import { deepestNesting, type Line } from './line'
import { parsePattern } from './parse'
import { isBlockWord, isDeclarationWord } from './words'

/**
 * A pattern in its canonical layout: what it is made of at the margin, parts apart by a blank line, their lines two in and two more
 * in each repeat, single spaces, comments kept. Formatting what is formatted changes nothing, and never what it means.
 */
export function formatPattern(source: string): string {
  const { lines } = parsePattern(source)
  const byNumber = new Map(lines.map((line) => [line.number, line]))
  const out: string[] = []
  let depth = 0
  let inPart = false
  const physical = source.replace(/\r\n?/g, '\n').split('\n')
  for (let i = 0; i < physical.length; i++) {
    const line = byNumber.get(i + 1)
    const raw = physical[i] as string
    if (!line) {
      const text = raw.trim()
      // Only a comment or nothing: blank lines are kept singly.
      if (text !== '' || (out.length > 0 && out[out.length - 1] !== ''))
        out.push(text && `${'  '.repeat(indent(inPart, depth))}${text}`)
      continue
    }
    const span = extent(line, source)
    if (line.keyword === 'end' && depth > 0) depth--
    if (line.keyword === 'part') {
      depth = 0
      inPart = true
      if (out.length > 0 && out[out.length - 1] !== '') out.push('')
    }
    const margin = isDeclarationWord(line.keyword) ? 0 : indent(inPart, depth)
    const comment = commentOf(physical[i + span - 1] as string)
    // A comment within a list that runs on would swallow what follows it on one line: such a list is left as it stands.
    const commented = span > 1 && physical.slice(i, i + span - 1).some((each) => commentOf(each) !== '')
    if (commented) out.push(...physical.slice(i, i + span).map((each) => each.trimEnd()))
    else out.push(`${'  '.repeat(margin)}${tidy(line, source)}${comment && `  ${comment}`}`)
    if (isBlockWord(line.keyword)) depth++
    i += span - 1
  }
  while (out.length > 0 && out[out.length - 1] === '') out.pop()
  return `${out.join('\n')}\n`
}

const indent = (inPart: boolean, depth: number) => (inPart ? 1 : 0) + Math.min(depth, deepestNesting)

/** How many physical lines a statement takes up. */
const extent = (line: Line, source: string): number => source.slice(line.from, line.to).split('\n').length

/** The comment of a physical line, its # with it; "" for none. A # in quotes is not one. */
function commentOf(raw: string): string {
  const found = /^(?:[^"#]|"[^"]*"?)*(#.*)$/.exec(raw)
  return found?.[1]?.trimEnd() ?? ''
}

/** Single spaces, one after a comma and none before it; text in quotes is left alone. */
function tidy(line: Line, source: string): string {
  if (line.keyword === 'pattern') return line.text
  return source
    .slice(line.from, line.to)
    .split(/("[^"\n]*"?)/)
    .map((piece, i) => (i % 2 === 1 ? piece : piece.replace(/\s+/g, ' ').replace(/ ?, ?/g, ', ')))
    .join('')
    .trim()
}
