/** Ways for a piece to lie that have been tried, and which of them is how it lies. */
import type { Mm } from '../measure/units'
import { maxPressed } from './deepest-press'

/** How a piece lies that has been tried, and what that costs. */
export interface Tried {
  readonly bodies: Float64Array
  readonly energy: number
  readonly depthMm: Mm
  readonly gaping: number
  /** See `deepestPress`. */
  readonly pressed: number
  /** See `againstTold`. */
  readonly against: number
}

/** Of those whose energy is nearly as little, the flattest is taken; more may be paid for what is laid over to lie where it was laid. */
const nearly = 1.01

const nearlyAsTold = 1.06

const clearly = 0.25

/** Of rests with the same thread, one that is deeper by this share is not the one that is taken. */
const asFlat = 1.1

/** One that is deeper by this share is folded: nobody would lay it so. */
const folded = 1.5

/** @param most where beads are pressed deeper, they have passed into each other: more is allowed while they are soft */
export function bestOf(tried: readonly Tried[], most = maxPressed): Tried {
  const whole = tried.filter(({ pressed }) => pressed <= most)
  const able = whole.length > 0 ? whole : tried
  const least = able.reduce((a, b) => (b.energy < a.energy ? b : a))
  const allowed = (each: Tried) => (each.against < least.against - clearly ? nearlyAsTold : nearly)
  return able.filter((each) => each.energy <= least.energy * allowed(each)).reduce((a, b) => (isBetter(b, a) ? b : a))
}

/** Fewer threads gape; or what is laid over lies where it was laid; or it is flatter. */
function isBetter(a: Tried, b: Tried): boolean {
  if (a.gaping !== b.gaping) return a.gaping < b.gaping
  if (Math.abs(a.against - b.against) > clearly) return a.against < b.against
  return a.depthMm < b.depthMm
}

/**
 * What a rest that was found from another is to it: another way to lie as well (it may take less thread, and lie a little deeper), the truer one, or
 * nothing that can be compared.
 */
export type Compared = 'alike' | 'truer' | 'other'

/** @param deeper how deep the one found lies, turned to the eye, as a share of the best */
export function compare(found: Tried, best: Tried, deeper: number): Compared {
  const [wasWhole, isWhole] = [best.pressed <= maxPressed, found.pressed <= maxPressed]
  if (wasWhole !== isWhole) return isWhole ? 'truer' : 'other'
  if (found.gaping !== best.gaping) return found.gaping < best.gaping ? 'truer' : 'other'
  const energy = found.energy / best.energy
  if (energy > nearly || deeper > folded) return 'other'
  if (deeper > asFlat) return 'alike'
  return energy < 1 / nearly || deeper < 1 / asFlat ? 'truer' : 'alike'
}
