import { codeOfBag, codeOfLot, readCode } from '@tessellum/core/stock/codes'
import { readSheet, type SheetItem, type SheetLot, writeSheet } from '@tessellum/core/stock/stock-spreadsheet'
import fc from 'fast-check'
import { readNumber } from '../src/measure/read-number'

const heads =
  'code,category,maker,kind,size,colour name,colour,unit,length mm,across mm,hole mm,mg per bead,reorder below,packs,lot,received,in lot'.split(
    ',',
  )
const good =
  'BC1,bead,Brackwater Glass,cylinder,11/0,Lantern,#2e5e4e,g,1.3,1.6,0.8,5.2,8,8 g 3.60 4 days,BC1/1,2026-01-31,24.5'.split(
    ',',
  )
const withCell = (head: string, cell: string) => good.map((each, i) => (heads[i] === head ? cell : each))
const read = (...rows: string[][]) => readSheet([heads, ...rows], false)

test('a row is an item with a lot, in whole base units', () => {
  const { items, faults, rows } = read(good)
  expect([faults, rows]).toEqual([[], 1])
  expect(items[0]).toMatchObject({
    item: {
      code: 'BC1',
      unit: 'mg',
      reorderBelow: 8000,
      packs: [{ amount: 8000, price: 360, leadDays: 4 }],
      figures: { massMg: 5.2, bores: 1 },
    },
    lots: [{ code: 'BC1/1', quantity: 24_500, receivedOn: '2026-01-31' }],
  })
})

test.each([
  ['1234.5', false, 1234.5],
  ['8,4', false, 8.4],
  ['1 234,5', true, 1234.5],
  ['1,234', true, 1.234],
  ['1,234', false, expect.stringContaining('thousands or a decimal')],
  ['1,234.5', false, 1234.5],
  ['1.234,5', false, 1234.5],
  ['\u22125', false, -5],
  ['12g', false, expect.stringContaining('is not a number')],
  ['1e9', false, expect.stringContaining('is not a number')],
])('%s (a comma is for decimals: %s) is %p', (typed, commas, expected) =>
  expect(readNumber(typed, commas)).toEqual(expected),
)

test.each([
  ['colour', 'green', /like #2f5d50/],
  ['unit', 'kg', /none of: g, m, pcs|none of/],
  ['category', 'glue', /none of: bead, stone/],
  ['mg per bead', '-5.2', /below what it can be/],
  ['mg per bead', '', /measures/],
  ['in lot', '-1', /below what it can be/],
  ['in lot', '0.0004', /thousandth of a gram/],
  ['in lot', '', /how much/],
  ['lot', '', /needs the lot’s code/],
  ['received', '31/01/2026', /like 2026-11-30/],
  ['received', '2026-02-30', /like 2026-11-30/],
  ['packs', '8 m 3.60 4 days', /like "8 g 3.60 4 days"/],
  ['packs', '8 g 3.60 4 days; 8 g 3.00 4 days', /same size/],
  ['code', '', /may not be empty/],
  ['maker', 'x'.repeat(81), /At most 80/],
])('%s "%s" is a fault of its row and column', (head, cell, message) => {
  const { faults, items } = read(
    good,
    withCell(head, cell).map((each, i) => (heads[i] === 'code' && head !== 'code' ? 'BC2' : each)),
  )
  expect(faults).toEqual([{ row: 3, column: head, message: expect.stringMatching(message) }])
  expect(items.map(({ item }) => item.code)).toEqual(['BC1'])
})

test('a column that is none, one that is missing and one that stands twice are told', () => {
  const { faults } = readSheet([[...heads.slice(1), 'colour', 'shade']], false)
  expect(faults.map(({ column }) => column)).toEqual(['colour', 'shade', 'code'])
})

test('one code cannot be two things, nor one lot be there twice, nor one barcode belong to two', () => {
  expect(read(good, withCell('colour name', 'Other')).faults[0]).toMatchObject({
    row: 3,
    message: expect.stringContaining('another colourName here than in row 2'),
  })
  expect(read(good, good).faults[0]).toMatchObject({ column: 'lot', message: expect.stringContaining('twice') })
  const second = withCell('lot', 'BC1/2')
  expect(read(good, second).items[0]?.lots).toHaveLength(2)
})

const word = fc.string({ minLength: 1, maxLength: 12 }).filter((each) => each.trim() === each && !each.startsWith("'"))
const sheetItem: fc.Arbitrary<SheetItem> = fc.record({
  code: word,
  category: fc.constant('other' as const),
  maker: word,
  kind: word,
  size: fc.constantFrom('', '11/0'),
  colourCode: fc.constant('=1+1'),
  colourName: word,
  finish: fc.constant('-matte'),
  colour: fc.constant('#2e5e4e'),
  unit: fc.constantFrom('mg' as const, 'piece' as const, 'mm' as const),
  place: fc.constantFrom('', 'A1'),
  reorderBelow: fc.nat(1_000_000),
  barcode: fc.constant(null),
  cautions: fc.constantFrom('', '@home'),
  figures: fc.constant(null),
  packs: fc.uniqueArray(
    fc.record({ amount: fc.integer({ min: 1, max: 100_000 }), price: fc.nat(100_000), leadDays: fc.nat(365) }),
    { selector: ({ amount }) => amount, maxLength: 3 },
  ),
})
const sheetLot: fc.Arbitrary<SheetLot> = fc.record({
  code: word,
  receivedOn: fc.constantFrom('2024-02-29', '2026-11-30'),
  place: fc.constant('B2'),
  supplier: fc.constantFrom('', 'Weir & Daughters'),
  unitCost: fc.constantFrom(null, 0.045),
  quantity: fc.nat(1_000_000_000),
})

test('what is written is read back the same, whatever its letters are', () => {
  const things = fc.uniqueArray(
    fc.record({ item: sheetItem, lots: fc.uniqueArray(sheetLot, { selector: ({ code }) => code, maxLength: 3 }) }),
    { selector: ({ item }) => item.code, maxLength: 5 },
  )
  fc.assert(
    fc.property(things, (list) => {
      const { items, faults } = readSheet(writeSheet(list), false)
      expect(faults).toEqual([])
      expect(items.map(({ item, lots }) => ({ item, lots }))).toEqual(list)
    }),
  )
})

test('a spreadsheet finds no formula in what is written', () => {
  const [, row] = writeSheet([
    { item: { ...(read(good).items[0]?.item as SheetItem), colourName: '=HYPERLINK("x")' }, lots: [] },
  ])
  expect(row?.some((cell) => cell.startsWith('='))).toBe(false)
})

test('labels are read back as what they were printed for; what no label has is none', () => {
  expect(readCode(` ${codeOfLot(12)}\n`)).toEqual({ kind: 'lot', lotId: 12 })
  expect(readCode(codeOfBag(3, 4))).toEqual({ kind: 'bag', lineId: 3, kit: 4, itemId: undefined })
  expect(readCode(codeOfBag(3, 4, 5))).toEqual({ kind: 'bag', lineId: 3, kit: 4, itemId: 5 })
  expect(readCode('5099999000011')).toEqual({ kind: 'other', code: '5099999000011' })
  expect(readCode('TSL-0')).toEqual({ kind: 'other', code: 'TSL-0' })
  for (const code of ['', ' ', 'T\u00a4L\u00a41', 'x'.repeat(61), 'a b c']) expect(readCode(code)).toBeUndefined()
})
