import type { Role } from '../stitch/roles'
import type { Work } from '../stitch/work'
import type { Tension } from '../thread/settings'
import type { Report } from './report'

/** A pattern evaluated: the report, and the work it was read off for drawing. */
export interface EvaluatedPattern {
  readonly report: Report
  readonly work: Work
  readonly roles: ReadonlyMap<string, Role>
  readonly letterOf: (role: number) => string
  readonly tension: Tension
}
