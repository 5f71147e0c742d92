/** Lines for people who do not type notation: whatever form is chosen, what it writes is understood by the notation. */
import { evaluatePattern } from '@tessellum/core/evaluate/evaluate-pattern'
import { lineForms } from '@tessellum/core/notation/line-forms'
import { screen, waitFor } from '@testing-library/react'
import { AddLines } from '../src/patterns/add-lines'
import { fakeWorkers } from './fake-worker'
import { show } from './on-screen'

// Drawings help to choose, and are not needed: none come here.
fakeWorkers({
  form: () => ({
    askAt() {},
    sketch: async (sources: readonly string[]) => sources.map(() => undefined),
  }),
})

function drawer(beads: readonly string[], stones: readonly string[] = []) {
  const added: (readonly string[])[] = []
  const page = show(<AddLines beads={beads} stones={stones} add={(lines) => added.push(lines)} />)
  const choose = async (name: string) => {
    await page.person.click(screen.getByRole('button', { name: 'Add a line' }))
    await page.person.click(await screen.findByRole('button', { name: new RegExp(`^${name}`) }))
  }
  return { ...page, choose, added }
}
const write = () => screen.getByRole<HTMLButtonElement>('button', { name: 'Write it into the ledger' })

test.each(lineForms.map(({ name }) => name))('%s as it is offered is written so that it can be read', async (name) => {
  const { person, choose, added } = drawer(['A', 'C'], ['S'])
  await choose(name)
  await person.click(write())
  await waitFor(() => expect(added).toHaveLength(1))
  const head = 'pattern T\nbead A round 11/0\nbead C round 15/0\nstone S round 9 mm, height 3 mm\npart p\n'
  const { report } = evaluatePattern(`${head}${added[0]?.join('\n')}\n`)
  // A round by itself has nothing to go round; that is told, but no word of it may be unknown.
  const unread = report.diagnostics.filter(({ message }) => /not a word|expected|cannot be read/i.test(message))
  expect(unread).toEqual([])
})

test('without a bead that is declared it says how to declare one, and writes nothing', async () => {
  const { choose } = drawer([])
  await choose('Ring')
  expect(screen.getByRole('alert').textContent).toContain('bead A cylinder 11/0')
  expect(write().disabled).toBe(true)
})

test('the line is shown as it will be written while its numbers change, and one may go back to choose another', async () => {
  const { person, choose, added } = drawer(['A'])
  await choose('Ring')
  const count = screen.getByRole('spinbutton', { name: 'How many' })
  await person.clear(count)
  await person.type(count, '24')
  await screen.findByText((_, element) => element?.textContent === 'ring 24A')
  await person.click(screen.getByRole('button', { name: 'Another' }))
  await screen.findByRole('button', { name: /^Round of peyote/ })
  expect(added).toEqual([])
})

test('a number that is taken out is asked for', async () => {
  const { person, choose, added } = drawer(['A'])
  await choose('Ring')
  await person.clear(screen.getByRole('spinbutton', { name: 'How many' }))
  await person.click(write())
  await screen.findByText('How many: choose or give it.')
  expect(added).toEqual([])
})
