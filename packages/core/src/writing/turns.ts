/** Sentences of one line that is done several times: told once, with the numbers that change. */

export interface Changing {
  /** Of each turn. */
  readonly numbers: readonly number[]
  /** What follows the number: "B", "stitches". */
  readonly of: string
}

const number = /\d+/g
const skeletonOf = (sentence: string) => sentence.replace(number, '#')

/**
 * @param sentences of each turn, in order
 * @returns what changes from the first to the others, where nothing but numbers does and each is told from those that stay
 */
export function changesIn(sentences: readonly string[]): Changing[] | undefined {
  const [first] = sentences
  if (first === undefined) return undefined
  const skeleton = skeletonOf(first)
  if (sentences.some((sentence) => skeletonOf(sentence) !== skeleton)) return undefined
  const rows = sentences.map((sentence) => [...sentence.matchAll(number)].map(([digits]) => Number(digits)))
  const told = skeleton
    .split('#')
    .slice(1)
    .map((after, at): Changing => {
      const numbers = rows.map((row) => row[at] as number)
      return { numbers, of: unlessSmall(/^[ -]*([\p{L}]*)/u.exec(after)?.[1] ?? '') }
    })
  const changing: Changing[] = []
  /** Numbers that stay, since the last that changes: "2 beads" of them is not told from "2, 3 beads". */
  let staying: Changing[] = []
  for (const each of told) {
    if (each.numbers.every((number) => number === each.numbers[0])) {
      staying.push(each)
      continue
    }
    if (staying.some(({ numbers, of }) => numbers[0] === each.numbers[0] && (each.of === '' || of === each.of)))
      return undefined
    changing.push(each)
    staying = []
  }
  return changing
}

/** "Bead 3 of the wall": what follows is no name of what is counted. */
const unlessSmall = (word: string) =>
  ['of', 'von', 'and', 'und', 'de', 'et', 'à', 'van', 'en', 'tot'].includes(word) ? '' : word

/** More than so many numbers in even steps are told by the first three and the last. */
const maxTold = 6

/** "1, 2, 3, 4, 5 B"; "2, 4, 6 ... 40 C". */
export function sayChanging({ numbers, of }: Changing): string {
  const step = (numbers[1] ?? 0) - (numbers[0] ?? 0)
  const even = numbers.every((each, i) => i === 0 || each - (numbers[i - 1] as number) === step)
  const told =
    even && numbers.length > maxTold
      ? `${numbers.slice(0, 3).join(', ')} ... ${numbers[numbers.length - 1]}`
      : numbers.join(', ')
  return `${told} ${of}`.trim()
}

export interface Stretch {
  /** Turns from 0, both counted. */
  readonly from: number
  readonly to: number
  /** What is told of the first of them. */
  readonly first: string
  readonly changing: readonly Changing[]
}

/** Turns one after the other of which the same is told but for numbers, as many together as can be. */
export function stretchesOf(sentences: readonly string[]): Stretch[] {
  const stretches: Stretch[] = []
  for (let from = 0; from < sentences.length; ) {
    const skeleton = skeletonOf(sentences[from] as string)
    let to = from
    while (to + 1 < sentences.length && skeletonOf(sentences[to + 1] as string) === skeleton) to++
    const alike = sentences.slice(from, to + 1)
    const changing = changesIn(alike)
    if (changing) stretches.push({ from, to, first: alike[0] as string, changing })
    else for (const [i, first] of alike.entries()) stretches.push({ from: from + i, to: from + i, first, changing: [] })
    from = to + 1
  }
  return stretches
}
