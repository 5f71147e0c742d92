import { LineFault } from '../../notation/fault'
import { readTarget, type TargetWords } from '../../notation/target-words'
import type { Bench } from '../bench'
import { beadOf, type Hole } from '../hole'
import { turned } from '../rail'
import { find } from '../target'
import type { Technique } from '../technique'
import { shortestWay } from '../travel'

/** `to any B`, `to bail.middle`, `to front`: travels to the nearest such bead. */
export const toTechnique: Technique<TargetWords> = {
  word: 'to',
  read: (cursor) => readTarget(cursor),
  work(target, bench, span) {
    const { work } = bench
    const needle = bench.needle('to', span)
    const wanted = new Set(find(target, bench).map(beadOf))
    const way = wanted.has(beadOf(needle))
      ? []
      : shortestWay(work, needle, bench.walkCost, (h) => wanted.has(beadOf(h)))
    if (!way)
      throw new LineFault(target.span, 'No thread leads there from here.', 'Finish here and begin a new part there.')
    bench.makeRoom(0, way.length, span)
    for (const h of way) work.pass(h, 'travel', bench.statement)
    standOnRail(way[way.length - 1] ?? needle, bench)
    return { type: 'to', target: 'role' in target.base ? target.base.role : target.base.name, passed: way.length }
  },
}

/** When the walk ends on an edge, rounds go on from there. */
function standOnRail(needle: Hole, bench: Bench): void {
  for (const edge of ['front', 'back'] as const) {
    const rail = bench.edges[edge]
    const at = rail?.groups.findIndex((group) => group.stands[group.stands.length - 1] === needle) ?? -1
    if (rail && at >= 0) {
      bench.edge = edge
      bench.edges[edge] = turned(rail, at + 1)
      return
    }
  }
}
