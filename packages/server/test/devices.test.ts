import { mkdtempSync, readdirSync, readFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import type { Quote } from '@tessellum/contract/buying'
import { type Caller, openShop, type Shop } from './shop'
import { type StandIn, standIn } from './stand-in'

let shop: Shop
let odile: Caller
let printer: StandIn
let scanner: StandIn
let supplier: StandIn
const printed = mkdtempSync(path.join(tmpdir(), 'tessellum-printed-'))
beforeAll(async () => {
  printer = await standIn('printer', { PRINTER_FOLDER: printed })
  scanner = await standIn('scanner')
  supplier = await standIn('supplier')
  shop = await openShop(undefined, { ...printer.env, ...scanner.env, ...supplier.env })
  odile = await shop.as('odile')
})
afterAll(async () => {
  await shop.close()
  for (const each of [printer, scanner, supplier]) each.end()
})

describe('the label printer', () => {
  const print = (body: object = {}) => odile.ask('POST', '/batches/1/labels', body)

  test('takes a page for each label, and keeps what came out', async () => {
    expect((await print({ of: 'kits' })).body).toEqual({ printed: 10 })
    expect((await print({ of: 'both', lineId: 1, kit: 1 })).body).toEqual({ printed: 6 })
    const files = readdirSync(printed)
    expect(files).toHaveLength(2)
    for (const file of files) expect(readFileSync(path.join(printed, file)).subarray(0, 5).toString()).toBe('%PDF-')
    expect((await odile.ask('POST', '/lots/1/label', {})).body).toEqual({ printed: 1 })
  })

  test.each([
    [{ fault: 'jam', on: true }, { fault: 'jam', on: false }, 'jammed'],
    [{ paper: 0 }, { paper: 100 }, 'out of paper'],
    [{ fault: 'silent', on: true }, { fault: 'silent', on: false }, 'does not answer'],
  ])('%j is told, and what is to be done meanwhile', async (wrong, mended, message) => {
    await printer.play(wrong)
    const { status, body } = await print({ of: 'kits' })
    expect([status, body.message]).toEqual([503, expect.stringContaining(message)])
    expect(body.hint).toContain('from the browser')
    await printer.play(mended)
    expect((await print({ of: 'kits' })).status).toBe(200)
  })

  test('without one the same labels come as sheets', async () => {
    const { status, headers } = await odile.ask('GET', '/batches/1/labels.pdf?of=bags')
    expect([status, headers.get('content-type')]).toEqual([200, 'application/pdf'])
    expect((await odile.ask('GET', '/batches/3/labels.pdf')).body.code).toBe('nothing-laid-out')
  })
})

describe('codes', () => {
  const look = async (code: string) => (await odile.ask('GET', `/codes/${encodeURIComponent(code)}`)).body

  test('of a lot, a bag and a maker are known; of another shop, worn or none are told apart', async () => {
    expect(await look('TSL-1')).toMatchObject({ kind: 'lot', lotId: 1, itemId: 1, lotCode: 'BC101/1' })
    expect(await look('TSB-1-2-1')).toMatchObject({
      kind: 'bag',
      batchName: 'Saturday class: first bezel',
      kit: 2,
      itemId: 1,
    })
    await shop.pool.query(`update item set barcode = '5099999000028' where id = 2`)
    expect(await look('5099999000028')).toMatchObject({ kind: 'item', itemId: 2 })
    expect(await look('TSL-999999')).toMatchObject({
      code: 'unknown-code',
      message: 'TSL-999999 is no lot of this shop.',
    })
    expect(await look('9780000000002')).toMatchObject({ message: 'Unknown barcode 9780000000002.' })
    expect(await look('T\u00a4L\u00a41')).toMatchObject({ message: 'That was not read clearly.' })
  })

  test('the scanner is heard on every page that listens, and again after its plug was out', async () => {
    const stream = await fetch(`${shop.base}/api/changes?also=scanner`, { headers: { cookie: odile.cookie } })
    const reader = stream.body?.getReader() as ReadableStreamDefaultReader<Uint8Array>
    let heard = ''
    const hears = async (what: string) => {
      while (!heard.includes(what)) {
        const { value, done } = await reader.read()
        if (done) throw new Error(`only heard ${heard}`)
        heard += new TextDecoder().decode(value)
      }
    }
    // Until the line to the scanner is there, nobody hears what is scanned.
    const scanning = setInterval(() => void scanner.play({ scan: 'TSL-7' }), 100)
    await hears('{"code":"TSL-7"}')
    clearInterval(scanning)
    await scanner.play({ drop: true })
    await hears('{"gone":"unreachable"}')
    heard = ''
    const again = setInterval(() => void scanner.play({ scan: 'TSL-8' }), 100)
    await hears('{"code":"TSL-8"}')
    clearInterval(again)
    // The shop moves it elsewhere: whoever listens hears it there, without a reload.
    const elsewhere = await standIn('scanner')
    const isaura = await shop.as('isaura')
    const { devices } = (await isaura.ask('GET', '/settings')).body
    const { status } = await isaura.ask('PUT', '/settings', { devices: { ...devices, scanner: elsewhere.address } })
    expect(status).toBe(200)
    const there = setInterval(() => void elsewhere.play({ scan: 'TSL-9' }), 100)
    await hears('{"code":"TSL-9"}')
    clearInterval(there)
    await isaura.ask('PUT', '/settings', { devices })
    elsewhere.end()
    await reader.cancel()
  })
})

test('an address of a device is a name and a port; one where nothing answers is told', async () => {
  const isaura = await shop.as('isaura')
  const { devices } = (await isaura.ask('GET', '/settings')).body
  const printAt = async (address: string) => {
    await isaura.ask('PUT', '/settings', { devices: { ...devices, printer: address } })
    return odile.ask('POST', '/batches/1/labels', { of: 'kits' })
  }
  const { status, body } = await isaura.ask('PUT', '/settings', { devices: { ...devices, printer: 'http://there' } })
  expect([status, body.path]).toEqual([400, 'devices.printer'])
  expect((await printAt('127.0.0.1:9')).body.message).toBe('The label printer does not answer.')
  expect((await printAt('')).status).toBe(200)
})

describe('the suppliers’ service', () => {
  const ask = async () => (await odile.ask<Quote[]>('POST', '/quotes', { itemIds: [1] })).body[0] as Quote
  afterEach(async () => {
    for (const fault of ['late', 'failing', 'rubbish', 'currency']) await supplier.play({ fault, on: false })
    await supplier.play({ times: 1, daysMore: 0 })
  })

  test('has prices that are as they are kept, or others that can be taken over', async () => {
    expect(await ask()).toMatchObject({ changed: false, trouble: null })
    await supplier.play({ times: 1.5, daysMore: 3 })
    const quote = await ask()
    expect(quote).toMatchObject({ changed: true, packs: [{ amount: 8000, price: 540, leadDays: 7 }, { price: 2700 }] })
    await odile.ask('PUT', '/items/1/packs', { packs: quote.packs })
    expect((await odile.ask('GET', '/items/1')).body.packs).toEqual(quote.packs)
  })

  test.each([
    ['failing', 'failed three times', 3],
    ['rubbish', 'cannot be read', 1],
    ['currency', 'answers in EUR', 1],
    ['late', 'does not answer in time', 1],
  ])('that is %s changes nothing, and is asked no more than sense', async (fault, message, times) => {
    const { asked: before } = (await supplier.play({ fault, on: true })).body
    expect(await ask()).toMatchObject({ changed: false, trouble: expect.stringContaining(message) })
    const { asked } = (await supplier.play({})).body
    expect(Number(asked) - Number(before)).toBe(times)
  })

  test('that is not there says so', async () => {
    const another = await openShop()
    const caller = await another.as('odile')
    expect((await caller.ask('POST', '/quotes', { itemIds: [1] })).body[0].trouble).toContain('No suppliers’ service')
    expect((await caller.ask('POST', '/batches/1/labels', {})).body.code).toBe('no-printer')
    expect((await caller.ask('POST', '/stand-ins/printer', { paper: 1 })).status).toBe(404)
    await another.close()
  })
})

test('stand-ins are played with sense only', async () => {
  expect((await odile.ask('POST', '/stand-ins/printer', { paper: -1 })).body).toMatchObject({
    code: 'bad-input',
    path: 'paper',
  })
  expect((await odile.ask('POST', '/stand-ins/supplier', { fault: 'hunger' })).body.message).toContain(
    'fault is one of',
  )
  expect((await odile.ask('GET', '/stand-ins')).body).toEqual(['printer', 'scanner', 'supplier'])
})
