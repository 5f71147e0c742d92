/** An item of stock as it is typed: in grams, metres and pounds, kept in milligrams, millimetres and pence. */
import type { ItemStory } from '@tessellum/contract/stock'
import { screen, waitFor } from '@testing-library/react'
import { ItemForm } from '../src/stock/item-form'
import { anItem, changesIn, shopThatAnswers, show } from './on-screen'

const item: ItemStory = {
  ...anItem,
  barcode: '40/1 A',
  cautions: 'contains nickel',
  reorderBelow: 5000,
  packs: [{ amount: 7500, price: 345, leadDays: 9 }],
}

const form = (given?: ItemStory) => {
  const asked = shopThatAnswers({ 'POST /api/items': () => item, 'PUT /api/items/1': () => item })
  const close = jest.fn()
  const page = show(<ItemForm close={close} {...(given ? { item: given } : {})} />)
  return { ...page, close, asked: () => changesIn(asked) }
}
const text = (name: string) => screen.getByRole<HTMLInputElement>('textbox', { name })
const number = (name: string) => screen.getByRole<HTMLInputElement>('spinbutton', { name })
const keep = () => screen.getByRole('button', { name: 'Save' })

test('what is kept of an item and not changed is sent as it was', async () => {
  const { person, asked, close } = form(item)
  expect([number('Reorder below, g').value, number('Pack holds').value, number('Pack costs').value]).toEqual([
    '5',
    '7.5',
    '3.45',
  ])
  await person.clear(text('Place'))
  await person.type(text('Place'), 'B2')
  await person.click(keep())
  await waitFor(() => expect(close).toHaveBeenCalled())
  expect(asked()).toEqual([
    [
      'PUT /api/items/1',
      {
        code: 'BC-1',
        category: 'bead',
        maker: 'Tarn',
        kind: 'cylinder',
        size: '11/0',
        colourCode: 'BC-1',
        colourName: 'Lantern green',
        finish: 'opaque',
        colour: '#2a5a49',
        unit: 'mg',
        place: 'B2',
        reorderBelow: 5000,
        barcode: '40/1 A',
        cautions: 'contains nickel',
        figures: { lengthMm: 1.3, acrossMm: 1.6, boreMm: 0.8, massMg: 5.2, contact: 8, bores: 1 },
        packs: [{ amount: 7500, price: 345, leadDays: 9 }],
      },
    ],
  ])
})

test('a bead needs its measures; thread has none, and is kept by its length', async () => {
  const { person, asked, router } = form()
  for (const [name, words] of [
    ['Code', 'TH-1'],
    ['Maker', 'Tarn'],
    ['Colour', 'Ash'],
  ] as const)
    await person.type(text(name), words)
  await person.type(screen.getByRole('combobox', { name: 'Kind' }), 'nylon')
  await person.click(keep())
  await waitFor(() => expect(document.querySelectorAll('.ant-form-item-explain-error').length).toBe(4))
  expect(asked()).toEqual([])
  await person.click(screen.getByRole('combobox', { name: 'What it is' }))
  await person.click(await screen.findByTitle('thread'))
  await waitFor(() => expect(screen.queryByRole('spinbutton', { name: 'Long, mm' })).toBeNull())
  await person.clear(number('Reorder below, m'))
  await person.type(number('Reorder below, m'), '20')
  await person.click(keep())
  await waitFor(() => expect(asked()).toHaveLength(1))
  expect(asked()[0]?.[1]).toMatchObject({
    category: 'thread',
    unit: 'mm',
    reorderBelow: 20_000,
    figures: null,
    packs: [],
    barcode: null,
  })
  // A new item is shown next.
  await waitFor(() => expect(router.state.location.pathname).toBe('/stock/1'))
})

test('packs are added and taken away, each with what it holds, costs, and when it comes', async () => {
  const { person, asked } = form(item)
  await person.click(screen.getByRole('button', { name: 'Another pack' }))
  await person.click(keep())
  await waitFor(() => expect(document.querySelectorAll('.ant-form-item-explain-error').length).toBe(2))
  const [, holds] = screen.getAllByRole('spinbutton', { name: 'Pack holds' })
  const [, costs] = screen.getAllByRole('spinbutton', { name: 'Pack costs' })
  await person.type(holds as HTMLElement, '50')
  await person.type(costs as HTMLElement, '17.99')
  await person.click(screen.getAllByRole('button', { name: 'Take away' })[0] as HTMLElement)
  await person.click(keep())
  await waitFor(() => expect(asked()).toHaveLength(1))
  expect(asked()[0]?.[1]).toMatchObject({ packs: [{ amount: 50_000, price: 1799, leadDays: 7 }] })
})
