import { asSale, emptyTill, priceOf, type Till, type TillLine, totalOf, withLine } from '../src/counter/till-lines'

const beads: TillLine = {
  key: 'a',
  of: { itemId: 4 },
  name: 'round 11/0',
  unit: 'mg',
  amount: 2.5,
  perUnit: 0.04,
  typed: null,
}
const pattern: TillLine = {
  key: 'b',
  of: { patternId: 1, version: 2 },
  name: 'Pattern',
  unit: 'piece',
  amount: 1,
  perUnit: null,
  typed: null,
}
const till = (...lines: TillLine[]): Till => lines.reduce(withLine, emptyTill)

test('a price follows the amount until somebody types one', () => {
  expect(priceOf(beads)).toBe(100)
  expect(priceOf({ ...beads, amount: 5 })).toBe(200)
  expect(priceOf({ ...beads, amount: 5, typed: 150 })).toBe(150)
  expect(priceOf(pattern)).toBeUndefined()
  expect(totalOf(till(beads, { ...pattern, typed: 650 }))).toBe(750)
})

test('what is put down twice is more of the same', () => {
  expect(till(beads, pattern, { ...beads, key: 'c' }).lines.map(({ amount }) => amount)).toEqual([5, 1])
})

test('nothing is sold before every line has an amount and a price', () => {
  expect(asSale(emptyTill)).toBeUndefined()
  expect(asSale(till(beads, pattern))).toBeUndefined()
  expect(asSale(till({ ...beads, amount: null }))).toBeUndefined()
  expect(asSale({ ...till(beads, { ...pattern, typed: 650 }), customer: 'Pochard' })).toEqual({
    customer: 'Pochard',
    customerId: null,
    lines: [
      { what: 'item', itemId: 4, quantity: 2500, price: 100 },
      { what: 'pattern', patternId: 1, version: 2, quantity: 1, price: 650 },
    ],
  })
})
