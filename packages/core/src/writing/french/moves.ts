/** What is done within a stitch or a line, in French. */
import type { MoveTold, PassedPlace } from '../../stitch/action'
import type { Mark } from '../../stitch/mark'
import { beadsOf, type PlaceTold } from '../../stitch/place-told'
import type { Run } from '../../stitch/runs'
import { placeWords } from './places'

export const list = (parts: readonly string[]): string =>
  parts.length < 2 ? parts.join('') : `${parts.slice(0, -1).join(', ')} et ${parts[parts.length - 1]}`

export const sayRun = (runs: readonly Run[]): string => list(runs.map((run) => `${run.count} ${run.role}`))

export const sayTimes = (times: number): string => (times === 1 ? 'une fois' : `${times} fois`)

export const sayBeads = (beads: number): string => (beads === 1 ? '1 perle' : `${beads} perles`)

const ways: Readonly<Record<PassedPlace['way'], string>> = {
  near: '',
  back: 'en sens inverse ',
  straight: 'dans le sens du premier passage ',
}

/** Of several beads, how many. */
export const passing = (target: PlaceTold & Partial<PassedPlace>) => {
  const many = beadsOf(target) > 1 ? ` (${beadsOf(target)} perles)` : ''
  return `${ways[target.way ?? 'near']}dans ${placeWords(target)}${many}`
}

export const moveWords = (moves: readonly MoveTold[]): string[] => moves.map(move)

function move(told: MoveTold): string {
  switch (told.type) {
    case 'pick':
      return `prendre ${sayRun(told.beads)}`
    case 'pass':
      return `passer ${passing(told.target)}`
    case 'back':
      return told.count === 1
        ? `repasser dans la dernière ${told.role ?? 'perle'}`
        : `repasser dans les ${told.count} dernières ${told.role ?? 'perles'}`
  }
}

/** What a step has made, if it bears a name. */
export const called = (mark: Mark | undefined) =>
  mark ? (mark.all ? ` Tout cela est «${mark.name}».` : ` Ceci est «${mark.name}».`) : ''
