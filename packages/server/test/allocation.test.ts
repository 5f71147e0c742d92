import { allocateKits } from '@tessellum/core/allocation/allocate-kits'
import type { Allocation, AllocationLine, AllocationLot, Solve } from '@tessellum/core/allocation/allocation'
import { shortagesOf } from '@tessellum/core/allocation/shortages'
import fc from 'fast-check'
import { solver } from '../src/jobs/solver'

let solve: Solve
beforeAll(async () => {
  // One budget for all that is asked of it: five hundred shops take more than one batch may.
  solve = await solver(600)
})

/** Kits by priority, distance, lots in lines, quantity by rank: compared in this order, the first two best when high. */
type Worth = readonly number[]

const prioritiesOf = (lines: readonly AllocationLine[]) =>
  [...new Set(lines.map(({ priority }) => priority))].sort((a, b) => a - b)

/** What an allocation is worth; throws where it is none. */
function worthOf({ takes }: Allocation, lines: readonly AllocationLine[], lots: readonly AllocationLot[]): Worth {
  for (const { lotId, free } of lots) {
    const taken = takes.filter((take) => take.lotId === lotId).reduce((sum, take) => sum + take.quantity, 0)
    if (taken > free) throw new Error(`lot ${lotId} gives ${taken} of ${free}`)
  }
  const made = lines.map(({ line, wanted, variants }) => {
    const kits = variants.map(({ bill }, variant) => {
      const filled = bill.map(({ itemId, quantity }) =>
        takes
          .filter((take) => take.line === line && take.variant === variant && take.itemId === itemId)
          .reduce((sum, take) => {
            if (take.quantity !== take.kits * quantity) throw new Error('a kit of part of a kit')
            return sum + take.kits
          }, 0),
      )
      if (new Set(filled).size > 1) throw new Error(`line ${line} has kits with something missing`)
      return filled[0] ?? 0
    })
    const all = kits.reduce((sum, each) => sum + each, 0)
    if (all > wanted) throw new Error('more than wanted')
    return { all, far: kits.reduce((sum, each, v) => sum + each * (variants[v]?.distance ?? 0), 0) }
  })
  const rank = new Map(lots.map((lot) => [lot.lotId, lot.rank]))
  return [
    ...prioritiesOf(lines).map((priority) =>
      lines.reduce((sum, line, l) => sum + (line.priority === priority ? (made[l]?.all ?? 0) : 0), 0),
    ),
    -made.reduce((sum, each) => sum + each.far, 0),
    -new Set(takes.map(({ line, lotId }) => `${line} ${lotId}`)).size,
    -takes.reduce((sum, { lotId, quantity }) => sum + quantity * (rank.get(lotId) ?? 0), 0),
  ]
}

function better(a: Worth, b: Worth): boolean {
  const at = a.findIndex((each, i) => each !== b[i])
  return at >= 0 && (a[at] as number) > (b[at] as number)
}

/** Every allocation there is, tried. */
function bestByTrying(lines: readonly AllocationLine[], lots: readonly AllocationLot[]): Worth {
  const slots = lines.flatMap(({ line, variants }) => variants.map((variant, v) => ({ line, v, variant })))
  let best: Worth = []
  const left = new Map(lots.map(({ lotId, free }) => [lotId, free]))
  const takes: { line: number; variant: number; itemId: number; lotId: number; kits: number; quantity: number }[] = []
  const slot = (at: number, madeInLine: number): void => {
    const here = slots[at]
    if (!here) {
      const worth = worthOf({ takes, lines: [], proven: true, gap: 0 }, lines, lots)
      if (best.length === 0 || better(worth, best)) best = worth
      return
    }
    const before = slots[at - 1]?.line === here.line ? madeInLine : 0
    const wanted = lines.find(({ line }) => line === here.line)?.wanted ?? 0
    for (let kits = 0; kits <= wanted - before; kits++) need(at, 0, kits, kits, 0, before + kits)
  }
  const need = (at: number, b: number, kits: number, toFill: number, from: number, made: number): void => {
    const { line, v, variant } = slots[at] as (typeof slots)[number]
    const of = variant.bill[b]
    if (!of) {
      slot(at + 1, made)
      return
    }
    if (toFill === 0) {
      need(at, b + 1, kits, kits, 0, made)
      return
    }
    const mine = lots.filter((lot) => lot.itemId === of.itemId)
    const lot = mine[from]
    if (!lot) return
    const free = left.get(lot.lotId) ?? 0
    for (let take = 0; take <= Math.min(toFill, Math.floor(free / of.quantity)); take++) {
      left.set(lot.lotId, free - take * of.quantity)
      if (take > 0)
        takes.push({ line, variant: v, itemId: of.itemId, lotId: lot.lotId, kits: take, quantity: take * of.quantity })
      need(at, b, kits, toFill - take, from + 1, made)
      if (take > 0) takes.pop()
      left.set(lot.lotId, free)
    }
  }
  slot(0, 0)
  return best
}

