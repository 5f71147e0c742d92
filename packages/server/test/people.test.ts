import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import os from 'node:os'
import path from 'node:path'
import { api, type Route } from '@tessellum/contract/api'
import { rights } from '@tessellum/contract/rights'
import { isOut } from './sessions'
import { Caller, openShop, password, type Shop } from './shop'

let shop: Shop
const signedIn = new Map<string, Caller>()
beforeAll(async () => {
  shop = await openShop()
  for (const name of Object.keys(roles)) signedIn.set(name, await shop.as(name))
})
afterAll(() => shop.close())

const roles = { isaura: 'owner', bram: 'designer', odile: 'stockroom', corin: 'teacher', wren: 'counter' } as const
const refusedFor = (status: number) => status === 401 || status === 403
const concrete = (path: string) => path.replace('/api', '').replace(':id', '999999').replace(':number', '9')

describe('rights', () => {
  // Signing out would end the caller who walks, and the stream of changes never ends; it is tried below.
  const walked = Object.entries<Route>(api).filter(
    ([key]) => !['POST /api/sign-out', 'GET /api/changes', 'POST /api/sign-in'].includes(key),
  )

  test.each(['scale', 'scanner'])('the %s is heard by whoever packs', async (device) => {
    const path = `/changes?also=${device}`
    expect((await new Caller(shop.base).ask('GET', path)).status).toBe(401)
    expect((await (signedIn.get('corin') as Caller).ask('GET', path)).status).toBe(403)
    const odile = signedIn.get('odile') as Caller
    const stream = await fetch(`${shop.base}/api${path}`, { headers: { cookie: odile.cookie } })
    let heard = ''
    for await (const part of stream.body ?? []) {
      heard += new TextDecoder().decode(part)
      if (heard.includes('data: ')) break
    }
    expect([stream.status, heard]).toEqual([
      200,
      expect.stringContaining(`event: ${device}\ndata: {"gone":"none"}\n\n`),
    ])
  })

  test.each(walked)('%s asks for its right', async (key, { right: needed }) => {
    const [method, path] = key.split(' ') as [string, string]
    const body = method === 'GET' ? undefined : {}
    const stranger = await new Caller(shop.base).ask(method, concrete(path), body)
    expect(refusedFor(stranger.status)).toBe(needed !== 'open')
    for (const [name, role] of Object.entries(roles)) {
      const caller = signedIn.get(name) as Caller
      const { status } = await caller.ask(method, concrete(path), body)
      const may = needed === 'open' || needed === 'signed-in' || (rights[needed] as readonly string[]).includes(role)
      expect([name, refusedFor(status)]).toEqual([name, !may])
      // What is allowed may still be wrong, but never comes apart.
      expect(status).toBeLessThan(500)
    }
  })

  test('the stream of changes is for those who are signed in', async () => {
    expect((await new Caller(shop.base).ask('GET', '/changes')).status).toBe(401)
  })

  test('an address that is not in the table leads nowhere', async () => {
    const owner = await shop.as('isaura')
    const { status, body } = await owner.ask('GET', '/secrets')
    expect([status, body.code]).toEqual([404, 'not-found'])
  })
})

