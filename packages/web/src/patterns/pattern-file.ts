import {
  type FilePicture,
  type PatternFile,
  patternFile,
  patternFormat,
  patternFormatVersion,
} from '@tessellum/contract/pattern-file'
import type { NewPattern } from '@tessellum/contract/patterns'
import type { Item } from '@tessellum/contract/stock'
import { z } from 'zod'

/** Larger than any pattern of 200,000 beads is. */
const maxTextBytes = 4_000_000

/** With sixty pictures in it. */
const maxBytes = 100_000_000

/** What a file holds, before anything of it is kept. */
export type Read = Pick<PatternFile, 'source' | 'words' | 'colourways' | 'pictures'>

/** A `.tess` file is the notation itself; a `.json` file the pattern with its words and colourways. @throws Error in words for people */
export async function readPatternFile(file: File): Promise<Read> {
  const most = /\.json$/i.test(file.name) ? maxBytes : maxTextBytes
  if (file.size > most)
    throw new Error(`${file.name} has ${Math.ceil(file.size / 1e6)} MB; a pattern has at most ${most / 1e6} MB.`)
  let text: string
  try {
    text = new TextDecoder('utf-8', { fatal: true }).decode(await file.arrayBuffer())
  } catch {
    throw new Error(`${file.name} is not text in UTF-8. Save it as plain text, and open it again.`)
  }
  if (!/^\s*\{/.test(text)) return { source: text.replace(/\r\n?/g, '\n'), words: [], colourways: [], pictures: [] }
  let found: unknown
  try {
    found = JSON.parse(text)
  } catch (error) {
    throw new Error(`${file.name} breaks off or has a slip: ${error instanceof Error ? error.message : error}`)
  }
  const head = z.object({ format: z.string(), formatVersion: z.number() }).safeParse(found)
  if (!head.success || head.data.format !== patternFormat)
    throw new Error(`${file.name} is not a pattern: it has no "format": "${patternFormat}".`)
  if (head.data.formatVersion !== patternFormatVersion)
    throw new Error(
      `${file.name} is of version ${head.data.formatVersion} of the pattern format; this shop reads version ${patternFormatVersion}.`,
    )
  const read = patternFile.safeParse(found)
  if (!read.success) {
    const [issue] = read.error.issues
    const at = issue?.path.join('.') ?? ''
    throw new Error(
      `${file.name} has an error at ${at || 'its top'}: ${issue?.message ?? 'it is not as the format asks'}.`,
    )
  }
  return read.data
}

export interface Brought {
  readonly colourways: NonNullable<NewPattern['colourways']>
  /** Of each colourway, the choices that nothing on the shelf is like. */
  readonly missing: readonly { readonly colourway: string; readonly what: string }[]
}

/** Finds a file's colourways on the shelf: by code, or by maker, kind, size and colour. */
export function foundOnShelf(colourways: Read['colourways'], shelf: readonly Item[]): Brought {
  const missing: { colourway: string; what: string }[] = []
  const found = colourways.map(({ name, choices }) => ({
    name,
    choices: choices.flatMap(({ role, size, counting, item }) => {
      const like = (each: Item) =>
        each.maker === item.maker &&
        each.kind === item.kind &&
        each.size === item.size &&
        each.colourCode === item.colourCode
      const here = shelf.find((each) => each.code === item.code && each.kind === item.kind) ?? shelf.find(like)
      if (here) return [{ role, size, counting, itemId: here.id }]
      missing.push({
        colourway: name,
        what: `${role}: ${item.kind} ${item.size} ${item.colourName} (${item.colourCode}), ${item.maker}`,
      })
      return []
    }),
  }))
  return { colourways: found, missing }
}

/** A picture of a file as a file of its own, to be added to a pattern. @param at its place among them, from 0 */
export function pictureFile({ jpeg }: FilePicture, at: number): File {
  const bytes = Uint8Array.from(atob(jpeg), (letter) => letter.charCodeAt(0))
  return new File([bytes], `picture-${at + 1}.jpg`, { type: 'image/jpeg', lastModified: 0 })
}
