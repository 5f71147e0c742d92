/**
 * Which counts follow when a bead of other figures takes a role. Makers hold three schools, and a bead of another kind brings a fourth: a
 * pattern's written runs are refilled to their length.
 */
export const countings = ['all', 'arcs', 'none', 'runs'] as const
export type Counting = (typeof countings)[number]

/** In a maker's words. */
export const countingWords: Readonly<Record<Counting, string>> = {
  all: 'counts follow',
  arcs: 'only arcs follow',
  none: 'counts as written',
  runs: 'runs are refilled',
}
