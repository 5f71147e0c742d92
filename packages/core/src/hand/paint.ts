/** Beads of a piece take other letters: the lines that picked them up are rewritten, and nothing else. */
import { type Choices, evaluatePattern } from '../evaluate/evaluate-pattern'
import type { Line } from '../notation/line'
import { parsePattern } from '../notation/parse'
import { isBlockWord } from '../notation/words'
import type { EvaluatedPattern } from '../report/evaluated-pattern'
import type { StitchMachine } from '../stitch/stitch-machine'
import { type Doing, doingsOf } from './doings'
import { edited, type TextEdit } from './edit-text'
import { relisted } from './relist'
import { SoFar } from './so-far'

export interface Painted {
  readonly text: string
  /** Beads that took another letter; of a line that is worked again and again, in every turn. */
  readonly beads: number
}

/** Why something cannot be painted, with what to do about it. */
export interface NotPainted {
  readonly why: string
}

/**
 * @param wanted the new letter of each bead, by its number
 */
export function paint(source: string, choices: Choices, wanted: ReadonlyMap<number, string>): Painted | NotPainted {
  const before = evaluatePattern(source, choices)
  const fault = errorIn(before)
  if (fault) return { why: `Line ${fault.line} has an error. Fix it first, then go on painting.` }
  const { work, letterOf, report } = before
  const doings = doingsOf(work)
  const letters = (doing: Doing) => doing.beads.map((bead) => wanted.get(bead) ?? letterOf(work.role(bead)))
  const changed = (doing: Doing) =>
    doing.beads.some((bead) => wanted.has(bead) && wanted.get(bead) !== letterOf(work.role(bead)))
  const lines = new Set(
    doings.filter(changed).map(({ statement }) => (report.statements[statement] as { line: number }).line),
  )
  if (lines.size === 0) return { text: source, beads: 0 }

  const parsed = parsePattern(source)
  const edits: TextEdit[] = []
  const unrolled = new Set<number>()
  for (const number of lines) {
    const line = parsed.lines.find((each) => each.number === number) as Line
    const blocks = blocksAround(parsed.lines, number)
    const [block, ...inner] = blocks
    if (inner.length > 0 || (block && block.head.keyword !== 'repeat'))
      return {
        why: `Line ${number} is worked in turns that differ. Write those turns out as lines of their own, then paint them.`,
      }
    const of = (each: Line) => doings.filter(({ statement }) => report.statements[statement]?.line === each.number)
    if (block) {
      if (unrolled.has(block.head.number)) continue
      unrolled.add(block.head.number)
      const machine = machineBefore(source, choices, block.head)
      if ('why' in machine) return machine
      const text = inTurns(source, block, of, letters, changed, machine)
      if (text === undefined) return cannot(number)
      edits.push({ from: block.head.from, to: block.end.to, insert: text })
      continue
    }
    const machine = machineBefore(source, choices, line)
    if ('why' in machine) return machine
    const [first, ...others] = of(line)
    if (!first || others.length > 0)
      return { why: `Line ${number} is worked several times. Paint it in a part that is made once.` }
    const text = relisted(source, line, letters(first), machine)
    if (text === undefined) return cannot(number)
    edits.push({ from: line.from, to: line.to, insert: text })
  }
  return checked(source, edited(source, edits), choices, before, wanted)
}

const errorIn = ({ report }: EvaluatedPattern) => report.diagnostics.find(({ severity }) => severity === 'error')

const cannot = (line: number): NotPainted => ({
  why: `The list of line ${line} cannot be painted bead by bead. Change its letters in the text.`,
})

interface Block {
  readonly head: Line
  readonly body: readonly Line[]
  readonly end: Line
}