const small = fc.record({
  lines: fc.array(
    fc.record({
      wanted: fc.integer({ min: 1, max: 3 }),
      priority: fc.integer({ min: 0, max: 1 }),
      quantities: fc.array(fc.integer({ min: 1, max: 5 }), { minLength: 2, maxLength: 2 }),
      instead: fc.option(
        fc.record({ quantity: fc.integer({ min: 1, max: 5 }), distance: fc.integer({ min: 1, max: 3 }) }),
      ),
    }),
    { minLength: 1, maxLength: 3 },
  ),
  free: fc.array(fc.integer({ min: 0, max: 12 }), { minLength: 6, maxLength: 6 }),
})

/** Items 1 and 2 are in every plan, 3 may stand in for 1; each has two lots. */
const problem = ({ lines, free }: typeof small extends fc.Arbitrary<infer Value> ? Value : never) => ({
  lines: lines.map(
    ({ wanted, priority, quantities: [a = 1, b = 1], instead }, line): AllocationLine => ({
      line,
      wanted,
      priority,
      variants: [
        {
          bill: [
            { itemId: 1, quantity: a },
            { itemId: 2, quantity: b },
          ],
          distance: 0,
        },
        ...(instead
          ? [
              {
                bill: [
                  { itemId: 3, quantity: instead.quantity },
                  { itemId: 2, quantity: b },
                ],
                distance: instead.distance,
              },
            ]
          : []),
      ],
    }),
  ),
  lots: free.map((each, i): AllocationLot => ({ lotId: i + 1, itemId: (i >> 1) + 1, free: each, rank: i % 2 })),
})

test('as good as the best of all allocations tried, 500 small shops over', () => {
  fc.assert(
    fc.property(small, (shop) => {
      const { lines, lots } = problem(shop)
      const found = allocateKits(lines, lots, solve)
      expect(found.proven).toBe(true)
      expect(worthOf(found, lines, lots)).toEqual(bestByTrying(lines, lots))
    }),
    { numRuns: 500 },
  )
})

test('the worked example: the more urgent line first, what stands in only where it must, and what limits is said', () => {
  const plan = { bill: [{ itemId: 1, quantity: 400 }], distance: 0 }
  const instead = { bill: [{ itemId: 2, quantity: 500 }], distance: 2 }
  const lines: AllocationLine[] = [
    { line: 0, wanted: 3, priority: 1, variants: [plan, instead] },
    { line: 1, wanted: 2, priority: 0, variants: [plan] },
  ]
  const lots = [
    { lotId: 1, itemId: 1, free: 950, rank: 0 },
    { lotId: 2, itemId: 1, free: 400, rank: 1 },
    { lotId: 3, itemId: 2, free: 600, rank: 0 },
  ]
  const found = allocateKits(lines, lots, solve)
  expect(found.lines).toEqual([
    // 950 fill the two urgent kits; 400 one more, 600 one of the other bead; the third goes without: 400 short.
    { line: 0, kits: 2, variants: [1, 1], limitedBy: [{ itemId: 1, missing: 400 }] },
    { line: 1, kits: 2, variants: [2], limitedBy: [] },
  ])
  expect(found.takes).toContainEqual({ line: 1, variant: 0, itemId: 1, lotId: 1, kits: 2, quantity: 800 })
})

test('a line stays in one dye lot where that is possible, even if an older one has some left', () => {
  const lots = [
    { lotId: 1, itemId: 1, free: 500, rank: 0 },
    { lotId: 2, itemId: 1, free: 2000, rank: 1 },
  ]
  const one = { line: 0, wanted: 4, priority: 0, variants: [{ bill: [{ itemId: 1, quantity: 400 }], distance: 0 }] }
  expect(allocateKits([one], lots, solve).takes.map(({ lotId }) => lotId)).toEqual([2])
})

test('200 lines over 60 items of 5 lots each are filled, and proven to be the best', () => {
  const items = Array.from({ length: 60 }, (_, i) => i + 1)
  const lines = Array.from(
    { length: 200 },
    (_, line): AllocationLine => ({
      line,
      wanted: 4 + (line % 9),
      priority: line % 3,
      variants: [
        {
          bill: items
            .filter((item) => (item + line) % 7 < 3)
            .map((itemId) => ({ itemId, quantity: 100 + ((itemId * line) % 9) * 50 })),
          distance: 0,
        },
      ],
    }),
  )
  const lots = items.flatMap((itemId) =>
    [0, 1, 2, 3, 4].map((rank) => ({ lotId: itemId * 10 + rank, itemId, free: 60_000 + rank * 20_000, rank })),
  )
  const found = allocateKits(lines, lots, solve)
  expect(found.lines.every(({ kits }, l) => kits === lines[l]?.wanted)).toBe(true)
  expect(found.proven).toBe(true)
  // Each line has one lot of an item.
  expect(new Set(found.takes.map(({ line, itemId }) => `${line} ${itemId}`)).size).toBe(found.takes.length)
})

