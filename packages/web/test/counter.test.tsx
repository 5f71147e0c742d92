/** At the counter: found by two letters, priced as the shop asks, sold once, and nothing that lies there is lost. */
import type { Sale } from '@tessellum/contract/sales'
import type { Item } from '@tessellum/contract/stock'
import { screen, waitFor, within } from '@testing-library/react'
import { PricesPage } from '../src/counter/prices-page'
import { Receipt } from '../src/counter/receipt'
import { Till } from '../src/counter/till'
import { anItem, changesIn, namedItem, settle, shopThatAnswers, show } from './on-screen'

const green: Item = { ...anItem, ...namedItem(4, 'Lantern green'), code: 'BC-4' }
const kit: Item = {
  ...green,
  ...namedItem(5, 'Windlass pendant'),
  category: 'kit',
  kind: '',
  size: 'petite',
  unit: 'piece',
}
const sold: Sale = {
  id: 17,
  customer: 'Bela Moor',
  customerId: null,
  at: '2026-03-01T09:00:00Z',
  by: 'Wren',
  lines: [
    {
      id: 1,
      itemId: null,
      patternId: 1,
      version: 2,
      name: 'Pattern: Windlass pendant',
      unit: 'piece',
      quantity: 1,
      price: 650,
      tax: 59,
      returned: 0,
      refunded: 0,
    },
    {
      id: 2,
      itemId: 4,
      patternId: null,
      version: null,
      name: 'cylinder 11/0 Lantern green',
      unit: 'mg',
      quantity: 5000,
      price: 200,
      tax: 18,
      returned: 2500,
      refunded: 100,
    },
  ],
}

function till(answer: (body: unknown) => unknown = () => sold) {
  const asked = shopThatAnswers({
    'GET /api/shelf?find=lantern&show=all&by=colour': () => ({ items: [green], next: null }),
    'GET /api/shelf?find=windlass&show=all&by=colour': () => ({ items: [kit], next: null }),
    'GET /api/items/4/selling-price': () => ({ perUnit: 0.04, from: 'price list' }),
    'GET /api/items/5/selling-price': () => ({ perUnit: null, from: null }),
    'POST /api/sales': answer,
  })
  const onSold = jest.fn()
  const page = show(<Till onSold={onSold} />, {
    data: [
      [
        ['patterns'],
        [
          { id: 1, title: 'Windlass pendant', version: 2 },
          { id: 2, title: 'Windlass draft', version: null },
        ],
      ],
      [['me'], { name: 'wren', roles: ['counter'] }],
    ],
  })
  return { ...page, onSold, asked: () => changesIn(asked) }
}
type Person = ReturnType<typeof till>['person']
const find = async (person: Person, letters: string, title: string) => {
  await person.type(screen.getByRole('combobox', { name: 'What is sold' }), letters)
  const options = await screen.findAllByTitle(title)
  await person.click(options.at(-1) as HTMLElement)
  await settle()
}
const amount = (name: string) => screen.getByRole<HTMLInputElement>('spinbutton', { name: `How much of ${name}` })
const price = (name: string) => screen.getByRole<HTMLInputElement>('spinbutton', { name: `Price of ${name}` })
const sell = () => screen.getByRole<HTMLButtonElement>('button', { name: 'Sell' })
const greenName = 'cylinder 11/0 Lantern green (BC-4), Tarn'

test('beads are asked for by weight at what the shop asks; a kit needs a price before it is sold', async () => {
  const { person, asked, onSold } = till()
  await find(person, 'lantern', greenName)
  await person.type(amount(greenName), '5')
  expect(price(greenName).value).toBe('2.00')
  const kitName = 'Kit: Windlass pendant, petite'
  await find(person, 'windlass', kitName)
  expect([amount(kitName).value, price(kitName).value]).toEqual(['1', ''])
  expect(sell().disabled).toBe(true)
  await person.type(price(kitName), '18')
  screen.getByText('£20.00')
  await person.click(sell())
  await waitFor(() => expect(onSold).toHaveBeenCalledWith(sold))
  expect(asked()).toEqual([
    [
      'POST /api/sales',
      {
        customer: '',
        customerId: null,
        lines: [
          { what: 'item', itemId: 4, quantity: 5000, price: 200 },
          { what: 'item', itemId: 5, quantity: 1, price: 1800 },
        ],
      },
    ],
  ])
  screen.getByText('Nothing lies on the counter yet.')
})