describe('signing in', () => {
  test('a wrong password and an unknown name are told alike', async () => {
    const wrong = await new Caller(shop.base).signIn('bram', 'no')
    const unknown = await new Caller(shop.base).signIn('nobody', 'no')
    expect(wrong.status).toBe(401)
    expect(unknown.body).toEqual(wrong.body)
  })

  test('without a name or a password it says which is missing', async () => {
    const caller = new Caller(shop.base)
    const { status, body } = await caller.ask('POST', '/sign-in', { name: ' ', password: 'x' })
    expect([status, body.path, body.message]).toEqual([400, 'name', 'Enter your sign-in name.'])
  })

  test('after ten wrong tries even the right password has to wait', async () => {
    for (let i = 0; i < 10; i++) expect((await new Caller(shop.base).signIn('corin', 'no')).status).toBe(401)
    const answer = await new Caller(shop.base).signIn('corin')
    expect(answer.status).toBe(429)
    expect(answer.body).toMatchObject({ code: 'too-many-tries', hint: expect.stringContaining('minute') })
  })

  test('a change without the page’s token is refused, and a session ends with its sign-out', async () => {
    const caller = await shop.as('bram')
    expect((await caller.ask('POST', '/patterns', { source: 'pattern X' }, { token: 'forged' })).status).toBe(403)
    expect((await caller.ask('GET', '/me')).body).toMatchObject({ name: 'bram', roles: ['designer'] })
    const { cookie } = caller
    await caller.ask('POST', '/sign-out', {})
    caller.cookie = cookie
    expect((await caller.ask('GET', '/me')).status).toBe(401)
  })

  test('the cookie cannot be read by scripts nor sent from elsewhere, and no hash leaves the server', async () => {
    const { headers, body } = await new Caller(shop.base).signIn('isaura')
    expect(headers.get('set-cookie')).toMatch(/HttpOnly.*SameSite=Strict/)
    expect(JSON.stringify(body)).not.toContain('argon2')
    const { rows } = await shop.pool.query('select password_hash from person')
    for (const row of rows) expect(row.password_hash).toMatch(/^\$argon2id\$/)
  })
})

test('of two hundred wrong passwords at once ten are looked at, and everybody else goes on', async () => {
  const flood = Array.from({ length: 200 }, () => new Caller(shop.base).signIn('odile', 'no'))
  const bram = await shop.as('bram')
  expect((await bram.ask('GET', '/batches')).status).toBe(200)
  const statuses = (await Promise.all(flood)).map(({ status }) => status)
  expect(statuses.filter((status) => status === 401).length).toBe(10)
  expect(statuses.every((status) => status === 401 || status === 429)).toBe(true)
  await shop.pool.query('delete from sign_in_limit')
})

