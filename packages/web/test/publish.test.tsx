/** Before a pattern is given out: what is missing stands first, and a version is published once nothing must be mended. */
import type { Pattern } from '@tessellum/contract/patterns'
import type { Lack } from '@tessellum/core/writing/check'
import { screen, waitFor } from '@testing-library/react'
import { Publish } from '../src/writing/publish'
import { patternsRead } from './a-pattern'
import { fakeWorkers } from './fake-worker'
import { changesIn, shopThatAnswers, show } from './on-screen'

const drawn = patternsRead[1]?.[1] as Pattern
const lack = (text: string, more: Partial<Lack> = {}): Lack => ({ weight: 'should', text, where: 'ledger', ...more })

// The worker stays from test to test; what it finds is the test's.
let lacks: Lack[] = []
fakeWorkers({
  write: () => ({ check: () => lacks }),
  evaluate: () => ({ evaluate: async () => ({ sizes: ['classic'], size: 'classic' }) }),
})

function publish({
  found = [],
  published = false,
  answers = true,
}: {
  found?: Lack[]
  published?: boolean
  answers?: boolean
} = {}) {
  lacks = found
  const versions = drawn.versions.map((each) => ({ ...each, published: published && each.number === 2 }))
  const pattern = { ...drawn, versions }
  const asked = shopThatAnswers({
    'POST /api/patterns/1/versions': () => (answers ? { ...pattern, version: 3 } : 'lost'),
    'GET /api/patterns/1/versions/2/carriers': () => [
      { id: 9, name: 'Winter fair', kits: 24, state: 'packed', dueOn: '2026-12-01' },
    ],
  })
  const close = jest.fn()
  const edition = { size: 'classic', colourway: 11 }
  const gathered = { title: pattern.title, source: pattern.source, size: 'classic', found: found.length, published }
  const page = show(<Publish pattern={pattern} edition={{ ...edition, version: 2 }} close={close} />, {
    data: [[['editions', 1, edition], gathered]],
  })
  return { ...page, close, asked: () => changesIn(asked) }
}
const button = () => screen.findByRole<HTMLButtonElement>('button', { name: 'Publish version 3' })

test('what must be mended keeps it from being published, and leads to its place', async () => {
  publish({
    found: [
      lack('Line 4 does not work.', { weight: 'must', line: 4 }),
      lack('No colourway is chosen.', { where: 'colours' }),
      lack('Step 2 is said in words of a step that is gone.', { where: 'words' }),
    ],
  })
  expect((await button()).disabled).toBe(true)
  expect(screen.getAllByText('Must be fixed:')).toHaveLength(1)
  const links = screen.getAllByRole('link').map((each) => [each.textContent, each.getAttribute('href')])
  expect(links).toEqual([
    ['Line 4', '/patterns/1?line=4'],
    ['Colours', '/patterns/1/colours'],
    ['Own words', '/patterns/1/written?version=draft'],
  ])
})

test('what had better be mended does not; it is published with its name and what changed', async () => {
  const { person, asked, close } = publish({ found: [lack('The walk has not been timed.', { where: 'walk' })] })
  expect((await button()).disabled).toBe(false)
  await person.type(screen.getByRole('textbox', { name: 'What changed' }), 'A longer loop.')
  await person.click(await button())
  await waitFor(() => expect(close).toHaveBeenCalled())
  expect(asked()).toEqual([
    ['POST /api/patterns/1/versions', { name: 'Edition 3', note: 'A longer loop.', revision: 3, publish: true }],
  ])
})

test('a correction has to say what was wrong, and shows in whose kits the mistake is', async () => {
  const { person, asked, close } = publish({ published: true })
  await button()
  await person.click(screen.getByRole('combobox', { name: 'Corrects' }))
  await person.click(await screen.findByTitle('Version 2: v2'))
  expect((await screen.findByRole('list', { name: 'Batches with version 2' })).textContent).toContain(
    'Winter fair, 24 kits',
  )
  await person.click(await button())
  await screen.findByText('Say what was wrong.')
  expect(asked()).toEqual([])
  await person.type(screen.getByRole('textbox', { name: 'The erratum: what was wrong' }), 'Round 3 has 24, not 22.')
  await person.click(await button())
  await waitFor(() => expect(close).toHaveBeenCalled())
  expect(asked()).toMatchObject([[expect.anything(), { corrects: 2, note: 'Round 3 has 24, not 22.' }]])
})

test('where the shop does not answer, what was typed is there when it is opened again', async () => {
  const { person, close, unmount } = publish({ answers: false })
  await button()
  await person.type(screen.getByRole('textbox', { name: 'What changed' }), 'A longer loop.')
  await person.click(await button())
  await screen.findByRole('alert')
  expect(close).not.toHaveBeenCalled()
  unmount()
  publish()
  await button()
  expect(screen.getByRole<HTMLTextAreaElement>('textbox', { name: 'What changed' }).value).toBe('A longer loop.')
})
