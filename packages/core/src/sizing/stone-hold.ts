/** One verdict on how a stone sits: by the edges that are drawn over it, where the form shows them, and by the length of its ring otherwise. */
import { type Mm, sayPercent } from '../measure/units'
import { type FitVerdict, verdictWords } from './ring-fit'

/** What the form shows of a stone in its ring. */
export interface StoneHold {
  /** By how much the edge on each face is smaller than the stone, all round; below 0 it is loose. Undefined where there is no edge. */
  readonly frontMm: Mm | undefined
  readonly backMm: Mm | undefined
  /** How far the stone can move sideways in its ring. */
  readonly playMm: Mm
  /** What is safe. */
  readonly neededMm: Mm
}

/** An edge should be smaller than the stone by so much all round; large stones are heavier. */
export const marginNeeded = (acrossMm: Mm): Mm => (acrossMm > 20 ? 1.2 : 0.8)

/** What an edge still holds a stone by that has moved to one side; undefined where there is no edge. */
export const heldBy = (hold: StoneHold, face: 'frontMm' | 'backMm'): Mm | undefined => {
  const mm = hold[face]
  return mm === undefined ? undefined : mm - hold.playMm
}

/** Rounding does not make an edge unsafe. */
const close: Mm = 0.05

/**
 * A ring that is too short shows thread whatever its edges do, and is told by its length; else the edges decide, and a stone that has none on one
 * face falls out there.
 *
 * @param verdict by the length of the ring
 */
export function seatVerdict(verdict: FitVerdict, hold: StoneHold | undefined): FitVerdict {
  if (!hold || verdict === 'too tight') return verdict
  const least = Math.min(heldBy(hold, 'frontMm') ?? -1, heldBy(hold, 'backMm') ?? -1)
  return least < 0 ? 'too big' : least < hold.neededMm - close ? 'loose' : 'snug'
}

/** "The ring of 36 round S: +0.7 %, sits snug.", and what is believed where its length and its edges differ. */
export function seatWords(
  { stone, beads, ease, verdict }: { stone: string; beads: number; ease: number; verdict: FitVerdict },
  hold: StoneHold | undefined,
): string {
  const ring = `The ring of ${beads} round ${stone}: ${sayPercent(ease)}`
  const seen = seatVerdict(verdict, hold)
  if (!hold || (seen === verdict && seen !== 'loose')) return `${ring}, ${verdictWords[seen]}.`
  const edges = {
    'too tight': '',
    snug: 'the edges hold the stone, as the form shows',
    loose: 'the edges hold the stone by less than is safe, as the form shows',
    'too big': 'the edges let the stone out, as the form shows',
  }[seen]
  return seen === verdict
    ? `${ring}, ${verdict}: ${edges}.`
    : `${ring}, ${verdict} by its length alone; ${edges}, and the form is to be trusted: it has the rows on both faces.`
}
