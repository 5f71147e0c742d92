/**
 * Solves an allocation. Lines that share no item are no rivals, and each such group is solved by itself. Where plain filling shows that all of a
 * group can be made as planned, only the lots are left to choose, item by item, and often without a solver (one-lot-each.ts); otherwise the
 * whole group is one programme.
 */
import {
  type Allocation,
  type AllocationLine,
  type AllocationLot,
  type Demand,
  type LineAnswer,
  type Solve,
  type Take,
  takenFrom,
} from './allocation'
import { type Goal, inOrder, type Proof } from './in-order'
import { better, countKits, type Kits, totalOf } from './kit-counts'
import { fillOneLotEach } from './one-lot-each'
import type { Row, Term } from './programme'

/** @param solve to optimality, or to a limit that it says was reached */
export function allocateKits(
  lines: readonly AllocationLine[],
  lots: readonly AllocationLot[],
  solve: Solve,
): Allocation {
  const proof: Proof = { proven: true, gap: 0 }
  const byItem = grouped(lots, (lot) => lot.itemId)
  const takes: Take[] = []
  for (const part of competing(lines)) {
    const demands = demandsOf(part)
    if (demands) {
      for (const [itemId, of] of demands) takes.push(...fillItem(itemId, of, byItem.get(itemId) ?? [], solve, proof))
    } else takes.push(...fillJointly(part, byItem, solve, proof))
  }
  return { takes, lines: lines.map((line) => answer(line, takes, byItem)), ...proof }

  /** What each item must give when all that is planned is made; undefined where plain filling cannot show that it can be. */
  function demandsOf(part: readonly AllocationLine[]): Map<number, Demand[]> | undefined {
    const demands = new Map<number, Demand[]>()
    for (const { line, wanted, variants } of part)
      for (const { itemId, ...need } of variants[0]?.bill ?? [])
        demands.set(itemId, [...(demands.get(itemId) ?? []), { line, ...need, kits: wanted }])
    const filled = [...demands].every(([itemId, of]) => fillPlainly(of, byItem.get(itemId) ?? []) !== undefined)
    return filled ? demands : undefined
  }
}

/** Lines that share no item, directly or through others, do not compete. */
function competing(lines: readonly AllocationLine[]): AllocationLine[][] {
  const leader = lines.map((_, i) => i)
  const find = (i: number): number => {
    const up = leader[i] as number
    if (up === i) return i
    const top = find(up)
    leader[i] = top
    return top
  }
  const first = new Map<number, number>()
  for (const [i, { variants }] of lines.entries())
    for (const { bill } of variants)
      for (const { itemId } of bill) {
        const other = first.get(itemId)
        if (other === undefined) first.set(itemId, i)
        else leader[find(i)] = find(other)
      }
  return [...grouped([...lines.keys()], find).values()].map((part) => part.map((i) => lines[i] as AllocationLine))
}

function grouped<Each, Key>(list: readonly Each[], keyOf: (each: Each) => Key): Map<Key, Each[]> {
  const groups = new Map<Key, Each[]>()
  for (const each of list) {
    const key = keyOf(each)
    const group = groups.get(key)
    if (group) group.push(each)
    else groups.set(key, [each])
  }
  return groups
}

/** Beyond so many ways to take kits of a line from a lot it is no longer asked all at once. */
const maxAtOnce = 400

