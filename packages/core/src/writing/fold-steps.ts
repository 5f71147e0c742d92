/** Steps that say the same again and again are told once, with how often: what was worked by hand line by line is shorter to read. */
import { type Language, sayCounts } from './language'
import type { Step } from './written-pattern'

/** A step before it has its number. */
export interface Told extends Omit<Step, 'number'> {
  /** By role: what it picks up. */
  readonly counts: Readonly<Record<string, number>>
  /** It may be told with others: nothing else tells how many steps come after it, and nobody has put it in words of their own or has a picture of it. */
  readonly free: boolean
}

const longestRun = 8
/** Fewer steps less are not worth a reader's going back. */
const minSaved = 2

/** @param first the number of the first of them */
export function foldedSteps(told: readonly Told[], first: number, language: Language): Step[] {
  const steps: Step[] = []
  const add = ({ counts: _, free: __, ...step }: Told) => steps.push({ ...step, number: first + steps.length })
  for (let at = 0; at < told.length; ) {
    const { length, times } = bestRun(told, at)
    const from = first + steps.length
    for (const step of told.slice(at, at + length)) add(step)
    if (times > 1) {
      const rest = told.slice(at + length, at + length * times)
      const [head, last] = [rest[0], rest[rest.length - 1]] as [Told, Told]
      const counts: Record<string, number> = {}
      for (const { counts: each } of rest)
        for (const [role, count] of Object.entries(each)) counts[role] = (counts[role] ?? 0) + count
      const adds = Object.keys(counts).length > 0
      add({
        ...head,
        text: language.again(from, from + length - 1, times - 1),
        begins: '',
        added: adds ? sayCounts(counts) : '',
        running: adds ? (rest.findLast(({ running }) => running !== '')?.running ?? '') : '',
        looks: last.looks,
        pictures: [],
        times: times - 1,
      })
    }
    at += length * times
  }
  return steps
}

/** How many steps from here on come again at once, and how often: those that save most. */
function bestRun(told: readonly Told[], at: number): { length: number; times: number } {
  let best = { length: 1, times: 1, saved: minSaved - 1 }
  for (let length = 1; length <= longestRun && at + 2 * length <= told.length; length++) {
    const same = (k: number) => {
      const [one, other] = [told[at + (k % length)], told[at + k]]
      return one?.free && other?.free && one.text === other.text && one.kind === 'stitch'
    }
    let end = 0
    while (at + end < told.length && same(end)) end++
    const times = Math.floor(end / length)
    const saved = length * (times - 1) - 1
    if (times > 1 && saved > best.saved) best = { length, times, saved }
  }
  return best
}
