/** What comes back to the counter: how much of it, and what is given for it. */
import type { Sale } from '@tessellum/contract/sales'
import { screen, waitFor } from '@testing-library/react'
import { TakeBack } from '../src/counter/take-back'
import { shopThatAnswers, show } from './on-screen'

const line = {
  id: 1,
  itemId: 4,
  patternId: null,
  version: null,
  name: 'cylinder 11/0 Lantern green',
  unit: 'mg' as const,
  quantity: 5000,
  price: 1000,
  tax: 0,
  returned: 0,
  refunded: 0,
}
const sale: Sale = {
  id: 7,
  customer: '',
  customerId: null,
  at: '2026-03-01T09:00:00Z',
  by: 'Wren',
  lines: [
    line,
    // Half of it is back already, and most of its price was given for that.
    {
      ...line,
      id: 2,
      name: 'clasp',
      unit: 'piece' as const,
      quantity: 4,
      price: 600,
      returned: 2,
      refunded: 500,
    },
    { ...line, id: 3, name: 'thread', unit: 'mm' as const, quantity: 1000, returned: 1000, refunded: 300 },
  ],
}

const counter = (answer: (body: unknown) => unknown = () => sale) => {
  const asked = shopThatAnswers({ 'POST /api/sales/7/returns': answer })
  const closed = jest.fn()
  return { ...show(<TakeBack sale={sale} close={closed} />), asked, closed }
}
const amount = (name: string) =>
  screen.getByRole<HTMLInputElement>('spinbutton', { name: `How much of ${name} comes back` })
const given = (name: string) => screen.getByRole<HTMLInputElement>('spinbutton', { name: `Given back for ${name}` })
const give = () => screen.getByRole<HTMLButtonElement>('button', { name: /^Give back/ })

test('its share of the price is given back, but never more than is left of it', async () => {
  const { person, asked, closed } = counter()
  expect(give().disabled).toBe(true)
  await person.type(amount(line.name), '2')
  expect(given(line.name).value).toBe('4.00')
  await person.type(amount('clasp'), '2')
  // Two of four would be 3.00; 1.00 is left of what was paid.
  expect(given('clasp').value).toBe('1.00')
  expect(give().textContent).toContain('5.00')
  await person.click(give())
  await waitFor(() => expect(closed).toHaveBeenCalled())
  expect(asked.map(({ body }) => body)).toEqual([
    {
      lines: [
        { lineId: 1, quantity: 2000, refund: 400 },
        { lineId: 2, quantity: 2, refund: 100 },
      ],
    },
  ])
})

test('what somebody says is given stays, however much comes back; nothing is asked of what is back already', async () => {
  const { person, asked } = counter()
  await person.type(amount(line.name), '1')
  await person.clear(given(line.name))
  await person.type(given(line.name), '0.5')
  await person.clear(amount(line.name))
  await person.type(amount(line.name), '3')
  expect(given(line.name).value).toMatch(/^0\.50?$/)
  expect(amount('thread').disabled).toBe(true)
  await person.click(give())
  await waitFor(() => expect(asked).toHaveLength(1))
  expect(asked[0]?.body).toEqual({ lines: [{ lineId: 1, quantity: 3000, refund: 50 }] })
})

test('what is refused is said, and what was typed stays', async () => {
  const { person, closed } = counter(() => ({
    status: 409,
    code: 'gone',
    message: 'Only 1 g is left of it.',
    hint: '',
  }))
  await person.type(amount(line.name), '2')
  await person.click(give())
  await screen.findByText(/Only 1 g is left of it/)
  expect(amount(line.name).value).toBe('2')
  expect(closed).not.toHaveBeenCalled()
})
