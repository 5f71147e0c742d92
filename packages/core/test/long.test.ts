/** Long pieces, that begin as a few of their repeats lie. */

import { evaluatePattern } from '../src/evaluate/evaluate-pattern'
import { beginForm, pieceAndSeats } from '../src/form/form'
import { laidThread } from '../src/form/gaping'
import { lengthen, shortened } from '../src/form/long'
import { measure } from '../src/form/measure'
import { soundnessOf } from '../src/form/soundness'
import { regularIn } from '../src/stitch/regular'
import { demo } from './support'

const head = 'pattern Long\nbead A cylinder 11/0\nbead B round 11/0\npart p\n'
const settled = (source: string) => {
  const evaluated = evaluatePattern(source)
  const form = beginForm(evaluated)
  form.settling.run(20_000)
  return { evaluated, form, ...measure(evaluated, form), sound: soundnessOf(form).sound }
}

test('what repeats itself is found in the passes, whether lines say so or not', () => {
  const stay = () => 10
  const lines = evaluatePattern(`${head}ring 12A\n${'round A\n'.repeat(60)}`).work
  const repeat = evaluatePattern(`${head}ring 12A\nrepeat 60\nround A\nend\n`).work
  expect(regularIn(lines, stay)).toEqual(regularIn(repeat, stay))
  expect(regularIn(lines, stay)).toMatchObject({ beads: 6, passes: 13 })
  expect(regularIn(evaluatePattern(`${head}weave 80 units of 3B`).work, stay)).toMatchObject({ beads: 3 })
  expect(regularIn(evaluatePattern(demo('marsh-mallow')).work, stay)).toBeUndefined()
})

test('a shortened piece is the shorter text: the same passes as fewer repeats give', () => {
  const of = (times: number) => evaluatePattern(`${head}ring 12A\nrepeat ${times}\nround A\nend\nround B\nfinish\n`)
  const short = shortened(of(90))
  expect(short).toBeDefined()
  if (!short) return
  const other = of(90 - 2 * short.left).work
  const holes = (work: typeof other) => Array.from({ length: work.passes }, (_, pass) => work.holeAt(pass))
  expect(holes(short.few.work)).toEqual(holes(other))
})

test.each([
  ['a tube', `ring 16A\n${'round A\n'.repeat(60)}`, { widthMm: (60 * 1.6) / 2, allowed: 0.07 }],
  ['a flat band', 'string 10A\nrepeat 60\nrow A\nend\n', { widthMm: (60 * 1.6) / 2, allowed: 0.07 }],
  ['a strip', 'weave 100 units of 3B', { widthMm: 100 * 2.13, allowed: 0.04 }],
])('%s of many repeats is as long as its closed form says, sound, and straight', (_, text, { widthMm, allowed }) => {
  const long = settled(head + text)
  expect(long.sound).toBe(true)
  expect(Math.abs(long.widthMm / widthMm - 1)).toBeLessThan(allowed)
})

test('however many beads a repeat has, it is told how much thread it takes', () => {
  for (let around = 4; around <= 80; around += 4) {
    const evaluated = evaluatePattern(`${head}ring ${around}A\nrepeat 60\nround A\nend\n`)
    const short = shortened(evaluated)
    if (!short) continue
    const few = beginForm(short.few).piece
    const { threadMm } = lengthen(pieceAndSeats(evaluated).piece, few, short)
    const each = (threadMm - laidThread(few)) / short.left
    // Two rounds, each with as many threads as it has beads and one up.
    expect(each / (around + 2)).toBeGreaterThan(0.1)
    expect(each / (around + 2)).toBeLessThan(4)
  }
})

// Shorter pieces are brought to rest whole; a loose one may be caught where it takes more.
test.each([
  ['a strip', (n: number) => `weave ${n} units of 3B\n`, 121],
  ['a strip with long edges', (n: number) => `weave ${n} units of A A B\n`, 110],
  ['a tube', (n: number) => `ring 12A\nrepeat ${n}\nround A\nend\n`, 60],
  ['a flat band', (n: number) => `string 10A\nrepeat ${n}\nrow A\nend\n`, 75],
])('%s of many repeats takes no more thread a repeat than a short one', (_, text, many) => {
  const laid = (n: number) => {
    const form = beginForm(evaluatePattern(head + text(n)))
    form.settling.run(20_000)
    return laidThread(form.piece)
  }
  const [few, more] = [16, 28]
  const each = (laid(more) - laid(few)) / (more - few)
  expect(shortened(evaluatePattern(head + text(more)))).toBeUndefined()
  expect(shortened(evaluatePattern(head + text(many)))).toBeDefined()
  expect(laid(many) / (laid(few) + (many - few) * each)).toBeLessThan(1.01)
})

test('a loose rope of many repeats lies straight', () => {
  const { widthMm, depthMm, sound } = settled(demo('sluice-rope'))
  expect(sound).toBe(true)
  // 39 turns of 1.55 mm and ten of the run-in.
  expect(widthMm).toBeGreaterThan(39 * 1.55)
  expect(depthMm).toBeLessThan(widthMm / 5)
})

test('a ring of many repeats closes: it is not laid out straight', () => {
  const ring = settled(`${head}weave 99 units of 3B as strip\njoin to strip.first with B, B\n`)
  expect(ring.sound).toBe(true)
  expect(ring.widthMm).toBeLessThan(0.5 * 99 * 2.13)
  expect(ring.along?.type).toBe('band')
})
