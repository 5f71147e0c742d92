import fc from 'fast-check'
import { evaluatePattern } from '../src/evaluate/evaluate-pattern'
import type { Bodies } from '../src/form/bodies'
import type { Energy } from '../src/form/energy'
import { beginForm } from '../src/form/form'
import { type Beginning, unfold } from '../src/form/unfold'
import { components, graphOf, Ways } from '../src/form/ways'
import { demo, testPiece } from './support'

/** All ways in a graph by trying every point in between (Floyd and Warshall): slow, and plainly right. */
function everyWay(points: number, edges: readonly number[]): number[][] {
  const ways = Array.from({ length: points }, (_, i) =>
    Array.from({ length: points }, (_, j) => (i === j ? 0 : Number.POSITIVE_INFINITY)),
  )
  for (let e = 0; e < edges.length; e += 3) {
    const [a, b, mm] = edges.slice(e, e + 3) as [number, number, number]
    ;(ways[a] as number[])[b] = Math.min((ways[a] as number[])[b] as number, mm)
    ;(ways[b] as number[])[a] = (ways[a] as number[])[b] as number
  }
  for (let k = 0; k < points; k++)
    for (let i = 0; i < points; i++)
      for (let j = 0; j < points; j++) {
        const by = ((ways[i] as number[])[k] as number) + ((ways[k] as number[])[j] as number)
        if (by < ((ways[i] as number[])[j] as number)) (ways[i] as number[])[j] = by
      }
  return ways
}

const graphs = fc.integer({ min: 2, max: 14 }).chain((points) =>
  fc.record({
    points: fc.constant(points),
    edges: fc
      .array(fc.tuple(fc.nat(points - 1), fc.nat(points - 1), fc.double({ min: 0.1, max: 9, noNaN: true })), {
        maxLength: 40,
      })
      .map((list) => list.filter(([a, b]) => a !== b).flat()),
  }),
)

test('shortest ways are those found by trying everything, and as far as they are asked for', () => {
  fc.assert(
    fc.property(graphs, ({ points, edges }) => {
      const every = everyWay(points, edges)
      const ways = new Ways(graphOf(points, edges))
      for (let from = 0; from < points; from++) {
        ways.from(from)
        for (let to = 0; to < points; to++) expect(ways.mm[to]).toBeCloseTo(every[from]?.[to] as number, 9)
        ways.from(from, 4)
        expect([...ways.reached].sort((a, b) => a - b)).toEqual(
          (every[from] as number[]).flatMap((mm, to) => (mm <= 4 ? [to] : [])),
        )
      }
    }),
  )
})

test('points hang together where a way leads from one to the other', () => {
  fc.assert(
    fc.property(graphs, ({ points, edges }) => {
      const every = everyWay(points, edges)
      const sets = components(graphOf(points, edges))
      expect(sets.flat().sort((a, b) => a - b)).toEqual(Array.from({ length: points }, (_, i) => i))
      for (const set of sets)
        for (const a of set)
          for (let b = 0; b < points; b++) expect(set.includes(b)).toBe((every[a]?.[b] as number) < Infinity)
    }),
  )
})

test('a grid of points unfolds flat, with its neighbours as far apart as they are said to be', () => {
  const side = 9
  const edges: number[] = []
  for (let x = 0; x < side; x++)
    for (let y = 0; y < side; y++) {
      if (x + 1 < side) edges.push(x * side + y, (x + 1) * side + y, 1)
      if (y + 1 < side) edges.push(x * side + y, x * side + y + 1, 1)
    }
  const [{ at }] = unfold(graphOf(side * side, edges)) as [Beginning]
  for (let e = 0; e < edges.length; e += 3) {
    const [a, b] = [3 * (edges[e] as number), 3 * (edges[e + 1] as number)]
    const apart = Math.hypot(...[0, 1, 2].map((c) => (at[a + c] as number) - (at[b + c] as number)))
    expect(apart).toBeGreaterThan(0.6)
    expect(apart).toBeLessThan(1.3)
  }
  expect(unfold(graphOf(side * side, edges))).toEqual([{ at, isFlat: false }])
})

/** A stone with rounds on both faces, beads with two bores, beads that stand: everything that pulls and pushes. */
test.each([
  ...['windlass-pendant', 'lockgate-cuff', 'bullseye-pendant', 'cross-keys-strip'].map((name) => [name, demo(name)]),
  ...['drops-and-daggers', 'crescent-chain', 'two-hole-row', 'cross-drilled'].map((name) => [name, testPiece(name)]),
])('%s: the slope of the energy is what differences say, wherever it lies', (_, source) => {
  const { settling } = beginForm(evaluatePattern(source as string))
  settling.run(60)
  const { energy, bodies } = settling as unknown as { energy: Energy; bodies: Bodies }
  const size = bodies.count * 6
  energy.evaluate()
  bodies.gather(energy.onSolids, 'slope')
  const slope = Float64Array.from(energy.kernel.floats('slope'))
  const kept = bodies.save()
  const moved = (freedom: number, by: number) => {
    energy.kernel.floats('step').fill(0)[freedom] = 1
    bodies.move(by)
    const found = energy.evaluate()
    bodies.restore(kept)
    return found
  }
  for (let i = 0; i < size; i += 7) {
    const differences = (moved(i, 1e-5) - moved(i, -1e-5)) / 2e-5
    expect(Math.abs(differences - (slope[i] as number))).toBeLessThan(0.03 + 0.01 * Math.abs(differences))
  }
})