test('a pattern is sold in its newest version, and a draft is nothing to sell', async () => {
  const { person, asked } = till()
  await person.type(screen.getByRole('combobox', { name: 'What is sold' }), 'windlass')
  const [pattern] = (await screen.findAllByText('Pattern: Windlass pendant, version 2')).slice(-1)
  expect(screen.queryByText(/Windlass draft/)).toBeNull()
  await person.click(pattern as HTMLElement)
  await person.type(await screen.findByRole('spinbutton', { name: 'Price of Pattern: Windlass pendant' }), '6.5')
  await person.click(sell())
  await waitFor(() => expect(asked()).toHaveLength(1))
  expect(asked()[0]?.[1]).toMatchObject({
    lines: [{ what: 'pattern', patternId: 1, version: 2, quantity: 1, price: 650 }],
  })
})

test('what could not be sold still lies there, also when the page is opened again', async () => {
  const first = till(() => ({ status: 409, code: 'short', message: 'There is no more of it.', hint: '' }))
  await find(first.person, 'lantern', greenName)
  await first.person.type(amount(greenName), '5')
  await first.person.click(sell())
  await screen.findByText(/There is no more of it/)
  first.unmount()
  const { person } = till()
  expect(amount(greenName).value).toBe('5.00')
  await person.click(screen.getByRole('button', { name: `Take ${greenName} off the counter` }))
  screen.getByText('Nothing lies on the counter yet.')
})

test('a receipt adds up, says what came back, and has the pattern with the buyer in its name', () => {
  shopThatAnswers({})
  show(<Receipt sale={sold} close={() => {}} />, { data: [[['settings', 'logo'], { logo: null }]] })
  const foot = within(screen.getByRole('region', { name: 'Receipt' }))
    .getAllByRole('row')
    .slice(-3)
  expect(foot.map((each) => each.textContent)).toEqual(['Total£8.50', 'Tax in it£0.77', 'Given back£1.00'])
  screen.getByText(', 2.5 g of it came back')
  expect(screen.getByRole('link', { name: 'PDF' }).getAttribute('href')).toBe(
    '/api/patterns/1/document.pdf?version=2&buyer=Bela+Moor',
  )
})

describe('the price list', () => {
  const listed = {
    id: 4,
    name: greenName,
    code: 'BC-4',
    item: namedItem(4, 'Lantern green'),
    unit: 'mg',
    price: 40,
    suggested: 35,
  }
  const page = (roles: readonly string[]) => {
    let asks: number | null = listed.price
    const asked = shopThatAnswers({
      'GET /api/prices?find=': () => ({ items: [{ ...listed, price: asks }], next: null }),
      'PUT /api/items/4/selling-price': (body) => {
        asks = (body as { price: number | null }).price
        return { perUnit: 0.05, from: 'price list' }
      },
    })
    return { ...show(<PricesPage />, { data: [[['me'], { name: 'isaura', roles }]] }), asked: () => changesIn(asked) }
  }

  test('a price is kept on Enter or on leaving its field, once, and taken away where it is left empty', async () => {
    const { person, asked } = page(['owner'])
    const field = () => screen.findByRole<HTMLInputElement>('spinbutton', { name: `Asked for ${greenName}, g` })
    await person.click(await field())
    await person.tab()
    expect(asked()).toEqual([])
    await person.clear(await field())
    await person.type(await field(), '0.55{Enter}')
    await waitFor(async () => expect((await field()).value).toBe('0.55'))
    await settle()
    await person.clear(await field())
    await person.tab()
    await waitFor(() => expect(asked().at(-1)?.[1]).toEqual({ price: null }))
    expect(asked()[0]).toEqual(['PUT /api/items/4/selling-price', { price: 55 }])
  })

  test('who keeps no prices reads them', async () => {
    page(['teacher'])
    await screen.findByText('£0.40 a gram')
    screen.getByText('£0.35 a gram')
    expect(screen.queryByRole('spinbutton')).toBeNull()
  })
})
