import fc from 'fast-check'
import { nominalBead } from '../src/catalogue/nominal-beads'
import { evaluatePattern } from '../src/evaluate/evaluate-pattern'
import { formedPattern } from '../src/form/form-pattern'
import { costOfKit, unitCost } from '../src/kit/cost'
import type { Counting } from '../src/sizing/counting'
import { substitutesFor } from '../src/substitute/substitutes'
import { waysWith } from '../src/substitute/ways'
import { demo } from './support'

const bead = (kind: string, size: string, more = {}) => ({
  ...(nominalBead(kind, size) as NonNullable<ReturnType<typeof nominalBead>>),
  ...more,
})
const longer = bead('cylinder', '11/0', { lengthMm: 1.4, acrossMm: 1.7, maker: 'Tollhouse Beads' })
const counts = (source: string, role: string, of: typeof longer, counting: Counting, size?: string) => {
  const { report } = evaluatePattern(source, {
    ...(size ? { size } : {}),
    beads: { [role]: of },
    counting: { [role]: counting },
  })
  expect(report.diagnostics.filter(({ severity }) => severity === 'error')).toEqual([])
  return Object.fromEntries(report.beads.map(({ role, total }) => [role, total]))
}

describe("another maker's bead in a ring sized to a stone", () => {
  const pendant = demo('windlass-pendant')
  // As in substitute.test.ts: 36 go round 14 mm, and 32 of the longer.
  test('every count follows it', () => expect(counts(pendant, 'A', longer, 'all', 'petite').A).toBe(56))
  test('or none does, and the ring is looser for it', () => {
    expect(counts(pendant, 'A', longer, 'none', 'petite')).toMatchObject({ A: 63, B: 9, C: 81 })
    const { report } = evaluatePattern(pendant, {
      size: 'petite',
      beads: { A: longer },
      counting: { A: 'none' },
    })
    // 27 x 1.4 + 9 x 1.3 = 49.5 mm; the beads are 1.675 mm across on average, so the target is 43.98 + pi 1.675 / 2 = 46.61 mm.
    expect(report.fits[0]?.ease).toBeCloseTo(49.5 / 46.61 - 1, 3)
    expect(report.fits[0]?.verdict).toBe('too big')
  })
  test('a ring is no arc', () => expect(counts(pendant, 'A', longer, 'arcs', 'petite').A).toBe(63))
})

test('an arc that covers a run follows its bead where only arcs do', () => {
  const flower = demo('marsh-mallow')
  const written = counts(flower, 'D', bead('round', '11/0'), 'none')
  // 5 x 1 mm: 3 of 1.5 mm, and 2 of 2.1 mm.
  const small = bead('round', '11/0', { lengthMm: 2.1, maker: 'Tollhouse Beads' })
  expect(counts(flower, 'D', small, 'none')).toEqual(written)
  expect(counts(flower, 'D', small, 'arcs').D).toBeLessThan(written.D ?? 0)
  expect(counts(flower, 'D', small, 'arcs')).toEqual(counts(flower, 'D', small, 'all'))
})

const runs = `pattern Runs
bead A round 11/0
bead C round 11/0
string 9A
pick 5C 2A C
finish
`
test('a written run is refilled to its length by another kind, and the misfit is said', () => {
  const bugle = bead('bugle', '6 mm')
  const { report } = evaluatePattern(runs, { beads: { C: bugle }, counting: { C: 'runs' } })
  // 5 x 1.5 = 7.5 mm: one bugle of 6 mm leaves 1.5 mm open; the single C is one for one.
  expect(report.refilled).toEqual([{ statement: 1, role: 'C', written: 5, count: 1, misfitMm: -1.5 }])
  expect(counts(runs, 'C', bugle, 'runs')).toEqual({ A: 11, C: 2 })
  expect(counts(runs, 'C', bugle, 'all')).toEqual({ A: 11, C: 6 })
  // What a piece begins with is strung as written; two of 1.5 mm become three of 1 mm.
  expect(counts(runs, 'A', bead('round', '15/0'), 'runs').A).toBe(9 + 3)
})

test('however long the bead, a refilled run is never off by more than half of one, and never empty', () => {
  fc.assert(
    fc.property(fc.double({ min: 0.4, max: 9, noNaN: true }), (lengthMm) => {
      const { report } = evaluatePattern(runs, {
        beads: { C: bead('bugle', '6 mm', { lengthMm }) },
        counting: { C: 'runs' },
      })
      const [run] = report.refilled
      expect(run?.count).toBeGreaterThanOrEqual(1)
      if (lengthMm < 15)
        expect(Math.abs(run?.misfitMm ?? 99)).toBeLessThanOrEqual(Math.max(lengthMm / 2, lengthMm - 7.5) + 1e-9)
    }),
  )
})

test('repeats to a length stay those of the bead the pattern was written for, where counts are kept', () => {
  const rope = demo('sluice-rope')
  const beads = { A: bead('round', '11/0', { lengthMm: 1.7, acrossMm: 2.4 }) }
  const total = (choices: Parameters<typeof formedPattern>[1]) =>
    formedPattern(rope, choices).evaluated.report.beads.find(({ role }) => role === 'A')?.total
  expect(total({ beads, counting: { A: 'none' } })).toBe(total({}))
})

describe('the ways compared', () => {
  const question = { source: demo('windlass-pendant'), choices: { size: 'petite' }, role: 'A', now: undefined, kit: {} }
  const candidate = {
    id: 7,
    colour: '#285445',
    finish: 'opaque',
    bead: longer,
    kit: { id: 7, unit: 'mg' as const, massMg: longer.massMg, bead: longer },
    free: 40_000,
  }
  test('ways that come to the same are one; each is settled and measured', () => {
    const { before, ways } = waysWith(question, candidate)
    // The runs of 3A stand in the ring only, which is strung as written.
    expect(ways.map(({ countings }) => countings)).toEqual([
      ['all', 'runs'],
      ['arcs', 'none'],
    ])
    const [follow, keep] = ways
    expect(follow?.consequence.counts[0]).toEqual({ role: 'A', before: 63, after: 56 })
    expect(keep?.consequence.counts).toEqual([])
    // 27 x 0.1 mm are 2.7 mm more round the ring: 0.9 mm across, were it left to itself.
    expect(keep?.finished?.widthMm).toBeGreaterThan((before?.widthMm ?? 99) + 0.2)
  })
  test('another kind is asked for by itself', () => {
    const round = { ...candidate, id: 8, bead: bead('round', '11/0') }
    const asked = { ...question, candidates: [candidate, round], colours: {}, touching: [], kits: 1 }
    expect(substitutesFor({ ...asked, kinds: 'other' }).map(({ id }) => id)).toEqual([8])
    expect(substitutesFor({ ...asked, kinds: 'same' }).map(({ id }) => id)).toEqual([7])
  })
})

test('a kit costs what its lines take of the cheapest packs; what has no price is named, not guessed', () => {
  const line = { roles: ['A'], exact: 1, spare: 0, unit: 'mg' as const, standsFor: 1, step: 100 }
  // 8 g for 3.20 is 0.04 a mg; 50 g for 17.50 is 0.035.
  const each = unitCost([
    { amount: 8000, price: 320 },
    { amount: 50_000, price: 1750 },
  ])
  expect(each).toBeCloseTo(0.035)
  const lines = [
    { ...line, itemId: 1, quantity: 600 },
    { ...line, itemId: 2, quantity: 100 },
  ]
  expect(costOfKit(lines, new Map([[1, each]]))).toEqual({ cost: 21, unpriced: [2] })
})
