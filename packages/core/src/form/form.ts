/** The form of a pattern: its piece laid out and ready to settle. */
import type { Bead } from '../catalogue/bead'
import type { Stone } from '../catalogue/stone'
import type { Mm } from '../measure/units'
import type { Reckoned } from '../report/reckon-pattern'
import { layOut, type Middles } from './lay-out'
import { type Piece, pieceOf } from './piece'
import { Settling } from './settle'
import { ringSolid, type Solid, stoneSolid } from './solid'
import { turnOut } from './turn-out'
import type { Vector } from './vector'

/** More beads than this are laid out but not settled. */
export const mostSettled = 12_000

export interface Form {
  readonly piece: Piece
  readonly middles: Middles
  readonly settling: Settling
  /** Wire rings that beads stand round. */
  readonly rings: readonly { readonly middle: Vector; readonly outerMm: Mm; readonly wireMm: Mm }[]
}

/** The wire of a ring that beads stand round, where only its width is said. */
const wireMm = 1.2

/** @throws NoShape when a catalogue record cannot be a bead's */
export function beginForm(reckoned: Reckoned): Form {
  const { work, roles, letterOf } = reckoned
  const stoneOf = (letter: string): Stone | undefined => {
    const role = roles.get(letter)
    return role?.type === 'stone' ? role.stone : undefined
  }
  const beadOfRole = (index: number): Bead => {
    const role = roles.get(letterOf(index))
    if (role?.type !== 'bead') throw new RangeError(`Role ${index} is not a bead.`)
    return role.bead
  }
  const piece = pieceOf(work, beadOfRole, reckoned.report.threadChoice.thread.acrossMm)
  const cores = [...work.cores.values()].map(stoneOf)
  const standing = work.courses.some((course) => course.kind === 'standing')
  const middles = turnOut(
    piece,
    layOut(piece, stoneOf),
    cores.length > 0 || standing,
    cores.some((stone) => stone?.outline.shape !== 'round'),
  )
  stir(piece)
  const rings = ringsOf(piece, middles)
  piece.solids = [
    ...stonesOf(piece, middles, stoneOf),
    ...rings.map(({ middle, outerMm }) => ringSolid(outerMm, wireMm, ...middle)),
  ]
  return { piece, middles, rings, settling: new Settling(piece, reckoned.tension) }
}

/** Flat work could not tell which way to buckle: every bead begins a hair's breadth off, by its number. */
function stir(piece: Piece): void {
  for (let bead = 0; bead < piece.work.beads; bead++) {
    const off = (((Math.imul(bead + 1, 2654435761) >>> 8) % 1000) / 1000 - 0.5) * 0.004
    for (let p = 6 * (piece.rodOf[bead] as number) + 2; p < 6 * (piece.rodOf[bead + 1] as number); p += 3)
      piece.at[p] = (piece.at[p] as number) + off
  }
}

function stonesOf(piece: Piece, middles: Middles, stoneOf: (letter: string) => Stone | undefined): Solid[] {
  return [...middles].flatMap(([course, middle]) => {
    const letter = piece.work.cores.get(course)
    const stone = letter === undefined ? undefined : stoneOf(letter)
    return stone ? [stoneSolid(stone, ...middle)] : []
  })
}

function ringsOf({ work }: Piece, middles: Middles): Form['rings'] {
  return [...middles].flatMap(([course, middle]) => {
    const row = work.courses[course]
    const wire = row?.kind === 'standing' && !work.cores.has(course) && row.radiusMm > wireMm
    return wire ? [{ middle, outerMm: row.radiusMm, wireMm }] : []
  })
}
