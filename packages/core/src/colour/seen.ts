/** Colours as others see them, and by another light: to be looked at, not to be measured. */
import {
  type Color,
  converter,
  filterDeficiencyDeuter,
  filterDeficiencyProt,
  filterDeficiencyTrit,
  formatHex,
  parse,
} from 'culori'

/** By what is lacking, and how much: weak eyes tell half of it, blind ones nothing. */
export const eyes = ['usual', 'red-weak', 'red-blind', 'green-weak', 'green-blind', 'blue-weak', 'blue-blind'] as const
export type Eye = (typeof eyes)[number]

export const lights = ['daylight', 'warm light'] as const
export type Light = (typeof lights)[number]

const filters = {
  'red-weak': filterDeficiencyProt(0.5),
  'red-blind': filterDeficiencyProt(1),
  'green-weak': filterDeficiencyDeuter(0.5),
  'green-blind': filterDeficiencyDeuter(1),
  'blue-weak': filterDeficiencyTrit(0.5),
  'blue-blind': filterDeficiencyTrit(1),
} as const

const linear = converter('lrgb')
const rgb = converter('rgb')

/**
 * Lamplight of about 2,900 K seen by an eye that has got used to it by some two thirds: red, green and blue of the light itself, of
 * which a third is left.
 */
const warmth = { r: 1, g: 0.87, b: 0.62 } as const

/** @param colour `#rrggbb` by daylight @returns `#rrggbb` */
export function asSeen(colour: string, eye: Eye, light: Light): string {
  const lit = light === 'daylight' ? colour : warm(colour)
  return eye === 'usual' ? lit : throughEye(lit, filters[eye])
}

/** The matrices are of light, and so go over linear components; the library would put them over those of the screen. */
function throughEye(colour: string, filter: (colour: Color) => Color): string {
  const { r, g, b } = linear(parsed(colour))
  return formatHex({ ...rgb(filter({ mode: 'rgb', r, g, b })), mode: 'lrgb' })
}

function warm(colour: string): string {
  const { r, g, b } = linear(parsed(colour))
  return formatHex({ mode: 'lrgb', r: r * warmth.r, g: g * warmth.g, b: b * warmth.b })
}

function parsed(colour: string): Color {
  const found = parse(colour)
  if (!found) throw new RangeError(`"${colour}" is not a colour.`)
  return found
}
