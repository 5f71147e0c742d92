/** What can be done with lines as a whole, by the core itself: one step in the text each, and what falls is said. */
import { screen, waitFor } from '@testing-library/react'
import { tasks } from '../src/patterns/evaluate-tasks'
import { LinesMenu } from '../src/patterns/lines-menu'
import { fakeWorkers, hangs } from './fake-worker'
import { show } from './on-screen'

const text =
  'pattern T\nbead A round 11/0\nbead B round 8/0\npart p\nring 6A as base\nround 2A B\nto base.first\nround B\n'

// The worker stays from test to test, until it breaks.
let evaluate: (...question: Parameters<typeof tasks.evaluate>) => unknown = tasks.evaluate
let mirrored = tasks.mirrored
const workers = fakeWorkers({
  evaluate: () => ({
    ...tasks,
    evaluate: (...asked: Parameters<typeof evaluate>) => evaluate(...asked),
    mirrored: (...asked: Parameters<typeof mirrored>) => mirrored(...asked),
  }),
})
afterEach(() => {
  evaluate = tasks.evaluate
  mirrored = tasks.mirrored
})

function menu(first: number, last = first, source = text) {
  const [written, told]: [string[], string[]] = [[], []]
  const draft = { text: source }
  const page = show(
    <LinesMenu
      draft={{ current: () => ({ ...draft, state: 'typing', trouble: undefined }) }}
      choices={{}}
      stretch={() => ({ first, last })}
      write={(next) => written.push(next)}
      tell={(words) => told.push(words)}
    />,
  )
  const choose = async (name: string) => {
    await page.person.click(screen.getByRole('button', { name: /Lines/ }))
    await page.person.click(await screen.findByRole('menuitem', { name }))
  }
  return { ...page, choose, written, told, draft }
}
const lines = (source: string | undefined) => source?.trimEnd().split('\n')

test('lines are taken out, and it is said what that costs and what no longer works', async () => {
  const { choose, written, told } = menu(5)
  await choose('Take out')
  await waitFor(() => expect(told).toHaveLength(1))
  expect(lines(written[0])).not.toContain('ring 6A as base')
  expect(told[0]).toMatch(/^Taken out: \d+ beads fewer\. Line \d+ no longer works: .* Ctrl Z brings it back\.$/)
})

test('what falls away without harm is said without a warning', async () => {
  const { choose, told } = menu(8)
  await choose('Take out')
  await waitFor(() => expect(told).toHaveLength(1))
  expect(told[0]).toBe('Taken out: 1 bead fewer. Ctrl Z brings it back.')
})

test('a worker that breaks meanwhile is told; the lines are out all the same', async () => {
  const { choose, written, told } = menu(8)
  evaluate = hangs
  await choose('Take out')
  workers.at(-1)?.breaks()
  await waitFor(() => expect(told).toHaveLength(1))
  expect(written).toHaveLength(1)
  expect(told[0]).toContain('Reload the page')
})

test('lines move up, and at the top they say that they stand there already', async () => {
  const below = menu(8)
  await below.choose('Move up')
  expect(lines(below.written[0])?.indexOf('round B')).toBe(6)
  below.unmount()
  const top = menu(5)
  await top.choose('Move up')
  expect(top.written).toEqual([])
  expect(top.told).toEqual(['These lines stand at the top of their part already.'])
})

test('a motif is mirrored as it is worked', async () => {
  const { choose, written } = menu(5, 5, 'pattern T\nbead A round 11/0\nbead B round 8/0\npart p\nstring 3A B A\n')
  await choose('Mirror the motif')
  await waitFor(() => expect(written).toHaveLength(1))
  expect(written[0]).toContain('string A B 3A')
})

test('what is typed while a motif is being mirrored is not written over', async () => {
  const { choose, written, told, draft } = menu(
    5,
    5,
    'pattern T\nbead A round 11/0\nbead B round 8/0\npart p\nstring 3A B A\n',
  )
  mirrored = (...asked) => {
    draft.text += '# typed meanwhile\n'
    return tasks.mirrored(...asked)
  }
  await choose('Mirror the motif')
  await waitFor(() => expect(told).toEqual(['The text has changed meanwhile. Mirror the motif again.']))
  expect(written).toEqual([])
})

test('lines become a part under a name that the notation takes', async () => {
  const { choose, person, written } = menu(6, 8)
  await choose('Make it a part')
  const name = await screen.findByRole('textbox', { name: 'Name' })
  const make = screen.getByRole('button', { name: 'Make the part' })
  await person.click(make)
  await screen.findByText('Enter a name.')
  await person.type(name, 'My rim')
  await person.click(make)
  await screen.findByText(/Small letters/)
  expect(written).toEqual([])
  await person.clear(name)
  await person.type(name, 'rim')
  await person.click(make)
  await waitFor(() => expect(written).toHaveLength(1))
  expect(lines(written[0])).toContain('part rim')
})
