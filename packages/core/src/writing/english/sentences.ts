/** The sentences of a written pattern, in English: one for each thing a statement can do. */
import { type Action, type CautionAbout, type MoveTold, plainRing, readsOtherwiseBackwards } from '../../stitch/action'
import { beadsOf, type PlaceTold } from '../../stitch/place-told'
import type { Run } from '../../stitch/runs'
import type { ThreadSettings } from '../../thread/settings'
import { capital } from '../language'
import { placeWords } from './places'

export const sayRun = (runs: readonly Run[]): string => list(runs.map((run) => `${run.count} ${run.role}`))

export const list = (parts: readonly string[]): string =>
  parts.length < 2 ? parts.join('') : `${parts.slice(0, -1).join(', ')} and ${parts[parts.length - 1]}`

export const sayTimes = (times: number): string => (times === 1 ? 'once' : times === 2 ? 'twice' : `${times} times`)

/** What heads a repeat, over so many steps. */
export function repeatSentence(steps: number, times: readonly number[], places: boolean): string {
  const what = steps === 1 ? 'the next step' : `the next ${steps} steps, one after the other`
  if (places)
    return `Do ${what}, at each of ${list(times.map(String))} places, weaving from one to the next by the shortest way.`
  const comma = steps === 1 ? '' : ','
  const [only] = times
  if (times.length === 1 && only !== undefined) return `Do ${what}${comma} ${sayTimes(only)} in all.`
  return `Do ${what}${comma} ${times.map((each, i) => `${sayTimes(each)} in turn ${i + 1}`).join(', ')}.`
}

/** @returns undefined for a line that a stitcher need not be told of */
export function sentenceFor(action: Action, settings: ThreadSettings): string | undefined {
  switch (action.type) {
    case 'ring': {
      const { pattern, times } = plainRing(action)
      const repeats = times === 1 ? '' : `, ${sayTimes(times)}`
      return `String ${action.beads} beads: pick up ${sayRun(pattern)}${repeats}. ${closing(action.closing)}`
    }
    case 'round':
      return round(action)
    case 'other edge':
      return `Weave ${through(action.passed)} to the ${action.edge} edge, following the thread already there, and come out of a bead that stands up.`
    case 'to':
      return action.passed === 0
        ? `The needle is at ${place(action.target)} already.`
        : `Weave ${through(action.passed)} to ${place(action.target)}.`
    case 'place':
      return `Lay the stone ${action.role} in, face to the front, and draw the thread up snug round it.`
    case 'loop': {
      const again =
        action.over > 1
          ? `the last ${action.over} beads the needle came through`
          : `the ${action.through} the needle came out of`
      const name = action.name ? ` This is the ${action.name}.` : ''
      return `Pick up ${sayRun(action.beads)} and pass ${action.back ? 'back down' : 'again, the same way, through'} ${again}, to make a loop.${name}`
    }
    case 'reinforce':
      return `Pass through the beads of that ${action.what} ${action.times === 1 ? 'once' : `${sayTimes(action.times)}`} more, without picking up any, and pull up firmly but never force the needle.`
    case 'string':
      return `String ${sayRun(action.beads)}${action.name ? ` (the ${action.name})` : ''}, and hold them with a stop bead.`
    case 'pick':
      return action.moves.length === 0
        ? `Pick up ${sayRun(action.beads)}${action.name ? ` (the ${action.name})` : ''}.`
        : `${capital(list(action.moves.map(move)))}${action.name ? ` (this is the ${action.name})` : ''}.`
    case 'through':
      return `Pass ${list(action.targets.map(passing))}.`
    case 'turn':
      return 'Turn: go over into the other hole of the same bead and come back through it.'
    case 'turn over':
      return `Turn the work over: its ${action.face} is toward you now.`
    case 'hangs':
      return `It hangs from ${place(action.target)}.`
    case 'under':
      return 'Catch the bridge of thread between the beads below.'
    case 'go':
      return action.back
        ? `Go back ${through(action.beads)}, the way the thread came.`
        : `Step on through the next ${action.beads === 1 ? 'bead' : `${action.beads} beads`} of it.`
    case 'weave':
      return `Weave ${action.units} right-angle unit${action.units === 1 ? '' : 's'}: for each pick up ${sayRun(action.beads)}, pass again through the bead shared with the unit before, and step on to the bead opposite.${
        action.units > 1 && readsOtherwiseBackwards(action.beads)
          ? ` For every second unit pick them up in the opposite order, ${sayRun([...action.beads].reverse())}, so that each edge keeps its bead.`
          : ''
      }`
    case 'join':
      return action.beads.length > 0
        ? `Join to ${place(action.target)}: pick up the first half of ${sayRun(action.beads)}, pass through it, pick up the rest and pass through the bead the needle came out of.`
        : `Join to ${place(action.target)}: pass through it and back through the bead the needle came out of.`
    case 'stand':
      return stand(action)
    case 'fringe':
      return fringe(action)
    case 'rail':
      return undefined
    case 'attach':
      return `Attach ${action.item} to ${place(action.target)}.`
    case 'caution':
      return cautionAbout[action.about]
    case 'repeat':
      return undefined
    case 'new thread':
      return 'End this thread and begin a new one where it came out.'
    case 'finish':
      return ending(settings)
    case 'check':
    case 'note':
      return action.text
    case 'let':
      return undefined
  }
}