test('where the limit is reached, what plain filling has is given, and said not to be proven', () => {
  const giveUp: Solve = () => ({ status: 'limit', objective: 0, gap: 1, values: {} })
  const { lines, lots } = problem({
    lines: [
      { wanted: 3, priority: 1, quantities: [3, 1], instead: null },
      { wanted: 3, priority: 0, quantities: [3, 1], instead: null },
    ],
    free: [7, 4, 9, 9, 0, 0],
  })
  const found = allocateKits(lines, lots, giveUp)
  expect([found.proven, found.lines.map(({ kits }) => kits)]).toEqual([false, [0, 3]])
  expect(() => worthOf(found, lines, lots)).not.toThrow()
})

test('a programme at which presolving comes apart is solved without it', () => {
  const { lines, lots } = problem({
    lines: [
      { wanted: 2, priority: 0, quantities: [3, 1], instead: { quantity: 2, distance: 1 } },
      { wanted: 1, priority: 1, quantities: [4, 1], instead: { quantity: 1, distance: 1 } },
      { wanted: 1, priority: 0, quantities: [3, 1], instead: { quantity: 2, distance: 1 } },
    ],
    free: [0, 4, 5, 1, 1, 3],
  })
  const found = allocateKits(lines, lots, solve)
  expect(worthOf(found, lines, lots).slice(0, 3)).toEqual(bestByTrying(lines, lots).slice(0, 3))
})

/** Line by line, the more urgent first, kit by kit from the first lot that holds it: what anybody would do. */
function plainKits(lines: readonly AllocationLine[], lots: readonly AllocationLot[]): number[] {
  const left = new Map(lots.map(({ lotId, free }) => [lotId, free]))
  const made = lines.map(() => 0)
  for (const { line, wanted, variants } of [...lines].sort((a, b) => a.priority - b.priority))
    for (let kit = 0; kit < wanted; kit++) {
      const from = (variants[0]?.bill ?? []).map(({ itemId, quantity }) => ({
        quantity,
        lot: lots.find((lot) => lot.itemId === itemId && (left.get(lot.lotId) ?? 0) >= quantity)?.lotId,
      }))
      if (from.some(({ lot }) => lot === undefined)) break
      for (const { lot, quantity } of from) left.set(lot as number, (left.get(lot as number) ?? 0) - quantity)
      made[line] = (made[line] ?? 0) + 1
    }
  return made
}

const urgent = (lines: readonly AllocationLine[], kits: readonly number[]): Worth =>
  prioritiesOf(lines).map((priority) =>
    lines.reduce((sum, each, l) => sum + (each.priority === priority ? (kits[l] ?? 0) : 0), 0),
  )

test('at its limit it never makes less than plain filling, and says how far from the best it may be', () => {
  const giveUp: Solve = () => ({ status: 'limit', objective: 0, gap: 1, values: {} })
  fc.assert(
    fc.property(small, (shop) => {
      const { lines, lots } = problem(shop)
      const found = allocateKits(lines, lots, giveUp)
      expect(() => worthOf(found, lines, lots)).not.toThrow()
      const made = found.lines.map(({ kits }) => kits)
      expect(better(urgent(lines, plainKits(lines, lots)), urgent(lines, made))).toBe(false)
      const total = made.reduce((sum, each) => sum + each, 0)
      const best = bestByTrying(lines, lots)
        .slice(0, prioritiesOf(lines).length)
        .reduce((sum, each) => sum + each, 0)
      if (!found.proven && total > 0) expect(total * (1 + found.gap)).toBeGreaterThanOrEqual(best - 1e-9)
    }),
    { numRuns: 300 },
  )
})

test('where the tightest lot is the wrong one, what anybody would have made is still made', () => {
  const giveUp: Solve = () => ({ status: 'limit', objective: 0, gap: 1, values: {} })
  const { lines, lots } = problem({
    lines: [
      { wanted: 2, priority: 0, quantities: [1, 2], instead: null },
      { wanted: 2, priority: 0, quantities: [1, 3], instead: null },
    ],
    free: [0, 5, 7, 3, 0, 0],
  })
  expect(allocateKits(lines, lots, giveUp).lines.map(({ kits }) => kits)).toEqual([2, 2])
})

