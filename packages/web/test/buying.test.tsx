/** What is to be bought: ordered, come, called off; and what suppliers ask today. */
import type { BuyLine, Purchase, Quote } from '@tessellum/contract/buying'
import { screen, waitFor, within } from '@testing-library/react'
import dayjs from 'dayjs'
import { BuyPage } from '../src/buying/buy-page'
import { changesIn, namedItem, shopThatAnswers, show } from './on-screen'

const on = (days: number) => dayjs().add(days, 'day').format('YYYY-MM-DD')
const green: BuyLine = {
  itemId: 1,
  name: 'cylinder 11/0 Lantern green',
  item: namedItem(1, 'Lantern green'),
  unit: 'mg',
  supplier: 'Tarn Supply',
  free: 2000,
  planned: 9000,
  reorderBelow: 0,
  short: 7000,
  low: 0,
  packs: [{ amount: 5000, price: 300, leadDays: 9, count: 2 }],
  amount: 10_000,
  cost: 600,
  neededOn: on(12),
  orderBy: on(1),
  coming: 0,
  batches: [{ id: 3, name: 'Winter fair', dueOn: on(12) }],
}
const rust: BuyLine = {
  ...green,
  itemId: 2,
  name: 'round 15/0 Rust gate',
  item: namedItem(2, 'Rust gate'),
  short: 0,
  low: 500,
  packs: [],
  amount: 0,
  cost: 0,
  neededOn: null,
  orderBy: null,
  batches: [],
}
const gold: BuyLine = {
  ...green,
  itemId: 3,
  name: 'pearl 4 mm Old gold',
  item: namedItem(3, 'Old gold'),
  supplier: 'Quay Beads',
  cost: 250,
  orderBy: on(-2),
}
const coming: Purchase = {
  id: 8,
  itemId: 4,
  name: 'thread Ash',
  item: namedItem(4, 'Ash'),
  unit: 'mm',
  supplier: 'Tarn Supply',
  amount: 50_000,
  cost: 900,
  orderedOn: on(-3),
  expectedOn: on(4),
  orderedBy: 'Odile',
}
const quotes: Quote[] = [
  { itemId: 1, packs: [{ amount: 5000, price: 340, leadDays: 14 }], changed: true, trouble: null },
  { itemId: 2, packs: [], changed: false, trouble: 'Tarn Supply does not answer. Try again later.' },
]

const page = (roles: readonly string[] = ['stockroom'], lines: readonly BuyLine[] = [green, gold, rust]) => {
  const asked = shopThatAnswers({
    'POST /api/purchases': () => ({ purchaseId: 9 }),
    'POST /api/purchases/8/cancel': () => ({ purchaseId: 8 }),
    'POST /api/quotes': () => quotes,
    'PUT /api/items/1/packs': () => ({ itemId: 1 }),
    'GET /api/buy-list': () => lines,
    'GET /api/purchases': () => [coming],
  })
  const shown = show(<BuyPage />, {
    data: [
      [['buy-list'], lines],
      [['buy-list', 'orders'], [coming]],
      [['me'], { name: 'odile', roles }],
      [
        ['suppliers'],
        [{ id: 5, name: 'Tarn Supply', contact: 'Ask for Io', address: '', leadDays: 9, minOrder: 1000, note: '' }],
      ],
    ],
  })
  return { ...shown, asked: () => changesIn(asked) }
}

test('each supplier stands once, in the order in which they must be asked, with what is left to their minimum', () => {
  page()
  expect(screen.getAllByRole('region').map((each) => each.getAttribute('aria-label'))).toEqual([
    'Tarn Supply',
    'Quay Beads',
    'On its way',
  ])
  screen.getByText(/3 items from 2 suppliers, £8\.50; the first by/)
  const tarn = within(screen.getByRole('region', { name: 'Tarn Supply' }))
  tarn.getByText('£4.00 to their minimum order of £10.00')
  // Short, and to be ordered tomorrow; low only, in no pack that is known.
  expect(tarn.getByText('7 g').tagName).toBe('STRONG')
  tarn.getByText(/, tomorrow/)
  tarn.getByText('runs low by 0.5 g')
  tarn.getByText('no pack is known')
  within(screen.getByRole('region', { name: 'Quay Beads' })).getByText(/too late for it/)
})

test('what is ordered is ordered in the packs that are shown, and comes when the slowest of them does', async () => {
  const { person, asked } = page()
  await person.click(screen.getByRole('button', { name: 'Ordered: cylinder 11/0 Lantern green' }))
  await waitFor(() => expect(asked()).toHaveLength(1))
  expect(asked()[0]).toEqual([
    'POST /api/purchases',
    { itemId: 1, supplier: 'Tarn Supply', amount: 10_000, cost: 600, expectedOn: on(9) },
  ])
  // Of what is sold in no pack that is known nothing can be ordered in one click.
  expect(screen.queryByRole('button', { name: 'Ordered: round 15/0 Rust gate' })).toBeNull()
})

test("today's prices: what has changed is taken over, and who does not answer is named", async () => {
  const { person, asked } = page()
  const tarn = within(screen.getByRole('region', { name: 'Tarn Supply' }))
  await person.click(tarn.getByRole('button', { name: 'Ask for today’s prices' }))
  await screen.findByText('cylinder 11/0 Lantern green is now 5 g for £3.40 in 14 days.')
  screen.getByText('Tarn Supply does not answer. Try again later.')
  await person.click(screen.getByRole('button', { name: 'Save these prices: cylinder 11/0 Lantern green' }))
  await waitFor(() => expect(screen.queryByText(/is now 5 g/)).toBeNull())
  expect(asked()).toEqual([
    ['POST /api/quotes', { itemIds: [1, 2] }],
    ['PUT /api/items/1/packs', { packs: quotes[0]?.packs }],
  ])
})

test('an order is called off only when that has been asked', async () => {
  const { person, asked } = page()
  await person.click(screen.getByRole('button', { name: 'Call off: thread Ash' }))
  await screen.findAllByText('Call off the order of thread Ash?')
  expect(asked()).toEqual([])
  await person.click(screen.getByRole('button', { name: 'Call it off' }))
  await waitFor(() => expect(asked()).toEqual([['POST /api/purchases/8/cancel', undefined]]))
})

test('a teacher reads it and does nothing with it; a shelf that fills everything says so', () => {
  const { unmount } = page(['teacher'])
  expect(screen.queryAllByRole('button')).toEqual([])
  unmount()
  page(['teacher'], [])
  screen.getByRole('heading', { name: 'Nothing is short' })
})
