import { asRun, type BeadList, readBeadList, rolesIn } from '../../notation/bead-list'
import { LineFault } from '../../notation/fault'
import { runsOf, shortestCycle } from '../action'
import { beadOf } from '../hole'
import { readMark } from '../mark'
import { plainGroup } from '../rail'
import type { Technique } from '../technique'

/** `ring (3A B) x n/4`, `ring A x n as wall`: strings beads and closes them, by passing through them again where that is the shop's way. */
export const ringTechnique: Technique<{ list: BeadList; name: string | undefined }> = {
  word: 'ring',
  read: (cursor) => ({ list: readBeadList(cursor, 'ring'), name: readMark(cursor) }),
  work({ list, name }, bench, span) {
    const { work } = bench
    for (const { role, span: at } of rolesIn(list)) bench.beadRole(role, at)
    const run = asRun(list, bench)
    if (run.length < 3)
      throw new LineFault(list.span, `A ring of ${run.length} beads does not close.`, 'A ring has 3 beads or more.')
    const again = bench.settings.closing === 'pass again' || bench.settings.closing === 'knot and pass again'
    bench.makeRoom(run.length, again ? run.length : 0, span)
    bench.threadUp(span)
    const from = work.passes
    const holes = run.map((letter, i) =>
      work.pick(bench.beadRole(letter, list.span), 'ring', bench.statement, { turn: (i + 0.5) / run.length, row: 0 }),
    )
    const closed = work.passes
    if (again) for (const h of holes) work.pass(h, 'ring', bench.statement)
    bench.edges = {
      front: {
        closed: true,
        groups: holes.map((h) => plainGroup([h])),
        fresh: true,
        ringCount: run.length,
        perRingBead: 1,
        row: 0,
        side: 1,
      },
    }
    const mean = (of: (role: number) => number) =>
      holes.reduce((sum, h) => sum + of(work.role(beadOf(h))), 0) / holes.length
    bench.ring = { beads: run.length, lengthMm: mean(bench.lengthOf) * run.length, acrossMm: mean(bench.acrossOf) }
    bench.edge = 'front'
    bench.roundsOn = { front: 0, back: 0 }
    bench.mark(name ?? 'new', holes)
    bench.trail = again ? { what: 'ring', from: closed, to: work.passes } : { what: 'ring', from, to: closed }
    const { cycle, repeats } = shortestCycle(run, (a, b) => a === b)
    return { type: 'ring', pattern: runsOf(cycle), repeats, beads: run.length, again }
  },
}
