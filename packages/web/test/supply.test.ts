/** What there is and what is wanted, in one bar, whatever the figures are. */
import fc from 'fast-check'
import { supplyBar } from '../src/buying/supply'

const quantity = fc.nat(1_000_000)

test('the parts stand one after the other in the bar, in proportion, and every mark lies on it', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: -9000, max: 1_000_000 }),
      quantity,
      quantity,
      quantity,
      quantity,
      (free, coming, amount, planned, reorderBelow) => {
        const { parts, planned: mark, kept } = supplyBar({ free, coming, amount, planned, reorderBelow })
        let at = 0
        for (const { from, to } of parts) {
          expect(from).toBeCloseTo(at, 9)
          expect(to).toBeGreaterThan(from)
          at = to
        }
        expect(at).toBeLessThanOrEqual(1)
        for (const each of [mark, kept]) if (each !== undefined) expect(each >= 0 && each <= 1).toBe(true)
        // Where all of it is bought, the bar reaches the mark exactly when there is enough.
        if (mark !== undefined) expect(at >= mark - 1e-9).toBe(Math.max(0, free) + coming + amount >= planned)
        if (kept !== undefined)
          expect(at >= kept - 1e-9).toBe(Math.max(0, free) + coming + amount >= planned + reorderBelow)
      },
    ),
  )
})
