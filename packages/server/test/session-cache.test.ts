import { type FoundSession, SessionCache } from '../src/people/session-cache'

const found = (seal: string) => ({ personId: 1, seal }) as FoundSession

/** A cache in front of records in which a session's seal can be changed. */
function opened() {
  const cache = new SessionCache()
  const records = { seal: 'first', reads: 0 }
  const read = async () => {
    records.reads++
    return found(records.seal)
  }
  return { cache, records, seal: async () => (cache.get('a') ?? (await cache.read('a', read)))?.seal }
}

test('a session is read once while changes are told, and again when it, or anybody, is changed', async () => {
  const { cache, records, seal } = opened()
  cache.listen(true)
  for (let i = 0; i < 5; i++) expect(await seal()).toBe('first')
  expect(records.reads).toBe(1)
  records.seal = 'second'
  cache.forget('another')
  expect(await seal()).toBe('first')
  cache.forget('a')
  expect(await seal()).toBe('second')
  records.seal = 'third'
  cache.forgetAll()
  expect(await seal()).toBe('third')
  expect(records.reads).toBe(3)
})

test('nothing is kept while nobody tells of changes, nor after, of what was read before', async () => {
  const { cache, records, seal } = opened()
  await seal()
  await seal()
  expect(records.reads).toBe(2)
  cache.listen(true)
  await seal()
  cache.listen(false)
  records.seal = 'second'
  expect(await seal()).toBe('second')
  cache.listen(true)
  expect(await seal()).toBe('second')
})

test('what changes while it is being read is not kept', async () => {
  const { cache, records, seal } = opened()
  cache.listen(true)
  let answer = (_: FoundSession) => {}
  const asked = cache.read('a', () => new Promise((done) => (answer = done)))
  const old = found(records.seal)
  records.seal = 'second'
  cache.forget('a')
  answer(old)
  expect((await asked)?.seal).toBe('first')
  expect(await seal()).toBe('second')
})
