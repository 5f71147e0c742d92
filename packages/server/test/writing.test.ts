import './shared-forms'
import type { Edition } from '@tessellum/contract/editions'
import { patternFile } from '@tessellum/contract/pattern-file'
import { billOf } from '@tessellum/core/kit/bill'
import { chosenIn } from '@tessellum/core/kit/choice'
import { writeEdition } from '@tessellum/core/writing/edition'
import { toHtml } from '@tessellum/core/writing/html'
import { disagreements } from '../../core/test/read-back'
import { type Caller, openShop, type Shop } from './shop'

let shop: Shop
let bram: Caller
beforeAll(async () => {
  shop = await openShop()
  bram = await shop.as('bram')
})
afterAll(() => shop.close())

const small = 'pattern Towrope ring\nbead A cylinder 11/0\npart p\nring 12A\nround A\n'
const begin = async (source = small) => (await bram.ask<{ id: number }>('POST', '/patterns', { source })).body.id
const key = { language: 'en', part: 'p', text: 'round A', nth: 1 }

test('the numbers of every written demo pattern, in every size and colourway, are those of its report and its kit', async () => {
  const { body: patterns } = await bram.ask<{ id: number; version: number }[]>('GET', '/patterns')
  let read = 0
  for (const { id, version } of patterns) {
    const { body: colourways } = await bram.ask<{ id: number }[]>('GET', `/patterns/${id}/colourways`)
    for (const colourway of [undefined, ...colourways]) {
      const asked = `version=${version}${colourway ? `&colourway=${colourway.id}` : ''}`
      const { body: usual } = await bram.ask<Edition>('GET', `/patterns/${id}/edition?${asked}`)
      const sizes = writeEdition(usual, 'en').report.sizes
      for (const size of sizes.length > 0 ? sizes : ['']) {
        const { body } = await bram.ask<Edition>('GET', `/patterns/${id}/edition?${asked}&size=${size}`)
        const { written, report } = writeEdition(body, 'en')
        const { kit } = chosenIn(body.choices, size, body.items)
        expect([body.title, size, disagreements(toHtml(written), 'en', report, billOf(report, kit).lines)]).toEqual([
          body.title,
          size,
          [],
        ])
        read++
      }
    }
  }
  expect(read).toBeGreaterThan(25)
})

describe("a designer's own words", () => {
  test('are kept for a step of the draft, taken away, and given to another step', async () => {
    const id = await begin()
    const put = (body: object) => bram.ask('PUT', `/patterns/${id}/words`, body)
    expect((await put({ ...key, also: 'Keep it loose.' })).body).toEqual([
      { ...key, instead: '', also: 'Keep it loose.' },
    ])
    const to = { ...key, text: 'ring 12A' }
    const given = await put({ ...to, also: 'Keep it loose.', from: { part: 'p', text: 'round A', nth: 1 } })
    expect(given.body).toEqual([{ ...to, instead: '', also: 'Keep it loose.' }])
    expect((await put({ ...to, instead: ' ', also: '' })).body).toEqual([])
    const long = await put({ ...key, also: 'x'.repeat(4001) })
    expect([long.status, long.body.path]).toEqual([400, 'also'])
    const corin = await shop.as('corin')
    expect((await corin.ask('PUT', `/patterns/${id}/words`, { ...key, also: 'x' })).status).toBe(403)
  })

  test('are fixed with the version that was made with them', async () => {
    const id = await begin()
    await bram.ask('PUT', `/patterns/${id}/words`, { ...key, also: 'As it was.' })
    await bram.ask('POST', `/patterns/${id}/versions`, { name: 'First', revision: 1, publish: true })
    await bram.ask('PUT', `/patterns/${id}/words`, { ...key, also: 'As it is.' })
    const words = async (query: string) => (await bram.ask('GET', `/patterns/${id}/edition${query}`)).body.words[0].also
    expect([await words('?version=1'), await words('')]).toEqual(['As it was.', 'As it is.'])
  })
})

