import { hammer } from './hammer'
import { killAgainAndAgain } from './kill'
import { Caller, openShop, type Shop } from './shop'

let shop: Shop
beforeAll(async () => {
  shop = await openShop()
})
afterAll(() => shop.close())

test('two servers on one database, hammered by 24 clients: nothing below 0, lost or doubled; every answer accounted for', async () => {
  const other = await shop.beside()
  const callers: Caller[] = []
  // One after the other: many at once of one name would be taken for somebody who tries passwords.
  for (let i = 0; i < 24; i++) {
    const caller = new Caller(i % 2 ? shop.base : other.base)
    await caller.signIn(['odile', 'isaura'][i % 2] as string)
    callers.push(caller)
  }
  const { answers, moves, reservations } = await hammer(shop.pool, callers, { requests: 200 })
  expect(answers['200']).toBeGreaterThan(100)
  expect([moves > 30, reservations > 5]).toEqual([true, true])
  await other.end()
})

test('killed hard in the middle of reserving, packing and closing: nothing lost, doubled or half done', async () => {
  const { kills, done, undone } = await killAgainAndAgain(shop, 6)
  expect(done + undone).toBe(kills)
})