describe('sessions', () => {
  const idOf = async (name: string) =>
    (await shop.pool.query('select id from person where name = $1', [name])).rows[0].id

  /** What a page is told of changes, until it is told nothing more. */
  async function told(caller: Caller): Promise<() => Promise<string>> {
    const stream = await fetch(`${shop.base}/api/changes`, { headers: { cookie: caller.cookie } })
    return () => stream.text()
  }

  test('who is disabled is out at once, in every browser, and comes back only when let in again', async () => {
    const [isaura, here, there] = [await shop.as('isaura'), await shop.as('bram'), await shop.as('bram')]
    const stream = await told(here)
    const id = await idOf('bram')
    const listed = async () =>
      (await isaura.ask('GET', '/people')).body.find((each: { name: string }) => each.name === 'bram')
    expect((await listed()).sessions).toBeGreaterThanOrEqual(2)
    expect((await isaura.ask('POST', `/people/${id}/disable`, {})).status).toBe(200)
    for (const caller of [here, there])
      for (const [method, path] of [
        ['GET', '/batches'],
        ['POST', '/batches'],
      ] as const)
        expect((await caller.ask(method, path, method === 'GET' ? undefined : {})).status).toBeGreaterThanOrEqual(401)
    expect(await stream()).toContain('event: ended')
    expect((await new Caller(shop.base).signIn('bram')).body).toMatchObject({ code: 'disabled' })
    expect(await listed()).toMatchObject({ disabled: true, sessions: 0 })
    expect((await isaura.ask('POST', `/people/${id}/enable`, {})).status).toBe(200)
    expect((await (await shop.as('bram')).ask('GET', '/batches')).status).toBe(200)
  })

  test('another role or another password ends them, and the only owner stays', async () => {
    const odile = await shop.as('odile')
    await shop.pool.query(`update person set roles = array['teacher'] where name = 'odile'`)
    await isOut(odile)
    const teaching = await shop.as('odile')
    expect((await teaching.ask('POST', '/lots/1/moves', {})).status).toBe(403)
    await shop.pool.query(
      `update person set roles = array['stockroom'], password_hash = password_hash || '' where name = 'odile'`,
    )
    await isOut(teaching)
    const isaura = await shop.as('isaura')
    const last = await isaura.ask('POST', `/people/${await idOf('isaura')}/disable`, {})
    expect([last.status, last.body.code]).toEqual([409, 'last-owner'])
  })

  test('they end a week after the sign-in, however busy, and with the sign-out wherever they are told of changes', async () => {
    const corin = await shop.as('corin')
    await shop.pool.query(
      `update session set sess = jsonb_set(sess::jsonb, '{begun,at}', to_jsonb((sess #>> '{begun,at}')::float8 - 8 * 86400000.0)) where sess #>> '{begun,personId}' = $1`,
      [String(await idOf('corin'))],
    )
    await isOut(corin)
    const bram = await shop.as('bram')
    const stream = await told(bram)
    await bram.ask('POST', '/sign-out', {})
    expect(await stream()).toContain('event: ended')
  })

  test('they end when they have not been used for twelve hours, and asking for something begins these anew', async () => {
    const wren = new Caller(shop.base)
    const { headers } = await wren.signIn('wren')
    const cookieSeconds =
      (Date.parse(/expires=([^;]+)/i.exec(headers.get('set-cookie') ?? '')?.[1] ?? '') - Date.now()) / 1000
    expect(Math.round(cookieSeconds / 86_400)).toBe(7)
    const of = `sess #>> '{begun,personId}' = '${await idOf('wren')}'`
    const restHours = async () =>
      Number(
        (await shop.pool.query(`select extract(epoch from max(expire) - now()) / 3600 as h from session where ${of}`))
          .rows[0].h,
      )
    const restsFor = (time: string) =>
      shop.pool.query(`update session set expire = now() + interval '${time}' where ${of}`)
    expect(await restHours()).toBeCloseTo(12, 0)
    await restsFor('11 hours 58 minutes')
    expect((await wren.ask('GET', '/me')).status).toBe(200)
    expect(await restHours()).toBeLessThan(11.99)
    await restsFor('1 hour')
    // The answer does not wait for it.
    for (let asked = 0; asked < 200 && (await restHours()) < 11; asked++)
      expect((await wren.ask('GET', '/me')).status).toBe(200)
    expect(await restHours()).toBeCloseTo(12, 0)
    await restsFor('-1 second')
    await isOut(wren)
  })

  test('a changed password, and signing out elsewhere, end every other session and keep this one', async () => {
    const [here, there] = [await shop.as('bram'), await shop.as('bram')]
    const next = 'a longer password for bram'
    const streams = await Promise.all([told(here), told(there)])
    const change = (current: string, given: string) => here.ask('POST', '/me/password', { current, password: given })
    expect((await change('not it', next)).body).toMatchObject({ code: 'wrong-password', path: 'current' })
    expect((await change(password, 'short')).body).toMatchObject({ path: 'password' })
    expect((await change(password, next)).status).toBe(200)
    expect((await here.ask('GET', '/me')).status).toBe(200)
    expect((await there.ask('GET', '/me')).status).toBe(401)
    expect((await new Caller(shop.base).signIn('bram')).status).toBe(401)
    const elsewhere = new Caller(shop.base)
    expect((await elsewhere.signIn('bram', next)).status).toBe(200)
    expect((await here.ask('POST', '/me/sign-out-elsewhere')).status).toBe(200)
    expect((await elsewhere.ask('GET', '/me')).status).toBe(401)
    // Who was signed out is told; who has stayed hears of changes still, and the server goes on telling them.
    expect(await streams[1]()).toContain('event: ended')
    await here.ask('POST', '/sign-out', {})
    expect(await streams[0]()).toMatch(/data: audit[\s\S]*event: ended/)
    await shop.pool.query(
      'update person set password_hash = (select password_hash from person where name = $1) where name = $2',
      ['odile', 'bram'],
    )
    await shop.pool.query('delete from sign_in_limit')
  })

  test('are known to another server of the same shop', async () => {
    const bram = await shop.as('bram')
    const other = await shop.beside()
    const there = new Caller(other.base)
    there.cookie = bram.cookie
    expect((await there.ask('GET', '/me')).status).toBe(200)
    await other.end()
  })
})

