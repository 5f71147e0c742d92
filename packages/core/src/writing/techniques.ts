/** The techniques that a pattern is worked with, each shown once on a small piece of its own. */
import type { Hand } from '../drawing/mirror'
import { allStepForms, type StepView, stepViews } from '../drawing/step-views'
import { formedPattern } from '../form/form-pattern'
import type { Report } from '../report/report'
import { type Action, pickedIn } from '../stitch/action'
import { beadsIn } from '../stitch/runs'

export const techniqueNames = [
  'ring',
  'round',
  'row',
  'drop',
  'decrease',
  'increase',
  'netting',
  'square',
  'unit',
  'stand',
  'loop',
  'fringe',
] as const
export type TechniqueName = (typeof techniqueNames)[number]

/** Those that a pattern has, in the order of the list. */
export function techniquesIn({ statements }: Report): TechniqueName[] {
  const found = new Set(statements.flatMap(({ action, turns }) => [action, ...turns].flatMap(techniquesOf)))
  return techniqueNames.filter((name) => found.has(name))
}

function techniquesOf(action: Action): TechniqueName[] {
  switch (action.type) {
    case 'ring':
    case 'square':
    case 'stand':
    case 'loop':
    case 'fringe':
      return [action.type]
    case 'weave':
      return ['unit']
    case 'round': {
      const { cycle, into, closed } = action
      const picked = cycle.map(({ moves }) => beadsIn(pickedIn(moves)))
      if (into.type !== 'gaps') return picked.some((count) => count > 1) ? ['netting'] : []
      return [
        closed ? 'round' : 'row',
        ...(into.wide !== undefined && into.wide > 1 ? (['drop'] as const) : []),
        ...(picked.includes(0) ? (['decrease'] as const) : []),
        // Where gaps of several widths take several picks, which of them grow is not known.
        ...(picked.some((count) => into.wide !== undefined && count > into.wide) ? (['increase'] as const) : []),
      ]
    }
    default:
      return []
  }
}

const beads = 'pattern Technique\nbead A cylinder 11/0\nbead B cylinder 11/0\npart p\n'

/** Of the small pieces: what is new in them is dark. */
export const techniqueColours = { A: '#e4e0d2', B: '#2a5c4a' } as const

/** What is worked, the last line being what is shown. */
const samples: Readonly<Record<TechniqueName, string>> = {
  ring: `${beads}ring 12A\n`,
  round: `${beads}ring 16A\nround B\n`,
  row: `${beads}string 12A\nrow A\nrow A\nrow B\n`,
  drop: `${beads}ring 24A\nround 2A\nround 2B\n`,
  decrease: `${beads}ring 24A\nround A\nround B, B, -\n`,
  increase: `${beads}ring 16A\nround A, A, A, 2A\nround B\n`,
  netting: `${beads}ring 18A\nround 5B into every 3rd bead\n`,
  square: `${beads}string 8A\nsquare B\n`,
  unit: 'pattern Technique\nbead B round 11/0\npart p\nweave 4 units of 3B\n',
  stand: `${beads}stand A round 8 mm\nstand row B\n`,
  loop: `${beads}ring 12A\nloop 7B\n`,
  fringe: `${beads}ring 12A\nfringe 6B end B\n`,
}

const views = new Map<string, StepView | undefined>()

/** The last line of its sample on the work as it lies then; worked out once. */
export function techniqueView(name: TechniqueName, hand: Hand = 'right'): StepView | undefined {
  const key = `${name} ${hand}`
  if (!views.has(key)) {
    const { evaluated, form } = formedPattern(samples[name], {})
    const drawn = form ? stepViews(allStepForms(evaluated, form), evaluated.report.statements, hand) : {}
    views.set(key, Object.values(drawn).at(-1))
  }
  return views.get(key)
}
