/** Holes fill with thread: how many passes a bead has, how many would still go, and where it becomes impassable. */
import { counted } from '../measure/counted'
import type { Mm } from '../measure/units'

/** Thread packs to about this share of a round hole: at the bench a round 11/0 was full by its ninth pass of 6 lb braid with needle 12. */
const packing = 0.42

/**
 * Passes that a bore takes while it still admits the needle: `k t^2 / 0.42 + n^2 + 2 t^2 <= hole^2` before each pass, areas
 * added up, the eye carrying the thread twice. A doubled thread lays two strands at a pass.
 *
 * @returns 0 where the needle does not go through the empty bore
 */
export function maxPassesThrough(boreMm: Mm, threadMm: Mm, needleMm: Mm, strands: 1 | 2 = 1): number {
  if (needleMm > boreMm) return 0
  const each = (strands * threadMm ** 2) / packing
  const left = boreMm ** 2 - needleMm ** 2 - 2 * strands * threadMm ** 2
  return left < 0 ? 0 : Math.floor(left / each + 1e-9) + 1
}

export interface Crowding {
  readonly role: string
  /** Of the fullest bead of the role. */
  readonly passes: number
  /** Passes that would still go through it; below 0 where there are too many. */
  readonly room: number
  /** The line at which the fullest bead got its last pass; where one becomes impassable, the line that was one too many. */
  readonly line: number
}

/** "9 passes: room for 2 more" */
export const sayCrowding = ({ passes, room }: Crowding): string =>
  `${counted(passes, 'pass', 'passes')}: ${room < 0 ? `${-room} too many` : room === 0 ? 'full' : `room for ${room} more`}`
