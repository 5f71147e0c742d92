import { deflateSync } from 'node:zlib'
import { patternFile } from '@tessellum/contract/pattern-file'
import type { Pictures } from '@tessellum/contract/pictures'
import sharp from 'sharp'
import { connect } from '../src/database/connect'
import { deletePictures } from '../src/patterns/pictures'
import { type Caller, openShop, type Shop } from './shop'

let shop: Shop
let bram: Caller
beforeAll(async () => {
  shop = await openShop()
  bram = await shop.as('bram')
})
afterAll(() => shop.close())

const begin = async () =>
  (
    await bram.ask<{ id: number; revision: number }>('POST', '/patterns', {
      source: 'pattern Towrope ring\nbead A cylinder 11/0\npart p\nring 12A\nround A\n',
    })
  ).body.id
const step = { part: 'p', text: 'round A', nth: 1 }

/** Red on its left half, green on its right. */
const halves = (width: number, height: number) =>
  sharp({ create: { width, height, channels: 3, background: '#00ff00' } }).composite([
    { input: { create: { width: width / 2, height, channels: 3, background: '#ff0000' } }, left: 0, top: 0 },
  ])
const add = (id: number, bytes: Uint8Array) => bram.send<Pictures>(`/patterns/${id}/pictures`, bytes)
const fetched = async (id: number, size: string) =>
  Buffer.from((await bram.ask<ArrayBuffer>('GET', `/pictures/${id}/${size}`)).body)
const colourAt = async (bytes: Buffer, left: number, top: number) => {
  const { data } = await sharp(bytes)
    .extract({ left, top, width: 1, height: 1 })
    .raw()
    .toBuffer({ resolveWithObject: true })
  return (data[0] as number) > 128 ? 'red' : 'green'
}

test('the file of a pattern has its pictures in it, in their order, as they are shown', async () => {
  const id = await begin()
  const empty = (await bram.ask('GET', `/patterns/${id}/pattern.json`)).body
  expect(patternFile.parse(empty).pictures).toEqual([])
  const photo = await halves(600, 400).jpeg().toBuffer()
  await add(id, photo)
  const { body } = await add(id, photo)
  const [first, second] = body.pictures.map((each) => each.id)
  const described = { kind: 'step', step, caption: 'Ünïcode “caption”' }
  await bram.ask('PUT', `/pictures/${first}`, described)
  await bram.ask('PUT', `/patterns/${id}/pictures/order`, { ids: [second, first] })
  const { pictures } = patternFile.parse((await bram.ask('GET', `/patterns/${id}/pattern.json`)).body)
  expect(pictures).toEqual([
    expect.objectContaining({ kind: 'finished', step: null, caption: '' }),
    expect.objectContaining(described),
  ])
  const bytes = Buffer.from(pictures[1]?.jpeg ?? '', 'base64')
  expect(bytes.equals(await fetched(first as number, 'large'))).toBe(true)
})

test('a picture is turned as it was taken, and nothing that the camera wrote is left in it', async () => {
  const id = await begin()
  // Orientation 6: the camera was held upright, so the left of what it wrote down is the top.
  const taken = await halves(1200, 800)
    .jpeg()
    .withExif({ IFD0: { Copyright: 'somebody' }, IFD3: { GPSLatitude: '51/1 30/1 0/1' } })
    .withMetadata({ orientation: 6 })
    .toBuffer()
  expect((await sharp(taken).metadata()).orientation).toBe(6)
  const { status, body } = await add(id, taken)
  expect(status).toBe(200)
  const [picture] = body.pictures
  expect(picture).toMatchObject({ kind: 'finished', width: 800, height: 1200, addedBy: 'Bram Teasel' })
  for (const [size, height] of [
    ['small', 320],
    ['medium', 960],
    ['large', 1200],
  ] as const) {
    const bytes = await fetched(picture?.id ?? 0, size)
    const found = await sharp(bytes).metadata()
    expect([found.format, found.height, found.exif, found.orientation]).toEqual(['jpeg', height, undefined, undefined])
    expect([await colourAt(bytes, 5, 5), await colourAt(bytes, 5, height - 5)]).toEqual(['red', 'green'])
  }
})

/** A PNG that says it is of so many pixels, and is a few bytes long. */
function bomb(side: number): Buffer {
  const chunk = (type: string, data: Buffer) => {
    const length = Buffer.alloc(4)
    length.writeUInt32BE(data.length)
    return Buffer.concat([length, Buffer.from(type), data, Buffer.alloc(4)])
  }
  const head = Buffer.alloc(13)
  head.writeUInt32BE(side, 0)
  head.writeUInt32BE(side, 4)
  head.set([8, 2, 0, 0, 0], 8)
  return Buffer.concat([
    Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]),
    chunk('IHDR', head),
    chunk('IDAT', deflateSync(Buffer.alloc(1000))),
    chunk('IEND', Buffer.alloc(0)),
  ])
}

