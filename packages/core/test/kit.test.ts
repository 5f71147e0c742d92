import fc from 'fast-check'
import { maxAlone } from '../src/allocation/alone'
import { packsFor } from '../src/allocation/buy'
import { nominalBead } from '../src/catalogue/nominal-beads'
import { type LabelledStone, labelledStone, stoneServes } from '../src/catalogue/stone-size'
import { alternativesOf } from '../src/kit/alternatives'
import { billOf, type KitItem, misfitWords } from '../src/kit/bill'
import type { Choice } from '../src/kit/choice'
import { chosenIn, withAnother } from '../src/kit/choice'
import { bandOf, weighedOut } from '../src/kit/packing'
import { spareBeads, usualSpares } from '../src/kit/spares'
import { balanceOf, effectOf } from '../src/stock/moves'
import { spokenUnits } from '../src/stock/spoken-units'
import { demo, evaluate } from './support'

const seed = (id: number, kind: string, size: string): KitItem => {
  const bead = nominalBead(kind, size)
  if (!bead) throw new Error(`no ${kind} ${size}`)
  return { id, unit: 'mg', bead, massMg: bead.massMg }
}

describe('the bill of a kit', () => {
  const items = { A: seed(1, 'cylinder', '11/0'), B: seed(2, 'cylinder', '11/0'), C: seed(3, 'round', '15/0') }
  const others: Record<string, KitItem> = { S: { id: 4, unit: 'piece' }, thread: { id: 5, unit: 'mm' } }
  const report = evaluate(demo('windlass-pendant'), { size: 'petite' })

  test('Windlass, petite: exact, spare, weighed up to the tenth of a gram, thread to 10 cm', () => {
    const { lines, missing } = billOf(report, { ...items, ...others })
    expect(missing).toEqual([])
    expect(lines.map(({ itemId, exact, spare, quantity }) => [itemId, exact, spare, quantity])).toEqual([
      // 63 + 7 = 70 x 5.2 = 364 mg
      [1, 63, 7, 400],
      // 9 + 5 = 14 x 5.2 = 72.8 mg
      [2, 9, 5, 100],
      // 81 + 9 = 90 x 3.6 = 324 mg
      [3, 81, 9, 400],
      [4, 1, 0, 1],
      [5, 1070, 30, 1100],
    ])
    expect(lines[0]?.standsFor).toBe(76)
  })

  test('roles that share an item are added before spares are taken', () => {
    const { lines } = billOf(report, { ...items, B: items.A, ...others })
    expect(lines[0]).toMatchObject({ itemId: 1, roles: ['A', 'B'], exact: 72, spare: 8, quantity: 500 })
  })

  test('a pair takes the beads and the thread of two', () => {
    const { lines } = billOf(evaluate(demo('heron-earrings')), { ...items, B: seed(2, 'round', '11/0'), ...others })
    expect(lines.map(({ exact }) => exact)).toEqual([122, 40, 128, 2, 2 * 1080])
  })

  test('a lot that weighs more a bead takes more grams for the same count', () => {
    const { lines } = billOf(report, { ...items, A: { ...items.A, massMg: 6.5 }, ...others })
    expect(lines[0]).toMatchObject({ exact: 63, spare: 7, quantity: 500 })
  })

  test('a role without an item is named and nothing is made up for it', () => {
    expect(billOf(report, { A: items.A }).missing).toEqual(['B', 'C', 'S', 'thread'])
  })

  test('a stone of another size than the pattern is not taken for it, and it is said which would be', () => {
    const stone = (kind: string, size: string) => ({
      ...(others.S as KitItem),
      stone: labelledStone(kind, size) as LabelledStone,
    })
    const bill = billOf(report, { ...items, ...others, S: stone('round stone', '18 mm') })
    expect(bill.lines.some(({ roles }) => roles.includes('S'))).toBe(false)
    expect(bill.misfits.map(misfitWords)).toEqual([
      'S is round, 14 mm here, and the stone that is chosen is round, 18 mm. Choose another stone, or another size of the pattern.',
    ])
    const fits = (kind: string, size: string) =>
      billOf(report, { ...items, ...others, S: stone(kind, size) }).misfits.length === 0
    expect([fits('round stone', '14 mm'), fits('Round cabochon', '13.8 mm'), fits('cushion stone', '14 mm')]).toEqual([
      true,
      true,
      true,
    ])
    expect([fits('oval stone', '14 mm'), fits('round stone', '13 x 18 mm'), fits('round stone', '14.5 mm')]).toEqual([
      false,
      false,
      false,
    ])
    expect(stoneServes({ shape: 'oval', width: 13, length: 18 }, { shape: 'oval', measuresMm: [13, 18] })).toBe(true)
    expect(labelledStone('round stone', 'large')).toBeUndefined()
  })

  test.each([
    [1, 1.6, 5],
    [50, 1.6, 5],
    [63, 1.6, 7],
    [12, 4, 1],
    [13, 4, 2],
    [0, 1.6, 0],
  ])('%i beads of %p mm have %i spare', (exact, mm, spare) => expect(spareBeads(exact, mm, usualSpares)).toBe(spare))

  test('from where on beads are large, and how much thread may be over, is as the shop has it', () => {
    const policy = { ...usualSpares, largeMm: 5, threadOverMm: 0 }
    expect([spareBeads(13, 4, policy), spareBeads(13, 5, policy)]).toEqual([5, 2])
    const thread = billOf(report, { ...items, ...others }, policy).lines.find(({ unit }) => unit === 'mm')
    if (!thread) throw new Error('no thread')
    const { target, most } = bandOf(thread, undefined, policy)
    expect(most).toBe(target)
    expect(bandOf(thread, undefined).most).toBe(target + 1000)
  })

  test('never less in the bag than exact and spare, in whole steps of the scale, also of a lot that weighs otherwise', () => {
    const mass = fc.double({ min: 1, max: 40, noNaN: true })
    fc.assert(
      fc.property(
        fc.integer({ min: 2, max: 40 }),
        mass,
        mass,
        fc.integer({ min: 1, max: 5000 }),
        (half, massMg, lotMg, scaleStepMg) => {
          const ring = evaluate(`pattern P\nbead A cylinder 11/0\npart p\nring ${half * 2}A`)
          const [line] = billOf(ring, { A: { ...items.A, massMg } }, { ...usualSpares, scaleStepMg }).lines
          if (!line) throw new Error('no line')
          const beads = line.exact + line.spare
          expect(line.standsFor).toBeGreaterThanOrEqual(beads)
          for (const [weighed, each] of [
            [line.quantity, massMg],
            [weighedOut(line, lotMg), lotMg],
          ] as const) {
            expect(weighed % scaleStepMg).toBe(0)
            expect(weighed).toBeGreaterThan(beads * each - 1e-6)
            expect(weighed).toBeLessThan(beads * each + scaleStepMg)
          }
        },
      ),
    )
  })
})

