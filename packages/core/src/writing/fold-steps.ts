/** Steps that say the same again and again are told once, with how often: what was worked by hand line by line is shorter to read. */
import { type Language, sayCounts } from './language'
import { type Changing, changesIn, sayChanging } from './turns'
import type { Step } from './written-pattern'

/** A step before it has its number. */
export interface Told extends Omit<Step, 'number'> {
  /** By role: what it picks up. */
  readonly counts: Readonly<Record<string, number>>
  /** It may be told with others: nothing else tells how many steps come after it, and nobody has put it in words of their own or has a picture of it. */
  readonly free: boolean
  /** It is told once, not turn by turn. */
  readonly plain: boolean
}

const longestRun = 8
/** Fewer steps less are not worth a reader's going back. */
const minSaved = 2
/** Where numbers change she looks at two lines at once, which takes more to be worth it. */
const minSavedChanging = 3
const maxChanging = 3

interface Run {
  /** Steps that are done again. */
  readonly length: number
  /** The first time counted. */
  readonly times: number
  /** By step of them. */
  readonly changing: readonly (readonly Changing[])[]
}

/** @param first the number of the first of them */
export function foldedSteps(told: readonly Told[], first: number, language: Language): Step[] {
  const steps: Step[] = []
  const add = ({ counts: _, free: __, plain: ___, ...step }: Told) =>
    steps.push({ ...step, number: first + steps.length })
  for (let at = 0; at < told.length; ) {
    const { length, times, changing } = bestRun(told, at)
    const from = first + steps.length
    for (const step of told.slice(at, at + length)) add(step)
    if (times > 1) {
      const rest = told.slice(at + length, at + length * times)
      const [head, last] = [rest[0], rest[rest.length - 1]] as [Told, Told]
      const counts: Record<string, number> = {}
      for (const { counts: each } of rest)
        for (const [role, count] of Object.entries(each)) counts[role] = (counts[role] ?? 0) + count
      const adds = Object.keys(counts).length > 0
      const changes = changing.flatMap((each, k) =>
        each.length > 0 ? [{ step: from + k, changes: each.map(sayChanging) }] : [],
      )
      add({
        ...head,
        text: language.again(from, from + length - 1, times - 1, changes),
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
function bestRun(told: readonly Told[], at: number): Run {
  let best: Run & { saved: number } = { length: 1, times: 1, changing: [], saved: 0 }
  for (let length = 1; length <= longestRun && at + 2 * length <= told.length; length++) {
    for (const run of [sameAgain(told, at, length), changedAgain(told, at, length)]) {
      const saved = length * (run.times - 1) - 1
      const least = run.changing.length > 0 ? minSavedChanging : minSaved
      if (saved >= least && saved > best.saved) best = { ...run, saved }
    }
  }
  return best
}

function sameAgain(told: readonly Told[], at: number, length: number): Run {
  const same = (k: number) => {
    const [one, other] = [told[at + (k % length)], told[at + k]]
    return one?.free && other?.free && one.text === other.text && one.kind === 'stitch'
  }
  let end = 0
  while (at + end < told.length && same(end)) end++
  return { length, times: Math.floor(end / length), changing: [] }
}

/** Worked by hand: rounds and rows are numbered, and ticked one by one. */
function changedAgain(told: readonly Told[], at: number, length: number): Run {
  const free = (step: Told | undefined) => step?.free && step.plain && step.kind === 'stitch' && !step.course
  let end = 0
  while (free(told[at + end])) end++
  let run: Run = { length, times: 1, changing: [] }
  while (length * (run.times + 1) <= end) {
    const times = run.times + 1
    const changing = Array.from({ length }, (_, k) =>
      changesIn(Array.from({ length: times }, (_, turn) => (told[at + k + turn * length] as Told).text)),
    )
    const few = changing.flatMap((each) => each ?? []).length <= maxChanging
    if (!few || changing.includes(undefined)) break
    run = { length, times, changing: changing as (readonly Changing[])[] }
  }
  return run
}
