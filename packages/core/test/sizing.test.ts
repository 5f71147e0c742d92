import fc from 'fast-check'
import type { StoneShape } from '../src/catalogue/stone'
import { girth } from '../src/sizing/girth'
import { outlineOf } from '../src/sizing/outline'
import { easeOf, fitRing, verdictOf } from '../src/sizing/ring-fit'

const cylinder = { lengthMm: 1.3, acrossMm: 1.6 }

describe('rings round stones', () => {
  test('cylinders 11/0 round 14 mm: 43.98 + 2.51 = 46.5 mm, / 1.3 = 35.8, so 36', () => {
    const fit = fitRing(girth({ shape: 'round', diameter: 14 }), cylinder)
    expect(fit.targetMm).toBeCloseTo(46.5, 1)
    expect(fit.ideal).toBeCloseTo(35.8, 1)
    expect(fit.best).toBe(36)
    expect(fit.candidates.find(({ count }) => count === 36)).toMatchObject({ verdict: 'snug' })
  })

  test('round 18 mm: 46 sits loose at +1.2 %, 44 is the only good multiple of 4', () => {
    const girthMm = girth({ shape: 'round', diameter: 18 })
    const even = fitRing(girthMm, cylinder, 2)
    expect(even.best).toBe(46)
    expect(even.candidates.find(({ count }) => count === 46)?.ease).toBeCloseTo(0.012, 3)
    const fours = fitRing(girthMm, cylinder, 4)
    expect(fours.best).toBe(44)
    expect(fours.candidates.map(({ count, ease, verdict }) => [count, ease.toFixed(3), verdict])).toEqual([
      [40, '-0.120', 'too tight'],
      [44, '-0.032', 'snug'],
      [48, '0.057', 'too big'],
      [52, '0.145', 'too big'],
    ])
  })

  test('oval 13 x 18 mm: girth 49.0, ideal 39.6, so 40; sixes give 42 at +6 %', () => {
    const girthMm = girth({ shape: 'oval', width: 13, length: 18 })
    expect(girthMm).toBeCloseTo(49.0, 1)
    expect(fitRing(girthMm, cylinder).ideal).toBeCloseTo(39.6, 1)
    expect(fitRing(girthMm, cylinder).best).toBe(40)
    const sixes = fitRing(girthMm, cylinder, 6)
    expect(sixes.best).toBe(42)
    expect(sixes.candidates.find(({ count }) => count === 42)?.ease).toBeCloseTo(0.06, 2)
  })

  test.each([
    [-0.041, 'too tight'],
    [-0.04, 'snug'],
    [0.01, 'snug'],
    [0.011, 'loose'],
    [0.05, 'loose'],
    [0.051, 'too big'],
  ])('an ease of %p is %s', (ease, verdict) => expect(verdictOf(ease)).toBe(verdict))

  test('of two candidates as far off, the tighter is chosen', () => {
    // Target 30 exactly, beads of 2 mm in sixes: 12 (24 mm) and 18 (36 mm) are both 20 % off.
    expect(fitRing(30 - Math.PI, { lengthMm: 2, acrossMm: 2 }, 6).best).toBe(12)
  })

  test('the best candidate is a multiple, and no other multiple is nearer', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 15, max: 300, noNaN: true }),
        fc.double({ min: 0.8, max: 4, noNaN: true }),
        fc.integer({ min: 1, max: 16 }),
        (girthMm, lengthMm, multiple) => {
          const { best } = fitRing(girthMm, { lengthMm, acrossMm: lengthMm }, multiple)
          expect(best % multiple).toBe(0)
          const off = (count: number) => Math.abs(easeOf(count * lengthMm, girthMm, lengthMm).ease)
          const nearest = Array.from({ length: 400 }, (_, i) => off((i + 1) * multiple)).reduce((a, b) =>
            Math.min(a, b),
          )
          expect(off(best)).toBeLessThanOrEqual(nearest + 1e-9)
        },
      ),
      { numRuns: 60 },
    )
  })
})

describe('girths', () => {
  test.each<[string, StoneShape, number]>([
    // 4 x 12 - 8 x 3 + 2 pi 3 = 24 + 18.85
    ['square 12 mm r 3', { shape: 'square', width: 12, corner: 3 }, 42.85],
    // 2 x 24 - 16 + 4 pi = 44.57
    ['rectangle 10 x 14 r 2', { shape: 'rectangle', width: 10, length: 14, corner: 2 }, 44.57],
    ['rounded triangle 20 mm', { shape: 'triangle', width: 20 }, 62.83],
    // R = (225 + 49) / 28 = 9.786; 4 R asin(15 / 19.571) = 39.143 x 0.8731
    ['navette 7 x 15', { shape: 'navette', width: 7, length: 15 }, 34.18],
    // r 4.5, reach 8.5: tangents 2 x 7.211; arc 4.5 (2 pi - 2 acos(0.5294)) = 4.5 x 4.2557
    ['drop 9 x 13', { shape: 'drop', width: 9, length: 13 }, 33.57],
    ['a measured girth', { shape: 'girth', girth: 61 }, 61],
  ])('%s', (_, shape, expected) => expect(girth(shape)).toBeCloseTo(expected, 1))

  test('each outline as drawn is as long as its girth, and its normals point outward', () => {
    const width = fc.double({ min: 5, max: 30, noNaN: true })
    const shapes = fc
      .tuple(width, fc.double({ min: 1.05, max: 2, noNaN: true }))
      .chain(([w, stretch]) =>
        fc.constantFrom<StoneShape>(
          { shape: 'round', diameter: w },
          { shape: 'oval', width: w, length: w * stretch },
          { shape: 'triangle', width: w },
          { shape: 'square', width: w, corner: w / 6 },
          { shape: 'rectangle', width: w, length: w * stretch, corner: w / 5 },
          { shape: 'navette', width: w, length: w * stretch },
          { shape: 'drop', width: w, length: w * stretch },
          { shape: 'girth', girth: w },
        ),
      )
    fc.assert(
      fc.property(shapes, (shape) => {
        const outline = outlineOf(shape)
        const n = 2000
        let length = 0
        let inward = 0
        for (let i = 0; i < n; i++) {
          const [a, b] = [outline(i / n), outline((i + 1) / n)]
          length += Math.hypot(a.x - b.x, a.y - b.y)
          if (a.x * a.nx + a.y * a.ny <= 0) inward++
        }
        expect(inward).toBe(0)
        expect(length / girth(shape)).toBeCloseTo(1, 2)
      }),
      { numRuns: 80 },
    )
  })
})
