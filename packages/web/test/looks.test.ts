/** What is picked out of a piece, against a naive way of telling it: bead by bead, from all passes. */
import type { Scene } from '@tessellum/core/drawing/scene'
import fc from 'fast-check'
import { looksAt, looksOfLine } from '../src/piece/looks'

const scene = fc
  .array(fc.record({ bead: fc.nat(11), statement: fc.nat(4) }), { minLength: 1, maxLength: 60 })
  .map((laid) => {
    const first = new Map<number, number>()
    let doing = 0
    const passes = laid.map(({ bead, statement }, pass) => {
      const fresh = !first.has(bead)
      if (fresh) first.set(bead, pass)
      // A line that is done again is another doing of it.
      if (pass > 0 && laid[pass - 1]?.statement !== statement) doing++
      return { bead, statement, fresh, doing }
    })
    const beads = Array.from({ length: 12 }, (_, bead) => ({
      statement: passes.find((pass) => pass.bead === bead)?.statement ?? -1,
    }))
    return { passes, beads } as unknown as Scene
  })

test('of the walk: nothing that comes later is seen, what was just picked up stands out, what was passed is marked', () => {
  fc.assert(
    fc.property(scene, fc.nat(60), fc.nat(60), (piece, a, b) => {
      const length = piece.passes.length
      const [from, to] = [Math.min(a, b, length), Math.min(Math.max(a, b), length)]
      const { looks, passes } = looksAt(piece, from, to)
      expect(passes).toEqual(from < to ? [from, to] : undefined)
      for (let bead = 0; bead < 12; bead++) {
        const at = piece.passes.flatMap((pass, i) => (pass.bead === bead && i < to ? [i] : []))
        const now = at.filter((i) => i >= from)
        const wanted =
          at.length === 0
            ? 'hidden'
            : now.length === 0
              ? 'quiet'
              : now.some((i) => piece.passes[i]?.fresh)
                ? 'new'
                : 'passed'
        expect(looks(bead)).toBe(wanted)
      }
    }),
  )
})

test('of a line: what it ever picks up is new, what it passes the first time is marked, all else is quiet', () => {
  fc.assert(
    fc.property(scene, fc.nat(5), (piece, statement) => {
      const found = looksOfLine(piece, statement)
      const from = piece.passes.findIndex((pass) => pass.statement === statement)
      if (from < 0) return expect(found).toBeUndefined()
      const doing = piece.passes[from]?.doing
      const first = piece.passes.filter((pass) => pass.doing === doing)
      expect(found?.passes).toEqual([from, from + first.length])
      for (let bead = 0; bead < 12; bead++)
        expect(found?.looks(bead)).toBe(
          piece.beads[bead]?.statement === statement
            ? 'new'
            : first.some((pass) => pass.bead === bead)
              ? 'passed'
              : 'quiet',
        )
    }),
  )
})
