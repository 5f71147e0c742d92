/** A batch is planned: what is meant most often is filled in, and nothing is asked of the shop before it is whole. */
import type { Outlook } from '@tessellum/contract/batches'
import { screen, waitFor } from '@testing-library/react'
import { PlanPage } from '../src/kits/plan-page'
import { evaluatedInTwoSizes, patternsRead } from './a-pattern'
import { changesIn, shopThatAnswers, show } from './on-screen'

const outlook: Outlook = {
  lines: [{ bill: [], troubles: [], couldMake: 9, ready: 0, together: 9, limitedBy: [], substitutes: [], oneMore: [] }],
  items: [],
  ready: true,
  proven: true,
}

beforeEach(evaluatedInTwoSizes)

const plan = (at = '/kits/plan') => {
  const asked = shopThatAnswers({
    'POST /api/batches/outlook': () => outlook,
    'POST /api/batches': () => ({ status: 409, code: 'conflict', message: 'There is a batch of that name.', hint: '' }),
  })
  const page = show(<PlanPage />, { path: '/kits/plan', at, data: patternsRead })
  return { ...page, asked: () => changesIn(asked) }
}
const field = (name: string) => screen.getByRole<HTMLInputElement>('combobox', { name })
const kits = () => screen.getByRole<HTMLInputElement>('spinbutton', { name: 'Kits' })
const chosen = (name: string) => field(name).closest('.ant-select')?.textContent

test('the newest version, its usual size and the first colourway are meant until somebody says otherwise', async () => {
  const { person, asked } = plan('/kits/plan?pattern=1')
  await waitFor(() => expect(chosen('Size')).toBe('classic'))
  expect([chosen('Version'), chosen('Colourway')]).toEqual(['2', 'Lantern'])
  expect(asked()).toEqual([])
  await person.type(kits(), '8')
  await waitFor(() => expect(asked()).toHaveLength(1))
  expect(asked()[0]?.[1]).toEqual({
    lines: [{ patternId: 1, version: 2, size: 'classic', colourwayId: 11, kits: 8 }],
  })
})

test('another pattern begins its line again, but for the kits; one without a colourway says where to make one', async () => {
  const { person } = plan('/kits/plan?pattern=1')
  await waitFor(() => expect(chosen('Colourway')).toBe('Lantern'))
  await person.type(kits(), '8')
  await person.click(field('Pattern'))
  await person.click(await screen.findByTitle('Heron earrings'))
  const link = await screen.findByRole<HTMLAnchorElement>('link', { name: 'Make one' })
  expect(link.getAttribute('href')).toBe('/patterns/2/colours')
  expect(kits().value).toBe('8')
})

test.each([
  ['0', 'A line has at least 1 kit.'],
  ['2.5', 'Kits are whole: give a number without a fraction.'],
  ['10001', 'A line has at most 10,000 kits. Share them between several batches.'],
])('%s kits are not asked for: %s', async (typed, said) => {
  const { person, asked } = plan('/kits/plan?pattern=1')
  await waitFor(() => expect(chosen('Colourway')).toBe('Lantern'))
  await person.type(kits(), typed)
  await screen.findByText(said)
  // On the way there some whole numbers were typed; what is wrong was not sent.
  for (const [, body] of asked()) {
    const [line] = (body as { lines: { kits: number }[] }).lines
    expect(line?.kits).not.toBe(Number(typed))
  }
})

test('what is refused stands beside the plan, which is all there still, also after a reload', async () => {
  const { person, asked, unmount } = plan('/kits/plan?pattern=1')
  await waitFor(() => expect(chosen('Colourway')).toBe('Lantern'))
  await person.type(kits(), '8')
  await person.type(screen.getByRole('textbox', { name: 'Name' }), 'Saturday class')
  await person.click(screen.getByRole('button', { name: 'Save the plan' }))
  await screen.findByText(/There is a batch of that name/)
  expect(asked().find(([route]) => route === 'POST /api/batches')).toMatchObject([
    'POST /api/batches',
    { name: 'Saturday class', lines: [{ patternId: 1, version: 2, size: 'classic', colourwayId: 11, kits: 8 }] },
  ])
  unmount()
  plan('/kits/plan?pattern=1')
  expect(screen.getByRole<HTMLInputElement>('textbox', { name: 'Name' }).value).toBe('Saturday class')
  expect(kits().value).toBe('8')
})
