import fc from 'fast-check'
import { barMoved, keepShares, keptShares, sharesOf } from '../src/frame/pane-shares'

const usual = [600, 350, 250]
const browser = (kept: Record<string, string> = {}) =>
  ({
    getItem: (name: string) => kept[name] ?? null,
    setItem: (name: string, value: string) => void Object.assign(kept, { [name]: value }),
  }) as unknown as Storage

test('panes stand as they were left, in a window of any width; a folded one stays folded', () => {
  const width = fc.integer({ min: 1, max: 3000 })
  fc.assert(
    fc.property(width, width, fc.constantFrom(0, 200), (a, b, c) => {
      const memory = browser()
      keepShares('pattern', sharesOf([a, b, c]), memory)
      const shares = keptShares('pattern', usual, memory)
      for (const [i, each] of [a, b, c].entries()) expect((shares[i] as number) * (a + b + c)).toBeCloseTo(each, 6)
      // Of other panes nothing is known.
      expect(keptShares('pattern by hand', usual, memory)).toEqual([0.5, 350 / 1200, 250 / 1200])
    }),
  )
})

test.each(['', 'null', '{', '[1]', '[0.5, 0.5]', '[1, 1, 1]', '[2, -1, 0]', '["a", "b", "c"]', '[0.5, null, 0.5]'])(
  'what is kept and cannot be theirs is left alone: %s',
  (text) => expect(keptShares('pattern', usual, browser({ 'panes:pattern': text }))).toEqual(sharesOf(usual)),
)

test('a bar that is moved takes from one pane what it gives the other, and leaves each as much as it needs', () => {
  const px = fc.integer({ min: 0, max: 900 })
  fc.assert(
    fc.property(
      fc.tuple(px, px, px),
      fc.tuple(px, px, px),
      fc.constantFrom(0, 1),
      fc.integer({ min: -99, max: 99 }),
      (widths, least, bar, by) => {
        const width = Math.max(1, widths[0] + widths[1] + widths[2])
        const shares = widths.map((each) => each / width)
        const moved = barMoved(shares, least, bar, by, width)
        expect(moved.reduce((sum, each) => sum + each, 0)).toBeCloseTo(
          shares.reduce((sum, each) => sum + each, 0),
          9,
        )
        const [before = 0, after = 0] = [widths[bar], widths[bar + 1]]
        const [leastBefore = 0, leastAfter = 0] = [least[bar], least[bar + 1]]
        const other = bar === 0 ? 2 : 0
        expect(moved[other]).toBe(shares[other])
        if (leastBefore + leastAfter > before + after) return expect(moved).toEqual(shares)
        // The second way: pixel by pixel, from where both have enough.
        let at = Math.min(Math.max(before, leastBefore), before + after - leastAfter)
        const wanted = before + by
        while (at < wanted && before + after - at > leastAfter) at++
        while (at > wanted && at > leastBefore) at--
        expect((moved[bar] as number) * width).toBeCloseTo(at, 6)
      },
    ),
  )
})
