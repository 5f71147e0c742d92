import net from 'node:net'
import { openShop } from './shop'

const freePort = () =>
  new Promise<number>((done) => {
    const probe = net.createServer().listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as net.AddressInfo
      probe.close(() => done(port))
    })
  })

test('keys of old requests and bills that nobody asks for are deleted, and nothing else', async () => {
  const shop = await openShop()
  await shop.pool.query(
    `insert into idempotent_request (key, kind, person_id, result, at) values ('long-ago-1', 'x', 1, '{}', now() - interval '61 days'), ('lately-1', 'x', 1, '{}', now() - interval '59 days')`,
  )
  await shop.pool.query(
    `insert into cached_bill (digest, bill, troubles, used_on) values ('unused', '{}', '[]', now() - interval '121 days'), ('used', '{}', '[]', now() - interval '119 days')`,
  )
  const left = async () => {
    const { rows } = await shop.pool.query(
      `select key from idempotent_request where kind = 'x' union all select digest from cached_bill where digest in ('unused', 'used') order by key`,
    )
    return rows.map(({ key }) => key)
  }
  expect(await left()).toEqual(['lately-1', 'long-ago-1', 'unused', 'used'])
  // Each server does it as it starts.
  const other = await shop.beside()
  while ((await left()).length > 2) await new Promise((done) => setTimeout(done, 50))
  expect(await left()).toEqual(['lately-1', 'used'])
  await other.end()
  await shop.close()
})

test('what there is to watch is told on a port of its own, and answers are compressed', async () => {
  const port = await freePort()
  const shop = await openShop(undefined, { METRICS_PORT: String(port) })
  const odile = await shop.as('odile')
  const plain = await odile.ask('GET', '/batches')
  for (const [accepted, encoding] of [
    ['gzip, deflate, br', 'br'],
    ['gzip', 'gzip'],
    ['br;q=0, gzip', 'gzip'],
    ['identity', 'identity'],
  ] as const) {
    const headers = { cookie: odile.cookie, 'accept-encoding': accepted }
    const answer = await fetch(`${shop.base}/api/batches`, { headers })
    expect(answer.headers.get('content-encoding') ?? 'identity').toBe(encoding)
    expect(answer.headers.get('vary')).toContain('Accept-Encoding')
    expect(await answer.json()).toEqual(plain.body)
  }
  const told = await (await fetch(`http://127.0.0.1:${port}/metrics`)).text()
  expect(told).toMatch(/tessellum_request_seconds_count{route="GET \/api\/batches",status="200"} 5/)
  expect(told).toMatch(/tessellum_work_waiting \d/)
  expect((await fetch(`${shop.base}/metrics`)).headers.get('content-type')).not.toContain('text/plain')
  await shop.close()
})
