/** What a hand stitches stands in the text at once; undoing the text takes the hand back with it. */
import { evaluatePattern } from '@tessellum/core/evaluate/evaluate-pattern'
import type { HandPass } from '@tessellum/core/hand/hand-pass'
import { act, renderHook, waitFor } from '@testing-library/react'
import { useState } from 'react'
import { useHand } from '../src/stitching/use-hand'
import { fakeWorkers } from './fake-worker'
import './on-screen'

fakeWorkers({
  evaluate: () => (require('../src/patterns/evaluate-tasks') as typeof import('../src/patterns/evaluate-tasks')).tasks,
})

const text = 'pattern T\nbead A round 11/0\nbead B round 11/0\npart p\nring 12A\n'
const choices = {}
const none = new Int32Array(0)
const pick = (role: string): HandPass => ({ type: 'pick', role, bore: 0 })

/** A page with a text that the hand writes into, and somebody may type in or undo. */
async function handOn(begun: string, active = true) {
  const written: string[] = []
  const hook = renderHook(() => {
    const [source, setSource] = useState(begun)
    const hand = useHand(
      source,
      choices,
      (next) => {
        written.push(next)
        setSource(next)
      },
      none,
      active,
    )
    const becomes = (next: string) => {
      setSource(next)
      hand.follow(next)
    }
    return { source, hand, becomes }
  })
  const now = () => hook.result.current
  const told = () => waitFor(() => expect(now().hand.state).toBeDefined())
  if (active) await told()
  return { now, written, told }
}
const beadsIn = (source: string) => evaluatePattern(source).work.beads

test('each bead that is picked up is in the text; however fast they come, none is lost', async () => {
  const { now, written } = await handOn(text)
  act(() => {
    now().hand.add([pick('B')])
    now().hand.add([pick('B')])
    now().hand.add([pick('A')])
  })
  await waitFor(() => expect(now().hand.passes).toHaveLength(3))
  expect(now().source).toBe(`${text}pick 2B A\n`)
  expect(beadsIn(now().source)).toBe(15)
  expect(written.map(beadsIn)).toEqual([13, 14, 15])
  expect(now().hand.base).toBe(text)
})

test('the last pass is taken back, and the text with it', async () => {
  const { now } = await handOn(text)
  act(() => now().hand.add([pick('B'), pick('A')]))
  await waitFor(() => expect(now().hand.passes).toHaveLength(2))
  act(() => now().hand.back())
  await waitFor(() => expect(now().source).toBe(`${text}pick B\n`))
  act(() => now().hand.back())
  await waitFor(() => expect(now().source).toBe(text))
})

test('undoing in the text brings back what was in hand then; typing in it lays the hand down', async () => {
  const { now, told } = await handOn(text)
  act(() => now().hand.add([pick('B')]))
  await waitFor(() => expect(now().hand.passes).toHaveLength(1))
  const one = now().source
  act(() => now().hand.add([pick('A')]))
  await waitFor(() => expect(now().hand.passes).toHaveLength(2))
  act(() => now().becomes(one))
  expect(now().hand).toMatchObject({ passes: [pick('B')], base: text })
  await told()
  const typed = one.replace('12A', '14A')
  act(() => now().becomes(typed))
  expect(now().hand).toMatchObject({ passes: [], base: typed })
  await waitFor(() => expect(now().hand.state?.beads).toBe(15))
})

test('a line that is ended is the text, in as few words as say it; with nothing in hand nothing is ended', async () => {
  const { now, written } = await handOn(text)
  act(() => now().hand.end())
  act(() => now().hand.add(Array.from({ length: 6 }, () => pick('B'))))
  await waitFor(() => expect(now().hand.passes).toHaveLength(6))
  act(() => now().hand.end())
  await waitFor(() => expect(now().hand.passes).toEqual([]))
  expect(now().hand.base).toBe(`${text}pick 6B\n`)
  expect(written.at(-1)).toBe(`${text}pick 6B\n`)
})

test('a proposal is taken whole, and a line is written behind the last', async () => {
  const { now } = await handOn(text)
  const [first] = now().hand.state?.proposals ?? []
  if (!first) throw new Error('Nothing is proposed for a ring.')
  act(() => now().hand.take(first))
  await waitFor(() => expect(now().source).toBe(first.text))
  act(() => now().hand.write('note "turn it"'))
  await waitFor(() => expect(now().source).toContain('\nnote "turn it"\n'))
  expect(beadsIn(now().source)).toBe(beadsIn(first.text))
})

test('where nothing can be stitched it is said why, and nothing is worked out while nobody stitches', async () => {
  const { now } = await handOn('pattern T\nbead A round 11/0\npart p\nring 12A\nround ?\n', false)
  expect(now().hand).toMatchObject({ state: undefined, why: undefined })
  const { now: at } = await handOn(`${text}finish\n`, false)
  act(() => at().hand.add([pick('B')]))
  await waitFor(() => expect(at().hand.why).toBeDefined())
  expect(at().source).toBe(`${text}finish\n`)
})
