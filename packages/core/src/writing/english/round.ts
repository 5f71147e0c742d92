/** A round or a row, in English: what each stitch picks up, what it passes, how often, and where the thread is then. */
import { type Action, type IntoTold, type StitchTold, widthOf } from '../../stitch/action'
import type { PlaceTold } from '../../stitch/place-told'
import { equalRuns } from '../../stitch/runs'
import { called, list, moveWords, sayRun, sayTimes } from './moves'
import { placeWords } from './places'

type Round = Extract<Action, { type: 'round' }>

export function round(action: Round): string {
  const { cycle, stitches, turns, name } = action
  const kind = action.closed ? `${action.edge === 'front' ? 'Front' : 'Back'} round` : 'Row'
  const head = action.round > 0 ? `${kind} ${action.round}` : kind
  const on = passOn(action)
  const [only] = cycle
  const told =
    cycle.length === 1 && only && only.over === 1 && !only.skips && action.into.type !== 'spread'
      ? `${on.startsWith('skip') ? [...picking(only), on].join(', ') : list([...picking(only), on])}; ${sayTimes(stitches)} in all.`
      : `${cycle.map(stitch).join(', then ')}; ${turns === 1 ? '' : `${sayTimes(turns)}, `}${stitches} stitches in all. At the end of each stitch, ${on}.`
  const atFirst =
    action.into.type === 'gaps' && action.fresh === 'the first time'
      ? ` The first time, ${skipping(widthOf(action))} instead.`
      : ''
  const tail = stitches === action.standing ? '' : ` ${action.standing} beads or groups now stand up.`
  return `${head}: ${told}${atFirst} ${ending(action)}${tail}${called(name)}`
}

const picking = (told: StitchTold): string[] => {
  const words = moveWords(told.moves)
  if (words.length > 0) words[words.length - 1] += standing(told)
  return words
}

const standing = ({ standing }: StitchTold) =>
  standing
    ? ` (of these only ${standing.length === 1 ? `bead ${standing[0]} stands` : `beads ${list(standing.map(String))} stand`} up)`
    : ''

/** One of several kinds of stitch: "3 stitches with 1 C each", "1 decrease". */
function stitch(told: StitchTold): string {
  const { moves, times, over, skips } = told
  const taken = skips
    ? `, for which you skip ${skips} beads`
    : over > 1
      ? `, taken over ${over} (pass the first ${over === 2 ? '' : `${over - 1} `}by)`
      : ''
  if (moves.length === 0) return (times === 1 ? '1 decrease' : `${times} decreases`) + taken
  const many = times === 1 ? '1 stitch' : `${times} stitches`
  const [only] = moves
  return moves.length === 1 && only?.type === 'pick'
    ? `${many} with ${sayRun(only.beads)}${times === 1 ? '' : ' each'}${standing(told)}${taken}`
    : `${many} in which you ${list(picking(told))}${taken}`
}

const skipping = (wide: number) =>
  wide > 1 ? `skip ${wide} beads and pass through the next ${wide}` : 'skip one bead and pass through the next'

/** What a stitch passes at its end. */
function passOn(action: Round): string {
  const { into, fresh } = action
  if (into.type === 'gaps' && fresh === true) return skipping(widthOf(action))
  switch (into.type) {
    case 'gaps':
      return into.wide === 1
        ? 'pass through the next bead that stands up'
        : into.wide
          ? `pass through the next ${into.wide} beads that stand up`
          : 'pass through the next bead that stands up, or through all of them where several stand up together'
    case 'every': {
      const of = everyOf(into)
      return into.each === 1
        ? `pass through the next bead of ${of}`
        : `skip ${into.each === 2 ? 'one bead' : `${into.each - 1} beads`} of ${of} and pass through the next`
    }
    case 'spread':
      return `count on along ${everyOf(into)} and pass through the bead that you come to: ${stepsWords(into.steps)}`
    case 'group': {
      const of = into.name ? ` of the ${into.name}` : ''
      if (into.nth !== 'middle') return `pass through bead ${into.nth} of the next group${of}`
      return into.of && into.of % 2 === 0
        ? `pass through bead ${into.of / 2} of the next group of ${into.of}${of}`
        : `pass through the middle bead of the next group${of}`
    }
    case 'bore':
      return 'pass through the other hole of the next bead'
    case 'target':
      return `pass through the next ${into.targets.map(nextOf).join(', after those ')}`
  }
}

/** "A", or "of the wall". */
const nextOf = (target: PlaceTold) =>
  'role' in target.base && target.steps.length === 0 ? target.base.role : `of ${placeWords(target)}`

/** "3 times 6 beads, then 7": from stitch to stitch. */
const stepsWords = (steps: readonly number[]) =>
  equalRuns(steps)
    .map(({ value, times }) => `${times === 1 ? '' : `${sayTimes(times)} `}${value} ${value === 1 ? 'bead' : 'beads'}`)
    .join(', then ')

function everyOf({ of }: Extract<IntoTold, { type: 'every' | 'spread' }>): string {
  switch (of) {
    case 'ring':
    case 'row':
      return `the ${of}`
    case 'round':
      return 'the last round'
    case 'rail':
      return 'this edge'
    default:
      return placeWords(of)
  }
}

function ending({ ends, upThrough, upPast }: Round): string {
  switch (ends) {
    case 'steps up': {
      const added = `through the first ${upThrough === 1 ? 'bead' : `${upThrough} beads`} added`
      return upPast === 0
        ? `Step up ${added}.`
        : `Step up: pass again through what the first ${upPast === 1 ? 'stitch' : `${upPast} stitches`} passed, and ${added}.`
    }
    case 'stays':
      return 'Do not step up.'
    case 'runs on':
      return 'There is no step up: the rounds run on in a spiral.'
    case 'turns':
      return 'Turn.'
    case 'turned in':
      return 'The last has no bead to go into: catch the thread at the edge and go back through it. Turn.'
  }
}
