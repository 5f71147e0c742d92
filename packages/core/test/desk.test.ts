import { nominalBead } from '../src/catalogue/nominal-beads'
import { gradeOver, measuresFrom, measuresOf } from '../src/desk/grade'
import { quickFit } from '../src/desk/quick-fit'
import { stoneDesk } from '../src/desk/stone-desk'
import { outlines, strandProfile } from '../src/desk/strand-profile'
import { wornLength } from '../src/desk/wearer'
import { coverRun } from '../src/sizing/cover-run'
import { demo } from './support'

const bead = (kind: string, size: string) => nominalBead(kind, size) as NonNullable<ReturnType<typeof nominalBead>>
const ask = (stone: string, multiple = 2) =>
  stoneDesk({ stone, wall: bead('cylinder', '11/0'), edge: bead('round', '15/0'), multiple })

test.each([
  ['round 14 mm, height 3 mm', 2, 36],
  ['round 18 mm, height 3 mm', 4, 44],
  ['oval 13 x 18 mm, height 3 mm', 2, 40],
  ['girth 61 mm, height 3 mm', 2, 48],
])('%s in multiples of %i: %i cylinders go round', (stone, multiple, count) => {
  expect(ask(stone, multiple).fit.best).toBe(count)
})

test('a higher stone needs a deeper wall; the lowest that holds is given last, with the lines that make it', () => {
  const last = (stone: string) => ask(stone).walls.at(-1)
  expect(last('round 14 mm, height 2 mm, domed')).toMatchObject({ rounds: 1, holds: true })
  const high = last('round 14 mm, height 7 mm, domed')
  expect(high).toMatchObject({ rounds: 2, holds: true })
  expect(high?.lines).toEqual([
    'ring 36A',
    'round A',
    'round A',
    'round C',
    'other edge',
    'round A',
    'round A',
    'place S',
    'round C',
  ])
})

test('when no count goes round, no wall is tried', () => {
  // 6 mm: 18.85 + 2.51 = 21.4 mm, / 1.3 = 16.4; in sixties there is only 60.
  expect(ask('round 6 mm, height 3 mm', 60).walls).toEqual([])
})

test.each([
  ['round 0 mm', /above 0/],
  ['round 14 mm, height 0 mm', /above 0/],
  ['oval 13 mm', /oval needs a width and a length/],
  ['heart 13 mm', /"heart" is not a stone shape/],
  ['square 13 mm, r = 9 mm', /A corner of 9 mm does not fit/],
])('%s is refused in words', (stone, message) => {
  expect(() => ask(stone)).toThrow(message)
})

test('an oval given longest first is the same oval', () => {
  expect(ask('oval 18 x 13 mm').fit).toEqual(ask('oval 13 x 18 mm').fit)
})

test('a bracelet is the wrist, its ease, and pi times its thickness; a necklace as it is worn', () => {
  expect(wornLength('wrist', 165, 18, 0)).toBe(183)
  expect(wornLength('wrist', 165, 10, 4)).toBeCloseTo(175 + Math.PI * 4, 9)
  expect(wornLength('neck', 450, 18, 4)).toBe(450)
  expect(wornLength('finger', 54.4, 18, 2)).toBeCloseTo(54.4 + 2 * Math.PI, 9)
})

test.each([
  [40, /A wrist of 40 mm is smaller than any\. Check the unit/],
  [4000, /A wrist of \d+ c?m is larger than any/],
])("a wrist of %i mm is nobody's", (mm, message) => {
  expect(() => wornLength('wrist', mm, 18, 0)).toThrow(message)
})

test('five of 1.0 mm are covered by three of 1.5 mm, half a millimetre short', () => {
  const { best, candidates } = coverRun({ lengthMm: 1 }, 5, { lengthMm: 1.5 })
  expect(best).toBe(3)
  expect(candidates).toEqual([
    { count: 3, misfitMm: -0.5 },
    { count: 4, misfitMm: 1 },
  ])
  expect(() => coverRun({ lengthMm: 1 }, 0, { lengthMm: 1.5 })).toThrow(RangeError)
})