describe('people', () => {
  const wanda = { name: 'Wanda.S', fullName: 'Wanda Sallow', roles: ['stockroom', 'teacher'] }
  const open = (token: string) => new Caller(shop.base).ask('POST', '/welcome', { token })
  const choose = (token: string, given: string) =>
    new Caller(shop.base).ask('POST', '/welcome/password', { token, password: given })

  test('somebody new chooses a password by a link that works once, and has the rights of all their roles', async () => {
    const isaura = await shop.as('isaura')
    const { body } = await isaura.ask('POST', '/people', wanda)
    expect((await isaura.ask('POST', '/people', wanda)).body).toMatchObject({ code: 'name-taken', path: 'name' })
    const listed = async () =>
      (await isaura.ask('GET', '/people')).body.find((each: { id: number }) => each.id === body.id)
    expect(await listed()).toMatchObject({ name: 'wanda.s', roles: wanda.roles, waiting: true })
    // Nobody signs in as her before that, with whatever password.
    expect((await new Caller(shop.base).signIn('wanda.s', 'nobody has this password')).status).toBe(401)

    const link = async () => (await isaura.ask('POST', `/people/${body.id}/link`)).body.path.split('#')[1] as string
    const [first, second] = [await link(), await link()]
    expect((await open(first)).body.code).toBe('link-used')
    expect((await open(second)).body).toEqual({ name: 'wanda.s', fullName: 'Wanda Sallow' })
    expect((await choose(second, 'short')).body).toMatchObject({ path: 'password' })
    const chosen = new Caller(shop.base)
    const come = await chosen.ask('POST', '/welcome/password', { token: second, password: 'reeds by the lock' })
    expect(come.body).toMatchObject({ name: 'wanda.s', roles: wanda.roles })
    chosen.token = come.body.csrfToken
    expect((await choose(second, 'another password')).body.code).toBe('link-used')
    expect(await listed()).toMatchObject({ waiting: false, sessions: 1 })
    // Packing is the stockroom's, classes are the teacher's, costs are neither's.
    expect((await chosen.ask('POST', '/lots/1/moves', {})).status).toBe(400)
    expect((await chosen.ask('POST', '/classes', {})).status).toBe(400)
    expect((await chosen.ask('PUT', '/costs', {})).status).toBe(403)

    // Other roles: out at once, and in again with those.
    await isaura.ask('PUT', `/people/${body.id}`, { fullName: 'Wanda Sallow-Reed', roles: ['teacher'] })
    expect((await chosen.ask('GET', '/me')).status).toBe(401)
    await chosen.signIn('wanda.s', 'reeds by the lock')
    expect((await chosen.ask('POST', '/lots/1/moves', {})).status).toBe(403)
  })

  test('of two who use one link at the same moment one gets in', async () => {
    const isaura = await shop.as('isaura')
    const { body } = await isaura.ask('POST', '/people', { ...wanda, name: 'twice' })
    const token = (await isaura.ask('POST', `/people/${body.id}/link`)).body.path.split('#')[1] as string
    const both = await Promise.all([choose(token, 'the first password'), choose(token, 'the second password')])
    expect(both.map(({ status }) => status).sort()).toEqual([200, 410])
  })

  test('a link is over after its time, and when its person is disabled; no table has it in full', async () => {
    const isaura = await shop.as('isaura')
    const { body } = await isaura.ask('POST', '/people', { ...wanda, name: 'late' })
    const link = async () => (await isaura.ask('POST', `/people/${body.id}/link`)).body.path.split('#')[1] as string
    const token = await link()
    const { rows } = await shop.pool.query('select to_jsonb(l)::text as row from person_link l')
    expect(JSON.stringify(rows)).not.toContain(token)
    await shop.pool.query(`update person_link set expires_at = now() - interval '1 minute'`)
    expect((await open(token)).body.code).toBe('link-used')
    const next = await link()
    await isaura.ask('POST', `/people/${body.id}/disable`, {})
    expect((await choose(next, 'a password of hers')).body.code).toBe('link-used')
    expect((await isaura.ask('POST', `/people/${body.id}/link`)).body.code).toBe('disabled')
  })

  test('the last owner keeps the role; an owner who has not chosen a password yet is none to rely on', async () => {
    const isaura = await shop.as('isaura')
    const me = (await isaura.ask('GET', '/me')).body
    const plain = { fullName: me.fullName, roles: ['designer'] }
    await isaura.ask('POST', '/people', { name: 'heir', fullName: 'An Heir', roles: ['owner'] })
    expect((await isaura.ask('PUT', `/people/${me.id}`, plain)).body.code).toBe('last-owner')
    expect((await isaura.ask('PUT', `/people/${me.id}`, { ...plain, roles: ['owner', 'designer'] })).status).toBe(200)
    expect((await isaura.ask('GET', '/me')).status).toBe(401)
    const again = await shop.as('isaura')
    expect((await again.ask('PUT', `/people/${me.id}`, { ...plain, roles: [] })).body).toMatchObject({ path: 'roles' })
    await again.ask('PUT', `/people/${me.id}`, { ...plain, roles: ['owner'] })
  })
})