describe('what screens say and take', () => {
  const [metric, inches] = [spokenUnits('metric', 'ISO'), spokenUnits('inches', 'US')]

  test('in grams and millimetres, or in ounces, inches and feet', () => {
    expect([metric.quantity(12_500, 'mg'), inches.quantity(12_500, 'mg')]).toEqual(['12.5 g', '0.44 oz'])
    expect([metric.quantity(45_000, 'mm'), inches.quantity(3048, 'mm')]).toEqual(['45 m', '10 ft'])
    expect([metric.length(184), inches.length(184)]).toEqual(['18.4 cm', '7.2 in'])
    expect([metric.finger(54.4), inches.finger(54.4)]).toEqual(['54.4 mm', 'US 7'])
    expect(inches.quantity(12, 'piece')).toBe('12 pcs')
  })

  test('what is recorded is shown so that, left alone in its field, it is recorded the same again', () => {
    expect([metric.typed(8000, 'mg'), inches.typed(8000, 'mg'), inches.typed(28_350, 'mg')]).toEqual([8, 0.2822, 1])
    fc.assert(
      fc.property(
        fc.constantFrom(metric, inches),
        fc.constantFrom('mg' as const, 'mm' as const, 'piece' as const),
        fc.integer({ min: 0, max: 100_000_000 }),
        (units, unit, quantity) => expect(units.recorded(units.typed(quantity, unit), unit)).toBe(quantity),
      ),
    )
  })

  test('what is typed is recorded whole', () => {
    expect(metric.recorded(2.5, 'mg')).toBe(2500)
    expect([inches.recorded(0.5, 'mg'), inches.recorded(10, 'mm'), inches.recorded(3, 'piece')]).toEqual([
      14_175, 3048, 3,
    ])
  })
})

