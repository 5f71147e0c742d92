/** Sentences of one line that is done several times: told once, with the numbers that change. */

export interface Changing {
  /** Of each turn. */
  readonly numbers: readonly number[]
  /** What follows the number: "B", "stitches". */
  readonly of: string
}

const number = /\d+/g

/**
 * @param sentences of each turn, in order
 * @returns what changes from the first to the others, where nothing but numbers does
 */
export function changesIn(sentences: readonly string[]): Changing[] | undefined {
  const [first] = sentences
  if (first === undefined) return undefined
  const skeleton = first.replace(number, '#')
  if (sentences.some((sentence) => sentence.replace(number, '#') !== skeleton)) return undefined
  const rows = sentences.map((sentence) => [...sentence.matchAll(number)].map(([digits]) => Number(digits)))
  const afters = skeleton.split('#').slice(1)
  return afters.flatMap((after, at) => {
    const numbers = rows.map((row) => row[at] as number)
    const same = numbers.every((each) => each === numbers[0])
    return same ? [] : [{ numbers, of: unlessSmall(/^[ -]*([\p{L}]*)/u.exec(after)?.[1] ?? '') }]
  })
}

/** "Bead 3 of the wall": what follows is no name of what is counted. */
const unlessSmall = (word: string) => (['of', 'von', 'and', 'und'].includes(word) ? '' : word)

/** More than so many numbers in even steps are told by the first three and the last. */
const mostTold = 6

/** "1, 2, 3, 4, 5 B"; "2, 4, 6 ... 40 C". */
export function sayChanging({ numbers, of }: Changing): string {
  const step = (numbers[1] ?? 0) - (numbers[0] ?? 0)
  const even = numbers.every((each, i) => i === 0 || each - (numbers[i - 1] as number) === step)
  const told =
    even && numbers.length > mostTold
      ? `${numbers.slice(0, 3).join(', ')} ... ${numbers[numbers.length - 1]}`
      : numbers.join(', ')
  return `${told} ${of}`.trim()
}
