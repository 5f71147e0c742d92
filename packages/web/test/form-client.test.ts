/** The page's one worker for forms: jobs one after another, left off, kept, begun again. */
import type { Done, Told } from '../src/piece/form-tasks'
import { delivered, type FakeWorker, fakeWorkers, hangs } from './fake-worker'

type Tell = (told: Told) => void
const done = (why: string) => ({ type: 'done', report: {}, scene: undefined, why }) as unknown as Done
const moved = { type: 'moved', poses: new Float32Array(7) } as unknown as Told

let work: (source: string, tell: Tell) => Promise<void>
let leftOff: number[]
let warmedUp: number
let begun: FakeWorker[]
let client: typeof import('../src/piece/form-client')['formClient']

beforeEach(() => {
  jest.resetModules()
  jest.useFakeTimers({ doNotFake: ['nextTick', 'queueMicrotask', 'performance'] })
  leftOff = []
  warmedUp = 0
  work = async (source, tell) => tell(done(source))
  begun = fakeWorkers({
    form: () => ({
      askAt() {},
      form: (_job: number, source: string, _choices: unknown, tell: Tell) => work(source, tell),
      steps: async (_job: number, source: string) => (source === 'none' ? undefined : [{ passes: 3 }]),
      leaveOff: (job: number) => void leftOff.push(job),
      warmUp: async () => void warmedUp++,
    }),
  })
  client = (require('../src/piece/form-client') as typeof import('../src/piece/form-client')).formClient
})
afterEach(() => jest.useRealTimers())

/** @returns what is told of a pattern, in order: a type, or why its figures are plain, or the words it failed with */
function ask(source: string) {
  const told: string[] = []
  const leave = client.form(
    source,
    {},
    (each) => told.push(each.type === 'done' ? (each.why ?? 'done') : each.type),
    (words) => told.push(`failed: ${words}`),
  )
  return { told, leave }
}

test('one job at a time, in the order that they were asked for, by one worker', async () => {
  const order: string[] = []
  let release = () => {}
  work = async (source, tell) => {
    order.push(`${source} begins`)
    if (source === 'first') await new Promise<void>((go) => (release = go))
    tell(moved)
    tell(done(source))
    order.push(`${source} ends`)
  }
  const [first, second] = [ask('first'), ask('second')]
  await delivered()
  expect(order).toEqual(['first begins'])
  release()
  await delivered()
  expect(order).toEqual(['first begins', 'first ends', 'second begins', 'second ends'])
  expect([first.told, second.told]).toEqual([
    ['moved', 'first'],
    ['moved', 'second'],
  ])
  expect(begun).toMatchObject([{ name: 'form', ended: false }])
})

test('what was computed is told again without computing it', async () => {
  let times = 0
  work = async (source, tell) => {
    times++
    tell(done(source))
  }
  ask('ring 9A')
  await delivered()
  expect(client.known('ring 9A', {})).toMatchObject({ why: 'ring 9A' })
  expect(client.known('ring 9A', { size: 'large' })).toBeUndefined()
  const { told } = ask('ring 9A')
  await delivered()
  expect(told).toEqual(['ring 9A'])
  expect(times).toBe(1)
})

test('a pattern that nobody wants any more is told of no further, and one that has not begun never begins', async () => {
  const begins: string[] = []
  let tellLate: Tell = () => {}
  let end = () => {}
  work = async (source, tell) => {
    begins.push(source)
    tellLate = tell
    await new Promise<void>((go) => (end = go))
  }
  const [shown, waiting] = [ask('shown'), ask('waiting')]
  await delivered()
  shown.leave()
  waiting.leave()
  tellLate(moved)
  end()
  await delivered()
  expect([shown.told, waiting.told]).toEqual([[], []])
  expect(begins).toEqual(['shown'])
  expect(leftOff).toEqual([1, 2])
})

test('a worker that says nothing for three minutes is ended; what comes after has a new one', async () => {
  let tellNow: Tell = () => {}
  work = (_, tell) => {
    tellNow = tell
    return hangs()
  }
  const { told } = ask('endless')
  await delivered()
  jest.advanceTimersByTime(170_000)
  tellNow(moved)
  await delivered()
  jest.advanceTimersByTime(170_000)
  expect(told).toEqual(['moved'])
  jest.advanceTimersByTime(20_000)
  await delivered()
  expect(told[1]).toMatch(/^failed: The form of this pattern takes too long/)
  work = async (source, tell) => tell(done(source))
  const next = ask('ring 9A')
  await delivered()
  expect(next.told).toEqual(['ring 9A'])
  expect(begun.map(({ ended }) => ended)).toEqual([true, false])
})

test('what the core throws is told in its words, and the next pattern is computed', async () => {
  work = async () => {
    throw new RangeError('Role 3 is not a bead.')
  }
  const { told } = ask('broken')
  await delivered()
  expect(told).toEqual(['failed: Role 3 is not a bead.'])
  work = async (source, tell) => tell(done(source))
  const next = ask('ring 9A')
  await delivered()
  expect(next.told).toEqual(['ring 9A'])
  expect(begun).toHaveLength(1)
})

test('steps are told once, and never where they could not be computed', async () => {
  const told: string[] = []
  client.steps('some', {}, (steps) => told.push(`some: ${steps.length}`))
  client.steps('none', {}, () => told.push('none'))
  client.steps('left', {}, () => told.push('left'))()
  await delivered()
  expect(told).toEqual(['some: 1'])
})

test('where the worker cannot go on, that is said, the next in line goes on, and another worker begins', async () => {
  const before = work
  work = () => hangs()
  const [first, second] = [ask('first'), ask('second')]
  const steps: unknown[] = []
  await delivered()
  work = before
  begun[0]?.breaks()
  await delivered()
  expect(first.told).toEqual([expect.stringMatching(/^failed: .*Reload the page; what you have typed is kept\.$/)])
  expect(second.told).toEqual(['second'])
  expect(begun).toMatchObject([{ ended: true }, { ended: false }])
  client.steps('ring 9A', {}, (each) => steps.push(each))
  await delivered()
  expect(steps).toEqual([[{ passes: 3 }]])
})

test('the worker is warmed up once, and not after it has computed anything', async () => {
  client.warmUp()
  client.warmUp()
  await delivered()
  expect(warmedUp).toBe(1)
  // Another page's.
  jest.resetModules()
  client = (require('../src/piece/form-client') as typeof import('../src/piece/form-client')).formClient
  ask('ring 9A')
  await delivered()
  client.warmUp()
  await delivered()
  expect(warmedUp).toBe(1)
})
