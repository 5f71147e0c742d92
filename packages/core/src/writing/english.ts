/** The sentences of a written pattern, in English: one for each thing a statement can do. */
import type { Action, Run } from '../stitch/action'
import type { ThreadSettings } from '../thread/settings'

export const sayRun = (runs: readonly Run[]): string => list(runs.map((run) => `${run.count} ${run.role}`))

export const list = (parts: readonly string[]): string =>
  parts.length < 2 ? parts.join('') : `${parts.slice(0, -1).join(', ')} and ${parts[parts.length - 1]}`

export const capital = (words: string): string => words.charAt(0).toUpperCase() + words.slice(1)

export const sayTimes = (times: number): string => (times === 1 ? 'once' : times === 2 ? 'twice' : `${times} times`)

/** Counts by role, in the order given. */
export const sayCounts = (counts: Readonly<Record<string, number>>): string =>
  Object.entries(counts)
    .map(([role, count]) => `${count} ${role}`)
    .join(', ')

export function sentenceFor(action: Action, settings: ThreadSettings): string | undefined {
  switch (action.type) {
    case 'ring': {
      const repeats = action.repeats === 1 ? '' : `, ${sayTimes(action.repeats)}`
      return `String ${action.beads} beads: pick up ${sayRun(action.pattern)}${repeats}. ${closing(settings)}`
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
      const name = action.name ? ` This is the ${action.name}.` : ''
      return `Pick up ${sayRun(action.beads)} and pass again, the same way, through the ${action.through} the needle came out of, to make a loop.${name}`
    }
    case 'reinforce':
      return `Pass through the beads of that ${action.what} ${action.times === 1 ? 'once' : `${sayTimes(action.times)}`} more, without picking up any, and pull up firmly but never force the needle.`
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

const place = (target: string) => (/^[A-Z]/.test(target) ? `the nearest ${target}` : `the ${target}`)

function round(action: Extract<Action, { type: 'round' }>): string {
  const head = `${action.edge === 'front' ? 'Front' : 'Back'} round ${action.round}`
  const [only] = action.cycle
  const tail = action.stitches === action.standing ? '' : ` ${action.standing} beads or groups now stand up.`
  const stepUp = 'Step up through the first bead added.'
  if (action.cycle.length === 1 && only) {
    return `${head}: pick up ${sayRun(only.beads)} and pass through the next bead that stands up; ${sayTimes(action.stitches)} in all. ${stepUp}${tail}`
  }
  const parts = action.cycle.map(({ beads, times }) =>
    beads.length === 0
      ? `pass through the next bead that stands up without picking up any${times === 1 ? '' : `, ${sayTimes(times)}`} (a decrease)`
      : `pick up ${sayRun(beads)} in ${times === 1 ? 'the next stitch' : `each of the next ${times} stitches`}`,
  )
  const turns = action.turns === 1 ? 'once round' : `${sayTimes(action.turns)} round`
  return `${head}: ${parts.join(', then ')}; ${turns}, ${action.stitches} stitches in all. ${stepUp}${tail}`
}

function closing(settings: ThreadSettings): string {
  switch (settings.closing) {
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

export const cautionsFor = (settings: ThreadSettings, hasStone: boolean): string[] => [
  'Never force a needle: glass breaks. Wear eye protection when you pull hard or use pliers.',
  'Count the needles out and in. Keep beads, needles and other small parts away from young children.',
  ...(settings.ending === 'melt'
    ? [
        'A thread burner or lighter burns: keep it from hair, fabric and children, air the room, and use none where the venue forbids flames.',
      ]
    : []),
  ...(settings.ending === 'glue' ? ['Glue: air the room and follow the label.'] : []),
  ...(hasStone
    ? [
        'Old or unknown stones and beads may hold lead or cadmium: check your local product-safety rules before selling, or using with children.',
      ]
    : []),
]

export const toolsFor = (needle: number, settings: ThreadSettings): string[] => [
  `a size ${needle} needle`,
  'small sharp scissors',
  'a bead mat',
  'a ruler',
  ...(settings.ending === 'melt' ? ['a thread burner'] : []),
  ...(settings.ending === 'glue' ? ['jewellery glue'] : []),
]

export const marksUsed = [
  '"Stands up": a bead of the last round that sits higher than its neighbours.',
  '"Step up": pass through the first bead or group of the round just done, so that the next round can begin.',
  'Letters are the beads of the materials list; a number before a letter is how many to pick up.',
]
