import type { StockFileOutcome } from '@tessellum/contract/stock-file'
import ExcelJS from 'exceljs'
import { ledgerOf } from './ledger'
import { type Caller, openShop, type Shop } from './shop'

let shop: Shop
let odile: Caller
beforeAll(async () => {
  shop = await openShop()
  odile = await shop.as('odile')
})
afterAll(() => shop.close())

const send = async (bytes: Uint8Array | string, preview = false, key?: string) => {
  const answer = await odile.send<StockFileOutcome>(`/stock/file${preview ? '/preview' : ''}`, bytes, key)
  return { status: answer.status, body: answer.body as StockFileOutcome & { message: string } }
}
const fetchFile = async (format: string) => {
  const response = await fetch(`${shop.base}/api/stock/file?format=${format}`, { headers: { cookie: odile.cookie } })
  return new Uint8Array(await response.arrayBuffer())
}
const heads =
  'code,category,maker,kind,size,colour name,colour,unit,length mm,across mm,hole mm,mg per bead,lot,received,in lot'
const row = (code: string, more: Record<string, string> = {}) => {
  const cells = {
    code,
    category: 'bead',
    maker: 'New Maker',
    kind: 'round',
    size: '8/0',
    'colour name': `Colour ${code}`,
    colour: '#112233',
    unit: 'g',
    'length mm': '2',
    'across mm': '3',
    'hole mm': '1',
    'mg per bead': '26',
    lot: `${code}/1`,
    received: '2026-11-01',
    'in lot': '40',
    ...more,
  }
  return heads
    .split(',')
    .map((head) => cells[head as keyof typeof cells])
    .join(',')
}
const csv = (...rows: string[]) => [heads, ...rows].join('\r\n')
const count = async () => {
  const { rows } = await shop.pool.query(
    "select (select count(*) from item)::int as items, (select count(*) from item where category = 'kit')::int as kits, (select count(*) from lot)::int as lots, (select count(*) from move)::int as moves",
  )
  return rows[0]
}

test.each(['csv', 'xlsx'])('the shelf as %s, taken in again, changes nothing', async (format) => {
  const bytes = await fetchFile(format)
  const before = await count()
  const { status, body } = await send(bytes)
  expect(status).toBe(200)
  expect(body).toMatchObject({
    faults: [],
    newItems: [],
    changedItems: [],
    newLots: [],
    otherQuantities: [],
    done: true,
  })
  // Kits are what their batches made them, and in no file.
  expect(body.sameItems).toBe(before.items - before.kits)
  expect(await count()).toEqual(before)
})

test('new items, new lots and changes are told before they are done, done once, and the second time are nothing', async () => {
  const file = csv(row('NB1'), row('NB2', { lot: '', received: '', 'in lot': '' }))
  const before = await count()
  const { body: told } = await send(file, true)
  expect(told).toMatchObject({
    newItems: ['NB1, Colour NB1', 'NB2, Colour NB2'],
    newLots: ['NB1/1: 40 g'],
    done: false,
  })
  expect(await count()).toEqual(before)
  const first = await send(file, false, 'the-same-file-twice')
  const again = await send(file, false, 'the-same-file-twice')
  expect([first.body.done, again.body]).toEqual([true, first.body])
  expect((await send(file)).body).toMatchObject({ newItems: [], newLots: [], sameItems: 2, done: true })
  expect(await count()).toEqual({ ...before, items: before.items + 2, lots: before.lots + 1, moves: before.moves + 1 })
  // What the ledger has is never overwritten by a file.
  const { body } = await send(csv(row('NB1', { 'in lot': '12', 'colour name': 'Sea glass' })))
  expect(body.otherQuantities).toEqual(['NB1/1: 40 g by the ledger, 12 g in the file'])
  expect(body.changedItems).toEqual([{ code: 'NB1', changes: ['colourName: Colour NB1 becomes Sea glass'] }])
  await ledgerOf(shop.pool)
})

