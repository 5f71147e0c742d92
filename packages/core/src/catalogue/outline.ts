/** The outline of beads that are not the same all round their hole, or whose middle does not lie on it: one for contact and drawing alike. */
import type { Mm } from '../measure/units'
import type { Bead } from './bead'

export interface Outline {
  /** Turned on a lathe about its long way, across the hole; otherwise cut out of a sheet. */
  readonly turned: boolean
  /** From one end across the hole to the other, from the middle of the bead: where it begins and ends along the hole. */
  readonly stations: readonly (readonly [wide: Mm, from: Mm, to: Mm])[]
}

type Shares = readonly (readonly [down: number, half: number])[]

/** From the end with the hole to the other one: half its width, as a share of the widest. */
const dropHalf: Shares = [
  [0, 0.3],
  [0.06, 0.44],
  [0.15, 0.52],
  [0.24, 0.6],
  [0.4, 0.76],
  [0.55, 0.91],
  [0.68, 1],
  [0.8, 0.96],
  [0.9, 0.76],
  [0.96, 0.5],
  [1, 0],
]
const daggerHalf: Shares = [
  [0, 0.35],
  [0.05, 0.52],
  [0.14, 0.6],
  [0.3, 0.74],
  [0.5, 0.92],
  [0.64, 1],
  [0.78, 0.8],
  [0.9, 0.45],
  [1, 0.02],
]
/** How far the tips of a crescent lie before its bores, as a share of its width. */
const bow = 0.165
const steps = 12

/** @param bead with its measures across the hole; see `wholeOf` */
export function outlineOf(
  bead: Pick<Bead, 'kind' | 'lengthMm' | 'acrossMm' | 'wideMm' | 'boreGapMm' | 'offMm'>,
): Outline | undefined {
  const { kind, lengthMm, acrossMm, wideMm } = bead
  if (wideMm === undefined) return undefined
  const half = wideMm / 2
  const bore = (bead.boreGapMm ?? 0) / 2
  const even = (of: (wide: Mm) => readonly [Mm, Mm]): Outline['stations'] =>
    Array.from({ length: 2 * steps + 1 }, (_, i) => {
      // Closer together toward the ends, where it bends most.
      const wide = -half * Math.cos((Math.PI * i) / (2 * steps))
      return [wide, ...of(wide)]
    })
  const hanging = (shares: Shares, widest: Mm): Outline['stations'] =>
    shares.map(([down, share]) => [(down - 0.5) * wideMm, -share * widest, share * widest])
  switch (kind) {
    case 'drop':
      return { turned: true, stations: hanging(dropHalf, acrossMm / 2) }
    case 'dagger': {
      const atHole = shareAt(daggerHalf, 0.5 - (bead.offMm ?? 0) / wideMm)
      return { turned: false, stations: hanging(daggerHalf, lengthMm / 2 / atHole) }
    }
    case 'twin crescent': {
      const thin = (wide: Mm) => Math.sqrt(Math.max(0, 1 - (wide / half) ** 2))
      const middle = (wide: Mm) => bow * wideMm * ((wide / half) ** 2 - (bore / half) ** 2)
      const widest = lengthMm / 2 / thin(bore)
      return {
        turned: false,
        stations: even((wide) => [middle(wide) - widest * thin(wide), middle(wide) + widest * thin(wide)]),
      }
    }
    case 'twin triangle': {
      const height = lengthMm / (1 - bore / half)
      const top = (wide: Mm) => -lengthMm / 2 + height * (1 - Math.abs(wide) / half)
      return { turned: false, stations: [-half, 0, half].map((wide) => [wide, -lengthMm / 2, top(wide)]) }
    }
    case 'twin lentil': {
      const chord = (wide: Mm) => Math.sqrt(Math.max(0, half ** 2 - wide ** 2))
      return { turned: false, stations: even((wide) => [-chord(wide), chord(wide)]) }
    }
    default:
      return undefined
  }
}

function shareAt(shares: Shares, down: number): number {
  const next = shares.findIndex(([at]) => at >= down)
  const [to, from] = [shares[Math.max(0, next)], shares[Math.max(0, next - 1)]] as [
    readonly [number, number],
    readonly [number, number],
  ]
  const t = to[0] > from[0] ? (down - from[0]) / (to[0] - from[0]) : 1
  return from[1] + t * (to[1] - from[1])
}
