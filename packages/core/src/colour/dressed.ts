import type { Report } from '../report/report'
import type { RoleColour } from './judgement'

interface Dress {
  readonly id: number
  readonly kind: string
  readonly size: string
  readonly colourName: string
  readonly colour: string
  readonly finish: string
}

/** What each role of a pattern is dressed in, for judging it. Roles without an item are left out. */
export const dressedIn = (report: Report, items: Readonly<Record<string, Dress>>): RoleColour[] =>
  report.beads.flatMap(({ role, label, total }) => {
    const item = items[role]
    if (!item || total === 0) return []
    const { id, kind, size, colourName, colour, finish } = item
    return [{ role, label, itemId: id, shape: `${kind} ${size}`, colourName, colour, finish, count: total }]
  })
