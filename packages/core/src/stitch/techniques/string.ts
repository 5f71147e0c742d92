import { asRun, type BeadList, readBeadList, rolesIn } from '../../notation/bead-list'
import { runsOf } from '../action'
import { readMark } from '../mark'
import { plainGroup } from '../rail'
import type { Technique } from '../technique'

/** `string 20A`: strings beads and leaves them open: the first row of flat work, or a strand. */
export const stringTechnique: Technique<{ list: BeadList; name: string | undefined }> = {
  word: 'string',
  read: (cursor) => ({ list: readBeadList(cursor, 'string'), name: readMark(cursor) }),
  work({ list, name }, bench, span) {
    const { work } = bench
    for (const { role, span: at } of rolesIn(list)) bench.beadRole(role, at)
    const run = asRun(list, bench)
    bench.makeRoom(run.length, 0, span)
    bench.threadUp(span)
    const from = work.passes
    const holes = run.map((letter, i) =>
      work.pick(bench.beadRole(letter, list.span), 'ring', bench.statement, { turn: (i + 0.5) / run.length, row: 0 }),
    )
    bench.edges = {
      front: {
        closed: false,
        groups: holes.map((h) => plainGroup([h])),
        fresh: true,
        ringCount: run.length,
        perRingBead: 1,
        row: 0,
        side: 1,
      },
    }
    bench.edge = 'front'
    bench.roundsOn = { front: 0, back: 0 }
    bench.mark(name ?? 'new', holes)
    bench.trail = { what: 'run', from, to: work.passes }
    return { type: 'string', beads: runsOf(run), name }
  },
}
