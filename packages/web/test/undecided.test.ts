type Undecided = typeof import('../src/shop/undecided')

/** As a page has it after a reload: the module anew, the tab's memory as it was. */
function loaded(): Undecided {
  let found: Undecided | undefined
  jest.isolateModules(() => {
    found = require('../src/shop/undecided')
  })
  return found as Undecided
}

const memory = new Map<string, string>()
beforeEach(() => {
  memory.clear()
  jest.useFakeTimers()
  Object.assign(globalThis, {
    sessionStorage: {
      getItem: (name: string) => memory.get(name) ?? null,
      setItem: (name: string, value: string) => void memory.set(name, value),
    },
  })
})
afterEach(() => jest.useRealTimers())

test('the same request keeps its key until its outcome is known, over a reload too; another has another', () => {
  const page = loaded()
  const key = page.keyOf('bram POST /batches {"kits":2}')
  expect(page.keyOf('bram POST /batches {"kits":2}')).toBe(key)
  expect(page.keyOf('bram POST /batches {"kits":3}')).not.toBe(key)
  expect(page.keyOf('odile POST /batches {"kits":2}')).not.toBe(key)
  const again = loaded()
  expect(again.keyOf('bram POST /batches {"kits":2}')).toBe(key)
  again.decided('bram POST /batches {"kits":2}')
  expect(again.keyOf('bram POST /batches {"kits":2}')).not.toBe(key)
})

test('half an hour later the same is meant anew', () => {
  const page = loaded()
  const key = page.keyOf('bram POST /x')
  jest.advanceTimersByTime(31 * 60_000)
  expect(page.keyOf('bram POST /x')).not.toBe(key)
})

test('a long one lasts as long as the page, and a tab that keeps nothing works all the same', () => {
  const long = `bram PUT /patterns/1/draft ${'x'.repeat(10_000)}`
  const page = loaded()
  const key = page.keyOf(long)
  expect(page.keyOf(long)).toBe(key)
  expect(loaded().keyOf(long)).not.toBe(key)
  Object.assign(globalThis, {
    sessionStorage: {
      getItem: () => '{ broken',
      setItem: () => {
        throw new Error('no room')
      },
    },
  })
  const bare = loaded()
  expect(bare.keyOf('bram POST /y')).toBe(bare.keyOf('bram POST /y'))
})
