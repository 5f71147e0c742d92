import fc from 'fast-check'
import { sameStatement } from '../src/piece/same-statement'

const lines = (texts: readonly string[]) => texts.map((text) => ({ text }))
const some = fc.array(fc.constantFrom('round A', 'round B', 'reinforce', 'turn'), { maxLength: 12 })

test('before and after an edit every statement is found again, and what was edited is not', () => {
  fc.assert(
    fc.property(fc.nat(12), some, some, fc.nat(12), (head, taken, put, tail) => {
      const named = (name: string, count: number) => Array.from({ length: count }, (_, i) => `${name} ${i}`)
      const [first, last] = [named('first', head), named('last', tail)]
      const from = lines([...first, ...taken.map((text) => `old ${text}`), ...last])
      const to = lines([...first, ...put, ...last])
      const found = from.map((_, i) => sameStatement(from, to, i))
      const wanted = from.map((_, i) =>
        i < head ? i : i >= head + taken.length ? i + put.length - taken.length : undefined,
      )
      expect(found).toEqual(wanted)
    }),
  )
})

test('whatever two texts there are, a statement that is found reads the same, and back again leads to one that does', () => {
  fc.assert(
    fc.property(some, some, (a, b) => {
      const [from, to] = [lines(a), lines(b)]
      for (const [i, text] of a.entries()) {
        const found = sameStatement(from, to, i)
        if (found === undefined) continue
        expect(b[found]).toBe(text)
        expect(a[sameStatement(to, from, found) as number]).toBe(text)
      }
      expect([sameStatement(from, to, -1), sameStatement(from, to, a.length)]).toEqual([undefined, undefined])
    }),
  )
})
