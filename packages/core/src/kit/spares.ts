/** What goes into a bag beyond the exact count, for spills and culls. */
export interface SparePolicy {
  /** Small beads: at least this share, and at least this many. */
  readonly smallShare: number
  readonly smallLeast: number
  /** Large beads: one more for each so many begun. */
  readonly largeEvery: number
  /** Long or across; beads are large from there on. */
  readonly largeMm: number
  /** A weighed bag may hold so much more than it should, as a share. */
  readonly overShare: number
  /** Weighed beads are rounded up to this, as the scale tells them. */
  readonly scaleStepMg: number
  /** Thread is rounded up to this. */
  readonly threadStepMm: number
  /** So much more thread does no harm in a bag. */
  readonly threadOverMm: number
}

export const usualSpares: SparePolicy = {
  smallShare: 0.1,
  smallLeast: 5,
  largeEvery: 12,
  largeMm: 3,
  overShare: 0.1,
  scaleStepMg: 100,
  threadStepMm: 100,
  threadOverMm: 1000,
}

/** @param largestMm a bead's larger measure */
export function spareBeads(exact: number, largestMm: number, policy: SparePolicy): number {
  if (exact === 0) return 0
  return largestMm >= policy.largeMm
    ? Math.ceil(exact / policy.largeEvery)
    : Math.max(Math.ceil(exact * policy.smallShare - 1e-9), policy.smallLeast)
}
