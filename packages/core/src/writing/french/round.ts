/** A round or a row, in French: what each stitch picks up, what it passes, how often, and where the thread is then. */
import { type Action, type IntoTold, type StitchTold, widthOf } from '../../stitch/action'
import type { PlaceTold } from '../../stitch/place-told'
import { equalRuns } from '../../stitch/runs'
import { called, list, moveWords, sayBeads, sayRun, sayTimes } from './moves'
import { of, placeWords } from './places'

type Round = Extract<Action, { type: 'round' }>

export function round(action: Round): string {
  const { cycle, stitches, turns, name } = action
  const kind = action.closed ? `Tour ${action.edge === 'front' ? 'avant' : 'arrière'}` : 'Rang'
  const head = action.round > 0 ? `${kind} ${action.round}` : kind
  const on = passOn(action)
  const [only] = cycle
  const told =
    cycle.length === 1 && only && only.over === 1 && !only.skips && action.into.type !== 'spread'
      ? `${[...picking(only), on].join(', puis ')}; ${sayTimes(stitches)} en tout.`
      : `${cycle.map(stitch).join('; puis ')}; ${turns === 1 ? '' : `le tout ${sayTimes(turns)}, `}${stitches} points en tout. À la fin de chaque point, ${on}.`
  const atFirst =
    action.into.type === 'gaps' && action.fresh === 'the first time'
      ? ` La première fois, plutôt ${skipping(widthOf(action))}.`
      : ''
  const tail = stitches === action.standing ? '' : ` ${action.standing} perles ou groupes sont maintenant en saillie.`
  return `${head}: ${told}${atFirst} ${ending(action)}${tail}${called(name)}`
}

const picking = (told: StitchTold): string[] => {
  const words = moveWords(told.moves)
  if (words.length > 0) words[words.length - 1] += standing(told)
  return words
}

const standing = ({ standing }: StitchTold) =>
  standing
    ? ` (dont ${standing.length === 1 ? `seule la perle ${standing[0]} est` : `seules les perles ${list(standing.map(String))} sont`} en saillie)`
    : ''

/** One of several kinds of stitch: "3 points avec 1 C chacun", "1 diminution". */
function stitch(told: StitchTold): string {
  const { moves, times, over, skips } = told
  const taken = skips
    ? `, en sautant ${skips} perles`
    : over > 1
      ? `, par-dessus ${over} (en laissant ${over === 2 ? 'la première' : `les ${over - 1} premières`})`
      : ''
  if (moves.length === 0) return (times === 1 ? '1 diminution' : `${times} diminutions`) + taken
  const many = times === 1 ? '1 point' : `${times} points`
  const [only] = moves
  return moves.length === 1 && only?.type === 'pick'
    ? `${many} avec ${sayRun(only.beads)}${times === 1 ? '' : ' chacun'}${standing(told)}${taken}`
    : `${many}: ${picking(told).join(', puis ')}${taken}`
}

const skipping = (wide: number) =>
  wide > 1
    ? `sauter ${wide} perles et passer dans les ${wide} suivantes`
    : 'sauter une perle et passer dans la suivante'

/** What a stitch passes at its end. */
function passOn(action: Round): string {
  const { into, fresh } = action
  if (into.type === 'gaps' && fresh === true) return skipping(widthOf(action))
  switch (into.type) {
    case 'gaps':
      return into.wide === 1
        ? 'passer dans la prochaine perle en saillie'
        : into.wide
          ? `passer dans les ${into.wide} prochaines perles en saillie`
          : 'passer dans la prochaine perle en saillie, ou dans toutes si plusieurs le sont ensemble'
    case 'every':
      return into.each === 1
        ? `passer dans la perle suivante ${everyOf(into)}`
        : `sauter ${into.each === 2 ? 'une perle' : `${into.each - 1} perles`} ${everyOf(into)} et passer dans la suivante`
    case 'spread':
      return `avancer en comptant les perles ${everyOf(into)} et passer dans celle où l'on arrive: ${stepsWords(into.steps)}`
    case 'group': {
      const belongs = into.name ? ` de «${into.name}»` : ''
      if (into.nth !== 'middle') return `passer dans la perle ${into.nth} du prochain groupe${belongs}`
      return into.of && into.of % 2 === 0
        ? `passer dans la perle ${into.of / 2} du prochain groupe de ${into.of}${belongs}`
        : `passer dans la perle du milieu du prochain groupe${belongs}`
    }
    case 'bore':
      return "passer dans l'autre trou de la perle suivante"
    case 'target':
      return `passer dans la prochaine ${into.targets.map(nextOf).join(', après celles-ci ')}`
  }
}

/** "A", or "de «wall»". */
const nextOf = (target: PlaceTold) =>
  'role' in target.base && target.steps.length === 0 ? target.base.role : of(placeWords(target))

/** "3 fois 6 perles, puis 7 perles": from stitch to stitch. */
const stepsWords = (steps: readonly number[]) =>
  equalRuns(steps)
    .map(({ value, times }) => `${times === 1 ? '' : `${sayTimes(times)} `}${sayBeads(value)}`)
    .join(', puis ')

function everyOf(into: Extract<IntoTold, { type: 'every' | 'spread' }>): string {
  switch (into.of) {
    case 'ring':
      return "de l'anneau"
    case 'row':
      return 'du rang'
    case 'round':
      return 'du dernier tour'
    case 'rail':
      return 'de ce bord'
    default:
      return of(placeWords(into.of))
  }
}

function ending({ ends, upThrough, upPast }: Round): string {
  switch (ends) {
    case 'steps up': {
      const added = `dans ${upThrough === 1 ? 'la première perle ajoutée' : `les ${upThrough} premières perles ajoutées`}`
      return upPast === 0
        ? `Monter ${added}.`
        : `Monter: repasser dans ce que ${upPast === 1 ? 'le premier point a traversé' : `les ${upPast} premiers points ont traversé`}, puis ${added}.`
    }
    case 'stays':
      return 'Ne pas monter.'
    case 'runs on':
      return 'On ne monte pas: les tours continuent en spirale.'
    case 'turns':
      return 'Faire demi-tour.'
    case 'turned in':
      return "La dernière n'a pas de perle où passer: attraper le fil au bord et y repasser. Faire demi-tour."
  }
}
