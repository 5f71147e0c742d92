import { evaluatePattern } from '../src/evaluate/evaluate-pattern'
import { usualThreadSettings } from '../src/thread/settings'
import { languageCodes } from '../src/writing/language'
import { languages } from '../src/writing/languages'
import { drawnLines } from '../src/writing/layout'
import { techniqueNames, techniquesIn, techniqueView } from '../src/writing/techniques'
import { plainEdition, writePattern } from '../src/writing/write-pattern'
import { demo, evaluate } from './support'

const head = 'pattern T\nbead A cylinder 11/0\nbead B cylinder 11/0\npart p\n'
const inLines = (lines: string) => techniquesIn(evaluatePattern(head + lines, {}).report)

test('techniques are told from what is worked, whatever the line looks like', () => {
  expect(inLines('ring 24A\nround A\nround B, B, -\n')).toEqual(['ring', 'round', 'decrease'])
  expect(inLines('string 12A\nrow A\nrow 2A\n')).toEqual(['row', 'increase'])
  // Two wide is not an increase: every gap is two wide.
  expect(inLines('ring 24A\nround 2A\nround 2A\n')).toEqual(['ring', 'round', 'drop'])
  // Nor are gaps of one and of two beads in turn, each filled again as it was.
  expect(inLines('ring 24A\nround A, 2A\n')).toEqual(['ring', 'round', 'increase'])
  expect(inLines('ring 18A\nround 5B into every 3rd bead\n')).toEqual(['ring', 'netting'])
  expect(inLines('ring 12A\nrepeat 3\n  loop 3B\n  go 2\nend\n')).toEqual(['ring', 'loop'])
  expect(techniquesIn(evaluate(demo('windlass-pendant')))).toEqual(['ring', 'round', 'loop'])
})

test.each(techniqueNames)('%s is drawn with a thread and new beads, and told in every language', (name) => {
  const view = techniqueView(name)?.view
  expect(view?.shapes.some((shape) => shape.type === 'bead')).toBe(true)
  expect(view?.way?.path.length).toBeGreaterThan(0)
  const texts = languageCodes.map((code) => languages[code].techniques[name].text)
  expect(new Set(texts).size).toBe(languageCodes.length)
})

test('a drawing for each round leaves out what is not one, and for each part is the last of it', () => {
  const { parts } = writePattern(evaluate(demo('windlass-pendant')), plainEdition(usualThreadSettings))
  const lines = (density: 'step' | 'round' | 'part') => [...drawnLines(parts, () => true, density)]
  const steps = parts.flatMap((part) => part.steps)
  expect(lines('step')).toEqual(steps.map(({ line }) => line))
  expect(lines('part')).toEqual(parts.map((part) => part.steps.at(-1)?.line))
  const rounds = steps.filter(({ line }) => lines('round').includes(line))
  expect(rounds.map(({ key }) => key.text.split(' ')[0])).toEqual([
    'ring',
    ...['round', 'round', 'round', 'round', 'round', 'round'],
  ])
})
