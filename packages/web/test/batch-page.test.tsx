/** A batch's page offers what can be done with it as far as it has come, to those who may; and takes back what can be. */
import type { Batch, ChangedBatch } from '@tessellum/contract/batches'
import { screen, waitFor, within } from '@testing-library/react'
import { BatchPage } from '../src/kits/batch-page'
import { patternsRead } from './a-pattern'
import { changesIn, namedItem, shopThatAnswers, show } from './on-screen'

const item = {
  itemId: 1,
  name: 'cylinder 11/0 Lantern green',
  item: namedItem(1, 'Lantern green'),
  unit: 'mg' as const,
  needed: 3200,
  onHand: 9000,
  promised: 0,
  promisedHere: 0,
  free: 9000,
  short: 0,
  shortFromKit: null,
  heldBy: [],
}
const outlookLine = {
  bill: [
    { itemId: 1, unit: 'mg' as const, roles: ['A'], exact: 63, spare: 7, standsFor: 76, quantity: 400, step: 100 },
  ],
  troubles: [],
  couldMake: 22,
  ready: 0,
  together: 8,
  limitedBy: [],
  substitutes: [],
  oneMore: [],
}
const line = {
  id: 41,
  patternId: 1,
  version: 1,
  size: 'petite',
  colourwayId: 11,
  colourwayVersion: 4,
  kits: 8,
  title: 'Windlass pendant',
  colourway: 'Lantern',
  ownColourway: false,
}
const batch = (state: Batch['state'], more: Partial<Batch> = {}): Batch => ({
  id: 3,
  name: 'Winter fair',
  dueOn: '2026-12-20',
  state,
  priority: 2,
  kits: 8,
  patterns: ['Windlass pendant'],
  lines: [line],
  outlook: { lines: [outlookLine], items: [item], ready: true, proven: true },
  ...more,
})

function page(
  of: Batch,
  roles: readonly string[] = ['owner'],
  answers: Record<string, (body: unknown) => unknown> = {},
) {
  let now = of
  const becomes = (state: Batch['state']) => () => {
    now = batch(state)
    return now
  }
  const asked = shopThatAnswers({
    'POST /api/batches/3/reserve': becomes('reserved'),
    'POST /api/batches/3/release': becomes('draft'),
    'GET /api/batches/3': () => now,
    ...answers,
  })
  const shown = show(<BatchPage />, {
    path: '/kits/:id',
    at: '/kits/3',
    data: [
      ...patternsRead,
      [['batches', 3], of],
      [['packing', 3], { id: 3, name: of.name, state: of.state, kits: 8, tasks: [] }],
      [['me'], { name: 'isaura', roles }],
    ],
  })
  return { ...shown, asked: () => changesIn(asked) }
}
/** Of its head: papers can be printed as long as there are any. */
const actions = () =>
  screen
    .queryAllByRole('button')
    .flatMap(({ textContent }) => (textContent && !/label/.test(textContent) ? [textContent] : []))

const offered: [Batch['state'], string, readonly string[]][] = [
  ['draft', 'owner', ['Reserve 8 kits', 'Change', 'Due date and priority', 'Call off']],
  ['reserved', 'owner', ['Give back', 'Pack', 'Change', 'Due date and priority', 'Call off']],
  ['packing', 'owner', ['Pack', 'Change', 'Due date and priority', 'Call off']],
  ['packed', 'owner', ['Look at the bags', 'Change', 'Due date and priority', 'Call off']],
  ['closed', 'owner', []],
  ['cancelled', 'owner', ['Plan it again']],
  ['reserved', 'designer', ['Give back', 'Change', 'Due date and priority', 'Call off']],
  ['draft', 'teacher', []],
  ['cancelled', 'teacher', []],
]
test.each(offered)('a batch that is %s offers a %s: %j', (state, role, wanted) => {
  page(batch(state), [role])
  expect(actions()).toEqual(wanted)
})

test('what is short cannot be reserved, and says what could be done about it', () => {
  page(
    batch('draft', {
      outlook: {
        lines: [{ ...outlookLine, couldMake: 5, together: 5, limitedBy: [1] }],
        items: [{ ...item, free: 2000, short: 1200, shortFromKit: 6 }],
        ready: false,
        proven: true,
      },
    }),
  )
  expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Reserve 8 kits' }).disabled).toBe(true)
  screen.getByText(/limited by cylinder 11\/0 Lantern green/)
  screen.getByText('from kit 6 on')
  const link = screen.getByRole('link', { name: 'What could stand in for A?' })
  const to = new URL(link.getAttribute('href') ?? '', 'http://shop')
  expect(Object.fromEntries(to.searchParams)).toEqual({
    colourway: '11',
    size: 'petite',
    instead: 'A',
    batch: '3',
    line: '1',
    kits: '8',
  })
})

