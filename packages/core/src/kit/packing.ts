/** Filling bags: what a scale must show for a bag to be right. */
import { type Mg, roundUpTo } from '../measure/units'
import type { BillLine } from './bill'
import { type SparePolicy, usualSpares } from './spares'

/** In the item's unit: never below what the steps use, and not so much above the target that the tube runs short. */
export interface Band {
  readonly least: number
  readonly target: number
  readonly most: number
}

export type Reading = 'under' | 'in' | 'over'

/**
 * What a kit takes when a lot's beads weigh otherwise than the item's do: as many beads, up to the scale's step.
 *
 * @param massMg of one bead of the lot
 */
export function weighedOut({ exact, spare, step }: Pick<BillLine, 'exact' | 'spare' | 'step'>, massMg: Mg): Mg {
  return roundUpTo((exact + spare) * massMg, step)
}

/** A weighed bag may be over by its share or by two of the scale's steps; what is counted is exact up to its spares. */
export function bandOf(
  { exact, quantity, unit, step }: BillLine,
  massMg: Mg | undefined,
  { overShare, threadOverMm }: Pick<SparePolicy, 'overShare' | 'threadOverMm'> = usualSpares,
): Band {
  if (unit === 'mg') {
    const least = Math.min(quantity, Math.ceil(exact * (massMg ?? 0)))
    return { least, target: quantity, most: quantity + Math.max(quantity * overShare, 2 * step) }
  }
  if (unit === 'mm') return { least: Math.min(quantity, exact), target: quantity, most: quantity + threadOverMm }
  return { least: exact, target: quantity, most: quantity }
}

export const readingOf = ({ least, most }: Band, quantity: number): Reading =>
  quantity < least ? 'under' : quantity > most ? 'over' : 'in'
