/** An order is taken: from what is on record of the customer, to the size it is made in. */
import type { Order, SizedOrder } from '@tessellum/contract/orders'
import { screen, waitFor, within } from '@testing-library/react'
import { OrderForm } from '../src/diary/order-form'
import { evaluatedInTwoSizes, patternsRead } from './a-pattern'
import { changesIn, shopThatAnswers, show } from './on-screen'

beforeEach(evaluatedInTwoSizes)

const bela = {
  id: 12,
  name: 'Bela Moor',
  contact: '0123',
  wristMm: 148,
  neckMm: null,
  fingerMm: null,
  leftHanded: true,
  allergies: 'nickel',
  note: '',
  addedAt: '2026-01-01T00:00:00Z',
}
const sized: SizedOrder = {
  wantedMm: 163,
  ways: [
    { size: 'classic, length = 163 mm', made: true, finishedMm: 163, trouble: null },
    { size: 'petite', made: false, finishedMm: 150, trouble: '13 mm too short' },
  ],
}
const order: Order = {
  id: 9,
  customer: 'Bela Moor',
  customerId: 12,
  worn: 'wrist',
  measureMm: 148,
  patternId: 1,
  pattern: 'Windlass pendant',
  version: 1,
  size: 'petite',
  colourwayId: 12,
  colourway: 'Old gold',
  kits: 2,
  handed: 0,
  wantedOn: '2026-12-20',
  price: 4250,
  paid: 1000,
  promised: 'a gift box',
  state: 'taken',
  undoable: false,
  batchId: null,
  readiness: 'unplanned',
  buyBy: null,
  packBy: null,
  drawing: null,
}

const form = (given?: Order) => {
  const asked = shopThatAnswers({
    'GET /api/customers?find=Bela': () => ({ customers: [bela], next: null }),
    'POST /api/orders/size': () => sized,
    'POST /api/orders': () => [order],
    'PUT /api/orders/9': () => [order],
  })
  const close = jest.fn()
  const page = show(<OrderForm close={close} {...(given ? { order: given } : {})} />, {
    data: [...patternsRead, [['me'], { name: 'wren', roles: ['owner'] }]],
  })
  return { ...page, close, asked: () => changesIn(asked) }
}
const box = (name: string) => screen.getByRole<HTMLInputElement>('combobox', { name })
const said = (name: string) => box(name).closest('.ant-select')?.textContent
const number = (name: RegExp | string) => screen.getByRole<HTMLInputElement>('spinbutton', { name })

test('whoever is on record brings their measure, and what they do not bear', async () => {
  const { person } = form()
  await person.type(box('For'), 'Bela')
  await person.click(await screen.findByText('Bela Moor, 0123'))
  await screen.findByText('Allergies: nickel.')
  screen.getByText(/Left-handed/)
  expect(said('Worn on')).toBe('wrist')
  expect(number('Measure, cm').value).toBe('14.8')
})

test('it is sized to the wrist as it shall sit; the best way is taken, another can be chosen, and all of it is kept', async () => {
  const { person, asked, close } = form()
  await person.type(box('For'), 'Bela')
  await person.click(await screen.findByText('Bela Moor, 0123'))
  await person.click(box('Pattern'))
  await person.click(await screen.findByTitle('Windlass pendant'))
  await waitFor(() => expect(said('Size')).toBe('classic'))
  await person.click(screen.getByRole('button', { name: 'Size it' }))
  const ways = await screen.findByRole('list', { name: 'Ways to size it' })
  expect(asked()).toEqual([
    ['POST /api/orders/size', { patternId: 1, version: 2, worn: 'wrist', measureMm: 148, ease: 'usual' }],
  ])
  screen.getByText('made classic, length = 163 mm')
  within(ways).getByText(': 13 mm too short')
  await person.click(within(ways).getByRole('button', { name: 'petite' }))
  screen.getByText('made petite')
  await person.clear(number(/^Price/))
  await person.type(number(/^Price/), '42.5')
  await person.click(screen.getByRole('button', { name: 'Take the order' }))
  await waitFor(() => expect(close).toHaveBeenCalled())
  expect(asked().at(-1)?.[1]).toMatchObject({
    customer: 'Bela Moor',
    customerId: 12,
    worn: 'wrist',
    measureMm: 148,
    patternId: 1,
    version: 2,
    size: 'petite',
    colourwayId: 11,
    kits: 1,
    price: 4250,
    paid: 0,
  })
})

test('an order that is changed keeps its own version, size and colourway, though there are newer ones', async () => {
  const { person, asked, close } = form(order)
  await waitFor(() => expect(said('Colourway')).toBe('Old gold'))
  expect([said('Version'), said('Size')]).toEqual(['1', 'petite'])
  await person.clear(number(/^Paid so far/))
  await person.type(number(/^Paid so far/), '20')
  await person.click(screen.getByRole('button', { name: 'Save' }))
  await waitFor(() => expect(close).toHaveBeenCalled())
  expect(asked()).toMatchObject([
    [
      'PUT /api/orders/9',
      {
        customer: 'Bela Moor',
        version: 1,
        size: 'petite',
        colourwayId: 12,
        kits: 2,
        wantedOn: '2026-12-20',
        price: 4250,
        paid: 2000,
        promised: 'a gift box',
      },
    ],
  ])
})

test('nobody is nobody: an order needs a name before it is sent', async () => {
  const { person, asked } = form()
  await person.click(screen.getByRole('button', { name: 'Take the order' }))
  await screen.findByText('Enter the customer’s name.')
  expect(asked()).toEqual([])
})
