/**
 * How many kits of each line, where there are too many lines and lots for one programme over all of them. The lots of an item are first taken as
 * one heap and kits as what can be parted, which is solved at once and bounds what there can be; then whole kits are filled from the lots, fewer
 * where a lot's rest is too little for one; then whatever still goes is filled. Plain filling, line by line, is what it has to beat.
 */
import { type AllocationLine, type AllocationLot, type Need, type Solve, type Take, takenFrom } from './allocation'
import { type Goal, inOrder } from './in-order'
import { type Row, type Term, written } from './programme'

type Lots = ReadonlyMap<number, readonly AllocationLot[]>

/** Kits by line (in the order given) and variant. */
export type Kits = readonly (readonly number[])[]

export interface MostKits {
  readonly takes: readonly Take[]
  readonly kits: Kits
  /** No allocation makes more kits of all lines together. */
  readonly bound: number
}

export function countKits(lines: readonly AllocationLine[], lots: Lots, solve: Solve): MostKits {
  const { heaped, bound } = fromHeaps(lines, lots, solve)
  const shares = lines.map(({ variants }) => shareOf(variants[0]?.bill ?? [], lots))
  const asTheyStand = () => 0
  const minFirst = (a: number, b: number) => (shares[a] as number) - (shares[b] as number)
  const fillings = [
    // As anybody would do it: whatever else is tried, it is never less than this.
    new Filling(lines, lots, asTheyStand, 'first'),
    new Filling(lines, lots, asTheyStand, 'tightest'),
    // Those first whose kits take the least of what there is.
    new Filling(lines, lots, minFirst, 'tightest'),
  ]
  const heapedFillings = heaped
    ? [asTheyStand, minFirst].map((before) => {
        const filled = new Filling(lines, lots, before, 'tightest')
        filled.asFarAsItGoes(heaped)
        return filled
      })
    : []
  const tries = [...fillings, ...heapedFillings]
  for (const filled of tries) filled.plainly()
  const made = tries.reduce((a, b) => (better(b.kits, a.kits, lines) ? b : a))
  const most = lines.reduce((sum, line) => sum + maxOf(line, lots), 0)
  return { takes: made.takes(), kits: made.kits, bound: Math.max(totalOf(made.kits), Math.min(most, bound)) }
}

export const totalOf = (kits: Kits): number => kits.flat().reduce((sum, each) => sum + each, 0)

/** With all lots of an item as one, and parts of kits: more than this there cannot be. Without kits where the solver's limit came first. */
function fromHeaps(
  lines: readonly AllocationLine[],
  lots: Lots,
  solve: Solve,
): { readonly heaped: Kits | undefined; readonly bound: number } {
  const most = new Map<string, number>()
  const rows: Row[] = []
  const heaps = new Map<number, Term[]>()
  const made = new Map<number, Term[]>()
  const far: Term[] = []
  for (const [l, { wanted, priority, variants }] of lines.entries()) {
    const kits = variants.map((_, v) => ({ times: 1, name: `k${l}_${v}` }))
    rows.push({ terms: kits, sign: '<=', of: wanted })
    made.set(priority, [...(made.get(priority) ?? []), ...kits])
    for (const [v, { bill, distance }] of variants.entries()) {
      const name = `k${l}_${v}`
      most.set(name, Math.min(wanted, ...bill.map((need) => inWhole(need, lots.get(need.itemId) ?? []))))
      if (distance > 0) far.push({ times: distance, name })
      for (const { itemId, ...need } of bill) {
        const least = Math.min(...(lots.get(itemId) ?? []).map(({ lotId }) => takenFrom(need, lotId)))
        heaps.set(itemId, [
          ...(heaps.get(itemId) ?? []),
          { times: Number.isFinite(least) ? least : need.quantity, name },
        ])
      }
    }
  }
  for (const [itemId, terms] of heaps)
    rows.push({ terms, sign: '<=', of: (lots.get(itemId) ?? []).reduce((sum, { free }) => sum + Math.max(0, free), 0) })
  const goals: Goal[] = [
    ...[...made].sort(([a], [b]) => a - b).map(([, objective]) => ({ goal: 'max' as const, objective })),
    ...(far.length > 0 ? [{ goal: 'min' as const, objective: far }] : []),
  ]
  const parts = { rows, whole: new Map<string, number>(), binary: new Set<string>(), most }
  const all = solve(written({ ...parts, goal: 'max', objective: [...most.keys()].map((name) => ({ times: 1, name })) }))
  const bound = all.status === 'optimal' ? Math.floor(all.objective + tiny) : Number.POSITIVE_INFINITY
  const values = inOrder(goals, parts, solve, { proven: true, gap: 0 })
  if (Object.keys(values).length === 0) return { heaped: undefined, bound }
  const kits = (name: string) => Math.floor((values[name] ?? 0) + tiny)
  return { heaped: lines.map(({ variants }, l) => variants.map((_, v) => kits(`k${l}_${v}`))), bound }
}

const tiny = 1e-6

/** What one kit takes of all that there is of its items, each item counting the same. */
const shareOf = (bill: readonly Need[], lots: Lots): number =>
  bill.reduce((sum, { itemId, quantity }) => {
    const free = (lots.get(itemId) ?? []).reduce((all, lot) => all + Math.max(0, lot.free), 0)
    return sum + (free > 0 ? quantity / free : 1)
  }, 0)

