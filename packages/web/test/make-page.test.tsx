/** How many kits the free stock makes: of one pattern, and of a mix. */
import type { CouldMake } from '@tessellum/contract/batches'
import { screen, waitFor, within } from '@testing-library/react'
import { MakePage } from '../src/kits/make-page'
import { evaluatedInTwoSizes, patternsRead } from './a-pattern'
import { changesIn, shopThatAnswers, show } from './on-screen'

beforeEach(evaluatedInTwoSizes)

const page = (answer: (lines: number) => unknown) => {
  const asked = shopThatAnswers({
    'POST /api/batches/could-make': (body) => answer((body as { lines: unknown[] }).lines.length),
  })
  return { ...show(<MakePage />, { path: '/kits/make', data: patternsRead }), asked: () => changesIn(asked) }
}
const able = (lines: number, more: Partial<CouldMake> = {}): CouldMake => ({
  alone: [37, 12].slice(0, lines),
  together: [20, 9].slice(0, lines),
  sets: 8,
  proven: true,
  ...more,
})
const lines = () => screen.getAllByRole('group')
type Person = ReturnType<typeof page>['person']

async function choose(person: Person, line: number, title: string) {
  const pattern = within(lines()[line] as HTMLElement).getByRole('combobox', { name: 'Pattern' })
  await person.click(pattern)
  // Each list of choices stays in the page: the one that was opened last is meant.
  await person.click((await screen.findAllByTitle(title)).at(-1) as HTMLElement)
}

test('one pattern is asked for as soon as it is chosen, and nothing is said of sets', async () => {
  const { person, asked } = page(able)
  expect(asked()).toEqual([])
  await choose(person, 0, 'Windlass pendant')
  expect((await screen.findByRole('status')).textContent).toBe('37 by themselves')
  expect(asked().at(-1)?.[1]).toEqual({
    lines: [{ patternId: 1, version: 2, size: 'classic', colourwayId: 11, kits: 1 }],
  })
})

test('of a mix it is said what each gives alone, beside the other, and in sets; while a line is not whole, nothing', async () => {
  const { person, asked } = page(able)
  await choose(person, 0, 'Windlass pendant')
  await screen.findByText('37')
  await person.click(screen.getByRole('button', { name: 'And another' }))
  // What was said of one pattern is not said of a mix with something that is not chosen yet.
  expect(screen.queryAllByRole('status')).toEqual([])
  const before = asked().length
  await choose(person, 1, 'Windlass pendant')
  await waitFor(() => expect(screen.getAllByRole('status')).toHaveLength(3))
  expect(screen.getAllByRole('status').map((each) => each.textContent)).toEqual([
    '37 by themselves, 20 when most kits in all are made',
    '12 by themselves, 9 when most kits in all are made',
    'As sets of 1 and 1: 8 whole sets.',
  ])
  expect(asked()).toHaveLength(before + 1)
})

test('what is not proven is not said as if it were', async () => {
  const { person } = page((count) => able(count, { proven: false }))
  await choose(person, 0, 'Windlass pendant')
  await screen.findByText('37')
  await person.click(screen.getByRole('button', { name: 'And another' }))
  await choose(person, 1, 'Windlass pendant')
  await screen.findByText(/More may be possible: it took too long to be sure/)
})

test('why it cannot be said stands on the page', async () => {
  const { person } = page(() => ({
    status: 422,
    code: 'no-bead',
    message: 'Lantern has no bead for C in size classic.',
    hint: '',
  }))
  await choose(person, 0, 'Windlass pendant')
  expect((await screen.findByRole('alert')).textContent).toContain('Lantern has no bead for C')
})
