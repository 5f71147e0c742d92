import { randomUUID } from 'node:crypto'
import { type Caller, openShop, type Shop } from './shop'

let shop: Shop
let bram: Caller
beforeAll(async () => {
  shop = await openShop()
  bram = await shop.as('bram')
})
afterAll(() => shop.close())

const small = 'pattern Towrope ring\nbead A cylinder 11/0\npart p\nring 12A\nround A\n'

describe('drafts', () => {
  test('a save names the revision it builds on; a late one is refused and changes nothing', async () => {
    const { body: made } = await bram.ask('POST', '/patterns', { source: small })
    expect(made).toMatchObject({ title: 'Towrope ring', version: null, revision: 1 })
    const first = await bram.ask('PUT', `/patterns/${made.id}/draft`, { source: `${small}round A\n`, revision: 1 })
    expect(first.body.revision).toBe(2)
    const late = await bram.ask('PUT', `/patterns/${made.id}/draft`, { source: 'pattern Lost', revision: 1 })
    expect([late.status, late.body.code]).toEqual([409, 'draft-moved-on'])
    expect((await bram.ask('GET', `/patterns/${made.id}`)).body.source).toBe(`${small}round A\n`)
  })

  test('of two saves at once exactly one wins', async () => {
    const { body: made } = await bram.ask('POST', '/patterns', { source: small })
    const saves = await Promise.all(
      ['one', 'two'].map((word) =>
        bram.ask('PUT', `/patterns/${made.id}/draft`, { source: `pattern ${word}`, revision: 1 }),
      ),
    )
    expect(saves.map(({ status }) => status).sort()).toEqual([200, 409])
  })

  test('broken notation is kept as it is typed; only a version must be sound', async () => {
    const { body: made } = await bram.ask('POST', '/patterns', { source: `${small}rnig 3A\n` })
    const version = await bram.ask('POST', `/patterns/${made.id}/versions`, { name: 'First', revision: 1 })
    expect(version.status).toBe(422)
    expect(version.body).toMatchObject({
      code: 'faulty-pattern',
      path: 'line 6, column 1',
      hint: 'Did you mean "ring"?',
    })
    expect((await bram.ask('GET', `/patterns/${made.id}`)).body.source).toContain('rnig')
  })

  test('a text longer than is read, or none, is refused with its reason', async () => {
    expect((await bram.ask('POST', '/patterns', {})).body).toMatchObject({
      path: 'source',
      message: 'Send the text of the pattern.',
    })
    const long = await bram.ask('POST', '/patterns', { source: 'x'.repeat(2_000_001) })
    expect([long.status, long.body.path]).toEqual([400, 'source'])
    expect((await bram.ask('POST', '/patterns', { source: 'x'.repeat(10_000_000) })).status).toBe(413)
  })
})

describe('versions', () => {
  test('are numbered, keep their text while the draft goes on, and are never changed', async () => {
    const { body: made } = await bram.ask('POST', '/patterns', { source: small })
    await bram.ask('POST', `/patterns/${made.id}/versions`, { name: 'First', note: 'as taught', revision: 1 })
    await bram.ask('PUT', `/patterns/${made.id}/draft`, { source: `${small}round A\n`, revision: 1 })
    const { body } = await bram.ask('GET', `/patterns/${made.id}`)
    expect(body).toMatchObject({
      version: 1,
      changed: true,
      versions: [{ number: 1, name: 'First', note: 'as taught', madeBy: 'Bram Teasel' }],
    })
    expect((await bram.ask('GET', `/patterns/${made.id}/versions/1`)).body.source).toBe(small)
    await expect(shop.pool.query('update pattern_version set source = $1', ['x'])).rejects.toThrow('only added to')
    await expect(shop.pool.query('delete from pattern_version')).rejects.toThrow('only added to')
  })
})

