import type { Mm } from '../measure/units'

/** Nominal threads and needles, by the words a pattern uses for them. */
export interface ThreadKind {
  /** "braid", "nylon", "monofilament". */
  readonly kind: string
  /** "6 lb", "D", "0.20 mm". */
  readonly size: string
  readonly acrossMm: Mm
  readonly caution?: string
}

export const threadKinds: readonly ThreadKind[] = [
  { kind: 'braid', size: '4 lb', acrossMm: 0.12 },
  { kind: 'braid', size: '6 lb', acrossMm: 0.15 },
  { kind: 'braid', size: '8 lb', acrossMm: 0.18 },
  { kind: 'braid', size: '10 lb', acrossMm: 0.2 },
  { kind: 'nylon', size: 'fine', acrossMm: 0.15 },
  { kind: 'nylon', size: 'B', acrossMm: 0.2 },
  { kind: 'nylon', size: 'D', acrossMm: 0.3 },
  { kind: 'monofilament', size: '0.15 mm', acrossMm: 0.15 },
  { kind: 'monofilament', size: '0.2 mm', acrossMm: 0.2 },
  { kind: 'monofilament', size: '0.25 mm', acrossMm: 0.25 },
]

/** Needle size to its width, mm; the eye doubles the thread beside it. */
export const needles: Readonly<Record<number, Mm>> = { 10: 0.46, 11: 0.41, 12: 0.36, 13: 0.33, 15: 0.25 }
