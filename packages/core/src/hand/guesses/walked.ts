/** Ways through beads that are there. */
import { beadOf } from '../../stitch/hole'
import { namesOf } from '../place-names'
import type { Guess } from './guess'

/** `again`, `reinforce 2`, `go 3`, `go back 1`, `turn`, `other edge`. */
export const againGuess: Guess = function* ({ passes, picked }, machine) {
  if (picked.length > 0 || machine.work.needle === undefined) return
  const n = passes.length
  const { trail } = machine
  const length = trail ? trail.to - trail.from : 0
  yield 'turn'
  yield 'other edge'
  yield 'again'
  yield 'reinforce'
  if (length > 0 && n > length) yield `reinforce ${Math.ceil(n / length)}`
  yield `go ${n}`
  yield `go back ${n}`
}

/** `to bail`, `to any B`, `to base[7]`: by the shortest way to where the hand has come. */
export const toGuess: Guess = function* ({ holes, picked }, machine) {
  const last = holes.at(-1)
  if (picked.length > 0 || last === undefined || machine.work.needle === undefined) return
  const bead = beadOf(last)
  // The hand may end in a bead that it has picked up itself.
  if (bead >= machine.work.beads) return
  for (const name of machine.markNames()) if (machine.marked(name)?.some((h) => beadOf(h) === bead)) yield `to ${name}`
  yield `to any ${machine.letterOfBead(bead)}`
  for (const { text } of namesOf(last, machine)) {
    yield `to ${text}`
    yield `through ${text}`
    yield `through <${text}`
  }
}

/** `through base`, `through base next 8`: all of what bears a name, or the next of it. */
export const throughGuess: Guess = function* ({ holes, picked }, machine) {
  const [first] = holes
  if (picked.length > 0 || first === undefined || machine.work.needle === undefined) return
  for (const name of ['new', ...machine.markNames()]) {
    const marked = machine.marked(name)
    if (!marked?.some((h) => beadOf(h) === beadOf(first))) continue
    yield `through ${name}`
    yield `through <${name}`
    yield `through ${name} next ${holes.length}`
  }
}