test('one bad row among many: it is named by row and column, and nothing at all is done', async () => {
  const before = await count()
  const rows = Array.from({ length: 300 }, (_, i) => row(`M${i}`))
  const { body } = await send(csv(...rows, row('M9', { 'mg per bead': '-1' }), row('M301', { colour: 'red' })))
  expect(body.faults).toEqual([
    { row: 302, column: 'mg per bead', message: expect.stringContaining('below') },
    { row: 303, column: 'colour', message: expect.stringContaining('#2f5d50') },
  ])
  expect([body.done, await count()]).toEqual([false, before])
})

const encoded = (text: string, encoding: 'utf16le' | 'latin1', ...mark: number[]) =>
  Buffer.concat([Buffer.from(mark), Buffer.from(text, encoding)])
const semicolons = (text: string) => text.replaceAll(',', ';')

test.each([
  ['UTF-8 with its mark', (text: string) => `\ufeff${text}`],
  ['UTF-16', (text: string) => encoded(text, 'utf16le', 0xff, 0xfe)],
  ['Windows letters', (text: string) => encoded(text, 'latin1')],
  ['semicolons and decimal commas', (text: string) => semicolons(text).replace('40.5', '40,5')],
  ['tabs', (text: string) => text.replaceAll(',', '\t')],
  ['a separator that is named', (text: string) => `sep=;\r\n${semicolons(text)}`],
])('%s are read as they are meant', async (name, as) => {
  const code = `E${name.length}`
  const { body } = await send(as(csv(row(code, { 'colour name': 'Grün', 'in lot': '40.5' }))), true)
  expect(body).toMatchObject({ faults: [], newItems: [`${code}, Grün`], newLots: [`${code}/1: 40.5 g`] })
})

test.each([
  ['nothing', new Uint8Array(), 'empty'],
  ['an old spreadsheet', new Uint8Array([0xd0, 0xcf, 0x11, 0xe0, 1, 2]), 'old spreadsheet'],
  ['a picture', new Uint8Array([0x89, 0x50, 0x4e, 0x47, 0, 0, 0, 0]), 'neither CSV nor XLSX'],
  ['a cut archive', new Uint8Array([0x50, 0x4b, 3, 4, 9, 9, 9]), 'damaged'],
  ['a quote that never ends', `${heads}\n"BC1,bead`, 'from line'],
])('%s is refused as a whole', async (_, bytes, message) => {
  const { status, body } = await send(bytes, true)
  expect([status, body.message]).toEqual([422, expect.stringContaining(message)])
})

test('a hundred megabytes are turned away, too many rows are counted, and the server goes on', async () => {
  const turnedAway = await odile.send('/stock/file/preview', new Uint8Array(100_000_000)).catch(() => ({ status: 413 }))
  expect(turnedAway.status).toBe(413)
  const { body } = await send(`${heads}\n${'x\n'.repeat(20_001)}`, true)
  expect(body.message).toContain('Divide it')
  expect((await odile.ask('GET', '/me')).status).toBe(200)
})

test('a spreadsheet with formulas, dates and coloured letters reads as it looks', async () => {
  const book = new ExcelJS.Workbook()
  const sheet = book.addWorksheet('Stock')
  sheet.addRow(heads.split(','))
  const cells: ExcelJS.CellValue[] = row('XL1').split(',')
  cells[5] = { richText: [{ text: 'Sea ' }, { text: 'holly' }] }
  cells[13] = new Date('2026-10-02T00:00:00Z')
  cells[14] = { formula: '20*2', result: 40.5 }
  sheet.addRow(cells)
  const { body } = await send(new Uint8Array(await book.xlsx.writeBuffer()), true)
  expect(body).toMatchObject({ faults: [], newItems: ['XL1, Sea holly'], newLots: ['XL1/1: 40.5 g'] })
})

test('a thousand items are taken in at once', async () => {
  const { body } = await send(csv(...Array.from({ length: 1200 }, (_, i) => row(`K${i}`))))
  expect([body.faults, body.newItems.length, body.done]).toEqual([[], 1200, true])
  expect((await odile.ask('GET', '/shelf?find=K1199')).body.items[0]).toMatchObject({ onHand: 40_000 })
})
