import { type Mm, trim } from '../measure/units'

/** The inner circumference of a finger ring, by the systems that finger sizes are told in. ISO's is that circumference itself, in millimetres. */
export const fingerSystems = ['ISO', 'US', 'UK', 'Japan'] as const
export type FingerSystem = (typeof fingerSystems)[number]

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

export interface FingerSize {
  /** As it is said in its system: "54", "7.25", "N 1/2", "14". */
  readonly size: string
  readonly mm: Mm
}

const steps = (most: number, by: number): number[] => Array.from({ length: most / by + 1 }, (_, i) => i * by)

const sizesOf: Readonly<Record<FingerSystem, readonly FingerSize[]>> = {
  ISO: steps(45, 1).map((over) => ({ size: String(38 + over), mm: 38 + over })),
  US: steps(16, 0.25).map((size) => ({ size: trim(size, 2), mm: fromUs(size) })),
  UK: steps(25, 0.5).map((letter) => {
    const size = `${String.fromCharCode(65 + Math.floor(letter))}${Number.isInteger(letter) ? '' : ' 1/2'}`
    return { size, mm: fromUk(size) }
  }),
  Japan: steps(29, 1).map((over) => ({ size: String(1 + over), mm: fromJapan(1 + over) })),
}

/** Every size of a system, the smallest first. */
export const fingerSizes = (system: FingerSystem): readonly FingerSize[] => sizesOf[system]

/** The size of a system that is nearest to an inner circumference. */
export const nearestFinger = (mm: Mm, system: FingerSystem): FingerSize =>
  sizesOf[system].reduce((a, b) => (Math.abs(b.mm - mm) < Math.abs(a.mm - mm) ? b : a))

/** The length of a band measured along its middle: inside, plus pi times its thickness. */
export const bandLength = (insideMm: Mm, thicknessMm: Mm): Mm => insideMm + Math.PI * thicknessMm
