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
import { fillOneLotEach } from './one-lot-each'
import { type Programme, type Row, type Term, written } from './programme'

interface Proof {
  proven: boolean
  gap: number
}

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

/** Lines that cannot all be filled, or only perhaps: all questions at once, over every item they need. */
function fillJointly(
  lines: readonly AllocationLine[],
  lots: ReadonlyMap<number, readonly AllocationLot[]>,
  solve: Solve,
  proof: Proof,
): Take[] {
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
        for (const lot of lots.get(itemId) ?? []) {
          const quantity = takenFrom(need, lot.lotId)
          const most = Math.min(wanted, Math.floor(lot.free / quantity))
          if (most === 0) continue
          const name = `x${l}_${variant}_${lot.lotId}`
          // A lot counts once for a line, whatever variants of it take from it.
          const used = `y${l}_${lot.lotId}`
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
  if (Object.keys(values).length === 0) return plainly(lines, lots)
  return takes.flatMap(({ name, each, ...take }) => {
    const kits = Math.round(values[name] ?? 0)
    return kits > 0 ? [{ ...take, kits, quantity: kits * each }] : []
  })
}

/** Where the limit was reached before the solver had anything: as planned, kit by kit, the more urgent line first. */
function plainly(lines: readonly AllocationLine[], lots: ReadonlyMap<number, readonly AllocationLot[]>): Take[] {
  const left = new Map([...lots.values()].flat().map(({ lotId, free }) => [lotId, free]))
  const taken = new Map<string, Take>()
  for (const { line, wanted, variants } of [...lines].sort((a, b) => a.priority - b.priority)) {
    for (let kit = 0; kit < wanted; kit++) {
      const from = (variants[0]?.bill ?? []).map(({ itemId, ...need }) => ({
        itemId,
        need,
        lot: lots.get(itemId)?.find(({ lotId }) => (left.get(lotId) ?? 0) >= takenFrom(need, lotId)),
      }))
      if (from.some(({ lot }) => lot === undefined)) break
      for (const { itemId, need, lot } of from) {
        const { lotId } = lot as AllocationLot
        const quantity = takenFrom(need, lotId)
        left.set(lotId, (left.get(lotId) ?? 0) - quantity)
        const before = taken.get(`${line} ${lotId}`)
        const kits = (before?.kits ?? 0) + 1
        taken.set(`${line} ${lotId}`, { line, variant: 0, itemId, lotId, kits, quantity: kits * quantity })
      }
    }
  }
  return [...taken.values()]
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

type Goal = Pick<Programme, 'goal' | 'objective'>

/** One goal after the other, each kept at its best while the next is sought. */
function inOrder(
  goals: readonly Goal[],
  base: Pick<Programme, 'rows' | 'whole' | 'binary'>,
  solve: Solve,
  proof: Proof,
): Readonly<Record<string, number>> {
  const rows = [...base.rows]
  let values: Readonly<Record<string, number>> = {}
  for (const { goal, objective } of goals) {
    const found = solve(written({ ...base, goal, objective, rows }))
    if (found.status === 'infeasible') {
      // What was reached before cannot be kept: rounding, and no proof.
      proof.proven = false
      break
    }
    if (found.status === 'limit') {
      proof.proven = false
      proof.gap = Math.max(proof.gap, found.gap)
      // What was found before still stands, where the limit left nothing better.
      if (Object.keys(found.values).length > 0) values = found.values
      break
    }
    values = found.values
    rows.push({ terms: objective, sign: goal === 'max' ? '>=' : '<=', of: Math.round(found.objective) })
  }
  return values
}

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

/** Fills what was settled of one item: fewest lots in a line, then those first that are to be used up. */
function fillItem(
  itemId: number,
  demands: readonly Demand[],
  lots: readonly AllocationLot[],
  solve: Solve,
  proof: Proof,
): Take[] {
  const best = fillOneLotEach(demands, lots) ?? solvedFill(demands, lots, solve, proof)
  return demands.flatMap((demand, d) =>
    lots.flatMap(({ lotId }, i) => {
      const kits = best[d]?.[i] ?? 0
      const quantity = kits * takenFrom(demand, lotId)
      return kits > 0 ? [{ line: demand.line, variant: 0, itemId, lotId, kits, quantity }] : []
    }),
  )
}

function solvedFill(
  demands: readonly Demand[],
  lots: readonly AllocationLot[],
  solve: Solve,
  proof: Proof,
): number[][] {
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
  if (plain) return plain
  throw new Error('An item that can be filled was not filled.')
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