test('before signing in nobody sends more than a name and a password; only a pattern is large', async () => {
  const anybody = new Caller(shop.base)
  const large = { source: '['.repeat(500_000) }
  for (const [method, path] of [
    ['POST', '/sign-in'],
    ['POST', '/patterns'],
    ['POST', '/batches/outlook'],
  ] as const)
    expect([path, (await anybody.ask(method, path, large)).status]).toEqual([path, 413])
  const bram = await shop.as('bram')
  expect((await bram.ask('POST', '/batches/outlook', large)).body.code).toBe('too-large')
  expect((await bram.ask('POST', '/patterns', { source: `pattern Long\n# ${'x'.repeat(1_900_000)}` })).status).toBe(200)
  const corin = await shop.as('corin')
  expect((await corin.ask('POST', '/patterns', large)).status).toBe(413)
})

test('a page and its workers load from the shop only, are in no frame, and files they bring are not taken for anything else', async () => {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'tessellum-web-'))
  mkdirSync(path.join(folder, 'assets'))
  for (const file of ['assets/page-1.js', 'assets/core.worker-1.js']) writeFileSync(path.join(folder, file), file)
  const html = '<script type="module" src="/assets/index-Ab_1-x.js"></script>'
  writeFileSync(path.join(folder, 'index.html'), html)
  const served = await openShop(undefined, { WEB_ROOT: folder })
  const headersAt = async (at: string) => {
    const answer = await fetch(`${new URL(served.base).origin}${at}`)
    const told = (name: string) => answer.headers.get(name) ?? ''
    return {
      file: await answer.text(),
      own: /default-src 'self'/.test(told('content-security-policy')),
      compiles: /'wasm-unsafe-eval'/.test(told('content-security-policy')),
      framed: told('x-frame-options') !== 'SAMEORIGIN',
      sniffed: told('x-content-type-options') !== 'nosniff',
      forYears: /immutable/.test(told('cache-control')),
    }
  }
  const page = { file: html, own: true, compiles: false, framed: false, sniffed: false, forYears: false }
  for (const at of ['/', '/kits/3', '/assets/gone-1.js', '/assets/', '/assets/../assets'])
    expect([at, await headersAt(at)]).toEqual([at, page])
  expect(await headersAt('/assets/core.worker-1.js')).toEqual({
    ...page,
    file: 'assets/core.worker-1.js',
    compiles: true,
    forYears: true,
  })
  expect(await headersAt('/assets/page-1.js')).toMatchObject({
    file: 'assets/page-1.js',
    own: false,
    sniffed: false,
    forYears: true,
  })
  // What the API answers is shown by no browser as a page, and says which pages it goes with.
  const { headers } = await fetch(`${served.base}/api/health`)
  expect(Object.fromEntries(headers)).toMatchObject({
    'content-security-policy': expect.stringMatching(/default-src 'none'.*frame-ancestors 'none'/),
    'cross-origin-resource-policy': 'same-origin',
    'x-content-type-options': 'nosniff',
    'x-page-build': 'index-Ab_1-x',
  })
  await served.close()
  rmSync(folder, { recursive: true })
})