test('what is no picture, is cut short, or unpacks to too much is refused, and says so', async () => {
  const id = await begin()
  const whole = await halves(900, 600).jpeg().toBuffer()
  const svg = Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"/>')
  for (const [bytes, said] of [
    [Buffer.from('beads, thread, tea'), 'not a photograph'],
    [svg, 'not a photograph'],
    [await sharp(svg).gif().toBuffer(), 'not a photograph'],
    [new Uint8Array(), 'empty'],
    [whole.subarray(0, whole.length / 2), 'damaged or cut short'],
    [bomb(40_000), 'cannot be read|more than can be unpacked'],
    [Buffer.concat([Buffer.from('\0\0\0\x18ftypheic'), Buffer.alloc(200)]), 'cannot be read'],
  ] as const) {
    const { status, body } = await bram.send(`/patterns/${id}/pictures`, bytes)
    expect([status, body.code, body.message]).toEqual([422, 'bad-picture', expect.stringMatching(said)])
  }
  const large = await bram.send(`/patterns/${id}/pictures`, new Uint8Array(30_000_000)).catch(() => ({ status: 413 }))
  expect(large.status).toBe(413)
  expect((await bram.ask<Pictures>('GET', `/patterns/${id}/pictures`)).body.pictures).toEqual([])
})

test('pictures are described, ordered, cropped, removed and put back; a version keeps what it was published with', async () => {
  const id = await begin()
  for (const [width, height] of [
    [900, 400],
    [1100, 600],
    [1000, 500],
  ] as const)
    await add(id, await halves(width, height).png().toBuffer())
  const pictures = async () => (await bram.ask<Pictures>('GET', `/patterns/${id}/pictures`)).body
  const [one, two, three] = (await pictures()).pictures.map((each) => each.id) as [number, number, number]
  const nowhere = await bram.ask('PUT', `/pictures/${one}`, { kind: 'step' })
  expect([nowhere.status, nowhere.body.path]).toEqual([400, 'step'])
  await bram.ask('PUT', `/pictures/${one}`, { kind: 'step', step, caption: ' Pulled snug ' })
  await bram.ask('PUT', `/pictures/${two}`, { kind: 'fault', caption: 'too loose' })
  await bram.ask('PUT', `/patterns/${id}/pictures/order`, { ids: [three, one] })
  expect((await pictures()).pictures).toMatchObject([
    { id: three, kind: 'finished', step: null },
    { id: one, kind: 'step', step, caption: 'Pulled snug' },
    { id: two, kind: 'fault', step: null },
  ])
  const { body: draft } = await bram.ask('GET', `/patterns/${id}`)
  await bram.ask('POST', `/patterns/${id}/versions`, { name: 'First', revision: draft.revision, publish: true })
  const right = { x: 0.5, y: 0, width: 0.5, height: 1 }
  const cropped = (await bram.ask<Pictures>('POST', `/pictures/${three}/crop`, { crop: right })).body.pictures[0]
  expect(cropped).toMatchObject({ kind: 'finished', width: 500, height: 500, crop: right })
  expect(await colourAt(await fetched(cropped?.id ?? 0, 'large'), 5, 5)).toBe('green')
  const again = await bram.ask('POST', `/pictures/${three}/crop`, { crop: right })
  expect(again.body.code).toBe('picture-removed')
  await bram.ask('POST', `/pictures/${two}/remove`)
  const shown = async (query: string) =>
    (await bram.ask('GET', `/patterns/${id}/edition${query}`)).body.pictures.map((each: { id: number }) => each.id)
  expect([await shown('?version=1'), await shown('')]).toEqual([
    [three, one, two],
    [cropped?.id, one],
  ])
  expect((await pictures()).removed.map((each) => each.id)).toEqual([two, three])
  // What is removed is deleted after a month, unless a version shows it.
  await add(id, await halves(300, 300).png().toBuffer())
  const last = (await pictures()).pictures[2]?.id ?? 0
  await bram.ask('POST', `/pictures/${last}/remove`)
  await shop.pool.query(`update picture set removed_at = now() - interval '31 days' where removed_at is not null`)
  const { db, pool } = connect(shop.pool.options.connectionString as string, undefined)
  await db.transaction((tx) => deletePictures(tx))
  await pool.end()
  expect((await bram.ask('GET', `/pictures/${last}/small`)).status).toBe(404)
  expect((await bram.ask('GET', `/pictures/${three}/small`)).status).toBe(200)
  await bram.ask('POST', `/pictures/${two}/put-back`)
  expect((await pictures()).pictures.map((each) => each.id)).toContain(two)
  const pdf = await bram.ask<ArrayBuffer>('GET', `/patterns/${id}/document.pdf?version=1`)
  const images = Buffer.from(pdf.body)
    .toString('latin1')
    .match(/\/Subtype \/Image/g)
  expect(images).toHaveLength(3)
})

test('only who writes patterns changes pictures, and whoever may read them sees them', async () => {
  const corin = await shop.as('corin')
  const { body } = await corin.ask<Pictures>('GET', '/patterns/1/pictures')
  const first = body.pictures[0]?.id
  expect(body.pictures.length).toBeGreaterThan(2)
  expect((await corin.ask('GET', `/pictures/${first}/small`)).status).toBe(200)
  expect((await corin.send('/patterns/1/pictures', await halves(100, 100).png().toBuffer())).status).toBe(403)
  expect((await corin.ask('POST', `/pictures/${first}/remove`)).status).toBe(403)
})
