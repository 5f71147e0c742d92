import { LineFault } from '../../notation/fault'
import type { Hole } from '../hole'
import { turned } from '../rail'
import type { Technique } from '../technique'
import { wayTo } from '../travel'

/** `other edge`: travels through the work to the edge that the last rounds did not grow from. */
export const otherEdgeTechnique: Technique<null> = {
  word: 'other',
  read(cursor) {
    const word = cursor.expect('Word', '"edge"', 'Write: other edge.')
    if (word.text !== 'edge')
      throw new LineFault(word, `Expected "edge" after "other", found "${word.text}".`, 'Write: other edge.', 'edge')
    return null
  },
  work(_, machine, span) {
    const { work } = machine
    const needle = machine.needle('other edge', span)
    machine.rail('other edge', span)
    const other = machine.edges.inHand === 'front' ? 'back' : 'front'
    const rail = machine.edges.rails[other]
    if (!rail) {
      throw machine.missing(
        span,
        'The ring has no other edge until a round has been stitched on it.',
        'Stitch a round first, for example: round A.',
      )
    }
    const lasts = new Map<Hole, number>(
      rail.groups.map((group, i) => [group.stands[group.stands.length - 1] as Hole, i]),
    )
    const way = wayTo(machine, needle, span, (h) => lasts.has(h))
    if (!way)
      throw new LineFault(
        span,
        'No thread leads from here to the other edge.',
        'Finish here and begin a new thread there.',
      )
    machine.makeRoom(0, way.length, span)
    for (const h of way) work.pass(h, 'travel', machine.statement)
    const landed = lasts.get(way[way.length - 1] as Hole) as number
    machine.edges.rails[other] = turned(rail, landed + 1)
    machine.edges.inHand = other
    return { type: 'other edge', edge: other, passed: way.length, fresh: rail.fresh }
  },
}