test('what was reserved can be undone at once', async () => {
  const { person, asked } = page(batch('draft'))
  await person.click(screen.getByRole('button', { name: 'Reserve 8 kits' }))
  await screen.findByText('Reserved: the shelf promises it all.', { exact: false })
  await screen.findByRole('button', { name: 'Give back' })
  await person.click(screen.getByRole('button', { name: 'Undo' }))
  await waitFor(() =>
    expect(asked().map(([route]) => route)).toEqual(['POST /api/batches/3/reserve', 'POST /api/batches/3/release']),
  )
  await screen.findByRole('button', { name: 'Reserve 8 kits' })
})

test('other kits are kept with the versions they were planned with; bags left over are named', async () => {
  const { person, asked } = page(batch('packing'), ['stockroom'], {
    'PUT /api/batches/3/lines': (): ChangedBatch => ({
      ...batch('packing', { lines: [{ ...line, kits: 6 }], kits: 6 }),
      toEmpty: ['kit 7 of Windlass pendant, A', 'kit 8 of Windlass pendant, A'],
    }),
  })
  const kits = screen.getByRole<HTMLInputElement>('spinbutton', { name: 'Kits' })
  await person.clear(kits)
  await person.type(kits, '6{Enter}')
  const told = await screen.findByText('Put back into their tubes:')
  expect(
    within(told)
      .getAllByRole('listitem')
      .map((each) => each.textContent),
  ).toEqual(['kit 7 of Windlass pendant, A', 'kit 8 of Windlass pendant, A'])
  expect(asked()[0]?.[1]).toEqual({
    lines: [{ id: 41, patternId: 1, version: 1, size: 'petite', colourwayId: 11, colourwayVersion: 4, kits: 6 }],
  })
})

test.each([
  ['0', 'A line has at least 1 kit.'],
  ['2.5', 'Kits are whole: give a number without a fraction.'],
])('%s kits are said to be wrong, and kept nowhere', async (typed, said) => {
  const { person, asked } = page(batch('draft'))
  const kits = screen.getByRole<HTMLInputElement>('spinbutton', { name: 'Kits' })
  await person.clear(kits)
  await person.type(kits, `${typed}{Enter}`)
  await screen.findByText(said)
  expect(asked()).toEqual([])
})

test('a colourway that has changed since is taken only when that is asked for', async () => {
  const { person, asked } = page(batch('draft', { lines: [{ ...line, colourwayVersion: 2 }] }), ['designer'], {
    'PUT /api/batches/3/lines': (): ChangedBatch => ({ ...batch('draft'), toEmpty: [] }),
  })
  screen.getByText('Lantern is version 4 now; this line keeps version 2.')
  await person.click(screen.getByRole('button', { name: 'Plan with version 4' }))
  await waitFor(() => expect(screen.queryByText(/this line keeps version/)).toBeNull())
  const [, body] = asked()[0] as [string, { lines: object[] }]
  expect(body.lines[0]).not.toHaveProperty('colourwayVersion')
})

test('a version with an erratum says so, and where it is mended', () => {
  const [, [key, windlass]] = patternsRead as unknown as [unknown, [readonly unknown[], { versions: object[] }]]
  const { client } = page(batch('draft'))
  client.setQueryData(key, {
    ...windlass,
    versions: [{ ...windlass.versions[0], corrects: 1, note: 'Row 9 has 4 B.' }, windlass.versions[1]],
  })
  return waitFor(() =>
    expect(document.body.textContent).toContain('Version 1 has an erratum, mended in version 2: Row 9 has 4 B.'),
  )
})

test('a batch is called off only when that has been asked, and what is refused stands on the page', async () => {
  const { person, asked } = page(batch('packing'), ['owner'], {
    'POST /api/batches/3/cancel': () => ({
      status: 409,
      code: 'conflict',
      message: 'Somebody else has closed it.',
      hint: 'Reload the page.',
    }),
  })
  await person.click(screen.getByRole('button', { name: 'Call off' }))
  expect(asked()).toEqual([])
  await person.click(await screen.findByRole('button', { name: 'Call the batch off' }))
  await screen.findByText(/Somebody else has closed it/)
})

test('its day and turn are begun from what they are now, not from when the page was opened', async () => {
  const { person, client, asked } = page(batch('draft'), ['owner'], {
    'PUT /api/batches/3': () => batch('draft', { priority: 1, dueOn: '2026-12-24' }),
  })
  client.setQueryData(['batches', 3], batch('draft', { dueOn: '2026-12-24', priority: 3 }))
  await screen.findByText(/24 December 2026/)
  await person.click(screen.getByRole('button', { name: 'Due date and priority' }))
  await person.click(await screen.findByText('goes first'))
  await person.click(screen.getByRole('button', { name: 'Save' }))
  await waitFor(() => expect(asked()).toHaveLength(1))
  expect(asked()[0]).toEqual(['PUT /api/batches/3', { dueOn: '2026-12-24', priority: 1 }])
})
