/** How different colours look, as CIEDE2000 has it, and how light they are. */
import { converter, differenceCiede2000, type Lab65, parse } from 'culori'

const lab65 = converter('lab65')
const ciede2000 = differenceCiede2000()

/** L*, a*, b* by daylight. @throws RangeError for what is not a colour */
export function labOf(colour: string): Lab65 {
  const found = parse(colour)
  if (!found) throw new RangeError(`"${colour}" is not a colour.`)
  return lab65(found)
}

/** CIEDE2000 between two colours given as L*, a*, b* (D65): nought when they look the same, about 1 when it can just be seen. */
export const differenceOfLab = (a: readonly [number, number, number], b: readonly [number, number, number]): number =>
  ciede2000({ mode: 'lab65', l: a[0], a: a[1], b: a[2] }, { mode: 'lab65', l: b[0], a: b[1], b: b[2] })

/** @param a,b `#rrggbb`, as they look by daylight */
export const difference = (a: string, b: string): number => ciede2000(labOf(a), labOf(b))

/** L*, 0 black to 100 white. */
export const lightness = (colour: string): number => labOf(colour).l
