/** What every language is read by. */
import { type Beads, type Instruction, NotUnderstood, type Stitch } from './instructions'

export const readBeads = (text: string, and: string): Beads =>
  text.split(new RegExp(`, | ${and} `)).flatMap((run) => {
    const [, count, letter] = /^(\d+) (\p{Lu}\w*)$/u.exec(run) ?? []
    if (letter === undefined) throw new NotUnderstood(run)
    return Array<string>(Number(count)).fill(letter)
  })
export const stitchesOf = (
  list: readonly { readonly stitch: Stitch; readonly times: number }[],
  turns: number,
): Stitch[] =>
  Array.from({ length: turns }, () => list.flatMap(({ stitch, times }) => Array<Stitch>(times).fill(stitch))).flat()

/** How a language says what comes at the end of a round. */
export interface EndingWords {
  readonly standing: RegExp
  /** The first to be found is meant; groups are how many beads it steps up through, after how many stitches it passes again. */
  readonly endings: readonly (readonly [RegExp, RoundTold['ends'] | 'past, then up'])[]
  readonly firstTime: RegExp
}

type RoundTold = Extract<Instruction, { type: 'round' }>

/** What is said before the end of a round, and what the end says. */
export function readEnding(
  text: string,
  { standing, endings, firstTime }: EndingWords,
): { readonly rest: string; readonly first: string | undefined } & Pick<RoundTold, 'ends' | 'upThrough' | 'upPast'> {
  let rest = text
  const taken = (pattern: RegExp) => {
    const it = pattern.exec(rest)
    if (it) rest = rest.slice(0, it.index)
    return it
  }
  taken(standing)
  for (const [pattern, said] of endings) {
    const it = taken(pattern)
    if (!it) continue
    const first = taken(firstTime)?.[1]
    if (said !== 'past, then up') return { rest, first, ends: said, upThrough: Number(it[1] ?? 1), upPast: 0 }
    return { rest, first, ends: 'steps up', upThrough: Number(it[2] ?? 1), upPast: Number(it[1] ?? 1) }
  }
  throw new NotUnderstood(text)
}

/** What is told turn by turn, or of several with what changes. */
export function told(text: string, heads: RegExp, changing: RegExp): readonly string[] {
  const found = [...text.matchAll(heads)]
  const stretches =
    found[0]?.index === 0
      ? found.map((head, i) => ({
          said: text.slice(head.index + head[0].length, found[i + 1]?.index ?? text.length),
          turns: Number(head[2] ?? head[1]) - Number(head[1]) + 1,
        }))
      : [{ said: text, turns: 1 }]
  return stretches.flatMap(({ said, turns }) => {
    const changes = changing.exec(said)
    return changes ? changed(changes[1] as string, changes[2] as string) : Array<string>(turns).fill(said)
  })
}

/** What is said of single steps behind "again": "In step 4, turn by turn: 3, 6, 9." */
export function changingSteps(text: string, said: RegExp): readonly { step: number; changes: string }[] {
  const behind = text.slice(text.indexOf('.') + 1)
  if (behind.replace(said, '') !== '') throw new NotUnderstood(text)
  return [...behind.matchAll(said)].map(([, step, changes]) => ({ step: Number(step), changes: changes as string }))
}

/** A sentence of which numbers change from turn to turn: "1, 2, 3 B; 2, 4, 6 ... 20". */
export function changed(sentence: string, changes: string): readonly string[] {
  const rows = changes.split('; ').map((change) => {
    const [, told, of] = /^([\d, .]+?)(?: ([\p{L}]+))?$/u.exec(change) as RegExpExecArray
    const [shown, last] = (told as string).split(' ... ') as [string, string | undefined]
    const numbers = shown.split(', ').map(Number)
    const step = (numbers[1] as number) - (numbers[0] as number)
    while (last !== undefined && numbers.at(-1) !== Number(last)) numbers.push((numbers.at(-1) as number) + step)
    return { numbers, of: of ?? '' }
  })
  const count = rows[0]?.numbers.length ?? 0
  return Array.from({ length: count }, (_, turn) => {
    let said = ''
    let rest = sentence
    for (const { numbers, of } of rows) {
      const it = new RegExp(`(?<!\\d)${numbers[0]}(?!\\d)(?=${of ? ` ?-?${of}` : ''})`).exec(rest)
      if (!it) throw new NotUnderstood(`${sentence} / ${changes}`)
      said += rest.slice(0, it.index) + String(numbers[turn])
      rest = rest.slice(it.index + it[0].length)
    }
    return said + rest
  })
}
