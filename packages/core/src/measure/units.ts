/** Units as named types, and how the shop says them. Lengths are millimetres and masses milligrams everywhere in the core. */

import { counted } from './counted'

/** Millimetres. */
export type Mm = number
/** Milligrams. */
export type Mg = number

export const mmPerInch = 25.4
const inchesPerFoot = 12
export const mgPerOunce = 28_349.5231

/** What documents are measured in; the core itself knows millimetres and milligrams. */
export const unitSystems = ['metric', 'inches'] as const
export type UnitSystem = (typeof unitSystems)[number]

/** 1234.5 -> "123.5 cm"; below 10 cm in mm. */
export function sayLength(mm: Mm): string {
  return mm >= 100 ? `${trim(mm / 10, 1)} cm` : `${trim(mm, 1)} mm`
}

export const sayInches = (mm: Mm): string => `${trim(mm / mmPerInch, 1)} in`

/** 1103 -> "3 ft 7.4 in"; below a foot in inches. */
export function sayFeet(mm: Mm): string {
  const inches = Number((mm / mmPerInch).toFixed(1))
  const feet = Math.floor(inches / inchesPerFoot)
  const over = trim(inches - inchesPerFoot * feet, 1)
  if (feet === 0) return `${over} in`
  return over === '0' ? `${feet} ft` : `${feet} ft ${over} in`
}

/** 5000 -> "0.18 oz"; a few beads weigh thousandths. */
export function sayOunces(mg: Mg): string {
  const ounces = mg / mgPerOunce
  return `${trim(ounces, ounces < 0.1 ? 3 : 2)} oz`
}

/** Arm-spans to one decimal; `spanMm` is the person's own reach, fingertip to fingertip. */
export const saySpans = (mm: Mm, spanMm: Mm): string => {
  const spans = Number((mm / spanMm).toFixed(1))
  return counted(spans, 'arm-span')
}

/** 0.1 g steps at the bench, so two decimals are enough to see a rounding. */
export const sayMass = (mg: Mg): string => `${trim(mg / 1000, 2)} g`

/** A ratio as a signed per cent with one decimal: 0.0123 -> "+1.2 %". */
export function sayPercent(ratio: number): string {
  const percent = (ratio * 100).toFixed(1)
  return `${ratio > 0 ? '+' : ''}${percent === '-0.0' ? '0.0' : percent} %`
}

/** A decimal without trailing noughts: 12.50 -> "12.5". */
export const trim = (value: number, decimals: number): string => String(Number(value.toFixed(decimals)))

/** Rounds up to a whole number of steps, proof against the dust of floating point. */
export const roundUpTo = (value: number, step: number): number => Math.ceil(value / step - 1e-9) * step

/** "75 minutes", "2 and a half hours": an evening's work is not known to the minute. */
export function sayDuration(minutes: number): string {
  if (minutes < 90) return `${minutes} minutes`
  const hours = Math.round(minutes / 30) / 2
  return `${Math.floor(hours)}${hours % 1 ? ' and a half' : ''} hours`
}