/** Lines that cannot all be filled, or only perhaps. */
function fillJointly(
  lines: readonly AllocationLine[],
  lots: ReadonlyMap<number, readonly AllocationLot[]>,
  solve: Solve,
  proof: Proof,
): Take[] {
  const ways = lines
    .flatMap(({ variants }) => variants.flatMap(({ bill }) => bill))
    .reduce((sum, { itemId }) => sum + (lots.get(itemId)?.length ?? 0), 0)
  const own: Proof = { proven: true, gap: 0 }
  const exact = ways <= maxAtOnce ? atOnce(lines, lots, solve, own) : undefined
  if (exact && own.proven) return exact
  const most = countKits(lines, lots, solve)
  const kitsIn = (takes: readonly Take[]): Kits =>
    lines.map(({ line, variants }) =>
      variants.map(({ bill }, v) =>
        takes.reduce(
          (sum, take) =>
            sum + (take.line === line && take.variant === v && take.itemId === bill[0]?.itemId ? take.kits : 0),
          0,
        ),
      ),
    )
  // What the limit left of the exact programme may still be better.
  if (exact && better(kitsIn(exact), most.kits, lines)) {
    short(kitsIn(exact))
    return exact
  }
  if (totalOf(most.kits) < most.bound || new Set(lines.map(({ priority }) => priority)).size > 1) short(most.kits)
  return lotByLot(most.takes, lines, lots, solve, proof)

  function short(kits: Kits): void {
    const made = totalOf(kits)
    proof.proven = false
    proof.gap = Math.max(proof.gap, made > 0 ? (most.bound - made) / made : most.bound > 0 ? 1 : 0)
  }
}

/** Once it is known how many kits there are of each line, the lots part by item. */
function lotByLot(
  takes: readonly Take[],
  lines: readonly AllocationLine[],
  lots: ReadonlyMap<number, readonly AllocationLot[]>,
  solve: Solve,
  proof: Proof,
): Take[] {
  const byLine = new Map(lines.map((each) => [each.line, each]))
  return [...grouped(takes, ({ itemId }) => itemId)].flatMap(([itemId, ofItem]) => {
    const demands = [...grouped(ofItem, ({ line, variant }) => `${line} ${variant}`).values()].map((same): Demand => {
      const { line, variant } = same[0] as Take
      const need = byLine.get(line)?.variants[variant]?.bill.find((each) => each.itemId === itemId)
      const { itemId: _, ...taken } = need as NonNullable<typeof need>
      return { line, variant, ...taken, kits: same.reduce((sum, { kits }) => sum + kits, 0) }
    })
    return fillItem(itemId, demands, lots.get(itemId) ?? [], solve, proof, ofItem)
  })
}

/** All questions at once, over every item they need. */
function atOnce(
  lines: readonly AllocationLine[],
  lots: ReadonlyMap<number, readonly AllocationLot[]>,
  solve: Solve,
  proof: Proof,
): Take[] | undefined {
  const whole = new Map<string, number>()
  const binary = new Set<string>()
  const rows: Row[] = []
  const room = new Map<AllocationLot, Term[]>()
  const byRank: Term[] = []
  const far: Term[] = []
  const made = new Map<number, Term[]>()
  const takes: (Omit<Take, 'kits' | 'quantity'> & { readonly name: string; readonly each: number })[] = []
  for (const [l, { line, wanted, priority, variants }] of lines.entries()) {
    const kits = variants.map((_, v) => ({ times: 1, name: `k${l}_${v}` }))
    rows.push({ terms: kits, sign: '<=', of: wanted })
    made.set(priority, [...(made.get(priority) ?? []), ...kits])
    for (const [variant, { bill, distance }] of variants.entries()) {
      const kit = `k${l}_${variant}`
      whole.set(kit, wanted)
      if (distance > 0) far.push({ times: distance, name: kit })
      for (const { itemId, ...need } of bill) {
        const from: Term[] = [{ times: -1, name: kit }]
        for (const [i, lot] of (lots.get(itemId) ?? []).entries()) {
          const quantity = takenFrom(need, lot.lotId)
          const most = Math.min(wanted, Math.floor(lot.free / quantity))
          if (most === 0) continue
          const name = `x${l}_${variant}_${itemId}_${i}`
          // A lot counts once for a line, whatever variants of it take from it.
          const used = `y${l}_${itemId}_${i}`
          whole.set(name, most)
          binary.add(used)
          from.push({ times: 1, name })
          room.set(lot, [...(room.get(lot) ?? []), { times: quantity, name }])
          if (lot.rank > 0) byRank.push({ times: quantity * lot.rank, name })
          rows.push(usedRow(name, used, most))
          takes.push({ line, variant, itemId, lotId: lot.lotId, name, each: quantity })
        }
        rows.push({ terms: from, sign: '=', of: 0 })
      }
    }
  }
  for (const [lot, terms] of room) rows.push({ terms, sign: '<=', of: lot.free })
  const goals: Goal[] = [
    ...[...made].sort(([a], [b]) => a - b).map(([, objective]) => ({ goal: 'max' as const, objective })),
    ...(far.length > 0 ? [{ goal: 'min' as const, objective: far }] : []),
    { goal: 'min', objective: [...binary].map((name) => ({ times: 1, name })) },
    { goal: 'min', objective: byRank },
  ]
  const values = inOrder(goals, { rows, whole, binary }, solve, proof)
  if (Object.keys(values).length === 0) return undefined
  return takes.flatMap(({ name, each, ...take }) => {
    const kits = Math.round(values[name] ?? 0)
    return kits > 0 ? [{ ...take, kits, quantity: kits * each }] : []
  })
}

