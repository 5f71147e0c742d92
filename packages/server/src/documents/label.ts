export interface Label {
  readonly title: string
  readonly lines: readonly string[]
  /** The largest thing on it. */
  readonly figure: string
  /** To scan. */
  readonly code: string
}
