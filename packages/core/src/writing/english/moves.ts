/** What is done within a stitch or a line, in English: verbs, one after the other. */
import type { MoveTold, PassedPlace } from '../../stitch/action'
import type { Mark } from '../../stitch/mark'
import { beadsOf, type PlaceTold } from '../../stitch/place-told'
import type { Run } from '../../stitch/runs'
import { placeWords } from './places'

export const list = (parts: readonly string[]): string =>
  parts.length < 2 ? parts.join('') : `${parts.slice(0, -1).join(', ')} and ${parts[parts.length - 1]}`

export const sayRun = (runs: readonly Run[]): string => list(runs.map((run) => `${run.count} ${run.role}`))

export const sayTimes = (times: number): string => (times === 1 ? 'once' : times === 2 ? 'twice' : `${times} times`)

/** Of several beads, how many. */
export const passing = (target: PlaceTold & Partial<PassedPlace>) => {
  const many = beadsOf(target) > 1
  const straight = target.way === 'straight' ? ` the way ${many ? 'they were' : 'it was'} first passed` : ''
  return `${target.way === 'back' ? 'back through' : 'through'} ${placeWords(target)}${many ? ` (${beadsOf(target)} beads)` : ''}${straight}`
}

export const moveWords = (moves: readonly MoveTold[]): string[] => moves.map(move)

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

/** What a step has made, if it bears a name. */
export const called = (mark: Mark | undefined) =>
  mark ? (mark.all ? ` All of these are the ${mark.name}.` : ` This is the ${mark.name}.`) : ''
