/** Whatever is sent to a route, made from its own schemas and bent, is answered: done, or refused in words. Nothing comes apart. */
import { api, type Route, type RouteKey } from '@tessellum/contract/api'
import { requests, written } from './requests'
import { Caller, openShop, type Shop } from './shop'

/** Another one tries other requests. */
const seed = Number(process.env.FUZZ_SEED ?? 20_261_126)
const perRoute = Number(process.env.FUZZ_RUNS ?? 8)

let shop: Shop
beforeAll(async () => {
  shop = await openShop()
})
afterAll(() => shop.close())

/** Streams never end, and signing out ends the caller; the archive is taken once in its own test. */
const left: ReadonlySet<string> = new Set(['GET /api/changes', 'POST /api/sign-out', 'GET /api/archive'])

const walked = (Object.entries(api) as [RouteKey, Route][]).filter(([key]) => !left.has(key))

test.each(walked)('%s', async (key, route) => {
  const owner = await shop.as('isaura')
  const stranger = new Caller(shop.base)
  const trouble: unknown[] = []
  for (const [i, { path, query, body }] of requests(key, route, seed, perRoute).entries()) {
    const [method = ''] = key.split(' ')
    const caller = i % 10 === 9 ? stranger : owner
    const at = `${path.replace('/api', '')}?${written(query)}`
    const { status, body: answer } =
      route.bytes && method !== 'GET'
        ? await caller.send(at, String(body))
        : await caller.ask(method, at, method === 'GET' ? undefined : body)
    const read = answer as { code?: string; path?: string; message?: string } | null
    // A device that is not there is told as such.
    if (status >= 500 && !read?.code?.startsWith('no-')) trouble.push({ status, at, body, read })
    // What cannot be read is pointed at, where it has parts.
    if (read?.code === 'bad-input' && read.path === undefined && typeof body === 'object' && body !== null)
      trouble.push({ at, body, read })
  }
  expect(trouble).toEqual([])
})
