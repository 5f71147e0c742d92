/**
 * How often what plans are made from has been changed, as far as this server knows: by itself as it commits, by others as PostgreSQL tells it. Whatever
 * is worked out from it may be kept for as long as it stays the same.
 */
export interface Revision {
  /** Undefined while nobody tells what others do: nothing may be kept then. */
  readonly now: number | undefined
  /** The same of what the shop has settled, which is changed far more seldom. */
  readonly settings: number | undefined
  /** Something has been changed. */
  bump(): void
  bumpSettings(): void
  /** Whether changes by others are told. */
  listen(told: boolean): void
}

export function newRevision(): Revision {
  let number = 0
  let settings = 0
  let listening = false
  return {
    get now() {
      return listening ? number : undefined
    },
    get settings() {
      return listening ? settings : undefined
    },
    bump() {
      number++
    },
    bumpSettings() {
      settings++
    },
    listen(told) {
      // What was missed in between is not known.
      number++
      settings++
      listening = told
    },
  }
}
