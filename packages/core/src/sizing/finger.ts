import type { Mm } from '../measure/units'

/** The inner circumference of a finger ring, by the size systems. */

/** US size s: inner diameter 11.63 + 0.8128 s mm. */
export const fromUs = (size: number): Mm => Math.PI * (11.63 + 0.8128 * size)

/** Japan: size n is an inner diameter of 13 + (n - 1) / 3 mm. */
export const fromJapan = (size: number): Mm => Math.PI * (13 + (size - 1) / 3)

/** UK letters: A is 37.8 mm inside, 1.25 mm a letter, halves allowed as "L 1/2". @throws RangeError for anything else */
export function fromUk(size: string): Mm {
  const found = /^([A-Z])( ?1\/2| ?½)?$/i.exec(size.trim())
  if (!found) throw new RangeError(`"${size}" is not a UK ring size; they are letters from A to Z, and halves.`)
  const letter = (found[1] as string).toUpperCase().charCodeAt(0) - 65
  return 37.8 + 1.25 * (letter + (found[2] ? 0.5 : 0))
}

/** The length of a band measured along its middle: inside, plus pi times its thickness. */
export const bandLength = (insideMm: Mm, thicknessMm: Mm): Mm => insideMm + Math.PI * thicknessMm
