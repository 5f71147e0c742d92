/** A pattern evaluated as it is typed: the newest text counts, and one that never ends does not hold up the next. */
import { act, renderHook } from '@testing-library/react'
import { evaluateClient, useEvaluated, useEvaluatedDraft } from '../src/patterns/use-evaluated'
import { delivered, fakeWorkers, hangs } from './fake-worker'

let evaluate: (source: string) => Promise<unknown>
const begun = fakeWorkers({ evaluate: () => ({ evaluate: (source: string) => evaluate(source) }) })
const report = (title: string, sound = true) => ({ title, sound })
const choices = {}

beforeEach(() => {
  jest.useFakeTimers({ doNotFake: ['nextTick', 'queueMicrotask', 'performance'] })
  evaluate = async (source) => report(source)
})
afterEach(() => jest.useRealTimers())

const settled = () => act(delivered)
const typed = (source: string | undefined) =>
  renderHook(({ source }: { source: string | undefined }) => useEvaluated(source, choices), {
    initialProps: { source },
  })

test('nothing is evaluated before there is a text', async () => {
  const { result, rerender } = typed(undefined)
  await settled()
  expect(begun).toHaveLength(0)
  expect(result.current.now).toBeUndefined()
  rerender({ source: 'ring 9A' })
  await settled()
  expect(result.current.now).toMatchObject({ title: 'ring 9A' })
})

test('of many keystrokes only the newest is shown, and those between are never begun', async () => {
  const asked: string[] = []
  const ends: (() => void)[] = []
  evaluate = (source) => {
    asked.push(source)
    return new Promise((done) => ends.push(() => done(report(source))))
  }
  const { result, rerender } = typed('r')
  await settled()
  for (const source of ['ri', 'rin', 'ring']) rerender({ source })
  ends[0]?.()
  await settled()
  expect(result.current).toMatchObject({ now: undefined })
  ends[1]?.()
  await settled()
  expect(asked).toEqual(['r', 'ring'])
  expect(result.current).toMatchObject({ now: { title: 'ring' } })
})

test('a draft is evaluated as soon as it is typed, and the page is rendered when its figures are there', async () => {
  const asked: string[] = []
  evaluate = async (source) => {
    asked.push(source)
    return report(source)
  }
  let text = 'r'
  const listeners = new Set<() => void>()
  const draft = {
    current: () => ({ text, state: 'typing' as const, trouble: undefined }),
    subscribe: (listener: () => void) => {
      listeners.add(listener)
      return () => void listeners.delete(listener)
    },
  }
  let rendered = 0
  const { result, rerender, unmount } = renderHook(
    ({ choices }) => {
      rendered++
      return useEvaluatedDraft(draft, choices)
    },
    { initialProps: { choices } },
  )
  await settled()
  for (const typed of ['ri', 'rin']) {
    rendered = 0
    text = typed
    for (const listener of listeners) listener()
    expect(rendered).toBe(0)
    await settled()
    expect(result.current).toMatchObject({ of: typed, now: { title: typed } })
    expect(rendered).toBe(1)
  }
  // What is told of a draft without its text being another is no new question; other choices are.
  for (const listener of listeners) listener()
  rerender({ choices: { size: 'Large' } })
  await settled()
  expect(asked).toEqual(['r', 'ri', 'rin', 'rin'])
  unmount()
  expect(listeners.size).toBe(0)
})

test('while lines are at fault, the last good one stays', async () => {
  evaluate = async (source) => report(source, !source.includes('?'))
  const { result, rerender } = typed('ring 9A')
  await settled()
  rerender({ source: 'ring 9?' })
  await settled()
  expect(result.current).toMatchObject({ now: { title: 'ring 9?' }, lastGood: { title: 'ring 9A' } })
})

test('what the core throws is told, with what was shown before', async () => {
  const { result, rerender } = typed('ring 9A')
  await settled()
  evaluate = async () => {
    throw new Error('Out of memory.')
  }
  rerender({ source: 'ring 90A' })
  await settled()
  expect(result.current).toMatchObject({ trouble: 'Out of memory.', now: { title: 'ring 9A' } })
})

test('a worker that hangs is ended, its question refused, and what waited behind it asked of a new one', async () => {
  evaluate = (source) => (source === 'endless' ? hangs() : Promise.resolve(report(source)))
  const refused = evaluateClient.evaluate('endless', choices).catch((error: Error) => error.message)
  await settled()
  jest.advanceTimersByTime(30_000)
  // The page's own question was under way in the same worker, which answers nothing any more.
  evaluate = hangs
  const { result } = typed('ring 9A')
  await settled()
  evaluate = async (source) => report(source)
  jest.advanceTimersByTime(31_000)
  await settled()
  expect(await refused).toBe('This pattern takes too long to evaluate. Make it smaller, or in parts.')
  expect(begun.map(({ ended }) => ended)).toEqual([true, false])
  expect(result.current).toMatchObject({ now: { title: 'ring 9A' }, trouble: undefined })
})

test('where the worker breaks, what is shown stays, it is said why, and typing on begins another', async () => {
  const { result, rerender } = typed('ring 9A')
  await settled()
  const good = evaluate
  evaluate = () => hangs()
  rerender({ source: 'ring 10A' })
  await settled()
  act(() => begun.at(-1)?.breaks())
  await settled()
  expect(result.current).toMatchObject({ now: { title: 'ring 9A' } })
  expect(result.current.trouble).toMatch(/Reload the page/)
  evaluate = good
  rerender({ source: 'ring 11A' })
  await settled()
  expect(result.current).toMatchObject({ now: { title: 'ring 11A' }, trouble: undefined })
})