test("a size's own choice comes before the one for all sizes", () => {
  const item = (id: number) => ({
    id,
    unit: 'piece' as const,
    category: 'stone',
    kind: 'round stone',
    size: '14 mm',
    colour: `#00000${id}`,
    finish: '',
    packs: [],
    bead: null,
  })
  const choices = [
    { role: 'S', size: '', itemId: 1 },
    { role: 'S', size: 'petite', itemId: 2 },
    { role: 'T', size: 'petite', itemId: 9 },
  ].map((choice) => ({ ...choice, counting: 'all' as const }))
  const items = [item(1), item(2)]
  expect(chosenIn(choices, 'petite', items).items.S?.id).toBe(2)
  expect(chosenIn(choices, 'classic', items).items.S?.id).toBe(1)
  expect(Object.keys(chosenIn(choices, 'petite', items).items)).toEqual(['S'])
})

describe('another item for a role', () => {
  const sizes = ['', 'petite', 'classic']
  const anyChoice = fc.record({
    role: fc.constantFrom('A', 'B'),
    size: fc.constantFrom(...sizes),
    itemId: fc.integer({ min: 1, max: 6 }),
    rank: fc.integer({ min: 0, max: 2 }),
    counting: fc.constant('all' as const),
  })
  /** As a shop keeps them: one for each role, size and rank. */
  const anyChoices = fc.uniqueArray(anyChoice, { maxLength: 14, selector: (c) => `${c.role} ${c.size} ${c.rank}` })
  const chosenFor = (choices: readonly Choice[], role: string, size: string) =>
    choices.find((c) => c.role === role && c.size === size && c.rank === 0)

  test('is chosen in that size; every other choice, and what may stand in, stays', () => {
    fc.assert(
      fc.property(anyChoices, fc.constantFrom(...sizes), fc.integer({ min: 1, max: 6 }), (before, size, itemId) => {
        const after = withAnother(before, { role: 'A', itemId, counting: 'all' }, size)
        const slot = chosenFor(before, 'A', size) ? size : ''
        expect(chosenFor(after, 'A', slot)?.itemId).toBe(itemId)
        const others = (choices: readonly Choice[]) =>
          choices.filter((c) => !(c.role === 'A' && c.size === slot && (c.rank === 0 || c.itemId === itemId)))
        expect(others(after)).toEqual(others(before))
        expect(after.filter((c) => c.role === 'A' && c.size === slot && c.itemId === itemId)).toHaveLength(1)
      }),
    )
  })

  test('of a size made to measure it is that of the size it is made from', () => {
    const before: Choice[] = [
      { role: 'S', size: '', itemId: 1, counting: 'all' },
      { role: 'S', size: 'petite', itemId: 2, counting: 'all' },
    ]
    const other = { role: 'S', itemId: 3, counting: 'all' } as const
    const ids = (choices: readonly Choice[]) => choices.map(({ size, itemId }) => [size, itemId])
    expect(ids(withAnother(before, other, 'petite, length = 178 mm'))).toEqual([
      ['', 1],
      ['petite', 3],
    ])
    expect(ids(withAnother(before, other, 'classic'))).toEqual([
      ['petite', 2],
      ['', 3],
    ])
  })
})

