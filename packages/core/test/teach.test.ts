import { evaluatePattern } from '@tessellum/core/evaluate/evaluate-pattern'
import { priceFor, priceOfKit, priceOfSeat, usualCosts } from '@tessellum/core/kit/price'
import { readMadeSize, writeMadeSize } from '@tessellum/core/sizing/made-size'
import { timePlan } from '@tessellum/core/teach/time-plan'
import fc from 'fast-check'

describe('a pattern against the hours of a class', () => {
  const parts = [
    { name: 'bezel', practised: 60 },
    { name: 'edge', practised: 40 },
    { name: 'bail', practised: 20 },
  ]

  test('180 minutes, for beginners: 15 to come in, 132 for the bezel, then 33 of the edge’s 88; the bail is homework', () => {
    const plan = timePlan(parts, 180, 'beginner')
    expect(plan.parts).toEqual([
      { name: 'bezel', minutes: 132, from: 15, fits: 1 },
      { name: 'edge', minutes: 88, from: 147, fits: 33 / 88 },
      { name: 'bail', minutes: 44, from: undefined, fits: 0 },
    ])
    expect([plan.needed, plan.left]).toEqual([279, -99])
  })

  test('practised hands have time to spare', () => expect(timePlan(parts, 180, 'practised').left).toBe(45))
  test('a class of no time is refused', () => expect(() => timePlan(parts, 0, 'easy')).toThrow(RangeError))
})

describe('what a kit and a seat cost', () => {
  test('beads, their waste, bags, pattern, packing; and the price that keeps the margin', () => {
    // 400 + 20 + 65 + 40 + 132 = 657; / 0.55 = 1194.5, so 1200.
    expect(priceOfKit(400, usualCosts)).toEqual({
      materials: 400,
      waste: 20,
      packaging: 65,
      printing: 40,
      packing: 132,
      cost: 657,
      price: 1200,
    })
  })

  test('six seats and a spare kit, three hours of teaching', () => {
    // 657 x 7 / 6 = 766.5; 9600 / 6 = 1600; 2366.5 / 0.55 = 4302.7.
    expect(priceOfSeat(657, 6, 1, 180, usualCosts)).toEqual({ kits: 767, teaching: 1600, cost: 2367, price: 4310 })
  })

  test('the price never leaves less than the margin', () =>
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 100_000 }),
        fc.double({ min: 0, max: 0.94, noNaN: true }),
        (cost, margin) => {
          const price = priceFor(cost, { margin, roundTo: 10 })
          expect((price - cost) / price).toBeGreaterThanOrEqual(margin - 1e-6)
          expect(price % 10).toBe(0)
        },
      ),
    ))
  test('a margin of all of it is refused', () =>
    expect(() => priceFor(100, { margin: 1, roundTo: 10 })).toThrow(RangeError))
})

describe('a size made to measure', () => {
  test.each([
    ['', { name: '', measures: {} }],
    ['classic', { name: 'classic', measures: {} }],
    ['usual, length = 178.5 mm', { name: 'usual', measures: { length: 178.5 } }],
    ['length=178mm', { name: '', measures: { length: 178 } }],
  ])('"%s" is read, and written so that it reads the same', (text, size) => {
    expect(readMadeSize(text)).toEqual(size)
    expect(readMadeSize(writeMadeSize(readMadeSize(text)))).toEqual(size)
  })

  const source =
    'pattern P\nsize small  length = 20 mm  default\nbead A round 11/0\npart p\nring 6A\nuntil length length\nround A, A, A\nend\nfinish\n'
  test('its measure goes before the size’s own', () => {
    const beads = (size: string) => evaluatePattern(source, { size }).report.beads[0]?.total ?? 0
    expect(beads('small, length = 40 mm')).toBeGreaterThan(1.7 * beads('small'))
  })
  test('a measure that the pattern is not made to is a fault, not a silence', () => {
    const { diagnostics } = evaluatePattern(source, { size: 'small, girth = 40 mm' }).report
    expect(diagnostics).toContainEqual(
      expect.objectContaining({ severity: 'error', message: 'This pattern is not made to a "girth".' }),
    )
  })
})
