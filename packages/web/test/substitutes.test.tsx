/** What stands in for a bead, by the core itself: what each would do is said, and taken for the colourway or for one batch. */
import type { Colourway } from '@tessellum/contract/colourways'
import type { Pattern } from '@tessellum/contract/patterns'
import type { Item } from '@tessellum/contract/stock'
import { evaluatePattern } from '@tessellum/core/evaluate/evaluate-pattern'
import { chosenIn } from '@tessellum/core/kit/choice'
import { screen, waitFor, within } from '@testing-library/react'
import type { ForLine } from '../src/colours/accept'
import { Substitutes } from '../src/colours/substitutes'
import { tasks } from '../src/patterns/evaluate-tasks'
import { patternsRead } from './a-pattern'
import { fakeWorkers } from './fake-worker'
import { anItem, changesIn, namedItem, shopThatAnswers, show } from './on-screen'

fakeWorkers({ evaluate: () => tasks })

const source = 'pattern T\nbead A cylinder 11/0\npart p\nring 40A\nround A\nround A\n'
const pattern = { ...(patternsRead[1]?.[1] as Pattern), source }
const role = 'A'
const green = anItem
const moss: Item = { ...anItem, ...namedItem(2, 'Moss'), colour: '#30604f', onHand: 900, reserved: 0 }
const wide: Item = {
  ...anItem,
  ...namedItem(3, 'Tarn wide'),
  colour: '#2a5a49',
  bead: anItem.bead && { ...anItem.bead, lengthMm: 1.5, acrossMm: 1.8 },
}
const round: Item = {
  ...anItem,
  ...namedItem(4, 'Round moss'),
  kind: 'round',
  bead: anItem.bead && { ...anItem.bead, kind: 'round', lengthMm: 1.4, acrossMm: 2.1, contact: 3 },
}
const colourway: Colourway = {
  id: 11,
  patternId: 1,
  name: 'Lantern',
  version: 4,
  batchId: null,
  choices: [{ role: 'A', size: '', itemId: 1, counting: 'all', rank: 0 }],
}

function substitutes({ forLine, refused = false }: { forLine?: ForLine; refused?: boolean } = {}) {
  const shelf = [green, moss, wide, round]
  const chosen = chosenIn(colourway.choices, '', shelf)
  const choices = { beads: chosen.beads, counting: chosen.counting }
  const conflict = { status: 409, code: 'stale', message: 'Somebody else has changed Lantern.', hint: 'Reload it.' }
  const asked = shopThatAnswers({
    'PUT /api/colourways/11': (body) => (refused ? conflict : { ...colourway, ...(body as object), version: 5 }),
    'POST /api/batches/7/lines/2/substitute': () => conflict,
  })
  const close = jest.fn()
  const page = show(
    <Substitutes
      pattern={pattern}
      colourway={colourway}
      role={role}
      choices={choices}
      chosen={chosen}
      shelf={shelf}
      report={evaluatePattern(source, choices).report}
      wanted={3}
      forLine={forLine}
      close={close}
    />,
  )
  return { ...page, close, asked: () => changesIn(asked) }
}
const offered = async () => {
  const list = await screen.findByRole('list', { name: 'Substitutes, best first' })
  await waitFor(() => expect(within(list).queryAllByRole('button').length).toBeGreaterThan(0))
  return within(list)
    .getAllByRole('listitem')
    .flatMap((each) => each.getAttribute('aria-label') ?? [])
}
const entry = (name: string) => screen.getByRole('listitem', { name })

test('beads of its kind are offered, never the bead itself; each with what is free, how near its colour is, and what changes', async () => {
  substitutes()
  expect((await offered()).sort()).toEqual(['Moss', 'Tarn wide'])
  // 80 beads of 5.2 mg and some to spare: 900 mg are enough for one kit, of three that are wanted.
  expect(entry('Moss').textContent).toContain('0.9 g free: 1 kit2.1 from the colour there now')
  expect(entry('Moss').textContent).toContain('no count changes')
  // A bead of the same colour, and wider.
  expect(entry('Tarn wide').textContent).toContain('0.0 from the colour there now')
  // Only what is not as long and wide has more than one way of being worked in.
  expect(within(entry('Moss')).queryByRole('button', { name: /Compare ways/ })).toBeNull()
  expect(within(entry('Tarn wide')).getByRole('button', { name: /Compare ways/ })).toBeTruthy()
})

test('other kinds are another question', async () => {
  const { person } = substitutes()
  await offered()
  await person.click(screen.getByText('Other kinds'))
  await waitFor(async () => expect(await offered()).toEqual(['Round moss']))
})

test('taken for the colourway, it is its choice from now on', async () => {
  const { person, asked, close } = substitutes()
  await offered()
  await person.click(screen.getByRole('button', { name: 'For the colourway: Moss' }))
  await waitFor(() => expect(close).toHaveBeenCalled())
  expect(asked()).toEqual([
    [
      'PUT /api/colourways/11',
      { name: 'Lantern', choices: [{ role: 'A', size: '', itemId: 2, counting: 'all', rank: 0 }] },
    ],
  ])
})

test('what the shop refuses is said, and the list stays to choose from', async () => {
  const { person, close } = substitutes({ refused: true })
  await offered()
  await person.click(screen.getByRole('button', { name: 'For the colourway: Moss' }))
  expect((await screen.findByRole('alert')).textContent).toBe('Somebody else has changed Lantern. Reload it.')
  expect(close).not.toHaveBeenCalled()
  expect(entry('Moss')).toBeTruthy()
})

test('for a batch it is asked of that line and of nothing else', async () => {
  const { person, asked } = substitutes({ forLine: { batchId: 7, line: 2 } })
  await offered()
  await person.click(screen.getByRole('button', { name: 'For this batch: Moss' }))
  await screen.findByRole('alert')
  expect(asked()).toEqual([['POST /api/batches/7/lines/2/substitute', { role: 'A', itemId: 2, counting: 'all' }]])
})

test('the ways of working another bead in are compared, each measured on its form', async () => {
  const { person } = substitutes()
  await offered()
  await person.click(within(entry('Tarn wide')).getByRole('button', { name: /Compare ways/ }))
  const ways = await screen.findByRole('table', { name: 'Ways of working it in' })
  const rows = within(ways).getAllByRole('row').slice(1)
  expect(rows.length).toBeGreaterThan(0)
  for (const row of rows) expect(row.textContent).toMatch(/\d mm|not sound/)
  await person.click(screen.getByRole('button', { name: 'Compare ways: Tarn wide' }))
  expect(screen.queryByRole('table', { name: 'Ways of working it in' })).toBeNull()
})
