import { asRun, type BeadList, readBeadList, rolesIn } from '../../notation/bead-list'
import { runsOf } from '../action'
import { beadOf } from '../hole'
import { readMark } from '../mark'
import type { Technique } from '../technique'

/** `loop 9C as bail`: picks up beads and passes again, the same way, through the bead just left. */
export const loopTechnique: Technique<{ list: BeadList; name: string | undefined }> = {
  word: 'loop',
  read: (cursor) => ({ list: readBeadList(cursor, 'loop'), name: readMark(cursor) }),
  work({ list, name }, bench, span) {
    const { work } = bench
    const from = bench.needle('loop', span)
    for (const { role, span: at } of rolesIn(list)) bench.beadRole(role, at)
    const run = asRun(list, bench)
    bench.makeRoom(run.length, 1, span)
    const begun = work.passes
    const holes = run.map((letter, i) =>
      work.pick(bench.beadRole(letter, list.span), i === 0 ? 'right angle' : 'ring', bench.statement, {
        turn: (i + 1) / (run.length + 1),
        row: run.length,
        base: beadOf(from),
      }),
    )
    work.pass(from, 'right angle', bench.statement)
    if (name) bench.marks.set(name, holes)
    bench.trail = { what: 'loop', from: begun, to: work.passes }
    return { type: 'loop', beads: runsOf(run), name, through: bench.letterOf(work.role(beadOf(from))) }
  },
}
