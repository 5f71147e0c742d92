/** A piece while its pattern is being changed: the last finished one stands, and only what is wanted is computed. */
import type { Scene } from '@tessellum/core/drawing/scene'
import { act, renderHook } from '@testing-library/react'
import type { StepPoses, Told } from '../src/piece/form-tasks'
import { useFormed } from '../src/piece/use-formed'
import { useLying, useSteps } from '../src/piece/use-steps'
import { delivered, fakeWorkers } from './fake-worker'

type Tell = (told: Told) => void

const asked: string[] = []
const leftOff: number[] = []
let work: (source: string, tell: Tell) => Promise<void>
let steps: readonly StepPoses[]
fakeWorkers({
  form: () => ({
    askAt() {},
    form: (_: number, source: string, __: unknown, tell: Tell) => {
      asked.push(source)
      return work(source, tell)
    },
    steps: async () => steps,
    leaveOff: (job: number) => void leftOff.push(job),
  }),
})

const sceneOf = (name: string) => ({ name }) as unknown as Scene
const report = (title: string) => ({ title, statements: [{ text: title }] }) as never
const begun = (source: string): Told => ({ type: 'begun', report: report(source), scene: sceneOf(`${source} begins`) })
const moved = (steps: number): Told => ({
  type: 'moved',
  poses: Float32Array.of(steps),
  thread: new Float32Array(0),
  progress: { iterations: steps, moveMm: 1, settled: false, spent: false },
})
const done = (source: string, why?: string): Told => ({
  type: 'done',
  report: report(source),
  scene: why === undefined ? sceneOf(source) : undefined,
  why,
})
const choices = {}
/** Work that goes on until the test ends: what is told of it is told by the test. */
let tellOfIt: Tell = () => {}
let end = () => {}
const goesOn = (_: string, tell: Tell) => {
  tellOfIt = tell
  return new Promise<void>((done) => (end = done))
}
let seed = 0
/** Texts of one test are not kept from another. */
const text = (name: string) => `${name} ${seed}`

beforeEach(() => {
  seed++
  asked.length = 0
  leftOff.length = 0
  work = async (source, tell) => {
    tell(begun(source))
    tell(done(source))
  }
  jest.useFakeTimers({ doNotFake: ['nextTick', 'queueMicrotask', 'performance'] })
})
afterEach(async () => {
  end()
  await delivered()
  jest.useRealTimers()
})

const settled = () => act(delivered)
/** Until nobody types any more. */
const rests = async () => {
  await settled()
  act(() => void jest.advanceTimersByTime(500))
  await settled()
}
const told = async (what: Told) => {
  tellOfIt(what)
  await settled()
}
const formed = (source: string) =>
  renderHook(({ source }: { source: string }) => useFormed(source, choices), { initialProps: { source } })

test('nobody is shown a form for every keystroke', async () => {
  const { rerender, result } = formed(text('r'))
  await settled()
  for (const name of ['ri', 'rin', 'ring']) {
    rerender({ source: text(name) })
    await settled()
    act(() => void jest.advanceTimersByTime(100))
  }
  await rests()
  expect(asked).toEqual([text('ring')])
  expect(result.current).toMatchObject({
    scene: { name: text('ring') },
    settling: false,
    report: { title: text('ring') },
  })
})

test('the first piece is shown while it settles; the next only once it has', async () => {
  work = goesOn
  const { rerender, result } = formed(text('ring'))
  const heard: number[] = []
  result.current.moving.subscribe(({ poses }) => heard.push(poses[0] as number))
  await rests()
  await told(begun('ring'))
  expect(result.current).toMatchObject({ scene: { name: 'ring begins' }, settling: true })
  await told(moved(5))
  expect(heard).toEqual([5])
  expect(result.current.moving.progress).toMatchObject({ iterations: 5 })
  await told(done(text('ring')))

  rerender({ source: text('round') })
  await rests()
  expect(result.current).toMatchObject({
    scene: { name: text('ring') },
    // What is clicked on it is a line of that text, not of the new one.
    statements: [{ text: text('ring') }],
    report: undefined,
    settling: true,
  })
})

test('a text that was shown before is there at once, without waiting', async () => {
  const { rerender, result } = formed(text('one'))
  await rests()
  rerender({ source: text('two') })
  await rests()
  rerender({ source: text('one') })
  expect(result.current).toMatchObject({ scene: { name: text('one') }, settling: false })
  await rests()
  expect(asked).toEqual([text('one'), text('two')])
})

test('a piece without a form says why, and the one before it goes', async () => {
  const { rerender, result } = formed(text('one'))
  await rests()
  work = async (source, tell) => tell(done(source, 'Its thread gapes.'))
  rerender({ source: text('two') })
  await rests()
  expect(result.current).toMatchObject({ scene: undefined, why: 'Its thread gapes.', settling: false })
})

test('whoever leaves off keeps what there is, and is told that the figures are plain', async () => {
  work = goesOn
  const { result } = formed(text('ring'))
  await rests()
  await told(begun('ring'))
  act(() => result.current.stop())
  await settled()
  expect(leftOff).toHaveLength(1)
  expect(result.current).toMatchObject({ settling: false, scene: { name: 'ring begins' } })
  expect(result.current.why).toMatch(/^Settling was stopped/)
  await told(done('ring'))
  expect(result.current.scene).toMatchObject({ name: 'ring begins' })
})

test('a text that was left off is computed again when somebody comes back to it', async () => {
  work = goesOn
  const { result, rerender } = formed(text('ring'))
  await rests()
  await told(begun('ring'))
  act(() => result.current.stop())
  rerender({ source: text('round') })
  await settled()
  rerender({ source: text('ring') })
  await rests()
  expect(result.current).toMatchObject({ settling: true, why: undefined, scene: { name: 'ring begins' } })
})

describe('step by step', () => {
  const piece = {
    poses: Float32Array.from({ length: 27 }, (_, i) => i),
    thread: Float32Array.from({ length: 18 }, (_, i) => i),
  } as unknown as Scene
  const step = (passes: number, beads: number): StepPoses => ({
    passes,
    poses: new Float32Array(9 * beads).fill(-1),
    thread: new Float32Array(6 * passes).fill(-2),
  })

  test('what is there lies as it does then, and what is still to come as it will in the end', () => {
    const all = [step(1, 1), step(2, 2)]
    const { result, rerender } = renderHook(({ pass }) => useLying(piece, all, pass), { initialProps: { pass: 1 } })
    expect([...(result.current?.poses ?? [])]).toEqual([...new Array(9).fill(-1), ...Array.from(piece.poses).slice(9)])
    expect([...(result.current?.thread ?? [])]).toEqual([
      ...new Array(6).fill(-2),
      ...Array.from(piece.thread).slice(6),
    ])
    rerender({ pass: 2 })
    expect(result.current?.poses[17]).toBe(-1)
    rerender({ pass: 3 })
    // The last line is done: the piece itself.
    expect(result.current).toBeUndefined()
    expect(piece.poses[0]).toBe(0)
  })

  test('steps of a larger piece than this one are not laid on it', () => {
    const { result } = renderHook(() => useLying(piece, [step(1, 4)], 1))
    expect(result.current).toBeUndefined()
  })

  test('they are computed only where they are wanted', async () => {
    steps = [step(1, 1)]
    const { result, rerender } = renderHook(({ wanted }) => useSteps(text('walk'), choices, wanted), {
      initialProps: { wanted: false },
    })
    await settled()
    expect(result.current).toEqual([])
    rerender({ wanted: true })
    await settled()
    expect(result.current).toHaveLength(1)
  })
})
