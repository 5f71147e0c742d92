import type { Touching } from '../report/measures'
import type { Form } from './form'

/** Beads this near lie side by side for the eye, mm: thread keeps some of them a little apart. */
const nearMm = 0.5

/** Which roles lie against each other in the piece, and in how many places: what the eye sees side by side. */
export function touchingIn({ piece, settling }: Form, letterOf: (role: number) => string): Touching[] {
  const places = new Map<string, number>()
  for (const { a, b } of settling.pressed(nearMm)) {
    const key = [letterOf(piece.work.role(a)), letterOf(piece.work.role(b))].sort().join(' ')
    places.set(key, (places.get(key) ?? 0) + 1)
  }
  return [...places]
    .map(([key, count]) => ({ roles: key.split(' ') as [string, string], places: count }))
    .sort((a, b) => b.places - a.places || a.roles.join().localeCompare(b.roles.join()))
}