describe('publishing', () => {
  test('an erratum makes a new version, says what was wrong, and finds the batches that carry the old one', async () => {
    const { body: before } = await bram.ask('GET', '/patterns/1')
    const make = (more: object) =>
      bram.ask('POST', '/patterns/1/versions', { name: 'Next', revision: before.revision, ...more })
    expect((await make({ corrects: 1, note: 'x' })).body).toMatchObject({ code: 'not-published', path: 'corrects' })
    await make({ publish: true })
    expect((await make({ corrects: 2 })).body).toMatchObject({ code: 'no-erratum', path: 'note' })
    const { body } = await make({ corrects: 2, note: 'Round 3 was told twice.' })
    expect(body.versions[0]).toMatchObject({ number: 3, published: true, corrects: 2, note: 'Round 3 was told twice.' })
    const { body: edition } = await bram.ask('GET', '/patterns/1/edition?version=3')
    expect(edition.errata).toEqual([{ version: 3, corrects: 2, note: 'Round 3 was told twice.' }])
    const { body: carriers } = await bram.ask('GET', '/patterns/1/versions/1/carriers')
    expect(carriers).toContainEqual(
      expect.objectContaining({ name: 'Saturday class: first bezel', kits: 10, state: 'reserved' }),
    )
    expect((await bram.ask('GET', '/patterns/1/versions/3/carriers')).body).toEqual([])
  })

  test('is refused where a line is at fault', async () => {
    const id = await begin(`${small}rnig\n`)
    const { status, body } = await bram.ask('POST', `/patterns/${id}/versions`, {
      name: 'F',
      revision: 1,
      publish: true,
    })
    expect([status, body.code]).toEqual([422, 'faulty-pattern'])
  })
})

describe('files', () => {
  test('a pattern goes out as JSON and comes in again the same', async () => {
    await bram.ask('PUT', '/patterns/1/words', {
      ...key,
      part: 'bezel',
      text: 'place S',
      also: 'Face up. Ünïcode Ω Ж 李',
    })
    const file = async (id: number) => patternFile.parse((await bram.ask('GET', `/patterns/${id}/pattern.json`)).body)
    const out = await file(1)
    const { body: items } = await bram.ask<{ id: number; code: string }[]>('GET', '/items')
    const idOf = (code: string) => items.find((each) => each.code === code)?.id
    const colourways = out.colourways.map(({ name, choices }) => ({
      name,
      choices: choices.map(({ role, size, counting, item }) => ({ role, size, counting, itemId: idOf(item.code) })),
    }))
    const { body: made } = await bram.ask('POST', '/patterns', { source: out.source, words: out.words, colourways })
    // Its pictures are added to it one by one; see pictures.test.ts.
    expect(await file(made.id)).toEqual({ ...out, pictures: [] })
    expect(out.source).toBe((await bram.ask('GET', '/patterns/1')).body.source)
  })

  test('a colourway of an item that is gone brings nothing in at all', async () => {
    const before = (await bram.ask('GET', '/patterns')).body.length
    const colourways = [{ name: 'Lost', choices: [{ role: 'A', size: '', itemId: 99_999 }] }]
    const { status } = await bram.ask('POST', '/patterns', { source: small, colourways })
    expect(status).toBe(422)
    expect((await bram.ask('GET', '/patterns')).body).toHaveLength(before)
  })

  test('a pattern of a hundred lines and more pages than fit a booklet is set to its end', async () => {
    const id = await begin(`${small}${'round A\n'.repeat(100)}finish\n`)
    const { status, body } = await bram.ask<ArrayBuffer>('GET', `/patterns/${id}/document.pdf`)
    expect(status).toBe(200)
    const pages =
      Buffer.from(body)
        .toString('latin1')
        .match(/\/Type \/Page\b/g) ?? []
    expect(pages.length).toBeGreaterThan(10)
  })

  test.each(['class', 'card', 'large'])(
    'the %s sheet is a PDF, in letters of many scripts, with a seat',
    async (sheet) => {
      const query = new URLSearchParams({
        version: '1',
        sheet,
        language: 'de',
        seat: 'Łucja Ωμέγα Жанна 李',
        chosen: 'petite',
      })
      const { status, body } = await bram.ask<ArrayBuffer>('GET', `/patterns/1/document.pdf?${query}`)
      expect(status).toBe(200)
      const again = await bram.ask<ArrayBuffer>('GET', `/patterns/1/document.pdf?${query}`)
      // Made anew it would carry another date: the same bytes are those that were kept.
      expect(Buffer.from(again.body).equals(Buffer.from(body))).toBe(true)
    },
  )
})