describe('colourways', () => {
  test('a change is a new version; a role given twice or an item that is not there is refused', async () => {
    const { body: made } = await bram.ask('POST', '/patterns', { source: small })
    const path = `/patterns/${made.id}/colourways`
    const first = await bram.ask('POST', path, { name: 'Dusk', choices: [{ role: 'A', size: '', itemId: 1 }] })
    expect(first.body).toMatchObject({ name: 'Dusk', version: 1 })
    const second = await bram.ask('PUT', `/colourways/${first.body.id}`, {
      name: 'Dusk',
      choices: [{ role: 'A', size: '', itemId: 2 }],
    })
    expect(second.body).toMatchObject({ version: 2, choices: [{ itemId: 2 }] })
    expect((await bram.ask('POST', path, { name: 'Dusk', choices: [] })).body).toMatchObject({
      code: 'name-taken',
      path: 'name',
    })
    const twice = { role: 'A', size: '', itemId: 1 }
    expect((await bram.ask('POST', path, { name: 'Two', choices: [twice, twice] })).body.code).toBe('chosen-twice')
    expect((await bram.ask('POST', path, { name: 'None', choices: [{ ...twice, itemId: 99999 }] })).body.code).toBe(
      'no-such-item',
    )
  })
})

describe('the PDF', () => {
  const fetchPdf = (query: string) => bram.ask<ArrayBuffer>('GET', `/patterns/1/document.pdf?${query}`)

  test.each(['A4', 'LETTER'])('on %s is a PDF of its own size of paper', async (paper) => {
    const { status, body, headers } = await fetchPdf(`version=1&size=petite&colourway=1&paper=${paper}`)
    expect(status).toBe(200)
    expect(headers.get('content-disposition')).toContain('Windlass-pendant.pdf')
    const text = Buffer.from(body).toString('latin1')
    expect(text.startsWith('%PDF-')).toBe(true)
    const [, width, height] = /MediaBox\s*\[0 0 ([\d.]+) ([\d.]+)\]/.exec(text) ?? []
    expect([Math.round(Number(width)), Math.round(Number(height))]).toEqual(paper === 'A4' ? [595, 842] : [612, 792])
  })

  test('of a version, a colourway or a paper that is not there says so', async () => {
    const asked = async (query: string) => {
      const { status, body } = await bram.ask('GET', `/patterns/1/document.pdf?${query}`)
      return [status, body.message]
    }
    expect(await asked('version=7')).toEqual([404, 'There is no such version.'])
    expect(await asked('colourway=5')).toEqual([404, 'There is no such colourway.'])
    expect(await asked('paper=A3')).toEqual([400, 'Paper is A4 or LETTER.'])
  })
})

describe('a request that is sent twice with one key', () => {
  test('acts once, and is answered the same: patterns, versions, colourways, samples, words', async () => {
    const rows = async () => {
      const { rows } = await shop.pool.query(
        `select (select count(*) from pattern)::int as patterns, (select count(*) from pattern_version)::int as versions,
           (select count(*) from colourway_version)::int as colourways, (select count(*) from sample)::int as samples`,
      )
      return rows[0]
    }
    const twice = async (method: 'POST' | 'PUT', at: string, body: object, adds: object) => {
      const before = await rows()
      const key = randomUUID()
      const first = await bram.ask(method, at, body, { key })
      const second = await bram.ask(method, at, body, { key })
      expect([first.status, second.status]).toEqual([200, 200])
      expect(second.body).toEqual(first.body)
      const added = Object.fromEntries(
        Object.entries(await rows()).map(([what, n]) => [what, Number(n) - before[what]]),
      )
      expect(added).toEqual({ patterns: 0, versions: 0, colourways: 0, samples: 0, ...adds })
      return { key, body: first.body }
    }
    const { body: made, key } = await twice('POST', '/patterns', { source: small }, { patterns: 1 })
    await twice(
      'POST',
      `/patterns/${made.id}/versions`,
      { name: 'First', note: '', revision: 1, publish: true },
      { versions: 1 },
    )
    await twice('POST', `/patterns/${made.id}/colourways`, { name: 'Plain', choices: [] }, { colourways: 1 })
    const sample = { version: null, size: '', minutes: 20, threadMm: 700, note: '' }
    await twice('POST', `/patterns/${made.id}/samples`, sample, { samples: 1 })
    const other = await bram.ask('POST', `/patterns/${made.id}/samples`, sample, { key })
    expect([other.status, other.body.code]).toEqual([409, 'key-used'])
  })
})
