import { addressOf, call, isUnreachable, keepSession, type ShopError } from '../src/shop/api'

interface Sent {
  readonly url: string
  readonly method: string
  readonly key: string | undefined
  readonly token: string | undefined
  readonly body: unknown
}

let sent: Sent[]
let answers: (() => Response)[]
beforeEach(() => {
  sent = []
  answers = []
  keepSession({ csrfToken: 'token', name: 'bram' })
  Object.assign(globalThis, {
    fetch: (url: string, { method, headers, body }: RequestInit & { headers: Record<string, string> }) => {
      const { 'idempotency-key': key, 'x-csrf-token': token } = headers
      sent.push({ url, method: method as string, key, token, body: body ? JSON.parse(body as string) : undefined })
      const answer = answers.shift()
      return answer ? Promise.resolve(answer()) : Promise.reject(new TypeError('fetch failed'))
    },
  })
})

const json = (status: number, body: unknown) => () => Response.json(body, { status })
const rename = (title: string) => call('PUT /api/patterns/:id/title', { params: { id: 7 }, body: { title } })
const refusal = (doing: Promise<unknown>) =>
  doing.then(
    () => undefined,
    (error: unknown) => error as ShopError,
  )

test('addresses are written by the contract: what the path names and what is asked, each as it must stand in one', () => {
  expect(addressOf('GET /api/patterns/:id', { params: { id: 7 } })).toBe('/api/patterns/7')
  expect(
    addressOf('GET /api/patterns/:id/edition', { params: { id: 7 }, query: { size: 'a & b/c', version: undefined } }),
  ).toBe('/api/patterns/7/edition?size=a+%26+b%2Fc')
})

test('the shop does not answer: the same is sent again with the same key, something else with another', async () => {
  const lost = await refusal(rename('Eddy'))
  expect(lost).toMatchObject({ code: 'unreachable', hint: expect.stringContaining('nothing is done twice') })
  expect(isUnreachable(lost)).toBe(true)
  await refusal(rename('Eddy'))
  await refusal(rename('Weir'))
  const [first, again, other] = sent
  expect(first).toMatchObject({ url: '/api/patterns/7/title', method: 'PUT', token: 'token', body: { title: 'Eddy' } })
  expect(again?.key).toBe(first?.key)
  expect(other?.key).not.toBe(first?.key)
})

test('what the shop has refused is over, and meant anew the next time; what broke on the way is not', async () => {
  answers = [
    json(500, { code: 'trouble', message: 'Something broke.' }),
    json(422, { code: 'invalid', message: 'Give it a name.', path: 'title', hint: 'At least a letter.' }),
    json(502, 'not what a shop says'),
  ]
  expect((await refusal(rename('Eddy')))?.code).toBe('trouble')
  expect(await refusal(rename('Eddy'))).toMatchObject({
    code: 'invalid',
    message: 'Give it a name.',
    path: 'title',
    hint: 'At least a letter.',
  })
  expect(await refusal(rename('Eddy'))).toMatchObject({ code: 'trouble', message: 'The shop answered 502.' })
  const [broke, refused, after] = sent.map(({ key }) => key)
  expect(refused).toBe(broke)
  expect(after).not.toBe(refused)
})

test('done, and the rest cannot be told yet: it is asked for with the same key', async () => {
  answers = [() => new Response(null, { status: 204 })]
  expect((await refusal(rename('Eddy')))?.code).toBe('done')
  await refusal(rename('Eddy'))
  expect(sent[1]?.key).toBe(sent[0]?.key)
})

test('an answer that is not what the contract says is not taken for one', async () => {
  answers = [json(200, { id: 'seven' })]
  await expect(call('GET /api/patterns/:id', { params: { id: 7 } })).rejects.toThrow()
  expect(sent[0]).toMatchObject({ method: 'GET', key: undefined, token: undefined })
})

test('an error that is not in the shop’s form is not told as if the shop had said it', async () => {
  answers = [json(502, { message: 'upstream' }), json(502, { code: 7, message: 'upstream' })]
  expect(await refusal(rename('Eddy'))).toMatchObject({ code: 'trouble', message: 'The shop answered 502.' })
  expect(await refusal(rename('Eddy'))).toMatchObject({ code: 'trouble', message: 'The shop answered 502.' })
})

test('of another build’s answer only what this page knows is taken', async () => {
  answers = [json(200, { ahead: 2, done: 0.5, since: 'tomorrow' })]
  expect(await call('GET /api/work')).toEqual({ ahead: 2, done: 0.5 })
})