const through = (beads: number) => `through ${beads} bead${beads === 1 ? '' : 's'}`

const place = placeWords

/** Of several beads, how many. */
const passing = (target: PlaceTold & { readonly back?: boolean }) =>
  `${target.back ? 'back through' : 'through'} ${placeWords(target)}${beadsOf(target) > 1 ? ` (${beadsOf(target)} beads)` : ''}`

function move(told: MoveTold): string {
  switch (told.type) {
    case 'pick':
      return `pick up ${sayRun(told.beads)}`
    case 'pass':
      return `pass ${passing(told.target)}`
    case 'back':
      return `go back through the last ${told.count === 1 ? '' : `${told.count} `}${told.role ?? (told.count === 1 ? 'bead' : 'beads')}`
  }
}

function round(action: Extract<Action, { type: 'round' }>): string {
  const name = action.closed ? `${action.edge === 'front' ? 'Front' : 'Back'} round` : 'Row'
  const head = action.round > 0 ? `${name} ${action.round}` : name
  const into = anchorWords[action.into]
  const wide = action.cycle[0]?.beads.reduce((sum, { count }) => sum + count, 0) ?? 1
  const skipping =
    wide > 1 ? `skip ${wide} beads and pass through the next ${wide}` : 'skip one bead and pass through the next'
  const skips = action.into === 'gaps' && action.fresh === true
  const atFirst = action.into === 'gaps' && action.fresh === 'the first time' ? ` The first time, ${skipping}.` : ''
  const [only] = action.cycle
  const tail = action.stitches === action.standing ? '' : ` ${action.standing} beads or groups now stand up.`
  const stepUp = {
    'steps up': `Step up through the first ${action.upThrough === 1 ? 'bead' : `${action.upThrough} beads`} added.`,
    stays: 'Do not step up.',
    'runs on': 'There is no step up: the rounds run on in a spiral.',
    turns: 'Turn.',
    'turned in': 'The last has no bead to go into: catch the thread at the edge and go back through it. Turn.',
  }[action.ends]
  if (action.cycle.length === 1 && only) {
    return `${head}: pick up ${sayRun(only.beads)}${skips ? `, ${skipping}` : ` and pass through ${into}`}; ${sayTimes(action.stitches)} in all.${atFirst} ${stepUp}${tail}`
  }
  const parts = action.cycle.map(({ beads, times, over }) =>
    over > 1
      ? `pick up ${sayRun(beads)} and take the stitch over ${over} beads`
      : beads.length === 0
        ? `${skips ? skipping : `pass through ${into}`} without picking up any${times === 1 ? '' : `, ${sayTimes(times)}`} (a decrease)`
        : `pick up ${sayRun(beads)} in ${times === 1 ? 'the next stitch' : `each of the next ${times} stitches`}`,
  )
  const turns = action.turns === 1 ? 'once round' : `${sayTimes(action.turns)} round`
  const each = skips ? ` In each stitch ${skipping}.` : atFirst
  return `${head}: ${parts.join(', then ')}; ${turns}, ${action.stitches} stitches in all.${each} ${stepUp}${tail}`
}

