/** Filling bags: what a scale must show for a bag to be right, and which kits are filled from which lot. */
import type { Mg } from '../measure/units'
import type { BillLine } from './bill'
import { usualSpares } from './spares'

/** In the item's unit: never below what the steps use, and not so much above the target that the tube runs short. */
export interface Band {
  readonly least: number
  readonly target: number
  readonly most: number
}

export type Reading = 'under' | 'in' | 'over'

/** A weighed bag may be over by a tenth or by two of the scale's steps; what is counted is exact up to its spares. */
export function bandOf({ exact, quantity, unit }: BillLine, massMg: Mg | undefined): Band {
  if (unit === 'mg') {
    const least = Math.min(quantity, Math.ceil(exact * (massMg ?? 0)))
    return { least, target: quantity, most: quantity + Math.max(quantity / 10, 2 * usualSpares.scaleStepMg) }
  }
  if (unit === 'mm')
    return { least: Math.min(quantity, exact), target: quantity, most: quantity + 10 * usualSpares.threadStepMm }
  return { least: exact, target: quantity, most: quantity }
}

export const readingOf = ({ least, most }: Band, quantity: number): Reading =>
  quantity < least ? 'under' : quantity > most ? 'over' : 'in'

interface FromLot {
  readonly lotId: number
  readonly kits: number
}

/** Kits are numbered from 1; the first so many are filled from the first lot, and so on: which kit has which dye lot is settled. */
export function lotOfKit<Take extends FromLot>(takes: readonly Take[], kit: number): Take | undefined {
  let before = 0
  for (const take of takes) {
    if (kit > before && kit <= before + take.kits) return take
    before += take.kits
  }
  return undefined
}