/** Nothing is taken from a lot that is not counted as used. */
const usedRow = (taken: string, used: string, most: number): Row => ({
  terms: [
    { times: 1, name: taken },
    { times: -most, name: used },
  ],
  sign: '<=',
  of: 0,
})

/** The largest first, each whole line from the first lot that holds it, or else from as many as it takes. */
function fillPlainly(demands: readonly Demand[], lots: readonly AllocationLot[]): number[][] | undefined {
  const order = demands.map((_, d) => d).sort((a, b) => sizeOf(demands[b] as Demand) - sizeOf(demands[a] as Demand))
  const ranked = lots.map((_, i) => i).sort((a, b) => (lots[a]?.rank ?? 0) - (lots[b]?.rank ?? 0))
  const left = lots.map(({ free }) => free)
  const filled = demands.map(() => lots.map(() => 0))
  for (const d of order) {
    const demand = demands[d] as Demand
    const { kits } = demand
    const each = (i: number) => takenFrom(demand, (lots[i] as AllocationLot).lotId)
    const whole = ranked.find((i) => (left[i] as number) >= each(i) * kits)
    let toFill = kits
    for (const i of whole === undefined ? ranked : [whole]) {
      const quantity = each(i)
      const take = Math.min(toFill, Math.floor((left[i] as number) / quantity))
      if (take === 0) continue
      left[i] = (left[i] as number) - take * quantity
      toFill -= take
      ;(filled[d] as number[])[i] = take
      if (toFill === 0) break
    }
    if (toFill > 0) return undefined
  }
  return filled
}

const sizeOf = ({ quantity, kits }: Demand) => quantity * kits

/**
 * Fills what was settled of one item: fewest lots in a line, then those first that are to be used up.
 *
 * @param otherwise a filling that is known, for where neither a solver nor plain filling comes to one
 */
function fillItem(
  itemId: number,
  demands: readonly Demand[],
  lots: readonly AllocationLot[],
  solve: Solve,
  proof: Proof,
  otherwise?: readonly Take[],
): Take[] {
  const own: Proof = { proven: true, gap: 0 }
  const best = fillOneLotEach(demands, lots) ?? solvedFill(demands, lots, solve, own)
  // Other lots might have been better; no kit is wanting for it.
  if (!own.proven) proof.proven = false
  if (!best) {
    if (!otherwise) throw new Error('An item that can be filled was not filled.')
    proof.proven = false
    return [...otherwise]
  }
  return demands.flatMap((demand, d) =>
    lots.flatMap(({ lotId }, i) => {
      const kits = best[d]?.[i] ?? 0
      const quantity = kits * takenFrom(demand, lotId)
      return kits > 0 ? [{ line: demand.line, variant: demand.variant ?? 0, itemId, lotId, kits, quantity }] : []
    }),
  )
}

