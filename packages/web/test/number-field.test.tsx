/** The one field for numbers: a comma is a comma, and what could be read in two ways is asked. */
import { screen, within } from '@testing-library/react'
import { useState } from 'react'
import { NumberField } from '../src/frame/number-field'
import { call } from '../src/shop/api'
import { shopThatAnswers, show } from './on-screen'

interface Given {
  readonly start?: number | null
  readonly precision?: number
}

function Held({ start = null, precision, keep }: Given & { readonly keep: (value: number | null) => void }) {
  const [value, setValue] = useState(start)
  const change = (next: number | null) => {
    keep(next)
    setValue(next)
  }
  const exact = precision === undefined ? {} : { precision }
  return <NumberField aria-label="Price" value={value} onChange={change} {...exact} />
}

function field(given: Given = {}) {
  const values: (number | null)[] = []
  const { person } = show(<Held {...given} keep={(value) => values.push(value)} />)
  const box = () => screen.getByRole<HTMLInputElement>('spinbutton', { name: 'Price' })
  return { person, box, value: () => values.at(-1) }
}

test.each([
  ['47,50', 47.5, '47.50'],
  ['0,45', 0.45, '0.45'],
  ['2,5', 2.5, '2.50'],
  ['0,125', 0.125, '0.13'],
  ['47.50', 47.5, '47.50'],
  ['1 234,5', 1234.5, '1234.50'],
  ['1.234,50', 1234.5, '1234.50'],
  ['1,234.50', 1234.5, '1234.50'],
  ['1,234,567', 1234567, '1234567.00'],
  ['12', 12, '12.00'],
])('%s is %d', async (typed, number, shown) => {
  const { person, box, value } = field({ precision: 2 })
  await person.type(box(), typed)
  await person.tab()
  expect(value()).toBeCloseTo(number, 1)
  expect([box().value, screen.queryByRole('alert')]).toEqual([shown, null])
})

test('what may be thousands or thousandths is asked, and kept as it was typed until it is answered', async () => {
  const { person, box, value } = field({ start: 3 })
  await person.clear(box())
  await person.type(box(), '1,500')
  expect(value()).toBeNaN()
  await person.tab()
  expect(box().value).toBe('1,500')
  const answers = within(screen.getByRole('alert')).getAllByRole('button')
  expect(answers.map(({ textContent }) => textContent)).toEqual(['1500', '1.5'])
  await person.click(answers[1] as HTMLElement)
  expect([value(), box().value, screen.queryByRole('alert')]).toEqual([1.5, '1.5', null])
})

test('what is no number stays, is said, and is not sent as nothing', async () => {
  const { person, box, value } = field({ start: 3 })
  await person.clear(box())
  await person.type(box(), 'two')
  await person.tab()
  expect([box().value, value()]).toEqual(['two', Number.NaN])
  screen.getByRole('alert')
  const asked = shopThatAnswers({})
  const sent = call('PUT /api/items/:id/selling-price', { params: { id: 1 }, body: { price: Number.NaN } })
  await expect(sent).rejects.toMatchObject({ code: 'bad-input' })
  expect(asked).toEqual([])
  await person.clear(box())
  await person.type(box(), '2')
  await person.tab()
  expect([box().value, value(), screen.queryByRole('alert')]).toEqual(['2', 2, null])
})

test('a number that is set from outside is shown, whatever was typed before', async () => {
  const { person, box } = field({ start: 3, precision: 2 })
  expect(box().value).toBe('3.00')
  await person.clear(box())
  await person.type(box(), '4,5')
  await person.keyboard('{ArrowUp}')
  expect(Number(box().value)).toBe(5.5)
})
