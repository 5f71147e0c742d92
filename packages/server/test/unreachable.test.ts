import { openShop } from './shop'
import { wire } from './wire'

test('a lost connection to the database is told plainly, and mends without a restart', async () => {
  let cable: Awaited<ReturnType<typeof wire>> | undefined
  const shop = await openShop(async (port) => {
    cable = await wire(port)
    return cable.port
  })
  const bram = await shop.as('bram')
  expect((await bram.ask('GET', '/items')).status).toBe(200)

  await cable?.cut()
  for (const path of ['/items', '/patterns/1', '/health', '/me']) {
    const { status, body, headers } = await bram.ask('GET', path)
    expect([path, status, body.code]).toEqual([path, 503, 'records-unreachable'])
    expect(headers.get('retry-after')).toBe('3')
  }
  const lost = await bram.ask('POST', '/batches/3/reserve', {})
  expect([lost.status, lost.body.hint]).toEqual([503, 'Try again in a moment; nothing is done twice.'])

  await cable?.mend()
  expect((await bram.ask('GET', '/items')).status).toBe(200)
  expect((await bram.ask('GET', '/batches/3')).body.state).toBe('draft')
  await shop.close()
  await cable?.cut()
})
