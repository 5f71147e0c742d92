/** Kits that come back, whole or in part. */
import type { Packing } from '@tessellum/contract/packing'
import { screen, waitFor, within } from '@testing-library/react'
import { Returns } from '../src/kits/returns'
import { aBag, namedItem, shopThatAnswers, show } from './on-screen'

const bag = (kit: number, returned = 0) => ({ ...aBag, kit, filled: 400, by: 'Odile', returned })
const task = {
  itemId: 1,
  name: 'cylinder 11/0 Lantern green',
  item: namedItem(1, 'Lantern green'),
  unit: 'mg' as const,
  cautions: '',
  lotId: 9,
  lotCode: 'BC101/1',
  place: 'A1',
}
const packing = (...returned: readonly [number, number]): Packing => ({
  id: 4,
  name: 'Saturday class',
  state: 'closed',
  kits: 2,
  tasks: [
    { ...task, bags: [bag(1, returned[0]), bag(2, returned[1])] },
    {
      ...task,
      itemId: 3,
      name: 'clasp',
      unit: 'piece',
      bags: [
        { ...bag(1), roles: 'clasp', filled: 2 },
        { ...bag(2), roles: 'clasp', filled: 2 },
      ],
    },
  ],
})

const page = (roles: readonly string[] = ['stockroom']) => {
  const asked = shopThatAnswers({ 'POST /api/batches/4/returns': () => packing(200, 0) })
  return {
    ...show(<Returns batchId={4} />, {
      data: [
        [['packing', 4], packing(0, 0)],
        [['me'], { name: 'odile', roles }],
      ],
    }),
    asked,
  }
}
const cameBack = (kit: number) =>
  screen.getByRole('button', { name: `Something came back of kit ${kit}, Windlass pendant` })
const row = (kit: number) => screen.getByRole('rowheader', { name: `Kit ${kit}, Windlass pendant` }).closest('tr')

test('what was left in a bag is recorded by itself, and told in the list', async () => {
  const { person, asked } = page()
  await person.click(cameBack(1))
  const record = screen.getByRole<HTMLButtonElement>('button', { name: 'Record return' })
  expect(record.disabled).toBe(true)
  await person.type(screen.getByRole('spinbutton', { name: 'Came back of A, g' }), '0.2')
  await person.click(record)
  await waitFor(() => expect(row(1)?.textContent).toContain('came back: 0.2 g of A'))
  expect(asked[0]?.body).toEqual({ lineId: 2, kit: 1, quantities: [{ itemId: 1, quantity: 200 }] })
  expect(row(2)?.textContent).not.toContain('came back')
})

test('no more than was in it, less what is back already', async () => {
  const { person, asked, client } = page()
  client.setQueryData(['packing', 4], packing(200, 0))
  await person.click(cameBack(1))
  const field = screen.getByRole<HTMLInputElement>('spinbutton', { name: 'Came back of A, g' })
  await person.type(field, '9')
  await person.tab()
  expect(field.value).toBe('0.2')
  await person.click(screen.getByRole('button', { name: 'Record return' }))
  await waitFor(() => expect(asked).toHaveLength(1))
  expect(asked[0]?.body).toMatchObject({ quantities: [{ itemId: 1, quantity: 200 }] })
})

test('a whole kit comes back unopened, or from a customer who had bought it', async () => {
  const { person, asked } = page()
  for (const [kit, name] of [
    [1, 'The whole kit, unopened'],
    [2, 'The whole kit, from a customer'],
  ] as const) {
    await person.click(cameBack(kit))
    await person.click(within(await screen.findByRole('dialog')).getByRole('button', { name }))
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull())
  }
  expect(asked.map(({ body }) => body)).toEqual([
    { lineId: 2, kit: 1, whole: true },
    { lineId: 2, kit: 2, whole: true, sold: true },
  ])
})

test('a teacher sees what came back, and records nothing', () => {
  page(['teacher'])
  expect(screen.queryAllByRole('button')).toEqual([])
})
