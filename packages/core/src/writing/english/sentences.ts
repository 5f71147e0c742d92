/** The sentences of a written pattern, in English: one for each thing a statement can do. */
import { counted } from '../../measure/counted'
import { type Action, type CautionAbout, plainRing, readsOtherwiseBackwards } from '../../stitch/action'
import type { PlaceTold } from '../../stitch/place-told'
import { beadsIn, halves } from '../../stitch/runs'
import type { ThreadSettings } from '../../thread/settings'
import { capital } from '../language'
import { strandsTold } from '../strands'
import { called, list, moveWords, passing, sayRun, sayTimes } from './moves'
import { placeWords } from './places'
import { round } from './round'

/** What heads a repeat, over so many steps. */
export function repeatSentence(steps: number, times: readonly number[], at: PlaceTold | undefined): string {
  const what = steps === 1 ? 'the next step' : `the next ${steps} steps, one after the other`
  if (at)
    return `Do ${what}, at each of ${list(times.map(String))} places (${placeWords(at, 'each')}), weaving from one to the next by the shortest way.`
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
      return `String ${action.beads} beads: pick up ${sayRun(pattern)}${repeats}. ${closing(action.closing)}${called(action.name)}`
    }
    case 'round':
      return round(action)
    case 'square':
      return `Row ${action.round} in square stitch, ${action.stitches === 1 ? '1 stitch' : `${action.stitches} stitches`}: pick up ${action.cycle.map(sayRun).join(', then ')}${action.turns === 1 ? '' : `; ${sayTimes(action.turns)} in turn`}. After each stitch, go through as many beads of the row below, the way that row was worked, and again through what you have just picked up. Turn.${called(action.name)}`
    case 'other edge':
      return `Weave ${through(action.passed)} to the ${action.edge} edge, following the thread already there, and come out of a bead ${action.fresh ? 'of the ring' : 'that stands up'}.`
    case 'to':
      return action.passed === 0
        ? `The needle is at ${place(action.target)} already.`
        : `Weave ${through(action.passed)} to ${place(action.target)}.`
    case 'place':
      if (action.another) return `Draw this ring of ${action.another} up snug round the stone ${action.role}, too.`
      return `Lay the stone ${action.role} in, face to the front, and draw the thread up snug round it.`
    case 'loop': {
      const again =
        action.over > 1
          ? `the last ${action.over} beads the needle came through`
          : `the ${action.through} the needle came out of`
      return `Pick up ${sayRun(action.beads)} and pass ${action.back ? 'back down' : 'again, the same way, through'} ${again}, to make a loop.${called(action.name)}`
    }
    case 'reinforce':
      return `Pass through the beads of that ${action.what} ${action.times === 1 ? 'once' : `${sayTimes(action.times)}`} more, without picking up any, and pull up firmly but never force the needle.`
    case 'string':
      return `String ${sayRun(action.beads)}, and hold them with a stop bead.${called(action.name)}`
    case 'pick':
      return `${action.moves.length === 0 ? `Pick up ${sayRun(action.beads)}` : capital(list(moveWords(action.moves)))}.${called(action.name)}`
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
        ? `Go round the bead the needle came out of and back through the ${action.beads === 1 ? 'bead' : `${action.beads} beads`} before it, the way the thread came.`
        : `Step on through the next ${action.beads === 1 ? 'bead' : `${action.beads} beads`} of it.`
    case 'weave': {
      const each = beadsIn(action.beads)
      return `Weave ${counted(action.units, 'right-angle unit')}: ${
        action.begins ? `first pick up 1 ${action.begins}, which the first unit shares; ` : ''
      }for each pick up ${sayRun(action.beads)}, pass again through the bead shared with the unit before, ${action.twice ? 'go round all of these once more, ' : ''}and go on through the first ${sayBeads(Math.ceil(each / 2))} of those just picked up.${
        action.units > 1 && readsOtherwiseBackwards(action.beads)
          ? ` For every second unit pick them up in the opposite order, ${sayRun([...action.beads].reverse())}, so that each edge keeps its bead.`
          : ''
      }${called(action.name)}`
    }
    case 'join': {
      const [first, second] = halves(action.beads)
      return `Join to ${place(action.target)}: ${list([
        ...(first.length > 0 ? [`pick up ${sayRun(first)}`] : []),
        action.back ? 'pass back through it' : 'pass through it',
        ...(second.length > 0 ? [`pick up ${sayRun(second)}`] : []),
        'pass again through the bead the needle came out of',
      ])}.`
    }
    case 'stand':
      return stand(action)
    case 'fringe':
      return fringe(action)
    case 'rail':
      return `The next rounds go into ${action.targets.map((target) => placeWords(target, 'each')).join(', then ')} (${sayBeads(action.beads)}), from the needle on. This is the ${action.name}.`
    case 'attach':
      return `Attach ${action.item} to ${place(action.target)}.`
    case 'caution':
      return cautionAbout[action.about]
    case 'repeat':
      return undefined
    case 'new thread':
      if (action.tail) return 'Leave this thread hanging, thread the needle with its tail, and go on with that.'
      return action.at
        ? `End this thread and begin a new one through ${place(action.at)}.`
        : 'End this thread and begin a new one through the bead where it came out.'
    case 'finish':
      return ending(action.ending, settings)
    case 'check':
    case 'note':
      return action.text
    case 'let':
      return undefined
  }
}

const sayBeads = (beads: number) => counted(beads, 'bead')

const through = (beads: number) => `through ${sayBeads(beads)}`

const place = placeWords

function stand(action: Extract<Action, { type: 'stand' }>): string {
  const where = action.row ? 'on the row below' : 'round the core'
  const more =
    action.increases > 0
      ? ` That is ${action.increases} more than the row below: spread them evenly, and not at the first or last bead.`
      : ''
  return `Stand ${action.stitches} ${action.role} ${where}: for each pick up one, catch the thread below and come back up through it; draw the last to the first by going down and up through it.${more}${called(action.name)}`
}

function fringe({ strands, keep, between, into, fromEnd, name }: Extract<Action, { type: 'fringe' }>): string {
  const told = strandsTold(strands, ({ beads, end }) => sayRun(beads) + (end.length > 0 ? `, then ${sayRun(end)}` : ''))
  const ends = beadsIn(strands[0]?.end ?? [])
  const turning = ends === 0 ? 'past the last bead' : ends === 1 ? 'past the end bead' : 'past the end beads'
  const kept = keep > 0 ? `, leaving out the top ${keep}` : ''
  const from = into
    ? `, one at each of ${place(into)}${fromEnd ? ', from the last to the first' : ''}, weaving to ${between.length > 0 ? 'the first' : 'it'} by the shortest way`
    : ''
  const spacing =
    between.length > 0
      ? `, from one to the next picking up ${sayRun(between)}${into ? ' and passing through the bead it hangs from' : ''}`
      : ''
  const many =
    strands.length > 1 || into
      ? `Hang ${strands.length === 1 ? '1 strand' : `${strands.length} strands`}${from}${spacing}. `
      : ''
  return `${many}Pick up ${told}; go back up the strand ${turning}${kept}.${called(name)}`
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

function ending(way: ThreadSettings['ending'], settings: ThreadSettings): string {
  const hitches = `${settings.hitchesPerEnd} half hitches`
  switch (way) {
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
