/** An item's lots: what can be done with a tube, and what is asked of the shop for it. */
import type { ItemStory, Lot } from '@tessellum/contract/stock'
import { screen, waitFor, within } from '@testing-library/react'
import { Lots } from '../src/stock/lots'
import { anItem, changesIn, shopThatAnswers, show } from './on-screen'

const lot = (id: number, more: Partial<Lot> = {}): Lot => ({
  id,
  code: `L${id}`,
  receivedOn: '2026-03-04',
  onHand: 9000,
  reserved: 2000,
  inBags: 0,
  place: 'A1',
  supplier: 'Tarn Trading',
  unitCost: 0.002,
  mgPerBead: null,
  ...more,
})
const beads: ItemStory = { ...anItem, lots: [lot(10), lot(11, { place: '', inBags: 1500, mgPerBead: 5.31 })] }

function lots(item: ItemStory = beads, mayMove = true, answers: Record<string, (body: unknown) => unknown> = {}) {
  const asked = shopThatAnswers({
    'POST /api/lots/10/transfer': () => ({ lotId: 10 }),
    'POST /api/lots/10/weighing': () => ({ lotId: 10 }),
    ...answers,
  })
  const page = show(<Lots item={item} mayMove={mayMove} />, {
    data: [
      [
        ['stocktakes', 'places'],
        [{ place: 'A1' }, { place: 'B2' }],
      ],
    ],
  })
  return { ...page, asked: () => changesIn(asked) }
}
const row = (code: string) => screen.getByText(code).closest('tr') as HTMLElement
const figure = (name: RegExp) => screen.findByRole<HTMLInputElement>('spinbutton', { name })

test('each lot says where it lies, what is free, what is in bags, and what its beads weigh', () => {
  lots()
  expect(row('L10').textContent).toMatch(/A1, since 4 Mar 2026.*7 g.*9 g/)
  expect(row('L11').textContent).toMatch(/no place, .*5\.31 mg a bead/)
  expect(row('L11').textContent).toContain('1.5 g in bags')
})

test('who may not move stock has nothing to press; what is not weighed is not offered to be', () => {
  const { unmount } = lots(beads, false)
  expect(screen.queryAllByRole('button', { name: /lot L10/ })).toEqual([])
  unmount()
  lots({ ...beads, unit: 'piece', bead: null })
  const names = within(row('L10'))
    .getAllByRole('button')
    .map((each) => each.textContent)
  expect(names).toEqual(['Move', 'Label'])
})

test('a tube is moved as a whole, or so much of it, in the unit of the shelf', async () => {
  const { person, asked } = lots()
  await person.click(screen.getByRole('button', { name: 'Move: lot L10, A1' }))
  await person.type(await screen.findByRole('combobox', { name: 'To' }), 'B2')
  await person.click(screen.getByRole('button', { name: 'Move it' }))
  await waitFor(() => expect(asked()).toHaveLength(1))
  expect(asked()[0]?.[1]).toEqual({ place: 'B2' })
  await waitFor(() => expect(screen.queryByRole('combobox', { name: 'To' })).toBeNull())
  await person.click(screen.getByRole('button', { name: 'Move: lot L10, A1' }))
  await person.type(await screen.findByRole('combobox', { name: 'To' }), 'C3')
  await person.type(await figure(/How much, g/), '2.5')
  await person.click(screen.getByRole('button', { name: 'Move it' }))
  await waitFor(() => expect(asked()).toHaveLength(2))
  expect(asked()[1]?.[1]).toEqual({ place: 'C3', quantity: 2500 })
})

test('nothing is moved by a nought, and least of all the whole tube', async () => {
  const { person, asked } = lots()
  await person.click(screen.getByRole('button', { name: 'Move: lot L10, A1' }))
  await person.type(await screen.findByRole('combobox', { name: 'To' }), 'B2')
  await person.type(await figure(/How much, g/), '0')
  await person.click(screen.getByRole('button', { name: 'Move it' }))
  await screen.findByText('Enter a quantity other than 0.')
  expect(asked()).toEqual([])
})

test('what a move is refused for stands in its dialog, with what was typed', async () => {
  const { person } = lots(beads, true, {
    'POST /api/lots/10/transfer': () => ({
      status: 409,
      code: 'not-so-much',
      message: 'Only 7 g of lot L10 are free.',
      hint: 'Move the whole tube, or less.',
    }),
  })
  await person.click(screen.getByRole('button', { name: 'Move: lot L10, A1' }))
  await person.type(await screen.findByRole('combobox', { name: 'To' }), 'B2')
  await person.type(await figure(/How much, g/), '8')
  await person.click(screen.getByRole('button', { name: 'Move it' }))
  expect((await screen.findByRole('alert')).textContent).toContain('Only 7 g of lot L10 are free.')
  expect((await figure(/How much, g/)).value).toBe('8')
})

test('beads are weighed: what one weighs is said before it is saved, beside what is usual', async () => {
  const { person, asked } = lots()
  await person.click(screen.getByRole('button', { name: 'Weigh: lot L10, A1' }))
  await person.type(await figure(/Their weight, g/), '0.53')
  expect((await screen.findByRole('status')).textContent).toBe('5.30 mg a bead; 5.2 mg are usual for it')
  await person.click(screen.getByRole('button', { name: 'Use this weight' }))
  await waitFor(() => expect(asked()).toHaveLength(1))
  expect(asked()[0]).toEqual(['POST /api/lots/10/weighing', { beads: 100, mg: 530 }])
})

test('too few beads tell nothing, and are not sent', async () => {
  const { person, asked } = lots()
  await person.click(screen.getByRole('button', { name: 'Weigh: lot L10, A1' }))
  const count = await figure(/Beads on the scale/)
  await person.clear(count)
  await person.type(count, '5')
  await person.type(await figure(/Their weight, g/), '0.03')
  await person.click(screen.getByRole('button', { name: 'Use this weight' }))
  await screen.findByText(/Weigh at least 20 beads/)
  expect(asked()).toEqual([])
})

test('a label that cannot be printed says why', async () => {
  const { person } = lots(beads, true, {
    'POST /api/lots/10/label': () => ({
      status: 503,
      code: 'printer-away',
      message: 'The label printer does not answer.',
      hint: 'Switch it on, and print again.',
    }),
  })
  await person.click(screen.getByRole('button', { name: 'Label: lot L10, A1' }))
  expect((await screen.findByRole('alert')).textContent).toContain('The label printer does not answer.')
})
