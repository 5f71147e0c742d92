/** A pattern over more sizes than it is written for, by the core itself. */
import type { Pattern } from '@tessellum/contract/patterns'
import { gradeOver } from '@tessellum/core/desk/grade'
import { screen, waitFor, within } from '@testing-library/react'
import { Grading } from '../src/patterns/grading'
import { patternsRead } from './a-pattern'
import { fakeWorkers } from './fake-worker'
import { show } from './on-screen'

const source = `pattern Band
size short  length = 20 mm  default
size long   length = 30 mm
bead A cylinder 11/0
part p
string 6A
until length length, pitch 1.6 mm
row A
end
`
const pattern = { ...(patternsRead[1]?.[1] as Pattern), source }

// The worker stays from test to test; what it does is the test's.
let grades = gradeOver
let asked: (readonly unknown[])[] = []
fakeWorkers({
  evaluate: () => ({
    grade: (...question: Parameters<typeof gradeOver>) => {
      asked.push(question.slice(2))
      return grades(...question)
    },
  }),
})
beforeEach(() => {
  grades = gradeOver
  asked = []
})

const grade = (of: Pattern = pattern) => show(<Grading pattern={of} choices={{}} kit={{}} />)
const over = () => screen.getByRole<HTMLInputElement>('textbox', { name: 'Over' })
const button = () => screen.getByRole('button', { name: 'Grade' })
const cells = () =>
  screen
    .getAllByRole('row')
    .slice(1)
    .map((row) => [within(row).getByRole('rowheader'), ...within(row).getAllByRole('cell')])
    .map((row) => row.map((cell) => cell.textContent ?? ''))

test('a pattern whose sizes set no measure has nothing to be graded over', () => {
  grade({ ...pattern, source: 'pattern Band\nbead A cylinder 11/0\npart p\nstring 6A\n' })
  expect(screen.queryByRole('button', { name: 'Grade' })).toBeNull()
})

test('each measure has its counts, thread and size; a longer one takes more of all', async () => {
  const { person } = grade()
  await person.clear(over())
  await person.type(over(), '10, 20, 30 mm')
  await person.click(button())
  await waitFor(() => expect(screen.getAllByRole('row')).toHaveLength(4))
  expect(asked).toEqual([['length', [10, 20, 30]]])
  const rows = cells()
  expect(rows.map(([measure]) => measure)).toEqual(['10 mm', '20 mm', '30 mm'])
  const counts = rows.map(([, beads]) => Number(beads))
  const evaluated = gradeOver(source, {}, 'length', [10, 20, 30]).map(
    ({ report }) => report.beads.find(({ role }) => role === 'A')?.total,
  )
  expect(counts).toEqual(evaluated)
  expect([...counts].sort((a, b) => a - b)).toEqual(counts)
  // Nothing is chosen for A, so that there is no price to say.
  expect(rows.every((row) => row.includes('no prices') && row.at(-1) === 'keeps them')).toBe(true)
})

test.each([
  ['', /Give the measures, for example/],
  [',', /Give the measures, for example/],
  ['10, wide', /"wide" is not a number/],
])('"%s" is no list of measures, and is not sent', async (list, said) => {
  const { person } = grade()
  await person.clear(over())
  if (list) await person.type(over(), list)
  await person.click(button())
  await screen.findByText(said)
  expect(asked).toEqual([])
  expect(over().value).toBe(list)
})

test('what cannot be graded is said, and the list that was typed is there to be mended', async () => {
  const { person } = grade()
  await person.clear(over())
  await person.type(over(), '10, 9000 mm')
  await person.click(button())
  expect((await screen.findByRole('alert')).textContent).toContain('9000 mm')
  expect(over().value).toBe('10, 9000 mm')
})

test('a rule that is broken is said beside the measure, with the nearest that keeps it', async () => {
  grades = (...question) =>
    gradeOver(...question).map((each, i) =>
      i === 0 ? { ...each, breaks: 'Rows come in fours.', nearestMm: 12 } : each,
    )
  const { person } = grade()
  await person.clear(over())
  await person.type(over(), '10, 20 mm')
  await person.click(button())
  await waitFor(() => expect(screen.getAllByRole('row')).toHaveLength(3))
  expect(cells().map((row) => row.at(-1))).toEqual(['Rows come in fours. 12 mm keeps them.', 'keeps them'])
})
