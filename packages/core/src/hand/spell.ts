/** Passes said one by one, as `pick` and `through` lines that do just these and nothing else: what can always be said of a hand's work. */
import { strung } from '../stitch/course'
import { beadOf, wayOf } from '../stitch/hole'
import type { StitchMachine } from '../stitch/stitch-machine'
import { beginsWith, type HandPass } from './hand-pass'
import { type MoveItem, moveList } from './move-list'
import { namesOf } from './place-names'
import { shortRun } from './shorten'
import { SoFar, type Tried } from './so-far'

/**
 * @returns the lines, tried one on the other; none where a bead has no name by which it could be passed in that direction
 */
export function spell(soFar: SoFar, passes: readonly HandPass[]): Tried[] | undefined {
  const lines: Tried[] = []
  let at = soFar
  let rest = passes
  while (rest.length > 0) {
    const next = longestLine(at, rest)
    if (!next) return undefined
    lines.push(next)
    rest = rest.slice(next.passes.length)
    at = SoFar.behind(next)
  }
  return lines
}

/** One line for as many of the first passes as it can say. */
function longestLine(soFar: SoFar, passes: readonly HandPass[]): Tried | undefined {
  const items = itemsOf(soFar.machine, passes)
  for (let count = items.length; count > 0; count--)
    for (const text of textsOf(items.slice(0, count))) {
      const tried = soFar.try(text)
      if (tried && tried.passes.length > 0 && beginsWith(passes, tried.passes)) return tried
    }
  return undefined
}

interface Item extends MoveItem {
  /** As it stands after `through`; undefined where it cannot. */
  readonly through: string | undefined
}

/** Each pass, up to the first that has no name: the names hold where the needle is then. */
function itemsOf(machine: StitchMachine, passes: readonly HandPass[]): Item[] {
  const copy = machine.copy()
  const { work } = copy
  const begun = work.beads
  const items: Item[] = []
  for (const pass of passes) {
    if (pass.type === 'pick') {
      if (work.threads.length === 0) copy.beginThread()
      const text = pass.bore === 1 ? `${pass.role}:2` : pass.role
      items.push({ bead: work.beads, letter: pass.role, pick: true, back: false, text, through: undefined })
      work.pick(copy.roles.numberOf(pass.role, nowhere), 'ring', copy.statement, strung, pass.bore)
      continue
    }
    const { hole: h } = pass
    const bead = beadOf(h)
    if (bead >= work.beads) break
    const names = namesOf(h, copy)
    const faced = names.find((name) => copy.facing(name.hole) === h)
    const turned = names.find((name) => (name.hole ^ 1) === h)
    const straight = names.find((name) => name.hole === h)
    const through = faced ? faced.text : turned ? `<${turned.text}` : straight && `>${straight.text}`
    const back = bead >= begun && wayOf(h) === -1
    if (!through && !back) break
    items.push({
      bead,
      letter: copy.letterOfBead(bead),
      pick: false,
      back,
      text: faced && `>${faced.text}`,
      through,
    })
    work.pass(h, 'ring', copy.statement)
  }
  return items
}

const nowhere = { from: 0, to: 1 }

function* textsOf(items: readonly Item[]): Iterable<string> {
  if (items[0]?.pick) {
    const list = moveList(items)
    if (list) yield `pick ${shortRun(list)}`
  }
  if (items.every(({ through }) => through !== undefined)) {
    const names = items.map(({ through }) => through as string)
    const ranges = inRanges(names)
    if (ranges.length < names.length) yield `through ${ranges.join(' ')}`
    yield `through ${names.join(' ')}`
  }
}

/** `base[3], base[4], base[5]` to `base[3..5]`, up or down. */
function inRanges(names: readonly string[]): string[] {
  const places = names.map((name) => /^(\w+)\[(\d+)\]$/.exec(name))
  const ranges: string[] = []
  for (let from = 0; from < names.length; ) {
    const first = places[from]
    let to = from + 1
    const step = first && places[to]?.[1] === first[1] ? Number(places[to]?.[2]) - Number(first[2]) : 0
    if (first && Math.abs(step) === 1)
      while (places[to]?.[1] === first[1] && Number(places[to]?.[2]) === Number(first[2]) + step * (to - from)) to++
    ranges.push(to - from > 1 ? `${first?.[1]}[${first?.[2]}..${places[to - 1]?.[2]}]` : (names[from] as string))
    from = to
  }
  return ranges
}
