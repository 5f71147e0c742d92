import { entryOf, exitOf, type Hole } from './hole'
import type { Work } from './work'

/**
 * Holes in the direction of a walk along them, whatever way each was first passed: turned so that where the thread would come out of one it
 * can go on into the next. Where the thread says nothing they stay as they are.
 */
export function walkedAlong(holes: readonly Hole[], work: Work): readonly Hole[] {
  if (holes.length < 2) return holes
  const asTheyAre = facedFrom(holes[0] as Hole, holes, work)
  const turned = facedFrom((holes[0] as Hole) ^ 1, holes, work)
  return turned.steps < asTheyAre.steps ? turned.faced : asTheyAre.faced
}

function facedFrom(first: Hole, holes: readonly Hole[], work: Work): { faced: readonly Hole[]; steps: number } {
  const faced = [first]
  let steps = 0
  for (const h of holes.slice(1)) {
    const before = faced[faced.length - 1] as Hole
    const [straight, turned] = [stepsTo(before, h, work), stepsTo(before, h ^ 1, work)]
    faced.push(turned < straight ? h ^ 1 : h)
    steps += Math.min(straight, turned)
  }
  return { faced, steps }
}

/** From where the thread comes out of one hole to where it goes into another: joined, by way of one end of a bead, or farther. */
function stepsTo(from: Hole, to: Hole, work: Work): number {
  const out = work.joinedTo(exitOf(from))
  if (out.includes(entryOf(to))) return 0
  const into = work.joinedTo(entryOf(to))
  return out.some((end) => into.includes(end)) ? 1 : 2
}
