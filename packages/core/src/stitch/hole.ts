/**
 * A hole to pass: a bead, one of its bores, and the way through it, packed into one whole number so that rails are plain
 * arrays of numbers. The same packing names the end of a bore at which the needle goes in.
 */
export type Hole = number

/** +1 from the bore's first end to its second, -1 back. */
export type Way = 1 | -1

export const hole = (bead: number, bore: 0 | 1 = 0, way: Way = 1): Hole => bead * 4 + bore * 2 + (way === 1 ? 0 : 1)

export const beadOf = (h: Hole): number => h >> 2
export const boreOf = (h: Hole): 0 | 1 => ((h >> 1) & 1) as 0 | 1
export const wayOf = (h: Hole): Way => ((h & 1) === 0 ? 1 : -1)

/** The end at which the needle goes in, and the one at which it comes out. */
export const entryOf = (h: Hole): number => h
export const exitOf = (h: Hole): number => h ^ 1
