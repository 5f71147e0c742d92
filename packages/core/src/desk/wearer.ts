/** How long a piece must be for who wears it. */
import { type Mm, sayLength } from '../measure/units'
import { bandLength } from '../sizing/finger'

export type Worn = 'wrist' | 'neck' | 'finger'

/** What people's measures lie between, generously; beyond it a unit has been mistaken. */
const likely: Readonly<Record<Worn, readonly [least: Mm, most: Mm]>> = {
  wrist: [100, 300],
  neck: [250, 1600],
  finger: [35, 85],
}

/** How a bracelet is to sit. */
export const wristEases = ['snug', 'usual', 'loose'] as const
export type WristEase = (typeof wristEases)[number]

/** Added to a wrist, where a shop has not settled it otherwise; in mm. */
export const usualWristEase: Readonly<Record<WristEase, Mm>> = { snug: 10, usual: 18, loose: 25 }

/**
 * A bracelet is the wrist and its ease; a necklace as long as it is worn; a finger ring its inside. A band that is thick is measured along
 * its middle: pi times its thickness longer.
 *
 * @param easeMm added to a wrist
 * @throws RangeError for a measure that nobody has, naming the likely mistake
 */
export function wornLength(worn: Worn, measureMm: Mm, easeMm: Mm, thicknessMm: Mm): Mm {
  const [least, most] = likely[worn]
  if (!(measureMm >= least && measureMm <= most)) {
    throw new RangeError(
      `A ${worn} of ${sayLength(measureMm)} is ${measureMm < least ? 'smaller' : 'larger'} than any. Check the unit: between ${sayLength(least)} and ${sayLength(most)}.`,
    )
  }
  if (!(thicknessMm >= 0 && thicknessMm <= 30)) throw new RangeError('A band is between 0 and 30 mm thick.')
  const length = measureMm + (worn === 'wrist' ? easeMm : 0)
  return worn === 'neck' ? length : bandLength(length, thicknessMm)
}
