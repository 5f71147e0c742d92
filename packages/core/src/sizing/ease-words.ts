import { sayPercent, trim } from '../measure/units'
import type { RingFit } from './ring-fit'

/** "36 A round S, +0.7 %: snug (34: -4.9 % too tight, 38: +6.3 % too big)" */
export function easeWords(fit: RingFit, stone: string, bead: string): string {
  const best = fit.candidates.find((candidate) => candidate.count === fit.best)
  if (!best) return ''
  const others = fit.candidates
    .filter((candidate) => candidate !== best && Math.abs(candidate.count - best.count) <= fit.multiple)
    .map((candidate) => `${candidate.count}: ${sayPercent(candidate.ease)} ${candidate.verdict}`)
  return `${best.count} ${bead} round ${stone} (target ${trim(fit.targetMm, 1)} mm), ${sayPercent(best.ease)}: ${best.verdict}. Beside it ${others.join(', ')}.`
}
