/** A round or a row, in German: what each stitch picks up, what it passes, how often, and where the thread is then. */
import { type Action, type IntoTold, type StitchTold, widthOf } from '../../stitch/action'
import type { PlaceTold } from '../../stitch/place-told'
import { equalRuns } from '../../stitch/runs'
import { called, list, moveWords, sayRun, sayTimes } from './moves'
import { nearestOf, placeWords } from './places'

type Round = Extract<Action, { type: 'round' }>

export function round(action: Round): string {
  const { cycle, stitches, turns, name } = action
  const kind = action.closed ? `${action.edge === 'front' ? 'Vordere' : 'Hintere'} Runde` : 'Reihe'
  const head = action.round > 0 ? `${kind} ${action.round}` : kind
  const on = passOn(action)
  const [only] = cycle
  const told =
    cycle.length === 1 && only && only.over === 1 && !only.skips && action.into.type !== 'spread'
      ? `${[...picking(only), on].join(', dann ')}; insgesamt ${sayTimes(stitches)}.`
      : `${cycle.map(stitch).join('; dann ')}; ${turns === 1 ? '' : `das ${sayTimes(turns)}, `}insgesamt ${stitches} Stiche. Am Ende jedes Stichs ${on}.`
  const atFirst =
    action.into.type === 'gaps' && action.fresh === 'the first time'
      ? ` Beim ersten Mal stattdessen ${skipping(widthOf(action))}.`
      : ''
  const tail = stitches === action.standing ? '' : ` Jetzt stehen ${action.standing} Perlen oder Gruppen hoch.`
  return `${head}: ${told}${atFirst} ${ending(action)}${tail}${called(name)}`
}

const picking = (told: StitchTold): string[] => {
  const words = moveWords(told.moves)
  if (words.length > 0) words[words.length - 1] += standing(told)
  return words
}

const standing = ({ standing }: StitchTold) =>
  standing
    ? ` (davon ${standing.length === 1 ? `steht nur Perle ${standing[0]}` : `stehen nur die Perlen ${list(standing.map(String))}`} hoch)`
    : ''

/** One of several kinds of stitch: "3 Stiche mit je 1 C", "1 Abnahme". */
function stitch(told: StitchTold): string {
  const { moves, times, over, skips } = told
  const taken = skips
    ? `, wofür ${skips} Perlen übersprungen werden`
    : over > 1
      ? `, über ${over} geführt (an ${over === 2 ? 'der ersten' : `den ersten ${over - 1}`} vorbei)`
      : ''
  if (moves.length === 0) return (times === 1 ? '1 Abnahme' : `${times} Abnahmen`) + taken
  const many = times === 1 ? '1 Stich' : `${times} Stiche`
  const [only] = moves
  return moves.length === 1 && only?.type === 'pick'
    ? `${many} mit ${times === 1 ? '' : 'je '}${sayRun(only.beads)}${standing(told)}${taken}`
    : `${many}: ${picking(told).join(', dann ')}${taken}`
}

const skipping = (wide: number) =>
  wide > 1
    ? `${wide} Perlen überspringen und durch die nächsten ${wide} gehen`
    : 'eine Perle überspringen und durch die nächste gehen'

/** What a stitch passes at its end. */
function passOn(action: Round): string {
  const { into, fresh } = action
  if (into.type === 'gaps' && fresh === true) return skipping(widthOf(action))
  switch (into.type) {
    case 'gaps':
      return into.wide === 1
        ? 'durch die nächste hochstehende Perle gehen'
        : into.wide
          ? `durch die nächsten ${into.wide} hochstehenden Perlen gehen`
          : 'durch die nächste hochstehende Perle gehen, oder durch alle, wo mehrere beisammen hochstehen'
    case 'every': {
      const of = everyOf(into)
      return into.each === 1
        ? `durch die nächste Perle ${of} gehen`
        : `${into.each === 2 ? 'eine Perle' : `${into.each - 1} Perlen`} ${of} überspringen und durch die nächste gehen`
    }
    case 'spread':
      return `auf den Perlen ${everyOf(into)} weiterzählen und durch die gehen, bei der man ankommt: ${stepsWords(into.steps)}`
    case 'group': {
      const of = into.name ? ` von «${into.name}»` : ''
      if (into.nth !== 'middle') return `durch Perle ${into.nth} der nächsten Gruppe${of} gehen`
      return into.of && into.of % 2 === 0
        ? `durch Perle ${into.of / 2} der nächsten Gruppe von ${into.of}${of} gehen`
        : `durch die mittlere Perle der nächsten Gruppe${of} gehen`
    }
    case 'bore':
      return 'durch das andere Loch der nächsten Perle gehen'
    case 'target':
      return `durch die nächste ${into.targets.map(nextOf).join(', danach ')} gehen`
  }
}

/** "A", or "von «wall»". */
const nextOf = (target: PlaceTold) =>
  'role' in target.base && target.steps.length === 0
    ? target.base.role
    : `von ${placeWords(target) ?? nearestOf(target)}`

/** "3-mal 6 Perlen, dann 7 Perlen": von Stich zu Stich. */
const stepsWords = (steps: readonly number[]) =>
  equalRuns(steps)
    .map(
      ({ value, times }) => `${times === 1 ? '' : `${sayTimes(times)} `}${value} ${value === 1 ? 'Perle' : 'Perlen'}`,
    )
    .join(', dann ')

function everyOf({ of }: Extract<IntoTold, { type: 'every' | 'spread' }>): string {
  switch (of) {
    case 'ring':
      return 'des Rings'
    case 'row':
      return 'der Reihe'
    case 'round':
      return 'der letzten Runde'
    case 'rail':
      return 'dieser Kante'
    default:
      return `von ${placeWords(of) ?? nearestOf(of)}`
  }
}

function ending({ ends, upThrough, upPast }: Round): string {
  switch (ends) {
    case 'steps up': {
      const added = `durch die ${upThrough === 1 ? 'erste aufgenommene Perle' : `ersten ${upThrough} aufgenommenen Perlen`}`
      return upPast === 0
        ? `${added.replace('durch', 'Durch')} aufsteigen.`
        : `Aufsteigen: nochmals durch das gehen, was ${upPast === 1 ? 'der erste Stich durchfädelt hat' : `die ersten ${upPast} Stiche durchfädelt haben`}, und ${added}.`
    }
    case 'stays':
      return 'Nicht aufsteigen.'
    case 'runs on':
      return 'Es wird nicht aufgestiegen: Die Runden laufen als Spirale weiter.'
    case 'turns':
      return 'Wenden.'
    case 'turned in':
      return 'Für die letzte gibt es keine Perle, durch die es weitergeht: den Faden am Rand fassen und durch sie zurückgehen. Wenden.'
  }
}
