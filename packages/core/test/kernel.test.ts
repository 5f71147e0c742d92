import fc from 'fast-check'
import { evaluatePattern } from '../src/evaluate/evaluate-pattern'
import { Energy } from '../src/form/energy'
import { contactOf } from '../src/form/forces/press'
import { pieceAndSeats } from '../src/form/form'
import { Kernel } from '../src/form/kernel/kernel'
import { Minimiser, minimiserColumns } from '../src/form/minimise'
import { testPiece } from './support'

const still = { stiffness: 1, room: 0, rubbing: 0, mat: 0 }

/** A large bead among small ones, and some with several contact centres. */
const source = `pattern Heap
bead A round 11/0
bead B round 6/0
bead C bugle 3
bead D round 20mm
part heap
pick 12A 2B 2C 1D 8A
`

const pieces = [source, testPiece('two-hole-row')].map((each) => pieceAndSeats(evaluatePattern(each)).piece)

test('the pairs that are found are all that are near, in order, wherever beads lie', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...pieces),
      fc.infiniteStream(fc.double({ min: -1, max: 1, noNaN: true })),
      fc.constantFrom(2, 8, 40),
      (piece, places, wide) => {
        for (let i = 0; i < piece.at.length; i++) piece.at[i] = wide * (places.next().value as number)
        const energy = Energy.of(piece, 1, still)
        energy.evaluate()
        const { centres, grid } = contactOf(piece)
        const at = energy.kernel.floats('centre')
        const near: string[] = []
        for (let i = 0; i < centres.count; i++)
          for (let j = 0; j < centres.count; j++) {
            const reach = (centres.farthest[i] as number) + (centres.farthest[j] as number) + grid.marginMm
            const apart = Math.hypot(...[0, 1, 2].map((c) => (at[3 * i + c] as number) - (at[3 * j + c] as number)))
            if (i < j && centres.bead[i] !== centres.bead[j] && apart <= reach) near.push(`${i} ${j}`)
          }
        const pairs = energy.kernel.pairs()
        const found = Array.from({ length: pairs.length / 2 }, (_, k) => [pairs[2 * k], pairs[2 * k + 1]] as number[])
        const small = found.filter((pair) => pair.every((each) => !grid.large.includes(each)))
        energy.kernel.release()
        expect(small).toEqual([...small].sort(([a, b], [c, d]) => Number(a) - Number(c) || Number(b) - Number(d)))
        expect(found.map((pair) => pair.sort((a, b) => a - b).join(' ')).sort()).toEqual(near.sort())
      },
    ),
  )
})

test('a heap of beads at one place has more pairs than there is memory at first, and what lies before them stays', () => {
  const heap = `pattern Heap\nbead A round 11/0\npart heap\npick 700A\n`
  const { piece } = pieceAndSeats(evaluatePattern(heap))
  for (let p = 0; p < piece.at.length; p++) piece.at[p] = p % 6 === 0 ? -0.6 : p % 6 === 3 ? 0.6 : 0
  const energy = Energy.of(piece, 1, still)
  energy.evaluate()
  expect(energy.kernel.pairs().length / 2).toBe((700 * 699) / 2)
  expect(energy.kernel.floats('at')).toEqual(piece.at)
  // Nothing that lies quite the same is pushed to one side.
  expect(energy.kernel.floats('onPoints').every((each) => Number.isFinite(each))).toBe(true)
  energy.kernel.release()
})

test('a bowl of any shape is followed to its lowest place', () => {
  const size = 6
  const numbers = fc.array(fc.double({ min: -1, max: 1, noNaN: true }), { minLength: size, maxLength: size })
  fc.assert(
    fc.property(fc.array(numbers, { minLength: size, maxLength: size }), numbers, (rows, lowest) => {
      // M'M + 0.1 is steep in some directions and shallow in others, and has one lowest place.
      const steep = (i: number, j: number) =>
        rows.reduce((sum, row) => sum + (row[i] as number) * (row[j] as number), i === j ? 0.1 : 0)
      const kernel = new Kernel(minimiserColumns(size))
      const at = new Float64Array(size)
      const kept = new Float64Array(size)
      const minimiser = new Minimiser(kernel, {
        size,
        evaluate(into) {
          const off = at.map((each, i) => each - (lowest[i] as number))
          const slope = kernel.floats(into)
          for (let i = 0; i < size; i++) slope[i] = off.reduce((sum, each, j) => sum + steep(i, j) * each, 0)
          return slope.reduce((sum, each, i) => sum + (each * (off[i] as number)) / 2, 0)
        },
        move(by) {
          for (const [i, each] of kernel.floats('step').entries()) at[i] = (at[i] as number) + by * each
        },
        keep: () => kept.set(at),
        putBack: () => at.set(kept),
      })
      for (let i = 0; i < 300 && !minimiser.stuck; i++) minimiser.iterate()
      kernel.release()
      for (let i = 0; i < size; i++) expect(at[i]).toBeCloseTo(lowest[i] as number, 4)
    }),
  )
})

test('memory that is used again is empty, and a column that no loop knows is refused', () => {
  const first = new Kernel({ step: Float64Array.of(1, 2, 3, 4) })
  expect([...first.floats('step')]).toEqual([1, 2, 3, 4])
  first.release()
  const second = new Kernel({ slope: 100_000, step: 4 })
  expect(second.floats('step')).toEqual(new Float64Array(4))
  expect(second.floats('slope')).toEqual(new Float64Array(100_000))
  second.release()
  expect(() => new Kernel({ stepp: 4 })).toThrow('The loops know no column stepp.')
})