test('the scarcest item limits what could be made, and an item without a lot allows none', () => {
  const lots = [
    { itemId: 1, free: 950 },
    { itemId: 1, free: 400 },
  ]
  const bill = [
    { itemId: 1, quantity: 400 },
    { itemId: 2, quantity: 1 },
  ]
  // 950 fill two of 400, and their rest none.
  expect(maxAlone(bill, [...lots, { itemId: 2, free: 10 }])).toEqual({ kits: 3, limitedBy: [1] })
  expect(maxAlone(bill, lots)).toEqual({ kits: 0, limitedBy: [2] })
})

test('a balance is the sum of its moves', () => {
  const moves = [
    effectOf('receive', 500),
    effectOf('reserve', 120),
    effectOf('sale', 80),
    effectOf('release', 20),
    effectOf('correction', -3),
  ]
  expect(balanceOf(moves)).toEqual({ onHand: 417, reserved: 100 })
})

describe('what may stand in', () => {
  const letters = (count: number, others: number): Choice[] =>
    Array.from({ length: count }, (_, l) =>
      Array.from({ length: others + 1 }, (_, rank) => ({
        role: String.fromCharCode(65 + l),
        size: '',
        itemId: 100 * l + rank,
        counting: 'all' as const,
        rank,
      })),
    ).flat()

  test('the plan first, then one bead for another, then two', () => {
    expect(alternativesOf(letters(2, 1), '').map(({ choices }) => choices.map(({ itemId }) => itemId))).toEqual([
      [0, 100],
      [1, 100],
      [0, 101],
      [1, 101],
    ])
  })

  test('of a hundred letters with ten stand-ins each there are no more than of a few', () => {
    const ways = alternativesOf(letters(100, 10), '')
    expect(ways.map(({ substitutes }) => substitutes.length)).toEqual([0, 1, 1, 1, 1, 1, 1, 1])
    expect(ways.every(({ choices }) => choices.length === 100)).toBe(true)
    // The nearest of seven letters, rather than seven for the first.
    expect(new Set(ways.slice(1).map(({ substitutes }) => substitutes[0]?.role)).size).toBe(7)
  })
})

test('packs are bought at least cost, and of what costs the same the least is left over; as every choice tried', () => {
  const pack = fc.record({ amount: fc.integer({ min: 1, max: 9 }), price: fc.integer({ min: 1, max: 30 }) })
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 30 }), fc.array(pack, { minLength: 1, maxLength: 3 }), (short, packs) => {
      const found = packsFor(short, packs)
      let best = [Number.POSITIVE_INFINITY, Number.POSITIVE_INFINITY]
      const pick = (at: number, amount: number, cost: number): void => {
        const { amount: each = 0, price = 0 } = packs[at] ?? {}
        if (at === packs.length) {
          const [least = 0, over = 0] = best
          if (amount >= short && (cost < least || (cost === least && amount < over))) best = [cost, amount]
        } else for (let n = 0; n * each < short + each; n++) pick(at + 1, amount + n * each, cost + n * price)
      }
      pick(0, 0, 0)
      expect([found?.cost, found?.amount]).toEqual(best)
    }),
    { numRuns: 150 },
  )
  expect(packsFor(5, [])).toBeUndefined()
  // The bulk of what is short by millions is bought in the pack that costs least for what it holds.
  const packs = [
    { amount: 5000, price: 310, leadDays: 4 },
    { amount: 8001, price: 480, leadDays: 4 },
    { amount: 250_000, price: 9000, leadDays: 9 },
  ]
  expect(packsFor(100_000_000, packs)).toMatchObject({ counts: [0, 0, 400], amount: 100_000_000, cost: 3_600_000 })
})
