/** What is done within a stitch or a line, in Dutch. */
import type { MoveTold, PassedPlace } from '../../stitch/action'
import type { Mark } from '../../stitch/mark'
import { beadsOf, type PlaceTold } from '../../stitch/place-told'
import type { Run } from '../../stitch/runs'
import { placeWords } from './places'

export const list = (parts: readonly string[]): string =>
  parts.length < 2 ? parts.join('') : `${parts.slice(0, -1).join(', ')} en ${parts[parts.length - 1]}`

export const sayRun = (runs: readonly Run[]): string => list(runs.map((run) => `${run.count} ${run.role}`))

export const sayTimes = (times: number): string => (times === 1 ? 'één keer' : `${times} keer`)

export const sayBeads = (beads: number): string => (beads === 1 ? '1 kraal' : `${beads} kralen`)

const ways: Readonly<Record<PassedPlace['way'], string>> = {
  near: '',
  back: 'terug ',
  straight: 'in de richting van de eerste keer ',
}

/** Of several beads, how many. */
export const passing = (target: PlaceTold & Partial<PassedPlace>) => {
  const many = beadsOf(target) > 1 ? ` (${beadsOf(target)} kralen)` : ''
  return `${ways[target.way ?? 'near']}door ${placeWords(target)}${many}`
}

export const moveWords = (moves: readonly MoveTold[]): string[] => moves.map(move)

function move(told: MoveTold): string {
  switch (told.type) {
    case 'pick':
      return `${sayRun(told.beads)} opnemen`
    case 'pass':
      return `${passing(told.target)} gaan`
    case 'back':
      return told.count === 1
        ? `terug door de zojuist opgenomen ${told.role ?? 'kraal'} gaan`
        : `terug door de laatste ${told.count} zojuist opgenomen ${told.role ?? 'kralen'} gaan`
  }
}

/** What a step has made, if it bears a name. */
export const called = (mark: Mark | undefined) =>
  mark ? (mark.all ? ` Dit alles is «${mark.name}».` : ` Dit is «${mark.name}».`) : ''
