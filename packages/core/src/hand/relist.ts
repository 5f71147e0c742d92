/** The list of a line written anew with other letters, everything else of it kept. */
import { asMoves, asStitches, type BeadList, type Move, readBeadList } from '../notation/bead-list'
import { Cursor } from '../notation/cursor'
import { type Expression, evaluateCount } from '../notation/expression'
import type { Line } from '../notation/line'
import type { StitchMachine } from '../stitch/stitch-machine'
import { periodOf, shortRun, shortStitch, shortStitches } from './shorten'

const strings = ['ring', 'string', 'pick', 'loop', 'fringe']
const rounds = ['round', 'row', 'square']

/**
 * @param letters of every bead that the line picks up, in order
 * @param machine as it stands before the line
 * @returns the whole text of the line; undefined where its list cannot take them
 */
export function relisted(
  source: string,
  line: Line,
  letters: readonly string[],
  machine: StitchMachine,
): string | undefined {
  const { keyword } = line
  if (!strings.includes(keyword) && !rounds.includes(keyword)) return undefined
  const list = readBeadList(new Cursor(line.items, line), keyword)
  const text = rounds.includes(keyword)
    ? roundList(source, list, letters, machine)
    : runList(source, list, letters, machine, keyword)
  if (!text) return undefined
  // A list that ran on over several lines is on one then, with what was said of it behind.
  const comments = source.slice(list.span.from, list.span.to).match(/#.*/g) ?? []
  return [source.slice(line.from, list.span.from) + text + source.slice(list.span.to, line.to), ...comments].join('  ')
}

function runList(
  source: string,
  list: BeadList,
  letters: readonly string[],
  machine: StitchMachine,
  keyword: string,
): string | undefined {
  const strung = keyword === 'ring' || keyword === 'string'
  const moves = strung ? machine.roles.asWritten(() => asMoves(list, machine)) : asMoves(list, machine)
  const left = [...letters]
  const items = lettered(source, moves, left)
  // A strand has an end of its own, which is no part of the list.
  if (!items || (left.length > 0 && keyword !== 'fringe')) return undefined
  const period = periodOf(items)
  const counted = countOf(list, source)
  if (counted && period < items.length) {
    const unit = items.length / evaluateCount(counted.expression, machine, 'The number of times')
    const times = shared(counted.text, unit, period)
    const once = shortRun(items.slice(0, period))
    return period === 1 ? `${once} x ${times}` : `(${once}) x ${times}`
  }
  return shortRun(items)
}

function roundList(
  source: string,
  list: BeadList,
  letters: readonly string[],
  machine: StitchMachine,
): string | undefined {
  const stitches = asStitches(list, machine)
  const left = [...letters]
  const written: string[] = []
  for (let i = 0; left.length > 0; i++) {
    const stitch = stitches[i % stitches.length]
    if (!stitch) return undefined
    const items = lettered(source, stitch.moves, left)
    if (!items || (stitch.moves.length === 0 && i > stitches.length * letters.length)) return undefined
    const over = stitch.over > 1 ? ` over ${stitch.over}` : ''
    written.push(`${items.length === 0 ? '-' : shortStitch(items)}${over}`)
  }
  // Stitches without a bead at the end of the round belong to it.
  while (written.length % stitches.length !== 0 && stitches[written.length % stitches.length]?.moves.length === 0)
    written.push('-')
  return shortStitches(written.slice(0, periodOf(written)))
}

/** Takes as many letters from the front of `left` as the moves pick up. */
function lettered(source: string, moves: readonly Move[], left: string[]): string[] | undefined {
  const items: string[] = []
  const own: string[] = []
  for (const move of moves) {
    if (move.type === 'pick') {
      const letter = left.shift()
      if (letter === undefined) return undefined
      own.push(letter)
      items.push(`${letter}${move.bore === 1 ? ':2' : ''}${move.stands ? '^' : ''}`)
    } else if (move.type === 'pass') items.push(`>${source.slice(move.target.span.from, move.target.span.to)}`)
    else {
      // Beads of one letter keep it only while all of them have it.
      const same = move.role !== undefined && own.slice(-move.count).some((letter) => letter !== move.role)
      items.push(same || move.role === undefined ? `<${move.count}` : `<${move.count}${move.role}`)
    }
  }
  return items
}

/** The expression that says how often a list is repeated, where it is computed and not a plain number. */
function countOf(list: BeadList, source: string): { expression: Expression; text: string } | undefined {
  const [part, ...more] = list.parts
  if (!part || more.length > 0) return undefined
  const [only, ...others] = part.elements
  const single = others.length === 0 ? only : undefined
  const expression =
    part.times ?? (single?.type === 'bracket' ? single.times : single?.type === 'beads' ? single.count : undefined)
  if (!expression || expression.type === 'number') return undefined
  return { expression, text: source.slice(expression.span.from, expression.span.to) }
}

/** `n/4` of four beads each, for units of two: `n/2`. */
function shared(text: string, unit: number, period: number): string {
  if (unit === period) return text
  const parts = /^(\w+) ?\/ ?(\d+)$/.exec(text)
  const whole = parts && Number(parts[2]) === unit ? parts[1] : unit === 1 ? text : undefined
  if (whole === undefined) return `(${text}) * ${unit} / ${period}`
  if (period === 1) return whole
  return /^\w+$|^\w+\([^()]*\)$/.test(whole) ? `${whole}/${period}` : `(${whole}) / ${period}`
}
