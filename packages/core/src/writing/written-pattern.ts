/** The written pattern as structure: screens, pages and PDFs only set it. */

export interface MaterialRow {
  readonly roles: string
  /** "cylinder 11/0, Lantern green (BG-114), Brackwater Glass" */
  readonly name: string
  readonly colour: string | undefined
  /** "63" or "106 cm". */
  readonly exact: string
  /** What is in the kit: "75 pieces", "0.4 g (about 76)". */
  readonly inKit: string
}

export interface Step {
  readonly number: number
  readonly line: number
  readonly text: string
  /** "18 A"; empty where nothing is picked up. */
  readonly added: string
  /** "63 A, 9 B, 18 C"; empty where nothing is picked up, and within a repeat until its last step. */
  readonly running: string
  readonly kind: 'stitch' | 'check' | 'note'
}

export interface WrittenPattern {
  readonly title: string
  /** Edition, size, colourway and what it makes, each in a few words. */
  readonly facts: readonly string[]
  /** "version 3" or "draft". */
  readonly edition: string
  readonly draft: boolean
  readonly size: string
  readonly colourway: string
  readonly makes: string
  readonly materials: readonly MaterialRow[]
  readonly thread: readonly string[]
  readonly tools: readonly string[]
  readonly cautions: readonly string[]
  readonly marks: readonly string[]
  readonly parts: readonly { readonly name: string; readonly steps: readonly Step[] }[]
  readonly totals: string
}
