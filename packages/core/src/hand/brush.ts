/** Which beads a brush takes with the one that it touches. */
import type { Work } from '../stitch/work'
import { type Doing, doingsOf } from './doings'

export type Brush =
  | { readonly type: 'bead' }
  /** Every bead that the same line picked up in the same turn. */
  | { readonly type: 'round' }
  /** Every n-th bead of its round; mirrored, also that which lies as far before the next as this one lies behind. */
  | { readonly type: 'every'; readonly n: number; readonly mirrored: boolean }
  /** Straight up and down: the bead that lies nearest over it in each round, where it lies within half a bead. */
  | { readonly type: 'column' }

/** @returns the beads, that which was touched among them */
export function brushed(work: Work, bead: number, brush: Brush): number[] {
  if (brush.type === 'bead') return [bead]
  const doings = doingsOf(work)
  const own = doings.find(({ beads }) => beads.includes(bead))
  if (!own) return [bead]
  const { beads } = own
  const at = beads.indexOf(bead)
  switch (brush.type) {
    case 'round':
      return [...beads]
    case 'every': {
      const n = Math.max(1, Math.round(brush.n))
      const places = new Set([at % n, ...(brush.mirrored ? [(n - (at % n)) % n] : [])])
      return beads.filter((_, i) => places.has(i % n))
    }
    case 'column':
      return column(work, bead, doings)
  }
}

function column(work: Work, bead: number, doings: readonly Doing[]): number[] {
  const { course, turn } = work.seat(bead)
  if (course < 0) return [bead]
  const root = work.firstOf(course)
  const found = doings.flatMap(({ beads }) => {
    const row = beads.filter((each) => {
      const seat = work.seat(each)
      return seat.course >= 0 && work.isOn(seat.course, root)
    })
    const apart = (each: number) => {
      const off = Math.abs(work.seat(each).turn - turn) % 1
      return Math.min(off, 1 - off)
    }
    const nearest = row.reduce<number | undefined>(
      (best, each) => (best === undefined || apart(each) < apart(best) ? each : best),
      undefined,
    )
    return nearest !== undefined && apart(nearest) < 0.25 / row.length ? [nearest] : []
  })
  return found.includes(bead) ? found : [bead, ...found]
}