/** What a round passes through, by what its anchors are. */
const anchorWords: Readonly<Record<Extract<Action, { type: 'round' }>['into'], string>> = {
  gaps: 'the next bead that stands up',
  every: 'the next bead in its turn',
  middles: 'the middle bead of the next group',
  nth: 'the next group at its bead',
  bore: 'the other hole of the next bead',
  target: 'the next of the beads named',
}

function stand(action: Extract<Action, { type: 'stand' }>): string {
  const where = action.row ? 'on the row below' : 'round the core'
  const more =
    action.increases > 0
      ? ` That is ${action.increases} more than the row below: spread them evenly, and not at the first or last bead.`
      : ''
  return `Stand ${action.stitches} ${action.role} ${where}: for each pick up one, catch the thread below and come back up through it; draw the last to the first by going down and up through it.${more}`
}

function fringe({ strands, keep }: Extract<Action, { type: 'fringe' }>): string {
  const one = ({ beads, end }: (typeof strands)[number]) =>
    sayRun(beads) + (end.length > 0 ? `, then ${sayRun(end)}` : '')
  const [first] = strands
  const same = first && strands.every((strand) => one(strand) === one(first))
  const told = first && same ? one(first) : strands.map((strand, i) => `${i + 1}: ${one(strand)}`).join('; ')
  const turning = first && first.end.length > 0 ? 'past the end beads' : 'past the last bead'
  const kept = keep > 0 ? `, leaving out the top ${keep}` : ''
  const many = strands.length > 1 ? `Hang ${strands.length} strands. ` : ''
  return `${many}Pick up ${told}; go back up the strand ${turning}${kept}.`
}

const cautionAbout: Readonly<Record<CautionAbout, string>> = {
  flame:
    'Take care: a burner or lighter burns. Keep it from hair, fabric and children, air the room, and use none where the venue forbids flames.',
  glue: 'Take care: air the room and follow the label of the glue.',
  pliers: 'Take care: glass may break. Wear eye protection when you use pliers.',
  magnet: 'Take care: keep magnets from young children and from implanted medical devices.',
  nickel: 'Take care: some people do not bear nickel or other metals on the skin.',
}

function closing(way: ThreadSettings['closing']): string {
  switch (way) {
    case 'pass again':
      return 'Pass through all of them again to close the ring.'
    case 'knot':
      return 'Tie the ends in a square knot to close the ring.'
    case 'knot and pass again':
      return 'Tie the ends in a square knot and pass through all of them again.'
    case 'stop bead':
      return 'Hold the ring closed with a stop bead, and tie it off at the end.'
  }
}

function ending(settings: ThreadSettings): string {
  const hitches = `${settings.hitchesPerEnd} half hitches`
  switch (settings.ending) {
    case 'hitch and weave':
      return `Weave in both ends, with ${hitches} between beads on the way, and trim.`
    case 'weave':
      return 'Weave in both ends, turning twice on the way, and trim.'
    case 'melt':
      return `Weave in both ends with ${hitches}, trim, and seal the ends with a thread burner.`
    case 'glue':
      return `Weave in both ends with ${hitches}, set the last with a drop of glue, and trim when it is dry.`
  }
}
