import { difference } from '../colour/difference'

interface Seen {
  readonly kind: string
  readonly size: string
  readonly colour: string
  readonly finish: string
}

/** What another kind, size or finish adds, beside CIEDE2000 in tenths: a bead that makes another piece is farther than any colour. */
const otherKind = 1000
const otherSize = 300
const otherFinish = 20

/** How much of a change one item is for another, as a whole number: for the solver, which asks for the least of it. */
export const visibleChange = (a: Seen, b: Seen): number =>
  Math.round(difference(a.colour, b.colour) * 10) +
  (a.kind === b.kind ? 0 : otherKind) +
  (a.size === b.size ? 0 : otherSize) +
  (a.finish === b.finish ? 0 : otherFinish) +
  // Even its twin is not what was planned.
  1
