import { type Mm, roundUpTo } from '../measure/units'
import { allowanceIn, type ThreadSettings } from './settings'

/** What to cut before the first bead is picked up. */
export interface ThreadPlan {
  /** Along the thread through every bead and gap, once, without ends. */
  readonly pathMm: Mm
  readonly strands: 1 | 2
  /** Tails, weaving in and hitches of one length of thread. */
  readonly endsMm: Mm
  /** The share added for take-up. */
  readonly allowance: number
  /** All that is needed, every strand and every length's ends counted. */
  readonly totalMm: Mm
  /** Each length to cut, rounded up to the shop's step. */
  readonly cutsMm: readonly Mm[]
}

/**
 * `(path + tail + weaving in + hitches at both ends) * (1 + allowance)`, every strand counted, times what samples have shown; beyond the comfortable length
 * the path is shared evenly between several threads, each with two ends of its own. The comfortable length is that of the
 * working thread in the hand, so a doubled thread is cut twice as long, and one begun in its middle may be nearly so.
 */
export function planThread(pathMm: Mm, strands: 1 | 2, settings: ThreadSettings): ThreadPlan {
  const allowance = allowanceIn(settings)
  const endsMm = settings.tailMm + settings.weaveInMm + 2 * settings.hitchesPerEnd * settings.hitchMm
  if (pathMm <= 0) return { pathMm: 0, strands, endsMm, allowance, totalMm: 0, cutsMm: [] }
  // A tail longer than the comfortable length still leaves room to work: never less than a quarter of it a thread.
  const halves = settings.start === 'middle' ? 2 : 1
  const room = Math.max(settings.comfortableMm / (1 + allowance) - endsMm / halves, settings.comfortableMm / 4)
  const lengths = Math.max(1, Math.ceil(pathMm / room / halves - 1e-9))
  const each = (pathMm / lengths + endsMm) * (1 + allowance) * strands * settings.sampled.ratio
  const cut = roundUpTo(each, settings.cutStepMm)
  return {
    pathMm,
    strands,
    endsMm,
    allowance,
    totalMm: each * lengths,
    cutsMm: Array.from({ length: lengths }, () => cut),
  }
}
