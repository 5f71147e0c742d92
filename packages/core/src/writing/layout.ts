import type { Step, WrittenPattern } from './written-pattern'

/** What a written pattern is set as: for sale, for a seat in a class, on one card for the bench, in large type. */
export const sheets = ['sale', 'class', 'card', 'large'] as const
export type Sheet = (typeof sheets)[number]

/** Who a class sheet is for. */
export interface Seat {
  readonly name: string
  /** "petite, in Lantern"; what was chosen. */
  readonly chosen: string
}

/** What of a written pattern each sheet has. A class is taught one size in one colourway; a card is for who knows the piece. */
export const sheetHas: Readonly<
  Record<
    Sheet,
    {
      /** A cover, techniques, a page to tick off, and the shop's page. */
      readonly booklet: boolean
      readonly tables: boolean
      readonly care: boolean
      readonly drawings: boolean
      readonly sentences: boolean
    }
  >
> = {
  sale: { booklet: true, tables: true, care: true, drawings: true, sentences: true },
  class: { booklet: false, tables: false, care: true, drawings: true, sentences: true },
  card: { booklet: false, tables: false, care: false, drawings: false, sentences: false },
  large: { booklet: true, tables: true, care: true, drawings: true, sentences: true },
}

/** How many of the drawings of steps are shown: of every step, of every round, row or strip, or of each part as it is when it is done. */
export const densities = ['step', 'round', 'part'] as const
export type Density = (typeof densities)[number]

/** The lines whose drawings are shown. */
export function drawnLines(
  parts: WrittenPattern['parts'],
  drawn: (line: number) => boolean,
  density: Density,
): ReadonlySet<number> {
  return new Set(
    parts.flatMap(({ steps }) => {
      const lines = steps.filter(({ line }) => drawn(line))
      const shown =
        density === 'part' ? lines.slice(-1) : density === 'round' ? lines.filter(({ course }) => course) : lines
      return shown.map(({ line }) => line)
    }),
  )
}

/** A row of boxes to tick is at most so long; beyond, how often is told. */
export const maxTicks = 24

/** Steps that can be ticked off. */
export const ticked = (parts: WrittenPattern['parts']): Step[] =>
  parts.flatMap(({ steps }) => steps.filter(({ kind, added }) => kind === 'stitch' && added !== ''))

export const textSizes = ['small', 'usual', 'large'] as const

/** How a shop's written patterns look. */
export interface DocumentStyle {
  readonly textSize: (typeof textSizes)[number]
  /** "#22302b" */
  readonly headings: string
}

/** Times what a sheet is set in. */
export const textScale: Readonly<Record<DocumentStyle['textSize'], number>> = { small: 0.88, usual: 1, large: 1.15 }

export const usualDocumentStyle: DocumentStyle = { textSize: 'usual', headings: '#22302b' }