/** The repeats that hold a line, the outermost first. Of one that holds others, those count as inner ones too. */
function blocksAround(lines: readonly Line[], number: number): Block[] {
  const open: Line[] = []
  const found: Block[] = []
  for (const line of lines) {
    if (isBlockWord(line.keyword)) open.push(line)
    if (line.keyword !== 'end') continue
    const head = open.pop()
    if (head && head.number < number && line.number > number) {
      const body = lines.filter((each) => each.number > head.number && each.number < line.number)
      found.unshift({ head, body, end: line })
    }
  }
  const [outer] = found
  const nested = outer?.body.find(({ keyword }) => isBlockWord(keyword) || keyword === 'use' || keyword === 'let')
  return outer && nested && found.length === 1 ? [outer, { head: nested, body: [], end: nested }] : found
}

/** A repeat with each of its turns as it is now; turns that are the same stay one repeat. */
function inTurns(
  source: string,
  { head, body, end }: Block,
  doingsOfLine: (line: Line) => readonly Doing[],
  letters: (doing: Doing) => string[],
  changed: (doing: Doing) => boolean,
  machine: StitchMachine,
): string | undefined {
  const turns = Math.max(...body.map((line) => doingsOfLine(line).length))
  const inside = source.slice(head.to, body[0]?.from ?? head.to).replace(/[^\n]*\n/g, '')
  const margin = inside.slice(0, Math.max(0, inside.length - 2))
  const texts: string[] = []
  for (let turn = 0; turn < turns; turn++) {
    const lines: string[] = []
    for (const line of body) {
      const doing = doingsOfLine(line)[turn]
      const text = doing && changed(doing) ? relisted(source, line, letters(doing), machine) : line.text
      if (text === undefined) return undefined
      lines.push(text)
    }
    texts.push(lines.join('\n'))
  }
  // What is said beside the lines of a repeat is said once, above what it has become.
  const out = (source.slice(head.from, end.to).match(/#.*/g) ?? []).map((comment) => `${margin}${comment}`)
  for (let from = 0; from < texts.length; ) {
    let to = from + 1
    while (texts[to] === texts[from]) to++
    const lines = (texts[from] as string).split('\n')
    if (to - from === 1) out.push(...lines.map((each) => `${margin}${each}`))
    else out.push(`${margin}repeat ${to - from}`, ...lines.map((each) => `${margin}  ${each}`), `${margin}end`)
    from = to
  }
  return out.join('\n').slice(margin.length)
}

function machineBefore(source: string, choices: Choices, line: Line): StitchMachine | NotPainted {
  const soFar = SoFar.of(source, choices, line.number - 1)
  return soFar instanceof SoFar ? soFar.machine.copy() : soFar
}

/** Worked anew: every bead must lie where it lay, with the letter that it was to have, and every size that came out must still do so. */
function checked(
  source: string,
  text: string,
  choices: Choices,
  before: EvaluatedPattern,
  wanted: ReadonlyMap<number, string>,
): Painted | NotPainted {
  const after = evaluatePattern(text, choices)
  const { work, letterOf } = after
  const was = before.work
  const same =
    work.passes === was.passes &&
    Array.from({ length: was.passes }, (_, i) => i).every((i) => work.holeAt(i) === was.holeAt(i))
  const fault = errorIn(after)
  if (fault || !same)
    return {
      why: `Painted so, line ${fault?.line ?? 1} would no longer come out${fault ? `: ${fault.message}` : ': another line goes by these letters.'}`,
    }
  let beads = 0
  for (let bead = 0; bead < work.beads; bead++) {
    const [now, then] = [letterOf(work.role(bead)), before.letterOf(was.role(bead))]
    if (now !== (wanted.get(bead) ?? then)) return { why: 'The letters of other beads would change with these.' }
    if (now !== then) beads++
  }
  for (const size of after.report.sizes) {
    const other = errorIn(evaluatePattern(text, { ...choices, size }))
    if (other && !errorIn(evaluatePattern(source, { ...choices, size })))
      return { why: `In size ${size} this does not come out: line ${other.line}: ${other.message}` }
  }
  return { text, beads }
}
