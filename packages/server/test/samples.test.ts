import { type Caller, openShop, type Shop } from './shop'

let shop: Shop
let bram: Caller
let id: number
beforeAll(async () => {
  shop = await openShop()
  bram = await shop.as('bram')
  const { body } = await bram.ask('POST', '/patterns', {
    source:
      'pattern Towrope ring\nsize small n = 12\nsize large n = 20\nbead A cylinder 11/0\npart p\nring A x n\nround A\nfinish\n',
  })
  id = body.id
})
afterAll(() => shop.close())

const asked = { version: null, size: 'large', minutes: 35, threadMm: 560, note: 'a little loose' }

test('a sample is kept with what was evaluated for its size, and is told to whoever reads the pattern', async () => {
  const large = await bram.ask('POST', `/patterns/${id}/samples`, asked)
  expect(large.status).toBe(200)
  const small = await bram.ask('POST', `/patterns/${id}/samples`, { ...asked, size: 'small' })
  const [second, first] = small.body.samples
  expect(first).toMatchObject({ ...asked, madeBy: 'Bram Teasel' })
  // Thirty beads of 1.3 mm, gaps, two ends of 15 cm and hitches, and take-up.
  expect(first.computedMm).toBeGreaterThan(second.computedMm)
  expect(second.computedMm).toBeGreaterThan(300)
  const odile = await shop.as('odile')
  expect((await odile.ask('GET', `/patterns/${id}/samples`)).body.samples).toHaveLength(2)
})

test.each([
  [{ minutes: 0 }, 'minutes', 'A sample takes a minute at least.'],
  [{ minutes: undefined }, 'minutes', 'Say how many minutes it took.'],
  [{ threadMm: -3 }, 'threadMm', 'Say how much thread was used.'],
  [{ size: 'huge' }, 'size', 'This pattern has no size "huge".'],
])('%j is refused by its name, and nothing is kept', async (wrong, path, message) => {
  const before = (await bram.ask('GET', `/patterns/${id}/samples`)).body.samples.length
  const { status, body } = await bram.ask('POST', `/patterns/${id}/samples`, { ...asked, ...wrong })
  expect([status >= 400 && status < 500, body.path, body.message]).toEqual([true, path, message])
  expect((await bram.ask('GET', `/patterns/${id}/samples`)).body.samples).toHaveLength(before)
})

test('a version that was never kept has no samples', async () => {
  const { status } = await bram.ask('POST', `/patterns/${id}/samples`, { ...asked, version: 9 })
  expect(status).toBe(404)
})

test('three samples correct the thread of what is kept after them, in the kit as on paper; what was kept before stays', async () => {
  const make = (name: string) => bram.ask('POST', `/patterns/${id}/versions`, { name, revision: 1 })
  await make('Before')
  const { body } = await bram.ask('POST', `/patterns/${id}/samples`, { ...asked, threadMm: 650 })
  const ratios = body.samples.map((each: { threadMm: number; computedMm: number }) => each.threadMm / each.computedMm)
  const median = [...ratios].sort((a, b) => a - b)[1]
  expect(body).toMatchObject({ technique: 'ring', thread: { count: 3 }, correction: { count: 3 } })
  expect(body.correction.ratio).toBeCloseTo(median, 5)
  await make('After')
  const sampled = async (version: number) =>
    (await bram.ask('GET', `/patterns/${id}/edition?version=${version}`)).body.sampled
  expect(await sampled(1)).toEqual({ ratio: 1, count: 0 })
  expect((await sampled(2)).ratio).toBeCloseTo(median, 5)
  const timed = async (version: number) =>
    (await bram.ask('GET', `/patterns/${id}/edition?version=${version}&size=large`)).body.timed
  expect([await timed(1), await timed(2)]).toEqual([[35], [35, 35]])
})
