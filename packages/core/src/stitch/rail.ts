/**
 * Rails: ordered runs of holes that rounds walk along.
 *
 * A closed rail is kept turned so that the needle stands just behind its last group: the next hole to come is its first. Its
 * groups are what the last round added, or the beads of a ring; which of their beads are anchors is the difference between
 * techniques.
 */
import type { Hole } from './hole'

/** What one stitch added. */
export interface Group {
  readonly holes: readonly Hole[]
  /** Those of them that stand up for the next round: all, unless some were marked with ^. */
  readonly stands: readonly Hole[]
}

/**
 * An odd number of beads has no seam. Round and round, the rounds run on in a spiral, by turns a stitch longer and shorter; to and fro, every
 * second row ends with a bead that has none to go into.
 */
export type OddEdge =
  | {
      readonly type: 'spiral' /** Stitches more than beads that stand up: of the next round, and of the one after it. */
      readonly more: number
      readonly after: number
    }
  | {
      readonly type: 'edge' /** The next row ends with such a bead; otherwise it begins beside it. */
      readonly turns: boolean
    }

export interface Rail {
  readonly closed: boolean
  /** In walking order. */
  readonly groups: readonly Group[]
  /** A ring that nothing has been stitched on: every second group of it stands up, and the rest is its other edge. */
  readonly fresh: boolean
  /** The beads of the ring it grew from, and its groups a ring bead: how a better ring count is computed. */
  readonly ringCount: number
  readonly perRingBead: number
  /** Of a ring worked on one side: the runs of it that stand up for peyote on this one, where they are not every second bead. */
  readonly standing?: readonly Group[]
  /** Its row, for the shape; -1 where it was gathered by hand. */
  readonly course: number
  /** Its beads stand on end, and say nothing of the way round. */
  readonly upright?: boolean
  /** Of peyote over an odd count: how it comes round, or back. */
  readonly odd?: OddEdge | undefined
  /** +1 for rounds that grow towards the front, -1 towards the back. */
  readonly side: 1 | -1
}

/** A group all of whose beads stand up. */
export const plainGroup = (holes: readonly Hole[]): Group => ({ holes, stands: holes })

export const holesOf = (rail: Rail): Hole[] => rail.groups.flatMap((group) => [...group.holes])

/** The same rail begun `by` groups later; an open one begins at its end. */
export function turned(rail: Rail, by: number): Rail {
  const n = rail.groups.length
  if (n === 0 || !rail.closed) return rail
  const from = ((by % n) + n) % n
  return from === 0 ? rail : { ...rail, groups: [...rail.groups.slice(from), ...rail.groups.slice(0, from)] }
}

/** A group passed the other way. */
export const turnedBack = ({ holes, stands }: Group): Group => ({
  holes: holes.map((h) => h ^ 1).reverse(),
  stands: stands.map((h) => h ^ 1).reverse(),
})

/** Single holes gathered `size` at a time. */
export function gathered(holes: readonly Hole[], size: number): Hole[][] {
  const groups: Hole[][] = []
  for (let at = 0; at < holes.length; at += size) groups.push(holes.slice(at, at + size))
  return groups
}