describe('grading', () => {
  const windlass = demo('windlass-pendant')

  test('a pattern says what its sizes measure', () => {
    expect(measuresOf(windlass)).toEqual(['width'])
    expect(measuresOf(demo('heron-earrings'))).toEqual(['width', 'length'])
  })

  test('each measure has its counts; one that breaks a rule says which, and the nearest that keeps it', () => {
    const grades = gradeOver(windlass, {}, 'width', [14, 16, 20])
    // 14 mm: 36; 16: 40; 20 mm: 62.83 + 2.51 = 65.3 / 1.3 = 50.3, in fours 48 is -4.5 % and 52 +3.5 %: 52, loose.
    expect(grades.map(({ report }) => report.fits[0]?.beads)).toEqual([36, 40, 52])
    expect(grades.every(({ breaks }) => breaks === undefined)).toBe(true)
    // 15 mm: 47.12 + 2.51 = 49.6 / 1.3 = 38.2: 36 is -5.7 %, 40 is +4.8 %.
    const coarse = windlass.replace('multiple 4', 'multiple 12').replaceAll('(3A B) x n/4', '(11A B) x n/12')
    const [broken] = gradeOver(coarse, {}, 'width', [16])
    expect(broken?.breaks).toMatch(/too (tight|big)/)
    expect(gradeOver(coarse, {}, 'width', [broken?.nearestMm ?? 0])[0]?.breaks).toBeUndefined()
  })

  test('a list is read with its unit, and what is no number is named', () => {
    expect(measuresFrom('12, 14; 16 mm')).toEqual([12, 14, 16])
    expect(measuresFrom('16 17.5 cm')).toEqual([160, 175])
    expect(() => measuresFrom('12, big')).toThrow('"big" is not a number')
    expect(() => gradeOver(windlass, {}, 'width', [])).toThrow('Give the measures')
    expect(() => gradeOver(windlass, {}, 'width', [-4])).toThrow('-4 mm is no measure')
  })
})

test('strands follow an outline to whole beads; petals take twice their length', () => {
  const [bead11, edge, end] = [bead('round', '11/0'), bead('round', '8/0'), bead('round', '15/0')]
  const asked = { outline: 'point', strands: 5, shortestMm: 7, longestMm: 13, bead: bead11, edge, end } as const
  // 7, 10, 13, 10, 7 mm less the tip of 1.0 mm, in beads of 1.5 mm.
  expect(strandProfile({ ...asked, hang: 'strand' }).counts).toEqual([4, 6, 8, 6, 4])
  expect(strandProfile({ ...asked, hang: 'petal' }).counts).toEqual([9, 13, 17, 13, 9])
  for (const outline of Object.keys(outlines) as (keyof typeof outlines)[]) {
    for (const hang of ['strand', 'petal'] as const) {
      const { misfitMm, counts } = strandProfile({ ...asked, outline, hang, strands: 23, longestMm: 31 })
      expect(misfitMm).toBeLessThanOrEqual(bead11.lengthMm / 2 + 1e-9)
      if (outline !== 'slope') expect([...counts].reverse()).toEqual(counts)
    }
  }
  expect(() => strandProfile({ ...asked, hang: 'petal', longestMm: 0.5, shortestMm: 0.2 })).toThrow(/Not even 3/)
  expect(() => strandProfile({ ...asked, hang: 'strand', longestMm: 5 })).toThrow(/no shorter than it/)
})

describe('a question asked in a line', () => {
  test('is answered as the desk answers it, whichever way the stone is said', () => {
    const said = 'A ring of 36 cylinder 11/0 on a stone "round 14 mm": sits snug.'
    expect(quickFit('fit 14 mm round with cylinder 11/0')).toBe(said)
    expect(quickFit('Fit a round 14 mm in cylinder 11/0')).toBe(said)
    expect(quickFit('fit 13 x 18 mm oval with round 15/0')).toMatch(
      /^A ring of \d+ round 15\/0 on a stone "oval 13 x 18 mm"/,
    )
  })

  test('says what it does not know, and leaves alone what is no question', () => {
    expect(quickFit('fit 14 mm round with pebble 3')).toMatch(/^"pebble" is not a kind of bead/)
    expect(quickFit('fitting')).toBeUndefined()
    expect(quickFit('windlass pendant')).toBeUndefined()
  })
})
