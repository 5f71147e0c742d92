/** What a hand does with a needle, pass by pass: the same things that the statements of a pattern come to. */
import { beadOf, boreOf, type Hole, hole } from '../stitch/hole'
import type { Roles } from '../stitch/roles'
import type { Work } from '../stitch/work'

/** Picks a bead up by its letter, or passes a bead that is there: one that was there before, or one that the same hand picked up. */
export type HandPass =
  | { readonly type: 'pick'; readonly role: string; readonly bore: 0 | 1 }
  | { readonly type: 'pass'; readonly hole: Hole }

/** Passes from..to of a work, as a hand would make them. */
export function passesOf(work: Work, from: number, to: number, letterOf: Roles['letterOf']): HandPass[] {
  const passes: HandPass[] = []
  for (let pass = from; pass < to; pass++) {
    const h = work.holeAt(pass)
    passes.push(
      work.isNew(pass)
        ? { type: 'pick', role: letterOf(work.role(beadOf(h))), bore: boreOf(h) }
        : { type: 'pass', hole: h },
    )
  }
  return passes
}

export const samePass = (a: HandPass | undefined, b: HandPass | undefined): boolean =>
  a?.type === 'pick'
    ? b?.type === 'pick' && a.role === b.role && a.bore === b.bore
    : a !== undefined && b?.type === 'pass' && a.hole === b.hole

/** Whether `all` begins with `first`. */
export const beginsWith = (all: readonly HandPass[], first: readonly HandPass[]): boolean =>
  all.length >= first.length && first.every((pass, i) => samePass(pass, all[i]))

/**
 * The holes that passes go through, in order.
 *
 * @param beads there before them
 */
export function holesPassed(passes: readonly HandPass[], beads: number): Hole[] {
  let next = beads
  return passes.map((pass) => (pass.type === 'pick' ? hole(next++, pass.bore) : pass.hole))
}