test.each([
  [100, 80, 4],
  [300, 120, 6],
])(
  '%i lines over %i items of %i lots, too little of all: at least plain filling, with a bound',
  async (many, items, lotsEach) => {
    const chance = (n: number, of: number) => (Math.imul(n + 1, 2654435761) >>> 8) % of
    const lines = Array.from({ length: many }, (_, line): AllocationLine => {
      const own = [...new Set([0, 1, 2, 3, 4, 5].map((k) => chance(line * 6 + k, items)))]
      return {
        line,
        wanted: 1 + chance(line + 7, 12),
        priority: line % 3,
        variants: [
          {
            bill: own.map((itemId) => ({ itemId, quantity: 100 + 10 * chance(line * items + itemId, 40) })),
            distance: 0,
          },
        ],
      }
    })
    const wanted = (itemId: number) =>
      lines.reduce(
        (sum, { wanted, variants }) =>
          sum + wanted * (variants[0]?.bill.find((need) => need.itemId === itemId)?.quantity ?? 0),
        0,
      )
    const lots = Array.from({ length: items * lotsEach }, (_, i): AllocationLot => {
      const itemId = Math.floor(i / lotsEach)
      return {
        lotId: i + 1,
        itemId,
        rank: i % lotsEach,
        free: Math.floor((wanted(itemId) * (40 + chance(i, 60))) / 100 / lotsEach),
      }
    })
    const found = allocateKits(lines, lots, await solver(4))
    expect(() => worthOf(found, lines, lots)).not.toThrow()
    const made = found.lines.map(({ kits }) => kits)
    expect(better(urgent(lines, plainKits(lines, lots)), urgent(lines, made))).toBe(false)
    expect(found.gap).toBeGreaterThan(0)
    expect(found.gap).toBeLessThan(0.5)
  },
)

describe('what must be bought', () => {
  test('nothing, where a filling is found that plain filling does not find', () => {
    // The first line first, from the first lot that holds it: the second has no lot left. The other way about both have theirs.
    const { lines, lots } = problem({
      lines: [
        { wanted: 1, priority: 0, quantities: [4, 1], instead: null },
        { wanted: 1, priority: 1, quantities: [6, 1], instead: null },
      ],
      free: [6, 4, 9, 9, 0, 0],
    })
    expect(plainKits(lines, lots)).toEqual([1, 0])
    expect(shortagesOf(lines, lots, allocateKits(lines, lots, solve), solve)).toEqual([])
  })

  test('as little as any filling leaves wanting, and nothing exactly where all can be made', () => {
    fc.assert(
      fc.property(small, (shop) => {
        const { lines, lots } = problem(shop)
        const allocation = allocateKits(lines, lots, solve)
        const shortages = shortagesOf(lines, lots, allocation, solve)
        const made = allocation.lines.every(({ line, kits }) => kits === lines[line]?.wanted)
        expect(shortages.length === 0).toBe(made)
        // With what is bought on the shelf, one lot for each kit that goes without, all is made.
        const bought = shortages.flatMap(({ itemId, line, kits, missing }, s) =>
          Array.from({ length: kits }, (_, k) => ({
            // As what is only ordered is numbered.
            lotId: -1 - 100 * s - k,
            itemId,
            free: missing / kits,
            rank: 50 + line,
          })),
        )
        const after = allocateKits(lines, [...lots, ...bought], solve)
        expect(after.lines.map(({ kits }) => kits)).toEqual(lines.map(({ wanted }) => wanted))
        // And no filling of an item's lots by what the lines take of it leaves less.
        for (const itemId of new Set(shortages.map((each) => each.itemId))) {
          const missing = shortages.reduce((sum, each) => sum + (each.itemId === itemId ? each.missing : 0), 0)
          const sizes = lines.flatMap(({ line, wanted, variants }) =>
            variants.flatMap(({ bill }, v) => {
              const { variants: by = [], kits = 0 } = allocation.lines[line] ?? {}
              const many = (by[v] ?? 0) + (v === 0 ? wanted - kits : 0)
              return bill.flatMap((need) => (need.itemId === itemId ? Array(many).fill(need.quantity) : []))
            }),
          )
          const free = lots.filter((lot) => lot.itemId === itemId).map((lot) => lot.free)
          expect(missing).toBe(minLeft(sizes, free))
        }
      }),
      { numRuns: 120 },
    )
  })
})

/** Every way of putting things into boxes, tried: the least that is left out. */
function minLeft(sizes: readonly number[], room: readonly number[]): number {
  const known = new Map<string, number>()
  const from = (at: number, left: readonly number[]): number => {
    const size = sizes[at]
    if (size === undefined) return 0
    const key = `${at} ${left}`
    let least = known.get(key)
    if (least === undefined) {
      least = size + from(at + 1, left)
      for (const [i, free] of left.entries())
        if (free >= size) least = Math.min(least, from(at + 1, left.with(i, free - size)))
      known.set(key, least)
    }
    return least
  }
  return from(0, room)
}
