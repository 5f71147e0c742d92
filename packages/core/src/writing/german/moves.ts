/** What is done within a stitch or a line, in German. */
import type { MoveTold, PassedPlace } from '../../stitch/action'
import type { Mark } from '../../stitch/mark'
import { beadsOf, type PlaceTold } from '../../stitch/place-told'
import type { Run } from '../../stitch/runs'
import { nearestOf, placeWords } from './places'

export const list = (parts: readonly string[]): string =>
  parts.length < 2 ? parts.join('') : `${parts.slice(0, -1).join(', ')} und ${parts[parts.length - 1]}`

export const sayRun = (runs: readonly Run[]): string => list(runs.map((run) => `${run.count} ${run.role}`))

export const sayTimes = (times: number): string => (times === 1 ? 'einmal' : times === 2 ? 'zweimal' : `${times}-mal`)

export const sayBeads = (beads: number): string => (beads === 1 ? '1 Perle' : `${beads} Perlen`)

/** Of several beads, how many. */
export const passing = (target: PlaceTold & Partial<PassedPlace>) => {
  const many = beadsOf(target) > 1 ? ` (${beadsOf(target)} Perlen)` : ''
  return `${target.way === 'back' ? 'zurück ' : target.way === 'straight' ? 'in der Richtung des ersten Durchgangs ' : ''}durch ${placeWords(target) ?? `die ${nearestOf(target)}`}${many}`
}

export const moveWords = (moves: readonly MoveTold[]): string[] => moves.map(move)

function move(told: MoveTold): string {
  switch (told.type) {
    case 'pick':
      return `${sayRun(told.beads)} aufnehmen`
    case 'pass':
      return `${passing(told.target)} gehen`
    case 'back':
      return `zurück durch die letzte${told.count === 1 ? '' : `n ${told.count}`} ${told.role ?? (told.count === 1 ? 'Perle' : 'Perlen')} gehen`
  }
}

/** What a step has made, if it bears a name. */
export const called = (mark: Mark | undefined) =>
  mark ? (mark.all ? ` Das alles ist «${mark.name}».` : ` Das ist «${mark.name}».`) : ''
