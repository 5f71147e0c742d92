/** A round or a row, in Dutch: what each stitch picks up, what it passes, how often, and where the thread is then. */
import { type Action, type IntoTold, type StitchTold, widthOf } from '../../stitch/action'
import type { PlaceTold } from '../../stitch/place-told'
import { equalRuns } from '../../stitch/runs'
import { called, list, moveWords, sayBeads, sayRun, sayTimes } from './moves'
import { placeWords } from './places'

type Round = Extract<Action, { type: 'round' }>

export function round(action: Round): string {
  const { cycle, stitches, turns, name } = action
  const kind = action.closed ? `${action.edge === 'front' ? 'Voorste' : 'Achterste'} ronde` : 'Rij'
  const head = action.round > 0 ? `${kind} ${action.round}` : kind
  const on = passOn(action)
  const [only] = cycle
  const told =
    cycle.length === 1 && only && only.over === 1 && !only.skips && action.into.type !== 'spread'
      ? `${[...picking(only), on].join(', dan ')}; in totaal ${sayTimes(stitches)}.`
      : `${cycle.map(stitch).join('; dan ')}; ${turns === 1 ? '' : `dat ${sayTimes(turns)}, `}in totaal ${stitches} steken. Aan het eind van elke steek ${on}.`
  const atFirst =
    action.into.type === 'gaps' && action.fresh === 'the first time'
      ? ` De eerste keer in plaats daarvan ${skipping(widthOf(action))}.`
      : ''
  const tail = stitches === action.standing ? '' : ` Nu steken ${action.standing} kralen of groepen uit.`
  return `${head}: ${told}${atFirst} ${ending(action)}${tail}${called(name)}`
}

const picking = (told: StitchTold): string[] => {
  const words = moveWords(told.moves)
  if (words.length > 0) words[words.length - 1] += standing(told)
  return words
}

const standing = ({ standing }: StitchTold) =>
  standing
    ? ` (daarvan ${standing.length === 1 ? `steekt alleen kraal ${standing[0]}` : `steken alleen kralen ${list(standing.map(String))}`} uit)`
    : ''

/** One of several kinds of stitch: "3 steken met elk 1 C", "1 mindering". */
function stitch(told: StitchTold): string {
  const { moves, times, over, skips } = told
  const taken = skips
    ? `, waarvoor ${skips} kralen worden overgeslagen`
    : over > 1
      ? `, over ${over} heen (langs ${over === 2 ? 'de eerste' : `de eerste ${over - 1}`})`
      : ''
  if (moves.length === 0) return (times === 1 ? '1 mindering' : `${times} minderingen`) + taken
  const many = times === 1 ? '1 steek' : `${times} steken`
  const [only] = moves
  return moves.length === 1 && only?.type === 'pick'
    ? `${many} met ${times === 1 ? '' : 'elk '}${sayRun(only.beads)}${standing(told)}${taken}`
    : `${many}: ${picking(told).join(', dan ')}${taken}`
}

const skipping = (wide: number) =>
  wide > 1
    ? `${wide} kralen overslaan en door de volgende ${wide} gaan`
    : 'één kraal overslaan en door de volgende gaan'

/** What a stitch passes at its end. */
function passOn(action: Round): string {
  const { into, fresh } = action
  if (into.type === 'gaps' && fresh === true) return skipping(widthOf(action))
  switch (into.type) {
    case 'gaps':
      return into.wide === 1
        ? 'door de volgende uitstekende kraal gaan'
        : into.wide
          ? `door de volgende ${into.wide} uitstekende kralen gaan`
          : 'door de volgende uitstekende kraal gaan, of door alle waar er meer bij elkaar uitsteken'
    case 'every':
      return into.each === 1
        ? `door de volgende kraal ${everyOf(into)} gaan`
        : `${into.each === 2 ? 'één kraal' : `${into.each - 1} kralen`} ${everyOf(into)} overslaan en door de volgende gaan`
    case 'spread':
      return `op de kralen ${everyOf(into)} verder tellen en door de kraal gaan waar je uitkomt: ${stepsWords(into.steps)}`
    case 'group': {
      const of = into.name ? ` van «${into.name}»` : ''
      if (into.nth !== 'middle') return `door kraal ${into.nth} van de volgende groep${of} gaan`
      return into.of && into.of % 2 === 0
        ? `door kraal ${into.of / 2} van de volgende groep van ${into.of}${of} gaan`
        : `door de middelste kraal van de volgende groep${of} gaan`
    }
    case 'bore':
      return 'door het andere gat van de volgende kraal gaan'
    case 'target':
      return `door de volgende ${into.targets.map(nextOf).join(', daarna ')} gaan`
  }
}

/** "A", or "van «wall»". */
const nextOf = (target: PlaceTold) =>
  'role' in target.base && target.steps.length === 0 ? target.base.role : `van ${placeWords(target)}`

/** "3 keer 6 kralen, dan 7 kralen": from stitch to stitch. */
const stepsWords = (steps: readonly number[]) =>
  equalRuns(steps)
    .map(({ value, times }) => `${times === 1 ? '' : `${sayTimes(times)} `}${sayBeads(value)}`)
    .join(', dan ')

function everyOf(into: Extract<IntoTold, { type: 'every' | 'spread' }>): string {
  switch (into.of) {
    case 'ring':
      return 'van de ring'
    case 'row':
      return 'van de rij'
    case 'round':
      return 'van de laatste ronde'
    case 'rail':
      return 'van deze rand'
    default:
      return `van ${placeWords(into.of)}`
  }
}

function ending({ ends, upThrough, upPast }: Round): string {
  switch (ends) {
    case 'steps up': {
      const added = `door de eerste ${upThrough === 1 ? 'toegevoegde kraal' : `${upThrough} toegevoegde kralen`}`
      return upPast === 0
        ? `Opstappen ${added}.`
        : `Opstappen: nogmaals gaan door wat de eerste ${upPast === 1 ? 'steek doorliep' : `${upPast} steken doorliepen`}, en ${added}.`
    }
    case 'stays':
      return 'Niet opstappen.'
    case 'runs on':
      return 'Er wordt niet opgestapt: de rondes lopen door als spiraal.'
    case 'turns':
      return 'Keren.'
    case 'turned in':
      return 'Voor de laatste is er geen kraal om door te gaan: pak de draad aan de rand en ga er terug door. Keren.'
  }
}
