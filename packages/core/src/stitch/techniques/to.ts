import { LineFault, type Span } from '../../notation/fault'
import { nearest } from '../../notation/nearest'
import type { Bench } from '../bench'
import { beadOf, type Hole } from '../hole'
import { turned } from '../rail'
import type { Technique } from '../technique'
import { shortestWay } from '../travel'

/** Where `to` goes: a bead of a role, or the first, middle or last of something marked. */
type Target =
  | { readonly type: 'role'; readonly role: string; readonly span: Span }
  | {
      readonly type: 'mark'
      readonly name: string
      readonly which: 'first' | 'middle' | 'last' | 'any'
      readonly span: Span
    }

/** `to any B`, `to bail.middle`, `to front`: travels to the nearest such bead. */
export const toTechnique: Technique<Target> = {
  word: 'to',
  read(cursor) {
    cursor.take('Word', 'any')
    const role = cursor.take('Name')
    if (role) return { type: 'role', role: role.text, span: role }
    const name = cursor.expect('Word', 'where to go', 'For example: to any B, to front, to bail.middle.')
    let which: 'first' | 'middle' | 'last' | 'any' = 'any'
    let end = name.to
    if (cursor.take('Mark', '.')) {
      const word = cursor.expect('Word', 'first, middle or last')
      if (word.text !== 'first' && word.text !== 'middle' && word.text !== 'last') {
        throw new LineFault(word, `"${word.text}" is not a place in "${name.text}".`, 'Say first, middle or last.')
      }
      which = word.text
      end = word.to
    }
    return { type: 'mark', name: name.text, which, span: { from: name.from, to: end } }
  },
  work(target, bench, span) {
    const { work } = bench
    const needle = bench.needle('to', span)
    const wanted = targetBeads(target, bench)
    const way = wanted.has(beadOf(needle))
      ? []
      : shortestWay(work, needle, bench.walkCost, (h) => wanted.has(beadOf(h)))
    if (!way)
      throw new LineFault(target.span, 'No thread leads there from here.', 'Finish here and begin a new part there.')
    bench.makeRoom(0, way.length, span)
    for (const h of way) work.pass(h, 'travel', bench.statement)
    standOnRail(way[way.length - 1] ?? needle, bench)
    return { type: 'to', target: target.type === 'role' ? target.role : target.name, passed: way.length }
  },
}

function targetBeads(target: Target, bench: Bench): Set<number> {
  const { work } = bench
  if (target.type === 'role') {
    const role = bench.beadRole(target.role, target.span)
    const found = new Set<number>()
    for (let bead = 0; bead < work.beads; bead++) if (work.role(bead) === role) found.add(bead)
    if (found.size === 0)
      throw new LineFault(
        target.span,
        `No ${target.role} has been picked up yet.`,
        'Put this line below the one that picks it up.',
      )
    return found
  }
  const holes: readonly Hole[] | undefined =
    target.name === 'front' || target.name === 'back'
      ? bench.edges[target.name]?.groups.flat()
      : bench.marks.get(target.name)
  if (!holes || holes.length === 0) {
    const known = [...bench.marks.keys(), ...Object.keys(bench.edges)]
    const guess = nearest(target.name, known)
    throw new LineFault(
      target.span,
      `Nothing is marked "${target.name}".`,
      guess
        ? `Did you mean "${guess}"?`
        : known.length > 0
          ? `Marked here: ${known.join(', ')}.`
          : 'Mark it where it is made, for example: loop 9C as bail.',
    )
  }
  const at =
    target.which === 'first' ? 0 : target.which === 'last' ? holes.length - 1 : Math.floor((holes.length - 1) / 2)
  return new Set(target.which === 'any' ? holes.map(beadOf) : [beadOf(holes[at] as Hole)])
}

/** When the walk ends on an edge, rounds go on from there. */
function standOnRail(needle: Hole, bench: Bench): void {
  for (const edge of ['front', 'back'] as const) {
    const rail = bench.edges[edge]
    const at = rail?.groups.findIndex((group) => group[group.length - 1] === needle) ?? -1
    if (rail && at >= 0) {
      bench.edge = edge
      bench.edges[edge] = turned(rail, at + 1)
      return
    }
  }
}
