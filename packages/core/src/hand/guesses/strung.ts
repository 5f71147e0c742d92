/** Beads strung, closed into a ring, looped, hung. */
import { fitStand } from '../../sizing/stand'
import { namesOf } from '../place-names'
import { periodOf, shortRun } from '../shorten'
import { type Guess, type Hand, isOwn, itemOf } from './guess'

/** `string 12A`, `ring (3A B) x 9`; of one turn of a ring round a stone, the ring that fits it. */
export const strungGuess: Guess = function* (hand, machine) {
  const { picked, plain } = hand
  if (picked.length === 0 || !plain || picked.some((item) => item.includes(':'))) return
  const list = shortRun(picked)
  // On work that is there already it is a ring when it has been closed.
  if (hand.rest.length > 0 || machine.work.needle === undefined) {
    yield `ring ${list}`
    yield `ring ${list} knot`
    yield `string ${list}`
  }
  if (machine.work.needle !== undefined || hand.rest.length > 0) return
  const turn = picked.slice(0, periodOf(picked))
  const letters = new Set(turn)
  for (const role of machine.roles.byLetter.values()) {
    if (role.type !== 'stone' || machine.placed.has(role.letter)) continue
    const [letter = ''] = letters
    yield letters.size === 1
      ? `ring ${letter} x fit(${role.letter}, ${letter})`
      : `ring (${shortRun(turn)}) x fit(${role.letter}, ${mostOften(turn)}, multiple ${turn.length}) / ${turn.length}`
  }
}

const mostOften = (letters: readonly string[]): string =>
  [...new Set(letters)].reduce((a, b) =>
    letters.filter((each) => each === b).length > letters.filter((each) => each === a).length ? b : a,
  )

/** `loop 9C`, `loop 4A over 2`, `loop 6C back`: beads picked up, and the bead just left passed again. */
export const loopGuess: Guess = function* ({ picked, rest, plain }, machine) {
  if (picked.length === 0 || !plain || machine.work.needle === undefined) return
  const list = shortRun(picked)
  yield `loop ${list}`
  if (rest.length > 0) yield `loop ${list} back`
  const { work } = machine
  const [into] = rest
  if (into === undefined) return
  const most = Math.min(work.passes, 40)
  for (let over = 2; over <= most; over++) {
    const left = work.holeAt(work.passes - over)
    if (left === into) yield `loop ${list} over ${over}`
  }
  if (rest.length > 1) yield `loop ${list} over ${rest.length} back`
}

/** `weave 12 units of 3A`: of two units and more, all that were made. */
export const weaveGuess: Guess = function* (hand, machine) {
  const runs = runsOfPicks(hand)
  const begins = machine.work.needle === undefined
  const first = begins ? runs[0]?.slice(1) : runs[0]
  if (!first || first.length < 2 || hand.rest.length === 0) return
  const list = shortRun(first)
  for (const units of new Set([runs.length, runs.length + 1]))
    for (const twice of ['', ' twice']) yield `weave ${units} unit${units === 1 ? '' : 's'} of ${list}${twice}`
}

/** The runs of beads that are picked up one after the other. */
export function runsOfPicks({ passes }: Pick<Hand, 'passes'>): string[][] {
  const runs: string[][] = []
  for (const [i, pass] of passes.entries()) {
    if (pass.type !== 'pick') continue
    if (passes[i - 1]?.type === 'pick') runs.at(-1)?.push(itemOf(pass))
    else runs.push([itemOf(pass)])
  }
  return runs
}

/** `join to strip.first with A, A`: a bead of the other end between two runs. */
export const joinGuess: Guess = function* (hand, machine) {
  const [into] = hand.rest
  if (into === undefined || isOwn(into, hand) || machine.work.needle === undefined) return
  const runs = runsOfPicks(hand)
  if (runs.length > 2) return
  const list = runs.length === 0 ? '' : ` with ${shortRun(runs.flat())}`
  for (const { text } of namesOf(into, machine)) yield `join to ${text}${list}`
}

/** `fringe 8A end 3C`: down a strand and back up it, past its end. */
export const fringeGuess: Guess = function* ({ picked, rest, plain }, machine) {
  if (picked.length === 0 || !plain || machine.work.needle === undefined) return
  const up = rest.length
  const most = up === 0 ? 0 : Math.min(3, picked.length - 1)
  for (let keep = 0; keep <= most; keep++) {
    const kept = keep === 0 ? '' : ` keep ${keep}`
    if (up === 0 || picked.length - keep - 1 === up) yield `fringe ${shortRun(picked)}${kept}`
    const down = up + keep
    if (up > 0 && down < picked.length)
      yield `fringe ${shortRun(picked.slice(0, down))} end ${shortRun(picked.slice(down))}${kept}`
  }
}

/** `stand A round S`, `stand row A x 26`: each bead picked up and passed back, so that it stands. */
export const standGuess: Guess = function* (hand, machine) {
  const [letter, ...others] = hand.picked
  if (letter === undefined || others.length > 0 || hand.rest.length === 0) return
  const stood = runsOfPicks(hand).length
  if (machine.standing) {
    yield `stand row ${letter}`
    const row = machine.standing.holes.length
    if (stood >= 3) yield `stand row ${letter} x ${stood}`
    if (stood > row) yield `stand row ${letter} x row + ${stood - row}`
    return
  }
  for (const role of machine.roles.byLetter.values())
    if (role.type === 'stone' && role.stone.outline.shape === 'round') {
      yield `stand ${letter} round ${role.letter}`
      if (stood >= 3) yield `stand ${letter} round ${role.letter} x ${stood}`
    }
  // Round whatever core so many stand round, or nearly so.
  const bead = machine.roles.sizingBead(letter)
  if (!bead) return
  const countRound = (across: number) => fitStand(across / 2, bead, machine.thread.thread.acrossMm).count
  let across = 1
  while (across < widestCore && countRound(across) < stood) across++
  yield `stand ${letter} round ${across} mm${countRound(across) === stood ? '' : ` x ${stood}`}`
}

/** Across, mm. */
const widestCore = 80
