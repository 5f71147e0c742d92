import { type BeadList, readBeadList } from '../../notation/bead-list'
import { type Mark, readMark } from '../mark'
import { runsOf } from '../runs'
import { freshRail, string } from '../strung'
import type { Technique } from '../technique'

/** `string 20A`: strings beads and leaves them open: the first row of flat work, or a strand. */
export const stringTechnique: Technique<{ list: BeadList; name: Mark | undefined }> = {
  word: 'string',
  read: (cursor) => ({ list: readBeadList(cursor, 'string'), name: readMark(cursor) }),
  work({ list, name }, machine) {
    const from = machine.work.passes
    const strung = string(list, machine, 'row')
    const { run, holes } = strung
    machine.standOn(freshRail(strung, false))
    machine.marks.add(name, holes)
    machine.trail = { what: 'run', from, to: machine.work.passes }
    return { type: 'string', beads: runsOf(run), name }
  },
}
