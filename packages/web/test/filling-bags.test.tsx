/** A bag is filled by the scale only with what was weighed for it. */
import type { Packing } from '@tessellum/contract/packing'
import { screen } from '@testing-library/react'
import { PackingPage } from '../src/packing/packing-page'
import { aBag, hears, namedItem, shopThatAnswers, show } from './on-screen'

const shows = (mg: number, steady = true) => hears('scale', JSON.stringify({ mg, steady }))

const packing = (filled: readonly (number | null)[]): Packing => ({
  id: 4,
  name: 'Saturday class',
  state: 'packing',
  kits: filled.length,
  tasks: [
    {
      itemId: 1,
      name: 'cylinder 11/0 Lantern green',
      item: namedItem(1, 'Lantern green'),
      unit: 'mg',
      cautions: '',
      lotId: 9,
      lotCode: 'BC101/1',
      place: 'A1',
      bags: filled.map((mg, i) => ({ ...aBag, kit: i + 1, filled: mg, by: mg === null ? null : 'Odile' })),
    },
  ],
})

const benchOf = (filled: (number | null)[]) => {
  const asked = shopThatAnswers({
    'PUT /api/batches/4/bags': (body) => {
      const { kit, quantity } = body as { kit: number; quantity: number }
      filled[kit - 1] = quantity
      return packing(filled)
    },
  })
  const page = show(<PackingPage />, {
    path: '/kits/:id/pack',
    at: '/kits/4/pack',
    data: [
      [['packing', 4], packing(filled)],
      [['stand-ins'], []],
    ],
  })
  return { ...page, asked }
}
const filled = (asked: readonly { route: string; body: unknown }[]) =>
  asked.filter(({ route }) => route.startsWith('PUT')).map(({ body }) => body)
const next = () => screen.getByRole<HTMLButtonElement>('button', { name: 'Next bag' })

test('what is steady and right is taken; the next bag waits until the one before has left the pan', async () => {
  const { person, asked } = benchOf([null, null])
  await shows(0)
  await shows(310)
  screen.getByText('too little')
  expect(next().disabled).toBe(true)
  await shows(405, false)
  screen.getByText('right')
  expect(next().disabled).toBe(true)
  await shows(405)
  await person.click(next())
  await screen.findByText('1 of 2 filled, for 2 kits')
  expect(filled(asked)).toEqual([{ lineId: 2, kit: 1, itemId: 1, quantity: 405, lotId: 9 }])
  // The first bag still lies there: its weight is not the second's.
  await shows(405)
  screen.getByText(', take the last bag off first')
  expect(next().disabled).toBe(true)
  await shows(0)
  await shows(401)
  await person.click(next())
  await screen.findByText('2 of 2 filled, for 2 kits')
  expect(filled(asked).at(-1)).toMatchObject({ kit: 2, quantity: 401 })
})

test('what is typed goes before what the scale shows; too much or too little cannot be taken', async () => {
  const { person, asked } = benchOf([null])
  await shows(0)
  await shows(402)
  const field = screen.getByRole('spinbutton', { name: 'In the bag, g' })
  await person.type(field, '0.5')
  screen.getByText('too much')
  await person.keyboard('{Enter}')
  expect(filled(asked)).toEqual([])
  await person.clear(field)
  await person.type(field, '0.41{Enter}')
  await screen.findByText('1 of 1 filled, for 1 kit')
  expect(filled(asked).at(-1)).toMatchObject({ quantity: 410 })
})

test('a corrected bag is asked for by its own weight, not by what is in it', async () => {
  const { person } = benchOf([405, null])
  await person.click(screen.getByRole('button', { name: 'Change Bag 1, Windlass pendant' }))
  screen.getByText('Bag 1, Windlass pendant:', { exact: false })
  expect(screen.getByRole<HTMLInputElement>('spinbutton', { name: 'In the bag, g' }).value).toBe('')
})
