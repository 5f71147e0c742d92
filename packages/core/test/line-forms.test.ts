import { evaluatePattern } from '../src/evaluate/evaluate-pattern'
import { lineForms } from '../src/notation/line-forms'

const head = ['bead A cylinder 11/0', 'bead C round 15/0', 'stone S round 14 mm, height 4 mm', 'part p']
/** What a form needs to stand on. */
const before: Readonly<Record<string, readonly string[]>> = {
  'Round of peyote': ['ring 40A'],
  'Round with decreases': ['ring 40A'],
  'Round of arcs': ['ring 40A'],
  'Loop or bail': ['ring 40A'],
  Fringe: ['ring 40A'],
  'Picots at every bead': ['ring 8A'],
  Reinforce: ['ring 40A'],
  Finish: ['ring 40A'],
}

const errors = (lines: readonly string[]) =>
  evaluatePattern(lines.join('\n')).report.diagnostics.filter(({ severity }) => severity === 'error')

test.each(lineForms.map((form) => [form.name, form] as const))(
  '%s: its lines and its sketch are evaluated',
  (name, form) => {
    const values = Object.fromEntries(
      form.fields.map((field, i) => [
        field.name,
        field.kind === 'bead' ? (i === 0 ? 'A' : 'C') : 'usual' in field ? field.usual : 'S',
      ]),
    )
    const lines = form.lines(values)
    expect(errors([...head, ...(before[name] ?? []), ...lines])).toEqual([])
    expect(errors(form.sketch.split('\n'))).toEqual([])
  },
)
