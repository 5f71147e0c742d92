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
    { readonly tables: boolean; readonly care: boolean; readonly drawings: boolean; readonly sentences: boolean }
  >
> = {
  sale: { tables: true, care: true, drawings: true, sentences: true },
  class: { tables: false, care: true, drawings: true, sentences: true },
  card: { tables: false, care: false, drawings: false, sentences: false },
  large: { tables: true, care: true, drawings: true, sentences: true },
}
