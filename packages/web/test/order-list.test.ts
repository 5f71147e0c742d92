import type { Order } from '@tessellum/contract/orders'
import { daysFrom, listed, waitsFor } from '../src/diary/order-list'

const order = (more: Partial<Order>) =>
  ({ state: 'taken', readiness: 'unplanned', buyBy: null, packBy: null, ...more }) as Order

test('open orders stand day by day, the soonest first; what is over stands apart', () => {
  const orders = [
    order({ id: 1, wantedOn: '2026-12-21' }),
    order({ id: 2, wantedOn: '2026-12-20', state: 'done' }),
    order({ id: 3, wantedOn: '2026-12-14' }),
    order({ id: 4, wantedOn: '2026-12-21' }),
  ]
  const { open, over } = listed(orders)
  expect(open.map(({ day, orders: of }) => [day, of.map(({ id }) => id)])).toEqual([
    ['2026-12-14', [3]],
    ['2026-12-21', [1, 4]],
  ])
  expect(over.map(({ id }) => id)).toEqual([2])
})

test('a day is told from today, over the end of summer time too', () => {
  expect(
    ['2026-10-24', '2026-10-25', '2026-10-26', '2026-11-01', '2026-10-20'].map((day) => daysFrom('2026-10-25', day)),
  ).toEqual(['yesterday', 'today', 'tomorrow', 'in 7 days', '5 days ago'])
})

test.each<[Partial<Order>, string, boolean]>([
  [{ readiness: 'short', buyBy: '2026-12-03', packBy: '2026-12-10' }, 'order beads by 3 Dec', false],
  [{ readiness: 'short', buyBy: '2026-11-20' }, 'order beads by 20 Nov, overdue', true],
  [{ readiness: 'packing', packBy: '2026-12-01' }, 'pack by 1 Dec', false],
  [{ readiness: 'unplanned', packBy: '2026-12-10' }, 'plan and pack by 10 Dec', false],
  [{ readiness: 'ready' }, 'can be handed over', false],
])('%j waits for: %s', (of, said, late) => expect(waitsFor(order(of), '2026-12-01')).toEqual({ said, late }))
