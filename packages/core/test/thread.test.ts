import fc from 'fast-check'
import { planThread } from '../src/thread/plan'
import { usualThreadSettings } from '../src/thread/settings'
import { errorsIn, evaluate, passes } from './support'

const usual = usualThreadSettings

test('one thread: (600 + 150 + 150 + 6 x 6) x 1.08 = 1010.88 mm, cut as 102 cm', () => {
  const plan = planThread(600, 1, usual)
  expect(plan.totalMm).toBeCloseTo(1010.88, 6)
  expect(plan.cutsMm).toEqual([1020])
})

test('a doubled thread counts twice, and a firm hand takes 5 %', () => {
  // (600 + 336) x 1.05 x 2
  expect(planThread(600, 2, { ...usual, tension: 'firm' }).totalMm).toBeCloseTo(1965.6, 6)
})

describe('a pattern says how its thread is handled', () => {
  const text = (thread: string, part: string, more = '') =>
    evaluate(
      `pattern P\nbead A cylinder 11/0\nthread braid 6 lb${thread}\npart p${part}\nring 26A\nround A\n${more}finish\n`,
    )
  const planned = (...lines: Parameters<typeof text>) => text(...lines).threads.map(({ totalMm }) => totalMm)

  test('in all of it or in a part; the shop says the rest', () => {
    const path = text(', close knot', '').thread.pathMm
    const cut = (tail: number, allowance: number) => (path + tail + 150 + 36) * (1 + allowance)
    expect(planned(', close knot', '')[0]).toBeCloseTo(cut(150, 0.08), 6)
    expect(planned(', close knot, tail 40 cm, firm', '')[0]).toBeCloseTo(cut(400, 0.05), 6)
    expect(planned(', tail 40 cm, firm', ', tail 20 cm, close knot')[0]).toBeCloseTo(cut(200, 0.05), 6)
    // Closed with a knot the ring is not passed again.
    expect(text('', '').thread.pathMm - path).toBeGreaterThan(26 * 1.3)
    expect(errorsIn(text(', start nowhere', ''))[0]?.message).toBe(
      'A thread starts at its end or in its middle, not "nowhere".',
    )
    expect(errorsIn(text('', ', glue'))[0]?.message).toBe('"glue" does not say how thread is handled.')
  })

  test('what is worked with the tail is cut with it, from where it hangs', () => {
    const [begun, ...more] = planned(', close knot', '', 'new thread from tail\nround A\n')
    const { pathMm } = text(', close knot', '', 'new thread from tail\nround A\n').thread
    expect(more).toEqual([])
    expect(begun).toBeCloseTo((pathMm + 336) * 1.08, 6)
    expect(
      passes('pattern P\nbead A cylinder 11/0\npart p\nstring 4A\nnew thread from tail\npick A\nthrough A[4]'),
    ).toEqual([...['+0', '+1', '+2', '+3', '+4', '3']])
  })
})

test('a pattern can ask for another tail', () => {
  expect(planThread(600, 1, { ...usual, tailMm: 250 }).totalMm).toBeCloseTo(1118.88, 6)
})

test('beyond the comfortable length the path is shared, and every thread has ends of its own', () => {
  // 1800 / 1.08 - 336 = 1330.67 mm of path a thread, so 3000 mm want three: (1000 + 336) x 1.08 each.
  const plan = planThread(3000, 1, usual)
  expect(plan.cutsMm).toEqual([1450, 1450, 1450])
  expect(plan.totalMm).toBeCloseTo(3 * 1442.88, 6)
})

test('begun in the middle, one cut serves two halves: 1800 / 1.08 - 168 = 1498.67 mm of path a half', () => {
  // 2000 mm are two halves of 1000: one cut of (2000 + 336) x 1.08.
  const plan = planThread(2000, 1, { ...usual, start: 'middle' })
  expect(plan.totalMm).toBeCloseTo(2522.88, 6)
  expect(plan.cutsMm).toEqual([2530])
  expect(planThread(3100, 1, { ...usual, start: 'middle' }).cutsMm).toHaveLength(2)
})

test('nothing stitched wants no thread', () => {
  expect(planThread(0, 1, usual)).toMatchObject({ totalMm: 0, cutsMm: [] })
})

test('cuts cover the total, are never longer than is comfortable, and grow with the path', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 1, max: 50_000, noNaN: true }),
      fc.constantFrom(1 as const, 2 as const),
      (path, strands) => {
        const plan = planThread(path, strands, usual)
        const cut = plan.cutsMm.reduce((sum, each) => sum + each, 0)
        expect(cut).toBeGreaterThanOrEqual(plan.totalMm - 1e-6)
        for (const each of plan.cutsMm)
          expect(each).toBeLessThanOrEqual(usual.comfortableMm * strands + usual.cutStepMm)
        expect(planThread(path + 10, strands, usual).totalMm).toBeGreaterThan(plan.totalMm)
      },
    ),
  )
})
