/** Words that do little to the thread. */
import { LineFault, type Span } from '../../notation/fault'
import { nearest } from '../../notation/nearest'
import { readTarget, readTargets, type TargetWords } from '../../notation/parse-target'
import type { CautionAbout } from '../action'
import { plainGroup } from '../rail'
import { findTold } from '../target'
import type { Technique } from '../technique'
import { walkedAlong } from '../walked-along'

/** `rail inner = frame.T:2`: gathers holes under a name into an edge of their own, which the next rounds work on. */
export const railTechnique: Technique<{ name: string; targets: readonly TargetWords[] }> = {
  word: 'rail',
  read(cursor) {
    const name = cursor.expect('Word', 'a name', 'For example: rail inner = frame:2.').text
    if (!cursor.take('Mark', '='))
      throw new LineFault(cursor.peek() ?? cursor.end, 'Expected "=" here.', `For example: rail ${name} = frame:2.`)
    return { name, targets: readTargets(cursor) }
  },
  work({ name, targets }, machine) {
    const found = targets.map((target) => findTold(target, machine))
    const holes = walkedAlong(
      found.flatMap((each) => each.holes),
      machine.work,
    )
    machine.marks.add({ name, all: false }, holes, true)
    machine.standOn({
      closed: true,
      groups: holes.map((h) => plainGroup([h])),
      fresh: false,
      ringCount: holes.length,
      perRingBead: 1,
      course: -1,
      side: 1,
    })
    machine.edges.gathered = holes
    return { type: 'rail', name, beads: holes.length, targets: found.map(({ told }) => told) }
  },
}

/** `attach J to bail`: a finding goes on. */
export const attachTechnique: Technique<{ item: string; at: Span; target: TargetWords }> = {
  word: 'attach',
  read(cursor) {
    const item = cursor.expect('Name', "a finding's letter", 'For example: attach J to bail.')
    if (!cursor.take('Word', 'to'))
      throw new LineFault(
        cursor.peek() ?? cursor.end,
        `Attach ${item.text} to what?`,
        `For example: attach ${item.text} to bail.`,
      )
    return { item: item.text, at: item, target: readTarget(cursor) }
  },
  work({ item, at, target }, machine) {
    if (machine.roles.byLetter.get(item)?.type !== 'item') {
      throw new LineFault(
        at,
        `There is no finding ${item} in this pattern.`,
        `Declare it: item ${item} jump ring 5 mm x 1.`,
      )
    }
    const { told } = findTold(target, machine)
    machine.roles.used.add(item)
    return { type: 'attach', item, target: told }
  },
}

const dangers: readonly CautionAbout[] = ['flame', 'glue', 'pliers', 'magnet', 'nickel']

/** `caution flame`: a danger told at this step. */
export const cautionTechnique: Technique<CautionAbout> = {
  word: 'caution',
  read(cursor) {
    const word = cursor.expect('Word', 'what to be careful with', `Known: ${dangers.join(', ')}.`)
    const found = dangers.find((each) => each === word.text)
    if (!found)
      throw new LineFault(
        word,
        `"${word.text}" is not a danger that has its words.`,
        `Known: ${dangers.join(', ')}.`,
        nearest(word.text, dangers),
      )
    return found
  },
  work: (about) => ({ type: 'caution', about }),
}

/** `new thread`, `new thread at bail`: ends the thread in hand and begins another, where the needle is or at a place. */
/** `new thread`, `new thread at wall.first`; `new thread from tail`: goes on with the tail of the thread in hand. */
export const newThreadTechnique: Technique<{ target: TargetWords | 'tail' | undefined }> = {
  word: 'new',
  read(cursor) {
    cursor.expect('Word', '"thread"', 'Write: new thread.')
    if (cursor.take('Word', 'from')) {
      const tail = cursor.expect('Word', '"tail"', 'Write: new thread from tail.')
      if (tail.text !== 'tail')
        throw new LineFault(
          tail,
          `Expected "tail" after "from", found "${tail.text}".`,
          'Write: new thread from tail.',
          'tail',
        )
      return { target: 'tail' }
    }
    return { target: cursor.take('Word', 'at') ? readTarget(cursor) : undefined }
  },
  work({ target }, machine, span) {
    const { work } = machine
    machine.finished = false
    if (target === 'tail') {
      machine.needle('new thread', span)
      const thread = work.threads.length - 1
      if (work.tails.has(thread))
        throw new LineFault(span, 'The tail of this thread is in hand already.', 'Begin another: new thread.')
      // It hangs out of the hole that the thread went into first.
      machine.beginThread(work.holeAt(work.threads[thread] as number) ^ 1)
      return { type: 'new thread', at: undefined, tail: true }
    }
    const found = target && findTold(target, machine)
    const at = found ? found.holes[0] : machine.needle('new thread', span)
    machine.beginThread()
    if (at !== undefined) work.pass(at, 'travel', machine.statement)
    machine.standWhereNeedleIs()
    return { type: 'new thread', at: found?.told, tail: false }
  },
}
