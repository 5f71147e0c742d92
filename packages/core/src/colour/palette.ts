/** The few colours that a picture is made of. */
import { type Color, formatHex } from 'culori'
import { buildPaletteSync, utils } from 'image-q'
import { difference } from './difference'

export interface PaletteColour {
  /** `#rrggbb` */
  readonly colour: string
  /** Of the picture that is not clear, 0 to 1. */
  readonly share: number
}

/** A colour of less of the picture than this is an accident. */
const minShare = 0.015
/** Colours nearer than this (CIEDE2000) are one to a bead shelf. */
const sameTo = 6

/**
 * Colours by how much of the picture they are (least variance quantisation), most first; the same each time for the same picture.
 *
 * @param rgba 4 bytes a pixel, as a canvas gives them; a thumbnail is enough, and more than 40,000 pixels are thinned
 * @throws RangeError when there is nothing to be seen in it
 */
export function paletteOf(rgba: Uint8ClampedArray | Uint8Array, most = 6): PaletteColour[] {
  const pixels = Math.floor(rgba.length / 4)
  const step = Math.max(1, Math.ceil(pixels / 40_000))
  const seen: number[] = []
  for (let i = 0; i < pixels; i += step) {
    const at = 4 * i
    if ((rgba[at + 3] as number) >= 128)
      seen.push(rgba[at] as number, rgba[at + 1] as number, rgba[at + 2] as number, 255)
  }
  if (seen.length === 0) throw new RangeError('The picture is empty: every part of it is clear. Choose another.')
  const picture = utils.PointContainer.fromUint8Array(seen, seen.length / 4, 1)
  const palette = buildPaletteSync([picture], { colors: 2 * most, paletteQuantization: 'wuquant' })
  const points = palette.getPointContainer().getPointArray()
  const members = points.map(() => 0)
  for (const { r, g, b } of picture.getPointArray()) {
    const squares = points.map((each) => (each.r - r) ** 2 + (each.g - g) ** 2 + (each.b - b) ** 2)
    const nearest = squares.indexOf(Math.min(...squares))
    members[nearest] = (members[nearest] ?? 0) + 1
  }
  const found: { colour: string; share: number }[] = []
  const byShare = points.map(({ r, g, b }, i) => ({
    colour: hex(r, g, b),
    share: ((members[i] as number) * 4) / seen.length,
  }))
  for (const { colour, share } of byShare.sort((a, b) => b.share - a.share)) {
    const same = found.find((each) => difference(each.colour, colour) < sameTo)
    if (same) same.share += share
    else found.push({ colour, share })
  }
  return found
    .filter(({ share }) => share >= minShare)
    .sort((a, b) => b.share - a.share)
    .slice(0, most)
}

const hex = (r: number, g: number, b: number) =>
  formatHex({ mode: 'rgb', r: r / 255, g: g / 255, b: b / 255 } satisfies Color)