/** Kits that the lots of an item fill, each from one of them. */
const inWhole = (need: Omit<Need, 'itemId'>, lots: readonly AllocationLot[]): number =>
  lots.reduce((sum, { lotId, free }) => sum + Math.floor(Math.max(0, free) / takenFrom(need, lotId)), 0)

const maxOf = ({ wanted, variants }: AllocationLine, lots: Lots): number =>
  Math.min(
    wanted,
    variants.reduce(
      (sum, { bill }) => sum + Math.min(...bill.map((need) => inWhole(need, lots.get(need.itemId) ?? []))),
      0,
    ),
  )

/** More kits of the most urgent lines in which they differ; then nearer to the plan. */
export function better(a: Kits, b: Kits, lines: readonly AllocationLine[]): boolean {
  const worth = (kits: Kits): number[] => {
    const priorities = [...new Set(lines.map(({ priority }) => priority))].sort((x, y) => x - y)
    const sum = (of: (l: number, v: number) => number) =>
      kits.reduce((all, row, l) => all + row.reduce((some, each, v) => some + each * of(l, v), 0), 0)
    return [
      ...priorities.map((priority) => sum((l) => (lines[l]?.priority === priority ? 1 : 0))),
      -sum((l, v) => lines[l]?.variants[v]?.distance ?? 0),
    ]
  }
  const [x, y] = [worth(a), worth(b)]
  const at = x.findIndex((each, i) => each !== y[i])
  return at >= 0 && (x[at] as number) > (y[at] as number)
}

/** Kits being filled from lots, one after the other. */
class Filling {
  private readonly left: Map<number, number>
  private readonly taken = new Map<string, Take>()
  readonly kits: number[][]
  private readonly order: readonly number[]

  constructor(
    private readonly lines: readonly AllocationLine[],
    private readonly lots: Lots,
    /** Of lines of one priority, which is filled first. */
    before: (a: number, b: number) => number,
    /** Of lots that hold a kit, which gives it. */
    private readonly from: 'first' | 'tightest',
  ) {
    this.left = new Map([...lots.values()].flat().map(({ lotId, free }) => [lotId, free]))
    this.kits = lines.map(({ variants }) => variants.map(() => 0))
    this.order = lines
      .map((_, l) => l)
      .sort((a, b) => (lines[a]?.priority ?? 0) - (lines[b]?.priority ?? 0) || before(a, b))
  }

  takes = (): Take[] => [...this.taken.values()]

  /** Kits that are wanted of each line and variant, the more urgent first. */
  asFarAsItGoes(wanted: Kits): void {
    for (const l of this.order) for (const [v, kits] of (wanted[l] ?? []).entries()) this.fill(l, v, kits)
  }

  /** Of one priority all lines as planned, and then with what may stand in, the nearest first: it is to cost no line its plan. */
  plainly(): void {
    const priorities = [...new Set(this.order.map((l) => this.lines[l]?.priority))]
    for (const priority of priorities) {
      const alike = this.order.filter((l) => this.lines[l]?.priority === priority)
      for (const l of alike) this.fill(l, 0, this.wanting(l))
      for (const l of alike) {
        const { variants } = this.lines[l] as AllocationLine
        const nearest = [...variants.keys()].sort((a, b) => (variants[a]?.distance ?? 0) - (variants[b]?.distance ?? 0))
        for (const v of nearest) this.fill(l, v, this.wanting(l))
      }
    }
  }

  private wanting = (l: number): number =>
    (this.lines[l]?.wanted ?? 0) - (this.kits[l] ?? []).reduce((sum, each) => sum + each, 0)

  private fill(l: number, v: number, kits: number): void {
    const { bill } = (this.lines[l] as AllocationLine).variants[v] as AllocationLine['variants'][number]
    for (let kit = 0; kit < kits; kit++) {
      const from = bill.map(({ itemId, ...need }) => ({ itemId, need, lot: this.lotFor(itemId, need, kits - kit) }))
      if (from.length === 0 || from.some(({ lot }) => lot === undefined)) return
      for (const { itemId, need, lot } of from) {
        const lotId = lot as number
        const quantity = takenFrom(need, lotId)
        this.left.set(lotId, (this.left.get(lotId) ?? 0) - quantity)
        const { line } = this.lines[l] as AllocationLine
        const key = `${l} ${v} ${lotId}`
        const done = (this.taken.get(key)?.kits ?? 0) + 1
        this.taken.set(key, { line, variant: v, itemId, lotId, kits: done, quantity: done * quantity })
      }
      ;(this.kits[l] as number[])[v] = ((this.kits[l] as number[])[v] ?? 0) + 1
    }
  }

  /** The first lot that holds one; or one that holds all that is still wanted, the tightest, or else the one that holds most of it. */
  private lotFor(itemId: number, need: Omit<Need, 'itemId'>, kits: number): number | undefined {
    if (this.from === 'first')
      return this.lots.get(itemId)?.find(({ lotId }) => (this.left.get(lotId) ?? 0) >= takenFrom(need, lotId))?.lotId
    let [tightest, fullest]: (number | undefined)[] = [undefined, undefined]
    let [rest, holds] = [Number.POSITIVE_INFINITY, 0]
    for (const { lotId } of this.lots.get(itemId) ?? []) {
      const quantity = takenFrom(need, lotId)
      const free = this.left.get(lotId) ?? 0
      const able = Math.floor(free / quantity)
      if (able >= kits && free - kits * quantity < rest) {
        tightest = lotId
        rest = free - kits * quantity
      }
      if (able > holds) {
        fullest = lotId
        holds = able
      }
    }
    return tightest ?? fullest
  }
}
