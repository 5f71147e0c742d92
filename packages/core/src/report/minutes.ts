/** How long a piece takes to make, by what is done in it. The seconds are those of a practised hand. */
import type { Action } from '../stitch/action'
import type { Report } from './report'

/** The way most of a piece is worked: what samples are compared by. */
export type Technique = 'ring' | 'peyote' | 'netting' | 'brick' | 'right angle' | 'fringe'

const secondsABead: Readonly<Record<Technique, number>> = {
  ring: 3,
  peyote: 7,
  netting: 6,
  brick: 9,
  'right angle': 10,
  fringe: 5,
}
/** Of each bead that is only passed: in travelling and reinforcing. */
const secondsAPass = 2
const minutesAFinding = 3
/** Each start and each end of a thread. */
const minutesAnEnd = 4
const beginner = 1.8

export interface Minutes {
  /** For all that the pattern makes, whole minutes. */
  readonly practised: number
  readonly beginner: number
  /** Minutes of practised hands by part, in order. */
  readonly parts: readonly { readonly name: string; readonly practised: number }[]
  /** That most beads are worked in. */
  readonly technique: Technique
}

export function minutesOf(report: Report): Minutes {
  const beads = new Map<Technique, number>()
  const parts = new Map<string, number>()
  for (const { action, added, times, part } of report.statements) {
    const count = Object.values(added).reduce((sum, each) => sum + each, 0)
    const technique = techniqueOf(action)
    if (technique && count > 0) beads.set(technique, (beads.get(technique) ?? 0) + count)
    const seconds =
      (technique ? count * secondsABead[technique] : 0) +
      times * passedIn(action) * secondsAPass +
      (action.type === 'attach' ? times * 60 * minutesAFinding : 0)
    parts.set(part, (parts.get(part) ?? 0) + seconds / 60)
  }
  const ends = 2 * report.thread.cuts.length * minutesAnEnd
  const each = [...parts.values()].reduce((sum, minutes) => sum + minutes, ends)
  const practised = Math.max(1, Math.round(each * report.makes))
  const [most = 'ring'] = [...beads].sort((a, b) => b[1] - a[1]).map(([technique]) => technique)
  return {
    practised,
    beginner: Math.round(each * report.makes * beginner),
    parts: [...parts].map(([name, minutes]) => ({ name, practised: Math.round(minutes * report.makes) })),
    technique: most,
  }
}

function techniqueOf(action: Action): Technique | undefined {
  switch (action.type) {
    case 'ring':
    case 'string':
    case 'pick':
      return 'ring'
    case 'round':
      return action.into.type === 'gaps' || action.into.type === 'bore' ? 'peyote' : 'netting'
    case 'stand':
    case 'square':
      return 'brick'
    case 'weave':
    case 'loop':
    case 'join':
      return 'right angle'
    case 'fringe':
      return 'fringe'
    default:
      return undefined
  }
}

function passedIn(action: Action): number {
  switch (action.type) {
    case 'to':
    case 'other edge':
    case 'through':
    case 'reinforce':
      return action.passed
    case 'go':
      return action.beads
    default:
      return 0
  }
}
