/** Patterns as a shop lives with them: found, copied, renamed, described, put away, thrown away and brought back. */
import type { LibraryPage, Pattern, PatternName } from '@tessellum/contract/patterns'
import { type Caller, openShop, type Shop } from './shop'

let shop: Shop
let bram: Caller
beforeAll(async () => {
  shop = await openShop()
  bram = await shop.as('bram')
})
afterAll(() => shop.close())

const library = async (query: Record<string, string | number> = {}) => {
  const asked = new URLSearchParams(Object.entries(query).map(([name, value]) => [name, String(value)]))
  return (await bram.ask<LibraryPage>('GET', `/library?${asked}`)).body
}
const titles = ({ patterns }: LibraryPage) => patterns.map(({ title }) => title)
const found = async (find: string) => titles(await library({ find, limit: 100 }))
const offered = async () => (await bram.ask<PatternName[]>('GET', '/patterns')).body.map(({ title }) => title)
const act = (id: number, what: string) => bram.ask('POST', `/patterns/${id}/${what}`, {})
const begin = async (source: string) => (await bram.ask<Pattern>('POST', '/patterns', { source })).body

test('pages come one after the other, each pattern once', async () => {
  const all = await library({ limit: 100 })
  expect(all).toMatchObject({ next: null, total: all.patterns.length })
  const seen: string[] = []
  let page = await library({ limit: 4 })
  expect(page.total).toBe(all.total)
  for (;;) {
    seen.push(...titles(page))
    if (page.next === null) break
    page = await library({ limit: 4, after: page.next })
  }
  expect(seen).toEqual(titles(all))
  expect((await bram.ask('GET', '/library?after=x')).body).toMatchObject({ code: 'bad-input', path: 'after' })
})

test('one is found by its title, what it is made of and how, its sizes, its level and its time', async () => {
  const all = (await library({ limit: 100 })).patterns
  const one = all.find(({ title }) => title === 'Windlass pendant')
  expect(one?.drawing).toMatchObject({ kinds: expect.arrayContaining(['cylinder 11/0']), level: expect.any(String) })
  expect(await found('windLASS pen')).toEqual(['Windlass pendant'])
  expect(await found('petite')).toContain('Windlass pendant')
  const woven = all.filter(({ drawing }) => drawing?.techniques.includes('weave')).map(({ title }) => title)
  expect(woven.length).toBeGreaterThan(0)
  expect(await found('weave')).toEqual(expect.arrayContaining(woven))
  expect(await found('100%_')).toEqual([])
  const short = await library({ hours: 2, limit: 100 })
  expect(titles(short)).toEqual(all.filter(({ drawing }) => (drawing?.minutes ?? 999) <= 120).map(({ title }) => title))
  const first = await library({ level: 'first piece', limit: 100 })
  expect(new Set(first.patterns.map(({ drawing }) => drawing?.level))).toEqual(new Set(['first piece']))
})

test('tags and a season are told and found by', async () => {
  const { id } = await begin('pattern Frost star\nbead A round 11/0\npart p\nring 6A\n')
  const described = await bram.ask('PUT', `/patterns/${id}/description`, {
    tags: ['Gift', 'quick', 'gift'],
    season: 'winter',
  })
  expect(described.body).toMatchObject({ tags: ['gift', 'quick'], season: 'winter' })
  expect(await found('winter')).toEqual(['Frost star'])
  expect(await found('gift star')).toEqual(['Frost star'])
  expect((await library()).tags).toEqual(['gift', 'quick'])
  const wrong = await bram.ask('PUT', `/patterns/${id}/description`, { tags: [''], season: 'monsoon' })
  expect(wrong.status).toBe(400)
})

test('a copy has the text, the words and the colourways, and its own name', async () => {
  const { body: before } = await bram.ask<Pattern>('GET', '/patterns/1')
  const { body: copy } = await bram.ask<Pattern>('POST', '/patterns/1/copy', {})
  expect(copy).toMatchObject({ title: `Copy of ${before.title}`, version: null })
  const rest = (source: string) => source.split('\n').slice(1)
  expect(rest(copy.source)).toEqual(rest(before.source))
  const colourways = async (id: number) =>
    (await bram.ask<{ name: string; choices: unknown }[]>('GET', `/patterns/${id}/colourways`)).body.map(
      ({ name, choices }) => ({ name, choices }),
    )
  expect(await colourways(copy.id)).toEqual(await colourways(1))
  const { body: renamed } = await bram.ask<Pattern>('PUT', `/patterns/${copy.id}/title`, { title: 'Capstan # pendant' })
  expect(renamed).toMatchObject({ title: 'Capstan pendant', revision: copy.revision + 1 })
  expect(rest(renamed.source)).toEqual(rest(before.source))
})

test('what is put away is not offered, and can be taken out again', async () => {
  const { title } = (await bram.ask<Pattern>('GET', '/patterns/2')).body
  await act(2, 'put-away')
  expect(await offered()).not.toContain(title)
  expect(await found(title)).toEqual([])
  expect(titles(await library({ place: 'put away' }))).toEqual([title])
  expect((await bram.ask<Pattern>('GET', '/patterns/2')).body.place).toBe('put away')
  await act(2, 'take-out')
  expect(await offered()).toContain(title)
})

test('a draft is thrown away and brought back for thirty days; one with a version is not', async () => {
  expect((await act(1, 'throw-away')).body.code).toBe('has-versions')
  const { id, revision, source } = await begin('pattern Slip\nbead A round 11/0\npart p\nring 6A\n')
  await act(id, 'throw-away')
  expect(await offered()).not.toContain('Slip')
  const draft = { source: `${source}# more\n`, revision }
  expect((await bram.ask('PUT', `/patterns/${id}/draft`, draft)).body.code).toBe('thrown-away')
  expect(titles(await library({ place: 'thrown away' }))).toEqual(['Slip'])
  await act(id, 'bring-back')
  expect(await offered()).toContain('Slip')
  await act(id, 'throw-away')
  await shop.pool.query(`update pattern set thrown_away_at = now() - interval '31 days' where id = $1`, [id])
  expect(titles(await library({ place: 'thrown away' }))).toEqual([])
  expect((await act(id, 'bring-back')).body.code).toBe('too-late')
  expect((await (await shop.as('odile')).ask('POST', `/patterns/${id}/put-away`, {})).status).toBe(403)
})
