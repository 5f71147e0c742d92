import type { Action } from '../stitch/action'
import type { Report } from './report'

/** What somebody should have made before. */
export const levels = ['first piece', 'some practice', 'experienced'] as const
export type Level = (typeof levels)[number]

/** By how many ways of working it has, and how much of it there is. */
export function levelOf(report: Report): Level {
  const ways = new Set(report.statements.flatMap(({ action }) => (hard.has(action.type) ? [action.type] : [])))
  const beads = report.beads.reduce((sum, bead) => sum + bead.each, 0)
  const score = ways.size + (beads > 800 ? 2 : beads > 300 ? 1 : 0)
  return score <= 1 ? 'first piece' : score <= 3 ? 'some practice' : 'experienced'
}

const hard: ReadonlySet<Action['type']> = new Set([
  'loop',
  'weave',
  'join',
  'stand',
  'through',
  'rail',
  'turn',
  'under',
  'repeat',
])
