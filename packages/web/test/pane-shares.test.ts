import fc from 'fast-check'
import { keepShares, keptShares, sharesOf } from '../src/frame/pane-shares'

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