function solvedFill(
  demands: readonly Demand[],
  lots: readonly AllocationLot[],
  solve: Solve,
  proof: Proof,
): number[][] | undefined {
  const plain = fillPlainly(demands, lots)
  const whole = new Map<string, number>()
  const binary = new Set<string>()
  const rows: Row[] = []
  for (const [d, demand] of demands.entries()) {
    const { kits } = demand
    const from: Term[] = []
    for (const [i, { lotId, free }] of lots.entries()) {
      const most = Math.min(kits, Math.floor(free / takenFrom(demand, lotId)))
      if (most === 0) continue
      whole.set(`x${d}_${i}`, most)
      from.push({ times: 1, name: `x${d}_${i}` })
      binary.add(`y${d}_${i}`)
      rows.push(usedRow(`x${d}_${i}`, `y${d}_${i}`, most))
    }
    rows.push({ terms: from, sign: '=', of: kits })
  }
  for (const [i, { lotId, free }] of lots.entries())
    rows.push({
      terms: demands.flatMap((demand, d) =>
        whole.has(`x${d}_${i}`) ? [{ times: takenFrom(demand, lotId), name: `x${d}_${i}` }] : [],
      ),
      sign: '<=',
      of: free,
    })
  const fewest = plain?.every((row) => row.filter((kits) => kits > 0).length <= 1) ?? false
  const lotsUsed = [...binary].map((name) => ({ times: 1, name }))
  const byRank = demands.flatMap((demand, d) =>
    lots.flatMap(({ lotId, rank }, i) =>
      rank > 0 && whole.has(`x${d}_${i}`) ? [{ times: takenFrom(demand, lotId) * rank, name: `x${d}_${i}` }] : [],
    ),
  )
  // One lot for each line is the least there can be: where plain filling has found it, only the order of lots is left to ask.
  if (fewest) rows.push({ terms: lotsUsed, sign: '<=', of: demands.length })
  const goals = [
    ...(fewest ? [] : [{ goal: 'min' as const, objective: lotsUsed }]),
    { goal: 'min' as const, objective: byRank },
  ]
  const values = inOrder(goals, { rows, whole, binary }, solve, proof)
  const solved = demands.map((_, d) => lots.map((_, i) => Math.round(values[`x${d}_${i}`] ?? 0)))
  const complete = solved.every((row, d) => row.reduce((sum, kits) => sum + kits, 0) === demands[d]?.kits)
  if (complete) return solved
  // A limit was reached before anything was found: what plain filling has is still a filling.
  return plain
}

function answer(
  { line, wanted, variants }: AllocationLine,
  takes: readonly Take[],
  lots: ReadonlyMap<number, readonly AllocationLot[]>,
): LineAnswer {
  const kits = variants.map(({ bill }, v) =>
    takes
      .filter((take) => take.line === line && take.variant === v && take.itemId === bill[0]?.itemId)
      .reduce((sum, take) => sum + take.kits, 0),
  )
  const made = kits.reduce((sum, each) => sum + each, 0)
  return { line, kits: made, variants: kits, limitedBy: made < wanted ? limits() : [] }

  function limits(): LineAnswer['limitedBy'] {
    return (variants[0]?.bill ?? []).flatMap(({ itemId, ...need }) => {
      const more = (lots.get(itemId) ?? []).reduce((sum, { lotId, free }) => {
        const taken = takes.filter((take) => take.lotId === lotId).reduce((all, take) => all + take.quantity, 0)
        return sum + Math.floor(Math.max(0, free - taken) / takenFrom(need, lotId))
      }, 0)
      return more === 0 ? [{ itemId, missing: (wanted - made) * need.quantity }] : []
    })
  }
}
