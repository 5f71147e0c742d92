/**
 * The fonts of printed documents: Latin, Greek and Cyrillic. They ship as WOFF, of which the PDF's font reader would unpack a whole table for every
 * letter; so they are unpacked once, here.
 */
import { readFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { inflateSync } from 'node:zlib'
import { Font } from '@react-pdf/renderer'

const subsets = ['latin', 'latin-ext', 'vietnamese', 'greek', 'greek-ext', 'cyrillic', 'cyrillic-ext'] as const

/** For text: the first that has a letter prints it. */
export const textFont = subsets.map((subset) => `Source Sans 3 ${subset}`)
/** For titles, whose own letters are Latin only. */
export const titleFont = ['Fraunces latin', 'Fraunces latin-ext', 'Fraunces vietnamese', ...textFont]

/** Anything else is printed as a question mark, and said so. */
const printed = /[\p{Script=Latin}\p{Script=Greek}\p{Script=Cyrillic}\p{Script=Common}\p{Script=Inherited}]/u
/** Of the common signs, those that the fonts have none of: pictures and the like. */
const unprinted = /[\p{Extended_Pictographic}\u{2600}-\u{10ffff}]/u
/** In pictographs for ICU's sake, in the fonts all the same. */
const letterlike = /[©®™#*0-9\p{Script=Latin}\p{Script=Greek}\p{Script=Cyrillic}]/u

const canPrint = (letter: string): boolean =>
  letterlike.test(letter) || (printed.test(letter) && !unprinted.test(letter))

/**
 * The same, with letters that no font has as question marks in every text of it.
 *
 * @returns `whole` where there were none
 */
export function printable<Value>(value: Value): { value: Value; whole: boolean } {
  let whole = true
  const walk = (each: unknown): unknown => {
    if (typeof each === 'string')
      return Array.from(each, (letter) => {
        if (canPrint(letter)) return letter
        whole = false
        return '?'
      }).join('')
    if (Array.isArray(each)) return each.map(walk)
    if (each && typeof each === 'object')
      return Object.fromEntries(Object.entries(each).map(([key, inner]) => [key, walk(inner)]))
    return each
  }
  return { value: walk(value) as Value, whole }
}

export function registerFonts(): void {
  for (const subset of subsets)
    Font.register({
      family: `Source Sans 3 ${subset}`,
      fonts: [
        { src: unpacked(`@fontsource/source-sans-3/files/source-sans-3-${subset}-400-normal.woff`), fontWeight: 400 },
        { src: unpacked(`@fontsource/source-sans-3/files/source-sans-3-${subset}-600-normal.woff`), fontWeight: 600 },
      ],
    })
  for (const subset of subsets.slice(0, 3))
    Font.register({
      family: `Fraunces ${subset}`,
      src: unpacked(`@fontsource/fraunces/files/fraunces-${subset}-600-normal.woff`),
      fontWeight: 600,
    })
  // Words are not broken: a count must never be read in two halves.
  Font.registerHyphenationCallback((word) => [word])
}

/** WOFF 1 is an OpenType file with its tables packed one by one (W3C WOFF 1.0, sections 3 to 5). */
function unpacked(path: string): string {
  const woff = readFileSync(fileURLToPath(import.meta.resolve(path)))
  const count = woff.readUInt16BE(12)
  const tables = Array.from({ length: count }, (_, i) => {
    const at = 44 + 20 * i
    const [offset, packed, length] = [woff.readUInt32BE(at + 4), woff.readUInt32BE(at + 8), woff.readUInt32BE(at + 12)]
    const data = woff.subarray(offset, offset + packed)
    return {
      tag: woff.subarray(at, at + 4),
      sum: woff.readUInt32BE(at + 16),
      data: packed < length ? inflateSync(data) : data,
    }
  })
  const head = Buffer.alloc(12 + 16 * count)
  const power = Math.floor(Math.log2(count))
  woff.copy(head, 0, 4, 8)
  head.writeUInt16BE(count, 4)
  head.writeUInt16BE(16 * 2 ** power, 6)
  head.writeUInt16BE(power, 8)
  head.writeUInt16BE(16 * (count - 2 ** power), 10)
  let offset = head.length
  for (const [i, { tag, sum, data }] of tables.entries()) {
    const at = 12 + 16 * i
    tag.copy(head, at)
    head.writeUInt32BE(sum, at + 4)
    head.writeUInt32BE(offset, at + 8)
    head.writeUInt32BE(data.length, at + 12)
    offset += Math.ceil(data.length / 4) * 4
  }
  const padded = tables.flatMap(({ data }) => [data, Buffer.alloc((4 - (data.length % 4)) % 4)])
  return `data:font/ttf;base64,${Buffer.concat([head, ...padded]).toString('base64')}`
}
