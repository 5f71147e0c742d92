/** Changes to a text that keep everything they do not touch: comments, blank lines, names. */
import type { Line } from '../notation/line'
import { parsePattern } from '../notation/parse'
import { isBlockWord, isDeclarationWord } from '../notation/words'

export interface TextEdit {
  readonly from: number
  readonly to: number
  readonly insert: string
}

export const edited = (source: string, edits: readonly TextEdit[]): string =>
  [...edits]
    .sort((a, b) => b.from - a.from)
    .reduce((text, { from, to, insert }) => text.slice(0, from) + insert + text.slice(to), source)

/** The end of the last line of a text that says something, as an offset, and how far lines are indented there. */
export function endOfText(source: string): { readonly at: number; readonly indent: string } {
  const last = parsePattern(source).lines.at(-1)
  if (!last) return { at: source.length, indent: '' }
  const start = source.lastIndexOf('\n', last.from - 1) + 1
  const end = source.indexOf('\n', last.to)
  const own = /^\s*/.exec(source.slice(start, last.from))?.[0] ?? ''
  return {
    at: end < 0 ? source.length : end,
    indent: isDeclarationWord(last.keyword) ? '  ' : own,
  }
}

/** Lines written behind the last that says something. */
export function withLines(source: string, lines: readonly string[]): string {
  const { at, indent } = endOfText(source)
  const before = source.slice(0, at).replace(/\s*$/, '')
  return `${before}${lines.map((line) => `\n${indent}${line}`).join('')}${source.slice(at) || '\n'}`
}

/** From the first to the last of some lines, whole repeats with everything they hold. */
function stretch(source: string, first: number, last: number): { lines: readonly Line[]; from: number; to: number } {
  const { lines } = parsePattern(source)
  let [low, high] = [first, last]
  const open: Line[] = []
  for (const line of lines) {
    if (isBlockWord(line.keyword)) open.push(line)
    if (line.keyword !== 'end') continue
    const head = open.pop()
    if (head && head.number <= high && line.number >= low && !(head.number < low && line.number > high)) {
      low = Math.min(low, head.number)
      high = Math.max(high, line.number)
    }
  }
  const own = lines.filter(({ number }) => number >= low && number <= high)
  const [begin, end] = [own[0], own.at(-1)]
  if (!begin || !end) return { lines: [], from: 0, to: 0 }
  const from = source.lastIndexOf('\n', begin.from - 1) + 1
  const to = source.indexOf('\n', end.to)
  return { lines: own, from, to: to < 0 ? source.length : to }
}

/** Without some lines. */
export function takenOut(source: string, first: number, last = first): string {
  const { from, to } = stretch(source, first, last)
  return source.slice(0, from) + source.slice(Math.min(source.length, to + 1))
}

/** Some lines one line, or one repeat, farther up; the same text where they are the first of their part. */
export function movedUp(source: string, first: number, last = first): string {
  const own = stretch(source, first, last)
  const above = parsePattern(source).lines.findLast(({ to }) => to < own.from)
  if (own.lines.length === 0 || !above || isDeclarationWord(above.keyword) || isBlockWord(above.keyword)) return source
  const before = stretch(source, above.number, above.number)
  const between = source.slice(before.to, own.from)
  return (
    source.slice(0, before.from) +
    source.slice(own.from, own.to) +
    between +
    source.slice(before.from, before.to) +
    source.slice(own.to)
  )
}

/** Some lines so many times. */
export function repeated(source: string, times: number, first: number, last = first): string {
  const { lines, from, to } = stretch(source, first, last)
  if (lines.length === 0) return source
  const body = source.slice(from, to)
  const indent = /^[ \t]*/.exec(body)?.[0] ?? ''
  const inner = body.replace(/^(?=.)/gm, '  ')
  return `${source.slice(0, from)}${indent}repeat ${times}\n${inner}\n${indent}end${source.slice(to)}`
}

/** The same lines once more on the other edge. */
export function onOtherEdge(source: string, first: number, last = first): string {
  const { lines, from, to } = stretch(source, first, last)
  if (lines.length === 0) return source
  const body = source.slice(from, to)
  const indent = /^[ \t]*/.exec(body)?.[0] ?? ''
  return `${source.slice(0, to)}\n${indent}other edge\n${body}${source.slice(to)}`
}

/** Some lines as a part of their own, used where they stood. */
export function asPart(source: string, name: string, first: number, last = first): string {
  const { lines, from, to } = stretch(source, first, last)
  if (lines.length === 0) return source
  const body = source.slice(from, to)
  const indent = /^[ \t]*/.exec(body)?.[0] ?? ''
  const own = body
    .split('\n')
    .map((line) => `  ${line.startsWith(indent) ? line.slice(indent.length) : line.trimStart()}`)
    .join('\n')
  const rest = `${source.slice(0, from)}${indent}use ${name}${source.slice(to)}`.replace(/\s*$/, '')
  return `${rest}\n\npart ${name}\n${own}\n`
}

/** Gives what a line picks up a name. The same text where it has one. */
export function marked(source: string, name: string, number: number): string {
  const line = parsePattern(source).lines.find((each) => each.number === number)
  if (!line || line.items.some(({ kind, text }) => kind === 'Word' && text === 'as')) return source
  const end = / no step$/.exec(source.slice(line.from, line.to))?.index
  const at = end === undefined ? line.to : line.from + end
  return `${source.slice(0, at)} as ${name}${source.slice(at)}`
}
